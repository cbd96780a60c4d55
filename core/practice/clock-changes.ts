import {
  type DayNumber,
  dayNumber,
  HOUR,
  type LocalDate,
  localDate,
  MINUTE,
  minutesOf,
  type Zone,
} from '../time/index.ts'
import { blocksOfDate } from './hours-of-day.ts'
import type { Block, Hours } from './types.ts'

/** What a change of clocks makes of a block of hours on one day. */
export interface ClockChange {
  date: LocalDate
  /** How long that day is: 23, 25, or 24.5 hours. */
  hours: number
  block: Block
  /** How long the block is by the clock on the wall, and in truth, in minutes; none when it is turned inside out. */
  wall: number
  minutes: number
}

/** The blocks of hours that a change of clocks makes longer or shorter, on `days` dates from `from` on. */
export function clockChanges(hours: Hours, zone: Zone, from: LocalDate, days: number): ClockChange[] {
  const found: ClockChange[] = []
  const first = dayNumber(from)
  for (let day = first; day < first + days; day = (day + 1) as DayNumber) {
    const length = zone.toInstant((day + 1) as DayNumber, 0) - zone.toInstant(day, 0)
    if (length === 24 * HOUR) continue
    const date = localDate(day)
    for (const block of blocksOfDate(hours, date)) {
      const begins = minutesOf(block.from)
      const ends = minutesOf(block.to)
      const minutes = Math.max(0, zone.toInstant(day, ends) - zone.toInstant(day, begins)) / MINUTE
      if (minutes !== ends - begins)
        found.push({ date, hours: length / HOUR, block, wall: ends - begins, minutes })
    }
  }
  return found
}
