import type { Away, Practice } from '@acolhida/core/practice'
import { addDays, at, type LocalDate, wallTime } from '@acolhida/core/time'

/** The practice with more time away, in order. */
export const withAway = (practice: Practice, more: Away[]): Practice => ({
  ...practice,
  away: [...practice.away.filter((away) => !more.some((other) => other.id === away.id)), ...more].sort(
    (a, b) => (a.from < b.from ? -1 : 1),
  ),
})

/** One whole day away. */
export const wholeDay = (id: string, date: LocalDate, note: string): Away => ({
  id,
  from: at(date, wallTime(0)),
  to: at(addDays(date, 1), wallTime(0)),
  note,
})
