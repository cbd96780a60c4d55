/** A calendar date without a place, "2026-11-24". */
export type LocalDate = string & { readonly __unit: 'local date' }
/** A time on the wall, "09:30"; "24:00" ends a day. */
export type WallTime = string & { readonly __unit: 'wall time' }
/** A date and a wall time together, "2026-11-24T09:30". */
export type LocalDateTime = string & { readonly __unit: 'local date-time' }
/** Days since 1970-01-01 in the proleptic Gregorian calendar. */
export type DayNumber = number & { readonly __unit: 'day number' }
/** Monday is 1, Sunday is 7 (ISO 8601). */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7

const pad = (n: number, width = 2): string => String(n).padStart(width, '0')

/**
 * Days since 1970-01-01 of a date.
 * @throws RangeError when there is no such date, as for "2026-02-30".
 */
export function dayNumber(date: LocalDate): DayNumber {
  const match = /^(\d{4})-(\d\d)-(\d\d)$/.exec(date)
  const day = match ? Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3])) / 86_400_000 : NaN
  if (!match || Number.isNaN(day) || localDate(day as DayNumber) !== date) {
    throw new RangeError(`"${date}" is not a date; write it as 2026-11-24`)
  }
  return day as DayNumber
}

/** The date of a day number. */
export const localDate = (day: DayNumber): LocalDate =>
  new Date(day * 86_400_000).toISOString().slice(0, 10) as LocalDate

/** Checks a text and marks it as a date. @throws RangeError when there is no such date. */
export function date(text: string): LocalDate {
  dayNumber(text as LocalDate)
  return text as LocalDate
}

/** The weekday of a day number: 1970-01-01 was a Thursday. */
export const weekday = (day: DayNumber): Weekday => (((((day + 3) % 7) + 7) % 7) + 1) as Weekday

/** `from` moved by a number of days. */
export const addDays = (from: LocalDate, days: number): LocalDate =>
  localDate((dayNumber(from) + days) as DayNumber)

/** `from` moved by calendar months; the day is cut to the month's length, as RFC 5545 would skip it. */
export function addMonths(from: LocalDate, months: number): LocalDate {
  const [y, m, d] = from.split('-').map(Number) as [number, number, number]
  const index = y * 12 + (m - 1) + months
  const year = Math.floor(index / 12)
  const month = index - year * 12
  const last = new Date(Date.UTC(year, month + 1, 0)).getUTCDate()
  return `${pad(year, 4)}-${pad(month + 1)}-${pad(Math.min(d, last))}` as LocalDate
}

/** Wall times that were asked for: there are 1,441 at the most. */
const asked = new Map<string, number>()

/** Minutes after midnight of a wall time. @throws RangeError when it is none. */
export function minutesOf(time: WallTime): number {
  const before = asked.get(time)
  if (before !== undefined) return before
  const match = /^([01]\d|2[0-4]):([0-5]\d)$/.exec(time)
  const minutes = match ? Number(match[1]) * 60 + Number(match[2]) : NaN
  if (!(minutes <= 1440)) throw new RangeError(`"${time}" is not a time of day; write it as 09:30`)
  asked.set(time, minutes)
  return minutes
}

/** The wall time a number of minutes after midnight (0 to 1440). */
export const wallTime = (minutes: number): WallTime =>
  `${pad(Math.floor(minutes / 60))}:${pad(minutes % 60)}` as WallTime

/** Checks a text and marks it as a wall time. @throws RangeError when it is none. */
export function time(text: string): WallTime {
  minutesOf(text as WallTime)
  return text as WallTime
}

/** A date and a wall time as one value. */
export const at = (on: LocalDate, clock: WallTime): LocalDateTime => `${on}T${clock}` as LocalDateTime

/** Checks a text and marks it as a local date-time. @throws RangeError when it is none. */
export function dateTime(text: string): LocalDateTime {
  splitDateTime(text as LocalDateTime)
  return text as LocalDateTime
}

/** The numbers of a date and time as written. */
export function dateParts(value: LocalDateTime): {
  year: number
  month: number
  day: number
  hour: number
  minute: number
} {
  const [year = 0, month = 1, day = 1, hour = 0, minute = 0] = value.split(/[-T:]/).map(Number)
  return { year, month, day, hour, minute }
}

/** The date and the minutes after midnight of a local date-time. @throws RangeError when it is none. */
export function splitDateTime(value: LocalDateTime): { day: DayNumber; minutes: number } {
  const [on, clock] = value.split('T')
  return { day: dayNumber(on as LocalDate), minutes: minutesOf((clock ?? '') as WallTime) }
}
