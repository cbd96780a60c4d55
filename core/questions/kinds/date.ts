import { date as readDate } from '../../time/index.ts'
import { written } from './written.ts'

/** A date. */
export const dateKind = written({
  name: 'A date',
  example: '2026-06-15',
  problem: (text) => {
    try {
      readDate(text)
      return undefined
    } catch {
      return 'Please give a date, as 2026-11-24.'
    }
  },
  item: { type: 'date', reads: ['date', 'dateTime'] },
  typed: 'date',
  compares: ['=', '≠', '<', '≤', '>', '≥', 'answered'],
  element: (value) => ({ as: 'Date', value }),
})
