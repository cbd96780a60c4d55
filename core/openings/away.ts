import ICAL from 'ical.js'
import type { Away, Practice } from '../practice/types.ts'
import {
  DAY,
  type DayNumber,
  dateParts,
  dayNumber,
  type Instant,
  type LocalDate,
  splitDateTime,
  type Zone,
  zone,
} from '../time/index.ts'
import { comesTrue, startsOf } from '../time/recurrence.ts'

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
  const times = startsOf(ICAL.Recur.fromString(away.repeat), firstTime(away))
  for (let i = 0; i < MOST; i++) {
    const next = times.next()
    if (!next) break
    const day = dayNumber(next.toString().slice(0, 10) as LocalDate)
    const away = made(day, next.hour * 60 + next.minute)
    if (away.from >= to) break
    if (away.to > from) found.push(away)
  }
  return found
}

const firstTime = (away: Away): ICAL.Time =>
  ICAL.Time.fromData({ ...dateParts(away.from), second: 0, isDate: false })

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
