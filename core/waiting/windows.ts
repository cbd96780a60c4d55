import {
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  MINUTE,
  minutesOf,
  weekday,
  type Zone,
} from '../time/index.ts'
import type { Waiting, WaitingWindow } from './types.ts'

const DAY_MINUTES = 1_440

const onDate = ({ from, to, weekdays }: WaitingWindow, date: LocalDate, day: number): boolean =>
  (from === undefined || date >= from) &&
  (to === undefined || date <= to) &&
  (weekdays === undefined || weekdays.some((one) => one === day))

/** Whether a whole session lies in a window, by a clock. One that ends at midnight ends on its own date. */
export function liesIn(window: WaitingWindow, start: Instant, minutes: number, where: Zone): boolean {
  const { day, ms } = where.toWall(start)
  const end = (start + minutes * MINUTE) as Instant
  const ends = where.toWall(end)
  if (!onDate(window, dateAt(where, start), weekday(day))) return false
  // The last moment that belongs to it is a moment before its end.
  const last = where.toWall((end - 1) as Instant)
  if (!onDate(window, dateAt(where, (end - 1) as Instant), weekday(last.day))) return false
  const { after, before } = window
  if (after !== undefined && ms < minutesOf(after) * MINUTE) return false
  if (after === undefined && before === undefined) return true
  if (last.day !== day) return false
  const over = ends.day === day ? ends.ms : DAY_MINUTES * MINUTE
  return before === undefined || over <= minutesOf(before) * MINUTE
}

/** Where a window lies on a date, in minutes of that day; nothing where it does not. */
export function partOn(window: WaitingWindow, date: LocalDate): [from: number, to: number] | undefined {
  if (!onDate(window, date, weekday(dayNumber(date)))) return undefined
  const { after, before } = window
  return [after === undefined ? 0 : minutesOf(after), before === undefined ? DAY_MINUTES : minutesOf(before)]
}

/** Whether somebody could come to a session on a date, at some time of it. */
export const couldComeOn = (
  { windows, minutes }: Pick<Waiting, 'windows' | 'minutes'>,
  date: LocalDate,
): boolean =>
  windows.length === 0 ||
  windows.some((window) => {
    const part = partOn(window, date)
    return part !== undefined && part[1] - part[0] >= minutes
  })

/** Whether somebody who waits could come to a session that begins then. */
export const couldCome = ({ windows, minutes }: Waiting, start: Instant, where: Zone): boolean =>
  windows.length === 0 || windows.some((window) => liesIn(window, start, minutes, where))
