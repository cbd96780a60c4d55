import {
  addDays,
  type DayNumber,
  date,
  dayNumber,
  type LocalDate,
  localDate,
  time,
  type WallTime,
  weekday,
} from './date.ts'
import { longMonthName, longWeekdayName } from './words.ts'

const DAY_FIRST = /^(\d{1,2})\s*[./-]\s*(\d{1,2})(?:\s*[./-]\s*(\d{4}|\d{2}))?\.?$/
const DAY_MONTH = /^(\d{1,2})(?:st|nd|rd|th)?\.?\s+([a-z]+)\.?,?(?:\s+(\d{4}|\d{2}))?$/
const MONTH_DAY = /^([a-z]+)\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?(?:\s+(\d{4}|\d{2}))?$/
const WEEKDAY = /^(?:next\s+)?([a-z]+)\.?,?\s*/

const MONTHS = Array.from({ length: 12 }, (_, i) => longMonthName(i + 1).toLowerCase())
const WEEKDAYS = Array.from({ length: 7 }, (_, i) => longWeekdayName(i + 1).toLowerCase())

/** Which of some names a word begins, counted from 1; at least its first three letters, and only one. */
function named(names: readonly string[], word: string): number | undefined {
  if (word.length < 3) return undefined
  const at = names.flatMap((name, i) => (name.startsWith(word) ? [i + 1] : []))
  return at.length === 1 ? at[0] : undefined
}

const iso = (year: number, month: number, day: number): LocalDate =>
  date(`${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`)

/**
 * A date as somebody writes it in English, the day before the month: 24 December, 24 Dec 2026, 24/12, 24.12.26, Dec 24,
 * tomorrow, Tuesday, 2026-12-24. Without a year it is the next such day.
 * @param today from which the next one is looked for
 * @throws Error with a sentence when it is none
 */
export function dateTyped(typed: string, today: LocalDate): LocalDate {
  const text = typed.trim().toLowerCase().replaceAll(/\s+/g, ' ')
  const wrong = new Error(`“${typed.trim()}” is not a date; write it as 24 December 2026 or 24/12/2026.`)
  if (text.length > 40) throw wrong
  try {
    return read(text, today) ?? date(text)
  } catch {
    throw wrong
  }
}

function read(text: string, today: LocalDate): LocalDate | undefined {
  if (text === 'today') return today
  if (text === 'tomorrow') return addDays(today, 1)
  const whole = text.match(WEEKDAY)
  const day = whole ? named(WEEKDAYS, whole[1]!) : undefined
  if (whole && day !== undefined) {
    const rest = text.slice(whole[0].length)
    // With a date behind it, a weekday only repeats what that says.
    return rest ? read(rest, today) : nextWeekday(day, today)
  }
  const numbers = text.match(DAY_FIRST)
  if (numbers) return dated(numbers[1]!, Number(numbers[2]), numbers[3], today)
  const dayMonth = text.match(DAY_MONTH)
  if (dayMonth) return dated(dayMonth[1]!, named(MONTHS, dayMonth[2]!), dayMonth[3], today)
  const monthDay = text.match(MONTH_DAY)
  return monthDay ? dated(monthDay[2]!, named(MONTHS, monthDay[1]!), monthDay[3], today) : undefined
}

function nextWeekday(day: number, today: LocalDate): LocalDate {
  const from = dayNumber(today)
  return localDate((from + ((day - weekday(from) + 6) % 7) + 1) as DayNumber)
}

function dated(
  day: string,
  month: number | undefined,
  year: string | undefined,
  today: LocalDate,
): LocalDate | undefined {
  if (month === undefined) return undefined
  if (year !== undefined)
    return iso(year.length === 2 ? 2000 + Number(year) : Number(year), month, Number(day))
  // The next one, as far as it takes to a 29 February.
  const now = Number(today.slice(0, 4))
  for (let at = now; at <= now + 8; at++) {
    try {
      const found = iso(at, month, Number(day))
      if (found >= today) return found
    } catch {
      // Not in this year.
    }
  }
  return undefined
}

/**
 * A time of day as somebody writes it: 9, 9:30, 9.30, 9h30, 14:30:00, 2:30 pm.
 * @throws Error with a sentence when it is none
 */
export function clockTyped(typed: string): WallTime {
  const said = typed.trim().slice(0, 40)
  const wrong = new Error(`“${said}” is not a time of day; write it as 9:30.`)
  const found = /^(\d{1,2})(?:[:.h](\d{2})?)?(?::\d{2})?\s*(am|pm|a\.m\.|p\.m\.)?$/i.exec(said)
  if (!found) throw wrong
  const [, hours = '', minutes = '00', half = ''] = found
  if (half && Number(hours) > 12) throw wrong
  const hour = half ? (Number(hours) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(hours)
  try {
    return time(`${String(hour).padStart(2, '0')}:${minutes}`)
  } catch {
    throw wrong
  }
}
