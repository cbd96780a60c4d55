import {
  addDays,
  type DayNumber,
  dayNumber,
  type LocalDate,
  localDate,
  date as readDate,
} from '../../time/index.ts'
import { waysOnLine } from './line.ts'
import { written } from './written.ts'

// The first date of four digits that `dayNumber` reads.
const FIRST = dayNumber('0100-01-01' as LocalDate)
const LAST = dayNumber('9999-12-31' as LocalDate)
/** A day like any other, for what is compared with none. */
const SOME = '2026-06-15' as LocalDate

const isDate = (text: unknown): text is LocalDate => {
  try {
    return typeof text === 'string' && readDate(text) === text
  } catch {
    return false
  }
}

/** A date. */
export const dateKind = written({
  name: 'A date',
  example: (n) => addDays(SOME, n),
  problem: (text) => (isDate(text) ? undefined : { code: 'no-date', data: { example: '24 November 2026' } }),
  item: { type: 'date', reads: ['date', 'dateTime'] },
  typed: 'date',
  compares: ['=', '≠', '<', '≤', '>', '≥', 'answered'],
  element: (value) => ({ as: 'Date', value }),
  // Days are counted one by one. Nothing is compared with dates that do not exist.
  ways: ({ compared }) => {
    const cuts = compared.filter(isDate).map(dayNumber)
    if (cuts.length === 0) return [[SOME, 1]]
    return waysOnLine({ least: FIRST, most: LAST, whole: true }, cuts, false).map(([day]) => [
      nearest(day, cuts),
      1,
    ])
  },
})

/** A day of a stretch that a person would answer: not thousands of years from what is compared. */
const nearest = (day: number, cuts: readonly number[]): LocalDate => {
  const [first, last] = [Math.min(...cuts), Math.max(...cuts)]
  return localDate(Math.min(Math.max(day, first - 1), last + 1) as DayNumber)
}
