import { time as readTime } from '../../time/index.ts'
import { written } from './written.ts'

/** A time of day. */
export const timeKind = written({
  name: 'A time of day',
  example: '12:00',
  problem: (text) => {
    try {
      readTime(text)
      return undefined
    } catch {
      return 'Please give a time of day, as 14:30.'
    }
  },
  item: { type: 'time' },
  typed: 'time',
  compares: ['=', '≠', '<', '≤', '>', '≥', 'answered'],
  element: (value) => ({ as: 'Time', value: `${value}:00` }),
})
