import { describe, expect, it } from 'vitest'
import { decimals } from './currency.ts'
import { money, roundMoney, shareOf, splitTax } from './index.ts'

describe('money', () => {
  // ISO 4217, list one: minor units.
  it.each([
    ['JPY', 0],
    ['EUR', 2],
    ['HUF', 2],
    ['KWD', 3],
  ])('%s has %i decimals', (code, expected) => {
    expect(decimals(code)).toBe(expected)
  })

  it('refuses what ISO 4217 does not list', () => {
    expect(() => decimals('XYZ')).toThrow('"XYZ" is not a currency of ISO 4217')
  })

  it('splits tax that is included (worked example of the reckoning)', () => {
    expect(splitTax(11_500, 2_300)).toEqual({ net: 9_350, tax: 2_150 })
  })

  it('rounds half away from zero', () => {
    expect([0.5, 1.5, -0.5, -1.5, 2.4].map(roundMoney)).toEqual([1, 2, -1, -2, 2])
    expect(Object.is(roundMoney(-0.2), 0)).toBe(true)
    expect(shareOf(1_001, 50)).toBe(501)
  })

  it('writes amounts with the decimals of the standard', () => {
    expect(money(11_400, { code: 'EUR', decimals: 2 })).toBe('€114.00')
    expect(money(11_400, { code: 'JPY', decimals: 0 })).toBe('¥11,400')
    expect(money(11_400, { code: 'HUF', decimals: 2 })).toContain('114.00')
  })
})
