import { addMonths, type DayNumber, dayNumber, localDate } from './date.ts'
import { type Instant, instant } from './instant.ts'
import { FIRST_LANGUAGE, inForce, localeOf } from './language.ts'
import type { Zone } from './zone.ts'

/** An ISO 8601 duration, "PT24H" (exact) or "P1D" (nominal: the same wall time another day). */
export type Duration = string & { readonly __unit: 'duration' }

interface Amounts {
  months: number
  days: number
  ms: number
}

/** How a duration is written. */
export const DURATION_SHAPE =
  /^P(?!$)(?:(\d+)Y)?(?:(\d+)M)?(?:(\d+)W)?(?:(\d+)D)?(?:T(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/

/** Durations taken apart: a practice has few, and they are asked for again and again. */
const known = new Map<string, Amounts>()
const KEPT = 1_000

function parts(duration: Duration): Amounts {
  const before = known.get(duration)
  if (before) return before
  const match = DURATION_SHAPE.exec(duration)
  if (!match) throw new RangeError(`"${duration}" is not a duration; write it as PT24H or P1D`)
  const [y, mo, w, d, h, m, s] = match.slice(1).map((part) => Number(part ?? 0)) as number[]
  const found = { months: y! * 12 + mo!, days: w! * 7 + d!, ms: ((h! * 60 + m!) * 60 + s!) * 1000 }
  if (known.size >= KEPT) known.clear()
  known.set(duration, found)
  return found
}

/** Checks a text and marks it as a duration. @throws RangeError when it is none. */
export function duration(text: string): Duration {
  parts(text as Duration)
  return text as Duration
}

/** The units a duration can be said in. Hours and minutes are exact; days, weeks and months keep the wall time. */
export type DurationUnit = 'minutes' | 'hours' | 'days' | 'weeks' | 'months'

/** A duration in one unit, as people say it; nothing where it takes several. @returns the largest unit in which it is whole */
export function inOneUnit(of: Duration): { amount: number; unit: DurationUnit } | undefined {
  const { months, days, ms } = parts(of)
  if ((months > 0 && days + ms > 0) || (days > 0 && ms > 0)) return undefined
  if (months > 0) return { amount: months, unit: 'months' }
  if (days > 0) return days % 7 === 0 ? { amount: days / 7, unit: 'weeks' } : { amount: days, unit: 'days' }
  if (ms % 3_600_000 === 0) return { amount: ms / 3_600_000, unit: 'hours' }
  return ms % 60_000 === 0 ? { amount: ms / 60_000, unit: 'minutes' } : undefined
}

const IN_UNIT: Record<DurationUnit, (amount: number) => string> = {
  minutes: (amount) => `PT${amount}M`,
  hours: (amount) => `PT${amount}H`,
  days: (amount) => `P${amount}D`,
  weeks: (amount) => `P${amount}W`,
  months: (amount) => `P${amount}M`,
}

/** So many of a unit as a duration. @throws RangeError when the amount is no whole number */
export const durationOf = (amount: number, unit: DurationUnit): Duration => duration(IN_UNIT[unit](amount))

function move(at: Instant, by: Duration, where: Zone, sign: 1 | -1): Instant {
  const { months, days, ms } = parts(by)
  let moved = at
  if (months || days) {
    const wall = where.toWall(at)
    const from = months ? dayNumber(addMonths(localDate(wall.day), sign * months)) : wall.day
    const day = from + sign * days
    moved = where.toInstant(day as DayNumber, wall.ms / 60_000)
  }
  return instant(moved + sign * ms)
}

/**
 * The instant a duration after `at`. Years to days are nominal and keep the wall time in `where`; hours to
 * seconds are exact (RFC 5545 §3.3.6).
 */
export const after = (at: Instant, by: Duration, where: Zone): Instant => move(at, by, where, 1)

/** The instant a duration before `at`; see `after`. */
export const before = (at: Instant, by: Duration, where: Zone): Instant => move(at, by, where, -1)

/** "24 h", "3 days", "1 week", "1 day 12 h": a duration for people, largest unit first. */
export function durationWords(of: Duration): string {
  const { months, days, ms } = parts(of)
  const language = inForce()
  const many = (n: number, unit: 'month' | 'week' | 'day'): string => {
    if (n === 0) return ''
    if (language === FIRST_LANGUAGE) return `${n} ${unit}${n === 1 ? '' : 's'}`
    return new Intl.NumberFormat(localeOf(language), { style: 'unit', unit, unitDisplay: 'long' }).format(n)
  }
  const [hours, minutes] = [Math.floor(ms / 3_600_000), Math.round((ms % 3_600_000) / 60_000)]
  const weeks = days % 7 === 0 ? days / 7 : 0
  const said = [
    many(months, 'month'),
    many(weeks, 'week'),
    many(weeks > 0 ? 0 : days, 'day'),
    hours > 0 ? `${hours} h` : '',
    minutes > 0 ? `${minutes} min` : '',
  ].filter(Boolean)
  return said.join(' ') || '0 min'
}
