import fc from 'fast-check'
import { busyTimes } from '../formats/busy.ts'
import { type Instant, zone as tzZone } from '../time/index.ts'
import { momentsOf } from '../time/rule.ts'
import { BadRule, readRule, type WallSeconds } from '../time/rule-text.ts'

/** A rule, with its start on the wall and the span that is asked about: "20260101T090000". */
export interface RuleCase {
  rule: string
  start: string
  from: string
  to: string
}

const list = (least: number, most: number, none = Number.NaN, length = 3) =>
  fc.uniqueArray(
    fc.integer({ min: least, max: most }).filter((n) => n !== none),
    { minLength: 1, maxLength: length },
  )
const weekday = fc.constantFrom('MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU')
const days = fc.uniqueArray(weekday, { minLength: 1, maxLength: 3 })
const nthDays = (most: number) =>
  fc.uniqueArray(
    // Of numbered days beside plain ones dateutil makes those that are both; the standard those that are either.
    fc
      .tuple(
        fc.integer({ min: -most, max: most }).filter((nth) => nth !== 0),
        weekday,
      )
      .map(([nth, day]) => `${nth}${day}`),
    { minLength: 1, maxLength: 3 },
  )

const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY', 'HOURLY', 'MINUTELY'] as const

/** Random rules of every frequency with every part that the standard allows with it. */
const ruleArb: fc.Arbitrary<string> = fc
  .constantFrom(...FREQUENCIES)
  .chain((freq) => {
    const within = freq === 'HOURLY' || freq === 'MINUTELY'
    const maybe = <T>(arb: fc.Arbitrary<T>, freq = 2) => fc.option(arb, { nil: undefined, freq })
    const never = fc.constant(undefined)
    return fc.record({
      FREQ: fc.constant(freq),
      INTERVAL: maybe(fc.integer({ min: 1, max: within ? 50 : 6 })),
      // Readers begin the first week of such a rule differently: it is not counted, and asked about later on.
      COUNT: maybe(fc.integer({ min: 1, max: 60 }), 3),
      WKST: maybe(weekday),
      BYMONTH: maybe(list(1, 12)),
      BYWEEKNO: freq === 'YEARLY' ? maybe(list(-53, 53, 0), 4) : never,
      BYYEARDAY: freq === 'YEARLY' || within ? maybe(list(-366, 366, 0), 4) : never,
      BYMONTHDAY: freq === 'WEEKLY' ? never : maybe(list(-31, 31, 0)),
      BYDAY: maybe(fc.oneof(days, freq === 'MONTHLY' ? nthDays(5) : freq === 'YEARLY' ? nthDays(20) : days)),
      BYHOUR: maybe(list(0, 23), 4),
      BYMINUTE: maybe(list(0, 59), 4),
      BYSETPOS: maybe(list(-6, 6, 0, 2), 3),
    })
  })
  .map((parts) =>
    Object.entries(parts)
      .filter(([, value]) => value !== undefined)
      .map(([name, value]) => `${name}=${Array.isArray(value) ? value.join() : value}`)
      .join(';'),
  )
  .map((text) => {
    // Whose day a week's number means where none is named is each reader's own affair.
    const named = /BYWEEKNO/.test(text) && !/BYDAY/.test(text) ? `${text};BYDAY=TU` : text
    // In which year a week counts that lies in two is so, too: it matters where years or their days are chosen.
    if (/BYWEEKNO/.test(named)) return named.replace(/;(INTERVAL|BYSETPOS)=[^;]+/g, '')
    // And so is the first week of a rule that chooses among its days.
    return /WEEKLY.*BYSETPOS/.test(named) ? named.replace(/;COUNT=\d+/, '') : named
  })
  .filter(isRule)

function isRule(text: string): boolean {
  try {
    readRule(text)
    return true
  } catch (error) {
    if (error instanceof BadRule) return false
    throw error
  }
}

const stamp = (at: Date): string => `${at.toISOString().slice(0, 19).replaceAll(/[-:]/g, '')}`

/** The moment of a stamp, as wall seconds. */
export const secondsOf = (text: string): WallSeconds => {
  const [, y, m, d, hour, minute, second] = /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)$/.exec(text)!.map(Number)
  return (Date.UTC(y!, m! - 1, d!, hour!, minute!, second!) / 1_000) as WallSeconds
}
export const stampOf = (seconds: number): string => stamp(new Date(seconds * 1_000))

/** What our own reading says begins in the span of a case: the first twelve, or why it is not understood. */
export function ownStarts({ rule: text, start, from, to }: RuleCase): string[] | string {
  const found: string[] = []
  try {
    for (const at of momentsOf(readRule(text), secondsOf(start), secondsOf(from), secondsOf(to))) {
      found.push(stampOf(at))
      if (found.length >= 12) break
    }
    return found
  } catch (error) {
    if (error instanceof BadRule) return error.message
    throw error
  }
}

