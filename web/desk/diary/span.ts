import {
  type DayNumber,
  date,
  dayNumber,
  localDate,
  longDate,
  longMonthName,
  weekStart,
} from '@acolhida/core/time'

/** How much of the diary is shown at once. */
export const VIEWS = {
  day: { name: 'Day', days: 1 },
  week: { name: 'Week', days: 7 },
  weeks: { name: 'Four weeks', days: 28 },
  list: { name: 'List', days: 28 },
} as const

export type View = keyof typeof VIEWS

export const viewFrom = (text: string | null): View =>
  text !== null && Object.hasOwn(VIEWS, text) ? (text as View) : 'week'

/** A day as it stands in an address; nothing when it is none. */
export function dayFrom(text: string | null): DayNumber | undefined {
  try {
    return text ? dayNumber(date(text)) : undefined
  } catch {
    return undefined
  }
}

/** The first day shown: the day itself, or the first of its week. */
export const firstDay = (view: View, day: DayNumber, weekStartsOn: number): DayNumber =>
  view === 'day' ? day : weekStart(day, weekStartsOn)

/** "23 – 29 November", "30 November – 6 December", "28 December 2026 – 3 January 2027", "Tuesday 24 November". */
export function spanName(first: DayNumber, days: number): string {
  if (days === 1) return longDate(localDate(first))
  const parts = (day: DayNumber) => localDate(day).split('-').map(Number) as [number, number, number]
  const [y1, m1, d1] = parts(first)
  const [y2, m2, d2] = parts((first + days - 1) as DayNumber)
  if (y1 !== y2) return `${d1} ${longMonthName(m1)} ${y1} – ${d2} ${longMonthName(m2)} ${y2}`
  return m1 === m2
    ? `${d1} – ${d2} ${longMonthName(m1)}`
    : `${d1} ${longMonthName(m1)} – ${d2} ${longMonthName(m2)}`
}
