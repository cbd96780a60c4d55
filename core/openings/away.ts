import ICAL from 'ical.js'
import type { Away, Practice } from '../practice/types.ts'
import {
  DAY,
  type DayNumber,
  dayNumber,
  type Instant,
  type LocalDate,
  splitDateTime,
  type Zone,
  zone,
} from '../time/index.ts'
import { startsOf } from '../time/recurrence.ts'

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
  if (!away.repeat) return [made(start.day, start.minutes)]
  const found: AwayTime[] = []
  const times = startsOf(ICAL.Recur.fromString(away.repeat), firstTime(away))
  for (let i = 0; i < MOST; i++) {
    const next = times.next()
    if (!next) break
    const day = dayNumber(next.toString().slice(0, 10) as LocalDate)
    const one = made(day, next.hour * 60 + next.minute)
    if (one.from >= to) break
    if (one.to > from) found.push(one)
  }
  return found
}

function firstTime(away: Away): ICAL.Time {
  const [year, month, day, hour, minute] = away.from.split(/[-T:]/).map(Number) as [
    number,
    number,
    number,
    number,
    number,
  ]
  return ICAL.Time.fromData({ year, month, day, hour, minute, second: 0, isDate: false })
}

/** Whether a text is a rule of repetition. */
export function isRepeat(rule: string): boolean {
  try {
    return Boolean(ICAL.Recur.fromString(rule).freq)
  } catch {
    return false
  }
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
