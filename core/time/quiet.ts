import { type DayNumber, minutesOf, type WallTime } from './date.ts'
import { type Instant, instant, MINUTE } from './instant.ts'
import type { Zone } from './zone.ts'

/** A stretch of each day, over midnight where it ends before it begins; both edges are outside it. */
export interface DailyStretch {
  from: WallTime
  to: WallTime
}

/** Whether the wall clock of a zone stands inside a stretch, its edges left out. */
export function isWithin(at: Instant, { from, to }: DailyStretch, where: Zone): boolean {
  const { ms } = where.toWall(at)
  const [start, end] = [minutesOf(from) * MINUTE, minutesOf(to) * MINUTE]
  if (start === end) return false
  return start < end ? ms > start && ms < end : ms > start || ms < end
}

/** The longest that is looked for a moment outside a stretch minute by minute, in minutes: two days. */
const FARTHEST = 2 * 1_440

/**
 * The last moment at or before `at`, or the first at or after it, at which the clock of a zone stands outside a stretch.
 * Over a change of clocks it is looked for minute by minute: the edge may be left out there, or come twice.
 */
export function outsideStretch(at: Instant, stretch: DailyStretch, where: Zone, way: 'back' | 'on'): Instant {
  if (!isWithin(at, stretch, where)) return at
  const { day, ms } = where.toWall(at)
  const edge = minutesOf(way === 'back' ? stretch.from : stretch.to)
  const past = way === 'back' ? edge * MINUTE > ms : edge * MINUTE < ms
  const on = (day + (past ? (way === 'back' ? -1 : 1) : 0)) as DayNumber
  const found = where.toInstant(on, edge)
  if (where.offsetAt(found) === where.offsetAt(at) && !isWithin(found, stretch, where)) return found
  const step = way === 'back' ? -MINUTE : MINUTE
  const whole = way === 'back' ? Math.floor(at / MINUTE) : Math.ceil(at / MINUTE)
  for (let i = 0; i <= FARTHEST; i++) {
    const next = instant(whole * MINUTE + i * step)
    if (!isWithin(next, stretch, where)) return next
  }
  return found
}
