import fc from 'fast-check'
import { DateTime, Info } from 'luxon'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  addMonths,
  after,
  before,
  DAY,
  type DayNumber,
  date,
  dateTimeAt,
  dayNumber,
  duration,
  formatInstant,
  HOUR,
  instant,
  instantOf,
  isZone,
  type LocalDateTime,
  lengthOf,
  localDate,
  MINUTE,
  minutesOf,
  moment,
  parseInstant,
  span,
  time,
  weekday,
  weekStart,
  zone,
} from './index.ts'

const utc = (zoneName: string, local: string): string =>
  formatInstant(instantOf(zone(zoneName), local as LocalDateTime))

describe('wall time and instants', () => {
  // RFC 5545 §3.3.5: a time that does not exist is read with the offset before the gap, one that exists twice
  // is the first.
  it.each([
    ['Europe/Lisbon', '2027-03-28T01:30', '2027-03-28T01:30:00Z'],
    ['Europe/Lisbon', '2026-10-25T01:30', '2026-10-25T00:30:00Z'],
    ['Australia/Lord_Howe', '2026-10-04T02:15', '2026-10-03T15:45:00Z'],
    ['Australia/Lord_Howe', '2027-04-04T01:45', '2027-04-03T14:45:00Z'],
    // The RFC's own examples: both are 1 h 30 after midnight of the change in New York.
    ['America/New_York', '2007-11-04T01:30', '2007-11-04T05:30:00Z'],
    ['America/New_York', '2007-03-11T02:30', '2007-03-11T07:30:00Z'],
  ])('%s %s is %s', (name, local, expected) => {
    expect(utc(name, local)).toBe(expected)
  })

  it('agrees with luxon on the wall time of instants in every zone', () => {
    const names = Intl.supportedValuesOf('timeZone')
    fc.assert(
      fc.property(
        fc.constantFrom(...names),
        fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2032, 0, 1) }),
        (name, ms) => {
          const theirs = DateTime.fromMillis(ms, { zone: name })
          expect(dateTimeAt(zone(name), instant(ms))).toBe(theirs.toFormat("yyyy-MM-dd'T'HH:mm"))
        },
      ),
      { numRuns: 3_000 },
    )
  }, 60_000)

  it('agrees with luxon on every zone of the tz database over ten years, and to the millisecond at each change', () => {
    const step = 14 * DAY
    const changes = { found: 0 }
    for (const name of Intl.supportedValuesOf('timeZone')) {
      if (!Info.isValidIANAZone(name)) continue
      const here = zone(name)
      const theirs = (at: number): number => DateTime.fromMillis(at, { zone: name }).offset * MINUTE
      for (let day = Date.UTC(2020, 0, 1); day < Date.UTC(2030, 0, 1); day += step) {
        const ours = here.offsetAt(instant(day))
        if (ours !== theirs(day)) expect(`${name} ${day} ${ours}`).toBe(`${name} ${day} ${theirs(day)}`)
        if (ours === here.offsetAt(instant(day + step))) continue
        let low = day
        let high = day + step
        while (high - low > 1) {
          const middle = Math.floor((low + high) / 2)
          if (here.offsetAt(instant(middle)) === ours) low = middle
          else high = middle
        }
        changes.found++
        expect([theirs(low), theirs(high)], `${name} ${high}`).toEqual([ours, here.offsetAt(instant(high))])
      }
    }
    expect(changes.found).toBeGreaterThan(2_000)
  }, 120_000)

  it('comes back to the same wall time, but in a gap', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'Europe/Lisbon',
          'America/Sao_Paulo',
          'Australia/Lord_Howe',
          'Asia/Kathmandu',
          'Africa/Casablanca',
        ),
        fc.integer({ min: 18_000, max: 22_000 }),
        fc.integer({ min: 0, max: 1439 }),
        (name, day, minutes) => {
          const here = zone(name)
          const wall = here.toWall(here.toInstant(day as DayNumber, minutes))
          const off = Math.abs((wall.day - day) * 1440 + wall.ms / MINUTE - minutes)
          expect([0, 30, 60]).toContain(off)
        },
      ),
    )
  })

  it('refuses zones that do not exist', () => {
    expect(isZone('Europe/Lisbon')).toBe(true)
    expect(() => zone('Europe/Atlantis')).toThrow(
      '"Europe/Atlantis" is not a time zone; write it as Europe/Lisbon',
    )
  })
})

