import fc from 'fast-check'
import { BadRule, momentsOf, readRule, type WallSeconds } from '../time/rule.ts'

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
    fc.tuple(fc.integer({ min: -most, max: most }), weekday).map(([nth, day]) => `${nth || ''}${day}`),
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
      BYDAY: maybe(freq === 'MONTHLY' ? nthDays(5) : freq === 'YEARLY' ? nthDays(20) : days),
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
