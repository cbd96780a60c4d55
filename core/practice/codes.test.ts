import { describe, expect, it } from 'vitest'
import { newcomer, plainly, readAnswers } from '../questions/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import type { LocalDate } from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
import { checkPractice, findCode, type PriceCode } from './index.ts'

const day = (text: string) => text as LocalDate
const half: PriceCode = { id: 'h', code: 'Half Off', off: { kind: 'share', percent: 50 } }
const use = (more = {}) => ({ service: 's', today: day('2026-11-25'), used: () => 0, ...more })
const find = (codes: PriceCode[], typed: string, more = {}) => {
  const found = findCode(samplePractice({ codes }), typed, use(more))
  return 'off' in found ? found.id : refusalWords(found.code, found.data)
}

describe('price codes', () => {
  it('are found however they are typed', () => {
    expect([' half off', 'HALFOFF', 'half  OFF '].map((typed) => find([half], typed))).toEqual([
      'h',
      'h',
      'h',
    ])
    expect(find([half], 'other')).toBe('I don’t know this code. Please look once more how it is written.')
  })

  it('are unknown to whoever types them while they are not in use, whatever else has the same words', () => {
    expect(find([{ ...half, idle: true }], 'halfoff')).toBe(
      'I don’t know this code. Please look once more how it is written.',
    )
    expect(
      find(
        [
          { ...half, idle: true },
          { ...half, id: 'other' },
        ],
        'halfoff',
      ),
    ).toBe('other')
    const codes = [
      { ...half, idle: true },
      { ...half, id: 'other' },
    ]
    expect(checkPractice(samplePractice({ codes })).filter(({ path }) => path.startsWith('codes'))).toEqual(
      [],
    )
  })

  it('count from the first day through the last, for what and whom they are, as often as they may', () => {
    const dated = { ...half, from: day('2026-11-25'), to: day('2026-11-25') }
    expect(find([dated], 'halfoff')).toBe('h')
    expect(find([dated], 'halfoff', { today: day('2026-11-24') })).toBe(
      'This code can be used from 25 November 2026 on.',
    )
    expect(find([dated], 'halfoff', { today: day('2026-11-26') })).toBe(
      'This code was good until 25 November 2026.',
    )
    expect(find([{ ...half, services: ['t'] }], 'halfoff')).toBe(
      'This code is for something else that I offer.',
    )
    expect(find([{ ...half, uses: 2 }], 'halfoff', { used: () => 1 })).toBe('h')
    expect(find([{ ...half, uses: 2 }], 'halfoff', { used: () => 2 })).toBe(
      'This code has been used as often as it can be.',
    )
    const own = { ...half, people: ['p'] }
    expect(find([own], 'halfoff', { person: 'p' })).toBe('h')
    expect(find([own], 'halfoff', { person: 'o' })).toMatch('is for one person')
    expect(find([own], 'halfoff')).toMatch('come by the link in a mail')
  })

  it('may lower a price below its least, down to nothing and no further', () => {
    const service = sampleService({ price: { kind: 'fixed', amount: 5_001, least: 4_000 } })
    const price = (code: PriceCode) =>
      readAnswers(service, undefined, {}, newcomer, { ...plainly, code }).quote
    // A share rounds half away from zero: half of 50.01 is 25.01.
    expect(price(half)).toMatchObject({
      price: 2_500,
      lines: [{}, { name: 'Code Half Off', amount: -2_501 }],
    })
    expect(price({ ...half, off: { kind: 'amount', amount: 9_999 } }).price).toBe(0)
    expect(price({ ...half, off: { kind: 'share', percent: 100 } }).price).toBe(0)
    expect(Object.is(price({ ...half, off: { kind: 'share', percent: 0 } }).lines[1]!.amount, 0)).toBe(true)
  })

  it('are told beside their place when they overlap, end before they begin, or have ended', () => {
    const faults = (codes: PriceCode[]) =>
      checkPractice(samplePractice({ codes }), day('2026-11-25')).map(
        (fault) => `${fault.path} ${fault.grade}`,
      )
    const other = { ...half, id: 'i', code: 'HALFOFF' }
    expect(faults([half, other])).toEqual(['codes[1].code error'])
    expect(
      faults([
        { ...half, to: day('2026-12-01') },
        { ...other, from: day('2026-12-02') },
      ]),
    ).toEqual([])
    expect(
      faults([
        { ...half, services: ['s'] },
        { ...other, services: ['t'] },
      ]),
    ).toEqual([])
    expect(faults([{ ...half, from: day('2026-12-02'), to: day('2026-12-01') }])).toEqual([
      'codes[0].to error',
    ])
    expect(faults([{ ...half, to: day('2026-11-24') }])).toEqual(['codes[0].to warning'])
  })
})
