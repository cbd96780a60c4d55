import { type Instant, instant } from '../time/index.ts'
import { momentsOf } from '../time/rule.ts'
import { BadRule, type Recurrence, readRule, type WallSeconds } from '../time/rule-text.ts'
import { type Component, propertiesOf, propertyOf, writtenIn } from './content.ts'
import { type Length, lengthIn, type Moment, type Moments, momentInstant, NotUnderstood } from './moments.ts'

const DAY = 86_400

/** More occurrences of one event in a span than any calendar means. */
const MOST = 20_000

/** A stretch of time, its end not included. */
export interface Stretch {
  from: Instant
  to: Instant
}

/** Whether an error says that something of a calendar is not understood, which costs only that. */
export const isNotUnderstood = (error: unknown): error is Error =>
  error instanceof NotUnderstood || error instanceof BadRule || error instanceof RangeError

/** Something that takes place once or again and again: an event, or time somebody is available. */
export interface Occurring {
  start: Moment
  length: Length
  rules: Recurrence[]
  /** Left out by rules of an earlier standard (RFC 2445). */
  leftOut: Recurrence[]
  added: { at: Moment; length?: Length }[]
  without: Moment[]
}

/** @throws NotUnderstood, BadRule */
export function occurringIn(part: Component, moments: Moments): Occurring {
  const begins = propertyOf(part, 'DTSTART')
  if (!begins) throw new NotUnderstood('it has no start')
  const start = moments.read(begins)
  const rules = (name: string): Recurrence[] => propertiesOf(part, name).map(({ value }) => readRule(value))
  return {
    start,
    length: lengthOf(part, start, moments),
    rules: rules('RRULE'),
    leftOut: rules('EXRULE'),
    added: propertiesOf(part, 'RDATE')
      .flatMap((property) => moments.list(property))
      .map(({ at, end }) => ({ at, ...(end ? { length: 'wall' in end ? between(at, end) : end } : {}) })),
    without: propertiesOf(part, 'EXDATE').flatMap((property) => moments.list(property).map(({ at }) => at)),
  }
}

/** What lies between two moments: days between dates, else exact seconds (RFC 5545 §3.8.5.3). */
const between = (from: Moment, to: Moment): Length =>
  from.isDate
    ? { days: Math.floor((to.wall - from.wall) / DAY), seconds: 0 }
    : { days: 0, seconds: (momentInstant(to) - momentInstant(from)) / 1_000 }

function lengthOf(part: Component, start: Moment, moments: Moments): Length {
  const ends = propertyOf(part, 'DTEND')
  if (ends) return between(start, moments.read(ends))
  const duration = writtenIn(part, 'DURATION')
  if (duration) return lengthIn(duration)
  // RFC 5545 §3.6.1: a day that has no end is one day long, a moment has no length.
  return { days: start.isDate ? 1 : 0, seconds: 0 }
}

/** When something that starts at a moment ends. */
export const endsAt = ({ wall, zone }: Moment, { days, seconds }: Length): Instant =>
  instant(zone.toInstant((wall + days * DAY) as WallSeconds) + seconds * 1_000)

/** One of the times at which something takes place. */
export interface Occurrence {
  at: Moment
  start: Instant
  length: Length
}

/** Whether a moment lies beyond the end of a rule: one in UTC is compared by instants, all else on the wall. */
function endsOf({ until }: Recurrence, { zone, isDate }: Moment): (wall: WallSeconds) => boolean {
  if (until === undefined) return () => false
  const { seconds } = until
  if (until.isDate) return (wall) => wall >= seconds + DAY
  if (!until.utc) return (wall) => wall > seconds
  const end = instant(seconds * 1_000)
  // Of whole days the one in which it ends is the last, wherever it is midnight.
  if (isDate) return (wall) => wall > zone.toWall(end)
  return (wall) => zone.toInstant(wall) > end
}

/**
 * The times at which something takes place that meet a span, in no order.
 * @throws BadRule when they are more than anybody means
 */
export function occurrencesOf(event: Occurring, { from, to }: Stretch): Occurrence[] {
  const { start, length, rules, added, without, leftOut } = event
  const { zone } = start
  const found = new Map<Instant, Occurrence>()
  const add = (at: Moment, own: Length): void => {
    const begins = momentInstant(at)
    if (begins < to && endsAt(at, own) > from && endsAt(at, own) > begins)
      found.set(begins, { at, start: begins, length: own })
  }
  // A day more on either side, so that no change of clocks matters.
  const reach = Math.max(0, length.days) * DAY + Math.max(0, length.seconds)
  const low = (zone.toWall(from) - reach - DAY) as WallSeconds
  const high = (zone.toWall(to) + DAY) as WallSeconds
  const walls = (rule: Recurrence): Iterable<WallSeconds> =>
    momentsOf(rule, start.wall, low, high, endsOf(rule, start))
  if (rules.length === 0) add(start, length)
  for (const rule of rules) {
    let many = 0
    for (const wall of walls(rule)) {
      if (++many > MOST) throw new BadRule(`it takes place more than ${MOST.toLocaleString('en-GB')} times`)
      add({ ...start, wall }, length)
    }
  }
  for (const { at, length: own } of added) add(at, own ?? length)
  for (const gone of without) takeOut(found, gone)
  for (const rule of leftOut) for (const wall of walls(rule)) found.delete(zone.toInstant(wall))
  return [...found.values()]
}

/** Takes out what takes place at a moment; at a whole day, whatever begins on it. */
export function takeOut(found: Map<Instant, Occurrence>, gone: Moment): void {
  if (!gone.isDate) {
    found.delete(momentInstant(gone))
    return
  }
  for (const [start, { at }] of found) if (Math.floor(at.wall / DAY) * DAY === gone.wall) found.delete(start)
}
