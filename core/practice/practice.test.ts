import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleService } from '../tests/sample.ts'
import { date } from '../time/index.ts'
import { offeredOn, travelled, travelZoneAt, travelZoneOf } from './index.ts'

const near = { id: 'near', name: 'In Coimbra', surcharge: 0, clear: 0, postalCodes: ['3000', '30'] }
const round = { id: 'round', name: 'Around it', surcharge: 1_500, clear: 30, postalCodes: ['30-50', '31'] }

describe('a travel zone', () => {
  it('is found by the longest beginning of the postal code, however it is written', () => {
    const found = (code: string) => travelZoneAt([near, round], code)?.id
    expect(found('3000-213')).toBe('near')
    expect(found(' 30 50 100')).toBe('round')
    expect(found('3090-001')).toBe('near')
    expect(found('3100')).toBe('round')
    expect(found('1000-001')).toBeUndefined()
    expect(found('')).toBeUndefined()
    expect(travelZoneAt([{ ...near, postalCodes: ['ec1a'] }], 'EC1A 1BB')?.id).toBe('near')
  })

  it('never depends on the order of zones whose beginnings differ', () => {
    const beginnings = fc.uniqueArray(fc.stringMatching(/^[0-9]{1,4}$/), { minLength: 2, maxLength: 8 })
    fc.assert(
      fc.property(beginnings, fc.stringMatching(/^[0-9]{5}$/), (codes, code) => {
        const zones = codes.map((one) => ({ id: one, postalCodes: [one] }))
        const plain = codes.filter((one) => code.startsWith(one)).sort((a, b) => b.length - a.length)[0]
        expect(travelZoneAt(zones, code)?.id).toBe(plain)
        expect(travelZoneAt([...zones].reverse(), code)?.id).toBe(plain)
      }),
    )
  })

  it('keeps the way there and back clear, on top of the service’s own', () => {
    const service = travelled(sampleService({ clearBefore: 15, clearAfter: 5 }), round)
    expect([service.clearBefore, service.clearAfter]).toEqual([45, 35])
    const plain = sampleService()
    expect(travelled(plain, near)).toBe(plain)
    expect(travelled(plain, undefined)).toBe(plain)
    const place = {
      id: 'there',
      kind: 'client',
      name: 'at yours',
      told: 'door',
      travel: [near, round],
    } as const
    expect(travelZoneOf({ ...place, travel: [near, round] }, 'round')).toBe(round)
    expect(travelZoneOf({ ...place, travel: [near] }, 'round')).toBeUndefined()
  })
})

describe('a season', () => {
  const on = (season: object, today: string, isOn = true) =>
    offeredOn(sampleService({ on: isOn, season: season as never }), date(today))

  it('puts a service on the door from a date to a date, both included', () => {
    const summer = { on: true, from: '2027-06-01', to: '2027-08-31' }
    expect(on(summer, '2027-05-31')).toBe(false)
    expect(on(summer, '2027-06-01')).toBe(true)
    expect(on(summer, '2027-08-31')).toBe(true)
    expect(on(summer, '2027-09-01')).toBe(false)
    expect(on(summer, '2027-07-01', false)).toBe(false)
  })

  it('takes it off from a date to a date, and may be open at either end', () => {
    const pause = { on: false, from: '2027-06-01', to: '2027-06-30' }
    expect(on(pause, '2027-05-31')).toBe(true)
    expect(on(pause, '2027-06-30')).toBe(false)
    expect(on({ on: true, from: '2027-06-01' }, '2030-01-01')).toBe(true)
    expect(on({ on: false, to: '2027-06-01' }, '2027-06-01')).toBe(false)
    expect(offeredOn(sampleService({ on: true }), date('2027-01-01'))).toBe(true)
  })
})