/** Cases to begin with: rules that come true at some time; where they start need not be a day that the rule names. */
export const ruleCases = (count: number): RuleCase[] =>
  fc.sample(
    fc
      .tuple(ruleArb, fc.integer({ min: 0, max: 9_000 }), fc.integer({ min: 14, max: 1_000 }))
      .map(([rule, begin, later]) => {
        const start = new Date(Date.UTC(2000, 0, 1, 9, 30) + begin * 86_400_000)
        const long = /YEARLY/.test(rule) ? 3_000 : 400
        const from = new Date(start.getTime() + later * 86_400_000)
        const to = new Date(from.getTime() + long * 86_400_000)
        return { rule, start: stamp(start), from: stamp(from), to: stamp(to) }
      })
      .filter(({ rule, start }) => {
        const all = {
          rule: rule.replace(/;COUNT=\d+/, ''),
          start,
          from: start,
          to: stampOf(secondsOf(start) + 9 * 366 * 86_400),
        }
        return ownStarts(all).length > 1
      }),
    { numRuns: count, seed: 5545 },
  )

/** A calendar with the span that is asked about, in UTC. */
export interface CalendarCase {
  calendar: string
  from: string
  to: string
}

const ZONES = ['America/New_York', 'Europe/Lisbon', 'Asia/Tokyo', 'Australia/Sydney'] as const

/** Random events that repeat by day or week across changes of clocks, with times left out, moved and added. */
export const calendarCases = (count: number): CalendarCase[] =>
  fc
    .sample(
      fc.record({
        zone: fc.constantFrom(...ZONES),
        day: fc.integer({ min: 0, max: 300 }),
        hour: fc.integer({ min: 5, max: 22 }),
        weekly: fc.boolean(),
        interval: fc.integer({ min: 1, max: 3 }),
        length: fc.constantFrom('PT45M', 'PT2H', 'PT24H', 'PT26H'),
        end: fc.constantFrom('', ';COUNT=9', ';UNTIL'),
        out: fc.uniqueArray(fc.integer({ min: 0, max: 8 }), { maxLength: 2 }),
        moved: fc.option(fc.tuple(fc.integer({ min: 0, max: 8 }), fc.integer({ min: -50, max: 50 })), {
          nil: undefined,
        }),
      }),
      { numRuns: count, seed: 7265 },
    )
    .map(({ zone, day, hour, weekly, interval, length, end, out, moved }) => {
      const begin = Date.UTC(2026, 0, 1, hour, 15) + day * 86_400_000
      const wall = (n: number): string =>
        stamp(new Date(begin + n * interval * (weekly ? 7 : 1) * 86_400_000))
      const until = end === ';UNTIL' ? `;UNTIL=${stamp(new Date(begin + 40 * 86_400_000))}Z` : end
      const lines = [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'PRODID:-//test//EN',
        'BEGIN:VEVENT',
        'UID:e',
        `DTSTART;TZID=${zone}:${wall(0)}`,
        `DURATION:${length}`,
        `RRULE:FREQ=${weekly ? 'WEEKLY' : 'DAILY'};INTERVAL=${interval}${until}`,
        ...out.map((n) => `EXDATE;TZID=${zone}:${wall(n)}`),
        'END:VEVENT',
      ]
      if (moved) {
        const to = stamp(
          new Date(begin + (moved[0] * interval * (weekly ? 7 : 1) * 24 + moved[1]) * 3_600_000),
        )
        lines.push(
          'BEGIN:VEVENT',
          'UID:e',
          `RECURRENCE-ID;TZID=${zone}:${wall(moved[0])}`,
          `DTSTART;TZID=${zone}:${to}`,
          'DURATION:PT1H',
          'END:VEVENT',
        )
      }
      lines.push('END:VCALENDAR', '')
      return {
        calendar: lines.join('\r\n'),
        from: `${stamp(new Date(begin + 3 * 86_400_000))}Z`,
        to: `${stamp(new Date(begin + 60 * 86_400_000))}Z`,
      }
    })

/** What our own reading says is busy in the span of a case. */
export function ownBusy({ calendar, from, to }: CalendarCase): string[] {
  const at = (text: string): Instant => (secondsOf(text.slice(0, -1)) * 1_000) as Instant
  // The others give whole events, also those that began before the span or end after it.
  const far = 40 * 86_400_000
  const wide = busyTimes(calendar, (at(from) - far) as Instant, (at(to) + far) as Instant, tzZone('UTC'))
  return wide.entries
    .filter((entry) => entry.end > at(from) && entry.start < at(to))
    .map(({ start, end }) => `${stampOf(start / 1_000)}Z/${stampOf(end / 1_000)}Z`)
    .sort()
}
