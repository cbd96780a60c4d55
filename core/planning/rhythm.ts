import {
  addDays,
  addMonths,
  type DayNumber,
  dayNumber,
  type LocalDate,
  localDate,
  weekday,
} from '../time/index.ts'

/** How far apart sessions are meant to be: a week, two, or a month by weekday ("each second Tuesday"). */
export const RHYTHMS = ['week', 'fortnight', 'month'] as const
export type Rhythm = (typeof RHYTHMS)[number]

/** The most sessions that are planned at once. */
export const MOST_PLANNED = 60

/** How many days before and after the date it is meant for a session may lie: never as far as the next one. */
export const REACH: Record<Rhythm, { before: number; after: number }> = {
  week: { before: 3, after: 6 },
  fortnight: { before: 6, after: 13 },
  month: { before: 10, after: 20 },
}

/**
 * The dates a rhythm means, from its first one on. By month it is the weekday that counts: the nth of its month as the
 * first is of its own, and the last of each month where the first is a fifth (as RFC 5545, §3.3.10 has `BYDAY=2TU` and
 * `BYDAY=-1TU`).
 */
export function rhythmDates(rhythm: Rhythm, first: LocalDate, count: number): LocalDate[] {
  if (rhythm === 'month') {
    const nth = Math.ceil(Number(first.slice(8)) / 7)
    const month = `${first.slice(0, 7)}-01` as LocalDate
    return Array.from({ length: count }, (_, i) =>
      weekdayOf(addMonths(month, i), weekday(dayNumber(first)), nth),
    )
  }
  const days = rhythm === 'week' ? 7 : 14
  return Array.from({ length: count }, (_, i) => addDays(first, i * days))
}

/** The nth of a weekday in the month that begins on a date; the fifth is its last. */
function weekdayOf(month: LocalDate, which: number, nth: number): LocalDate {
  if (nth >= 5) {
    const last = (dayNumber(addMonths(month, 1)) - 1) as DayNumber
    return localDate((last - ((weekday(last) - which + 7) % 7)) as DayNumber)
  }
  const first = dayNumber(month)
  return localDate((first + ((which - weekday(first) + 7) % 7) + (nth - 1) * 7) as DayNumber)
}
