import type { Away, Practice } from '../practice/types.ts'
import {
  DAY,
  type DayNumber,
  dateParts,
  type Instant,
  splitDateTime,
  type Zone,
  zone,
} from '../time/index.ts'
import { comesTrue, wallSeconds } from '../time/recurrence.ts'
import { momentsOf } from '../time/rule.ts'
import { readRule, type Until, type WallSeconds } from '../time/rule-text.ts'

/** Time away as an interval. */
export interface AwayTime {
  id: string
  note?: string
  from: Instant
  to: Instant
}

/** More times than anybody is away. */
const MOST = 5_000

/**
 * The intervals of one time away that meet a span. A repeated one comes again at the same wall time of the
 * practice and lasts as long on the wall each time (RFC 5545 §3.8.5.3).
 */
function expand(away: Away, home: Zone, from: Instant, to: Instant): AwayTime[] {
  const start = splitDateTime(away.from)
  const end = splitDateTime(away.to)
  const length = (end.day - start.day) * 1440 + end.minutes - start.minutes
  const made = (day: DayNumber, minutes: number): AwayTime => ({
    id: away.id,
    ...(away.note ? { note: away.note } : {}),
    from: home.toInstant(day, minutes),
    to: home.toInstant(day, minutes + length),
  })
  if (!away.repeat || !comesAgain(away, away.repeat)) return [made(start.day, start.minutes)]
  const found: AwayTime[] = []
  const rule = readRule(away.repeat)
  const until = rule.until && lastOf(rule.until, home)
  // A day more on either side, so that no change of clocks matters.
  const low = wallAt(home, from) - length * 60 - 86_400
  const high = wallAt(home, to) + 86_400
  const walls = momentsOf(
    rule,
    wallSeconds(start.day, start.minutes),
    low as WallSeconds,
    high as WallSeconds,
    (at) => until !== undefined && at > until,
  )
  for (const wall of walls) {
    if (found.length >= MOST) break
    const day = Math.floor(wall / 86_400) as DayNumber
    const away = made(day, (wall - day * 86_400) / 60)
    if (away.from < to && away.to > from) found.push(away)
  }
  return found
}

const wallAt = (where: Zone, at: Instant): number => (at + where.offsetAt(at)) / 1_000

/** The last moment on the wall at which a repetition can begin. */
const lastOf = ({ seconds, isDate, utc }: Until, home: Zone): number =>
  isDate ? seconds + 86_399 : utc ? wallAt(home, (seconds * 1_000) as Instant) : seconds

const trueOf = new WeakMap<Away, boolean>()

/** Whether a repetition ever comes; one that never does is away once. */
function comesAgain(away: Away, repeat: string): boolean {
  const before = trueOf.get(away)
  if (before !== undefined) return before
  const found = comesTrue(repeat, dateParts(away.from))
  trueOf.set(away, found)
  return found
}

const known = new WeakMap<Practice, { from: number; to: number; times: AwayTime[] }>()

/** All time away that meets a span, in order. What was worked out for a practice is remembered with it. */
export function awayTimes(practice: Practice, from: Instant, to: Instant): AwayTime[] {
  const before = known.get(practice)
  if (before && before.from <= from && before.to >= to) return before.times
  const home = zone(practice.profile.zone)
  // A little more than asked, so that the next question finds it here.
  const wide = { from: (from - 7 * DAY) as Instant, to: (to + 60 * DAY) as Instant }
  const times = practice.away
    .flatMap((away) => expand(away, home, wide.from, wide.to))
    .sort((a, b) => a.from - b.from)
  known.set(practice, { ...wide, times })
  return times
}
