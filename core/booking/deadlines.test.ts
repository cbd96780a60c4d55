import fc from 'fast-check'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { asked, fresh, lisbon, now, step } from '../tests/deciding.ts'
import { before, duration, formatInstant, HOUR, instant, MINUTE, shift, zone } from '../time/index.ts'
import { type Booking, costOf, deadlinesIn, freeUntil } from './index.ts'

const rules = {
  ...asked.houseRules,
  cancel: [
    { until: duration('PT24H'), share: 0 },
    { until: duration('PT4H'), share: 50 },
  ],
  cancelAfter: 100,
}
const { start } = fresh
/** Booked with the word given so many hours before the session. */
const worded = (hours: number, leastShare?: number): Booking => ({
  ...fresh,
  status: 'booked',
  asked: { ...asked, houseRules: rules },
  worded: shift(start, -hours * HOUR),
  ...(leastShare === undefined ? {} : { leastShare }),
})
const steps = (booking: Booking) =>
  deadlinesIn(booking, lisbon)
    .deadlines.filter(({ kind }) => kind === 'cancel')
    .map(({ until, share }) => [(start - until) / HOUR, share])

describe('what cancelling costs', () => {
  it('stays free for an hour after the word, however near the session, and never beyond its start', () => {
    expect(steps(worded(100))).toEqual([
      [24, 0],
      [4, 50],
    ])
    expect(steps(worded(10))).toEqual([
      [9, 0],
      [4, 50],
    ])
    expect(steps(worded(3))).toEqual([[2, 0]])
    expect(steps(worded(0.5))).toEqual([[0, 0]])
    expect(costOf(worded(10), lisbon, shift(start, -9 * HOUR))).toBe(0)
    expect(costOf(worded(10), lisbon, shift(start, -9 * HOUR + 1))).toBe(50)
    expect(costOf(worded(3), lisbon, shift(start, -2 * HOUR + 1))).toBe(100)
  })

  it('is not made free by that where it never was', () => {
    const dear = worded(10)
    const paid = { ...rules, cancel: [{ until: duration('PT24H'), share: 30 }] }
    expect(steps({ ...dear, asked: { ...asked, houseRules: paid } })).toEqual([[24, 30]])
    expect(costOf({ ...dear, asked: { ...asked, houseRules: paid } }, lisbon, dear.worded!)).toBe(100)
  })

  it('counts from when the word could not be taken back any more', () => {
    const booked = step(fresh, { do: 'welcome' }, now)
    expect(booked.worded).toBeGreaterThan(now)
    expect(booked.worded).toBeLessThan(shift(now, MINUTE))
  })

  it('never falls as time goes on, and is what the rules say, told plainly', () => {
    const some = fc.integer({ min: 0, max: 60 * 30 })
    fc.assert(
      fc.property(some, some, fc.constantFrom(0, 30, 80), (word, left, least) => {
        const booking = worded(word / 60, least)
        const at = shift(start, -left * MINUTE)
        const byRules =
          at <= before(start, rules.cancel[0]!.until, lisbon)
            ? 0
            : at <= before(start, rules.cancel[1]!.until, lisbon)
              ? 50
              : 100
        const fresh = at <= booking.worded! + HOUR && at <= start
        const share = Math.max(least, fresh ? 0 : byRules)
        expect(costOf(booking, lisbon, at)).toBe(share)
        expect(costOf(booking, lisbon, shift(at, MINUTE))).toBeGreaterThanOrEqual(share)
      }),
    )
  })
})

describe('deadlines of every day of ten years in five zones', () => {
  // The zones change at other hours, to other sides of the year, by half an hour, and not at all.
  const zones = [
    'Europe/Lisbon',
    'America/New_York',
    'Australia/Lord_Howe',
    'Pacific/Auckland',
    'Asia/Kolkata',
  ]
  /** The days keep to the wall's clock and are taken first, hours are exact (RFC 5545 §3.3.6). */
  const steps = [
    ['P1D', { days: 1 }, 0],
    ['PT24H', undefined, 24],
    ['P2DT3H', { days: 2 }, 3],
    ['P1W', { weeks: 1 }, 0],
    ['P1M', { months: 1 }, 0],
  ] as const
  const ruled = steps.map(([until, days, hours]) => ({
    until,
    rules: { ...rules, cancel: [{ until: duration(until), share: 0 }] },
    days,
    hours,
  }))
  // Within what clocks leave out, or say twice, in these zones.
  const times = [105, 135]

  /** Luxon takes either of two moments of one wall time; the first of them is the one RFC 5545 §3.3.5 means. */
  const firstOf = (found: DateTime): number =>
    [60, 30]
      .map((minutes) => found.minus({ minutes }))
      .find((earlier) => earlier.toFormat('HH:mm') === found.toFormat('HH:mm'))
      ?.toMillis() ?? found.toMillis()

  it.each(zones)(
    'agrees with luxon in %s',
    (name) => {
      const where = zone(name)
      const wrong: string[] = []
      for (let day = 0; day < 3_653; day++) {
        for (const minutes of times) {
          const begins = DateTime.fromObject({ year: 2024 }, { zone: name }).plus({ days: day, minutes })
          const at = instant(begins.toMillis())
          for (const one of ruled) {
            const until = freeUntil(one.rules, at, where)!
            const days = one.days ? firstOf(begins.minus(one.days)) : at
            if (until !== days - one.hours * HOUR)
              wrong.push(`${begins.toISO()} − ${one.until}: ${formatInstant(until)}`)
          }
        }
      }
      expect(wrong).toEqual([])
    },
    120_000,
  )
})
