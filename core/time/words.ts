import type { DayNumber, LocalDate } from './date.ts'
import { dayNumber, weekday } from './date.ts'
import type { Instant } from './instant.ts'
import { FIRST_LANGUAGE, inForce, type Language, localeOf } from './language.ts'
import { dateAt, timeAt, type Zone } from './zone.ts'

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const LONG_DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const LONG_MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** Where the program's own words are not in the language it begins with, those of `Intl` are. */
const isFirst = (language: Language): boolean => language === FIRST_LANGUAGE

const formats = new Map<string, Intl.DateTimeFormat>()

/** A date in the words of a language. @param parts which, by a name of their own */
function dated(on: LocalDate, language: Language, name: string, parts: Intl.DateTimeFormatOptions): string {
  const key = `${language} ${name}`
  let format = formats.get(key)
  if (!format) {
    format = new Intl.DateTimeFormat(localeOf(language), { ...parts, timeZone: 'UTC' })
    formats.set(key, format)
  }
  return format.format(dayNumber(on) * 86_400_000)
}

/** "Tue 24 Nov" */
export function shortDate(on: LocalDate, language: Language = inForce()): string {
  if (!isFirst(language))
    return dated(on, language, 'short', { weekday: 'short', day: 'numeric', month: 'long' })
  const [, month, day] = on.split('-').map(Number) as [number, number, number]
  return `${DAYS[weekday(dayNumber(on)) - 1]} ${day} ${MONTHS[month - 1]}`
}

/** "Tuesday 24 November" */
export function longDate(on: LocalDate, language: Language = inForce()): string {
  if (!isFirst(language))
    return dated(on, language, 'long', { weekday: 'long', day: 'numeric', month: 'long' })
  const [, month, day] = on.split('-').map(Number) as [number, number, number]
  return `${LONG_DAYS[weekday(dayNumber(on)) - 1]} ${day} ${LONG_MONTHS[month - 1]}`
}

/** "24 December 2026" */
export function dateWords(on: LocalDate, language: Language = inForce()): string {
  if (!isFirst(language))
    return dated(on, language, 'year', { day: 'numeric', month: 'long', year: 'numeric' })
  const [year, month, day] = on.split('-').map(Number) as [number, number, number]
  return `${day} ${LONG_MONTHS[month - 1]} ${year}`
}

/** A weekday or month by itself, in the words of a language. */
const part = (on: LocalDate, name: string, parts: Intl.DateTimeFormatOptions): string =>
  dated(on, inForce(), name, parts)
/** A Monday, and the first of a month of the year that began on it. */
const dayOf = (day: number): LocalDate => `2024-01-${String(day).padStart(2, '0')}` as LocalDate
const monthOf = (month: number): LocalDate => `2024-${String(month).padStart(2, '0')}-01` as LocalDate

/** "Mon" for weekday 1. */
export const weekdayName = (day: number): string =>
  isFirst(inForce()) ? (DAYS[day - 1] ?? '') : part(dayOf(day), 'weekday', { weekday: 'short' })
/** "Monday" for weekday 1. */
export const longWeekdayName = (day: number): string =>
  isFirst(inForce()) ? (LONG_DAYS[day - 1] ?? '') : part(dayOf(day), 'long weekday', { weekday: 'long' })
/** "Nov" for month 11. */
export const monthName = (month: number): string =>
  isFirst(inForce()) ? (MONTHS[month - 1] ?? '') : part(monthOf(month), 'month', { month: 'short' })
/** "November" for month 11. */
export const longMonthName = (month: number): string =>
  isFirst(inForce()) ? (LONG_MONTHS[month - 1] ?? '') : part(monthOf(month), 'long month', { month: 'long' })

/** "Wed 25 Nov, 11:30" in the zone given. */
export const moment = (at: Instant, where: Zone, language: Language = inForce()): string =>
  `${shortDate(dateAt(where, at), language)}, ${timeAt(where, at)}`

/** "11:30 – 12:45" on one day, with the second date when it ends on another. */
export function span(from: Instant, to: Instant, where: Zone, language: Language = inForce()): string {
  const same = dateAt(where, from) === dateAt(where, (to - 1) as Instant)
  return same
    ? `${timeAt(where, from)} – ${timeAt(where, to)}`
    : `${timeAt(where, from)} – ${moment(to, where, language)}`
}

/**
 * By whose clock the times of a session are told: in person by that of the place, with the client's beside it; by video
 * and phone by the client's.
 */
export interface Clocks {
  first: Zone
  also?: Zone
}

/** The clocks of a session. @param inPerson whether both come to one place */
export const clocksOf = (inPerson: boolean, place: Zone, client: Zone): Clocks =>
  inPerson ? { first: place, also: client } : { first: client }

/** Places by which the tz database names zones, where a language has another name for them. */
const places = new Map<Language, Readonly<Record<string, string>>>()

/** Tells what a language calls the places by which zones are named. */
export const namePlaces = (language: Language, names: Readonly<Record<string, string>>): unknown =>
  places.set(language, names)

/** "Lisbon": the place by which the tz database names a zone. */
export function zonePlace(name: string, language: Language = inForce()): string {
  const place = name.split('/').at(-1) ?? name
  return places.get(language)?.[place] ?? place.replaceAll('_', ' ')
}

/** Whether two clocks show the same at a moment. */
export const sameClock = (a: Zone, b: Zone, at: Instant): boolean =>
  a.name === b.name || a.offsetAt(at) === b.offsetAt(at)

/** "1 h 15", "50 min", "1 d 3 h": a length of time in the two largest units. Milliseconds in. */
export function lengthOf(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / 60_000))
  if (minutes < 60) return `${minutes} min`
  if (minutes < 1440)
    return `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${String(minutes % 60).padStart(2, '0')}` : ''}`
  const hours = Math.floor(minutes / 60)
  return `${Math.floor(hours / 24)} d${hours % 24 ? ` ${hours % 24} h` : ''}`
}

/** The first day of the week that holds `day`, when weeks start on `first` (1 = Monday). */
export const weekStart = (day: DayNumber, first: number): DayNumber =>
  (day - ((weekday(day) - first + 7) % 7)) as DayNumber
