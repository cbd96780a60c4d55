import { minutesOf, type WallTime, wallTime } from '../../time/index.ts'
import { waysOnLine } from './line.ts'
import { written } from './written.ts'

/** "24:00" ends a day and is no time of it. */
const isTime = (text: unknown): text is WallTime => {
  try {
    return typeof text === 'string' && minutesOf(text as WallTime) < 1_440
  } catch {
    return false
  }
}

/** A time of day. */
export const timeKind = written({
  name: 'A time of day',
  example: (n) => wallTime((720 + n) % 1_440),
  problem: (text) => (isTime(text) ? undefined : { code: 'no-time' }),
  item: { type: 'time' },
  typed: 'time',
  compares: ['=', '≠', '<', '≤', '>', '≥', 'answered'],
  element: (value) => ({ as: 'Time', value: `${value}:00` }),
  ways: ({ compared }) => {
    const cuts = compared.filter(isTime).map(minutesOf)
    return waysOnLine({ least: 0, most: 1_439, whole: true }, cuts, false).map(([minute]) => [
      wallTime(minute),
      1,
    ])
  },
})
