import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { build, caseArb } from '../tests/random.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  date,
  dateTimeAt,
  instant,
  instantOf,
  type LocalDateTime,
  MINUTE,
  parseInstant,
  zone,
} from '../time/index.ts'
import { makeDiary, newClient, openStarts, wellChosen } from './index.ts'

describe('a few well-chosen openings', () => {
  const lisbon = zone('Europe/Lisbon')
  const practice = samplePractice()
  const service = sampleService({ minutes: 45, clearBefore: 0, clearAfter: 0 })
  const ask = {
    service,
    place: 'video',
    minutes: 45,
    asker: newClient,
    now: parseInstant('2026-11-24T11:00Z'),
  }
  const start = instantOf(lisbon, '2026-11-26T10:00' as LocalDateTime)
  const diary = makeDiary(practice, [
    { id: 'a', kind: 'session', start, end: instant(start + 45 * MINUTE), clearBefore: 0, clearAfter: 0 },
  ])
  const chosen = (most: number) =>
    wellChosen(practice, diary, ask, date('2026-11-26'), 5, most).map((at) => dateTimeAt(lisbon, at))

  it('spread over days and parts of day before they thicken', () => {
    expect(chosen(3).map((local) => local.slice(5, 13))).toEqual(['11-26T09', '11-27T12', '11-30T17'])
    expect(new Set(chosen(6).map((local) => local.slice(0, 10))).size).toBe(3)
  })

  it('begin with those that leave no scraps beside a session', () => {
    // 9:15 and 10:45 touch the session; 9:00 would leave a quarter of an hour.
    expect(chosen(1)).toEqual(['2026-11-26T09:15'])
  })

  it('are openings, at most so many, always the same, and all of them when there are few', () => {
    fc.assert(
      fc.property(caseArb, fc.integer({ min: 1, max: 12 }), (c, most) => {
        const { practice, entries, from, days, ask } = build(c)
        const diary = makeDiary(practice, entries)
        const all = openStarts(practice, diary, ask, from, days)
        const some = wellChosen(practice, diary, ask, from, days, most)
        expect(some).toHaveLength(Math.min(most, all.length))
        expect(some.every((at) => all.includes(at))).toBe(true)
        expect(
          wellChosen(practice, makeDiary(practice, [...entries].reverse()), ask, from, days, most),
        ).toEqual(some)
      }),
      { numRuns: 150 },
    )
  })
})