describe('durations', () => {
  const lisbon = zone('Europe/Lisbon')
  const session = instantOf(lisbon, '2027-03-28T10:00' as LocalDateTime)

  // RFC 5545 §3.3.6: hours are exact, days nominal.
  it('counts hours exactly and days by the wall', () => {
    expect(dateTimeAt(lisbon, before(session, duration('PT24H'), lisbon))).toBe('2027-03-27T09:00')
    expect(dateTimeAt(lisbon, before(session, duration('P1D'), lisbon))).toBe('2027-03-27T10:00')
  })

  it('adds weeks, months and mixtures', () => {
    const from = parseInstant('2027-01-31T12:00Z')
    expect(formatInstant(after(from, duration('P1M'), zone('UTC')))).toBe('2027-02-28T12:00:00Z')
    expect(formatInstant(after(from, duration('P1W1DT1H30M'), zone('UTC')))).toBe('2027-02-08T13:30:00Z')
  })

  it.each(['', 'P', 'PT', '24H', 'P1H', 'P-1D', 'PT1D'])('refuses "%s"', (text) => {
    expect(() => duration(text)).toThrow('is not a duration')
  })
})

describe('dates', () => {
  it('numbers days from 1970 and knows weekdays', () => {
    expect(dayNumber(date('1970-01-01'))).toBe(0)
    expect(weekday(dayNumber(date('1970-01-01')))).toBe(4)
    expect(weekday(dayNumber(date('2026-11-24')))).toBe(2)
    expect(weekday(-1 as DayNumber)).toBe(3)
  })

  it('agrees with luxon on calendar arithmetic', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20_000, max: 40_000 }), fc.integer({ min: -40, max: 40 }), (day, by) => {
        const from = localDate(day as DayNumber)
        const theirs = DateTime.fromISO(from, { zone: 'UTC' })
        expect(addDays(from, by)).toBe(theirs.plus({ days: by }).toISODate())
        expect(addMonths(from, by)).toBe(theirs.plus({ months: by }).toISODate())
        expect(weekday(dayNumber(from))).toBe(theirs.weekday)
        expect(weekday(weekStart(dayNumber(from), 7))).toBe(7)
      }),
    )
  })

  it.each(['2026-02-30', '2026-2-3', '24.11.2026', ''])('refuses the date "%s"', (text) => {
    expect(() => date(text)).toThrow('is not a date')
  })

  it('reads times of day up to 24:00', () => {
    expect(minutesOf(time('24:00'))).toBe(1440)
    for (const text of ['24:01', '9:30', '12:60', 'noon'])
      expect(() => time(text)).toThrow('is not a time of day')
  })

  it('reads instants only with their offset', () => {
    expect(parseInstant('2026-11-24T12:00+01:00')).toBe(parseInstant('2026-11-24T11:00Z'))
    expect(() => parseInstant('2026-11-24T11:00')).toThrow('is not an instant')
  })
})

describe('words', () => {
  const lisbon = zone('Europe/Lisbon')
  const start = instantOf(lisbon, '2026-11-25T23:30' as LocalDateTime)

  it('writes moments and spans', () => {
    expect(moment(start, lisbon)).toBe('Wed 25 Nov, 23:30')
    expect(span(start, instant(start + 30 * MINUTE), lisbon)).toBe('23:30 – 00:00')
    expect(span(start, instant(start + HOUR), lisbon)).toBe('23:30 – Thu 26 Nov, 00:30')
  })

  it('writes lengths in two units', () => {
    expect([0, 50 * MINUTE, 75 * MINUTE, 2 * HOUR, 27 * HOUR, 48 * HOUR].map(lengthOf)).toEqual([
      '0 min',
      '50 min',
      '1 h 15',
      '2 h',
      '1 d 3 h',
      '2 d',
    ])
  })
})
