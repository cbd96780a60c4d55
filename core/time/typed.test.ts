import fc from 'fast-check'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { clockTyped, date, dateTyped, dateWords, localDate, minutesOf } from './index.ts'

const TODAY = date('2026-11-24')
const typed = (text: string): string => dateTyped(text, TODAY)

describe('a date as it is typed', () => {
  it.each([
    ['24 December', '2026-12-24'],
    ['24 dec 2027', '2027-12-24'],
    ['24th of', undefined],
    ['24th Dec.', '2026-12-24'],
    ['Dec 24', '2026-12-24'],
    ['December 24, 2026', '2026-12-24'],
    ['24/12', '2026-12-24'],
    ['24.12.26', '2026-12-24'],
    ['24-12-2026', '2026-12-24'],
    ['1.2', '2027-02-01'],
    ['24/11', '2026-11-24'],
    ['23/11', '2027-11-23'],
    ['29 Feb', '2028-02-29'],
    ['2026-12-24', '2026-12-24'],
    ['today', '2026-11-24'],
    ['Tomorrow', '2026-11-25'],
    ['Tue', '2026-12-01'],
    ['next wednesday', '2026-11-25'],
    ['Thu 24 Dec 2026', '2026-12-24'],
    ['Thursday, 24 December 2026', '2026-12-24'],
    ['30 Feb 2027', undefined],
    ['13/13', undefined],
    ['ju 3', undefined],
    ['jun', undefined],
    ['', undefined],
    ['7', undefined],
    ['24 December 2026 and more of it than a date ever has', undefined],
  ])('%s', (text, expected) => {
    if (expected === undefined) expect(() => typed(text)).toThrow(/is not a date; write it as/)
    else expect(typed(text)).toBe(expected)
  })

  it('is read as it is written here, and as luxon writes it for Great Britain', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 40_000 }), (day) => {
        const on = localDate(day as never)
        const there = DateTime.fromISO(on, { zone: 'utc' }).setLocale('en-GB')
        expect(typed(dateWords(on))).toBe(on)
        for (const format of [DateTime.DATE_SHORT, DateTime.DATE_MED, DateTime.DATE_HUGE])
          expect(typed(there.toLocaleString(format))).toBe(on)
      }),
    )
  })
})

describe('a time of day as it is typed', () => {
  it.each([
    ['9', 540],
    ['14:30', 870],
    ['14:30:00', 870],
    ['14h', 840],
    ['2:30 pm', 870],
    ['12:00 a.m.', 0],
    ['12 PM', 720],
    ['24:00', 1_440],
  ])('reads the time %s', (typed, minutes) => {
    expect(minutesOf(clockTyped(typed))).toBe(minutes)
  })

  it.each(['24:01', '9:60', '13 pm', 'noon', ''])('refuses the time “%s”', (typed) => {
    expect(() => clockTyped(typed)).toThrow(/is not a time of day/)
  })
})
