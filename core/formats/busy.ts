import type { Entry } from '../openings/index.ts'
import { type Instant, instant, type Zone } from '../time/index.ts'
import type { WallSeconds } from '../time/rule-text.ts'
import { unavailable } from './availability.ts'
import { type Component, calendarsIn, propertiesOf, propertyOf, titleOf, writtenIn } from './content.ts'
import { endsAt, isNotUnderstood, type Occurrence, occurrencesOf, occurringIn, takeOut } from './event.ts'
import { type Length, type Moment, type Moments, momentInstant, momentsIn, NotUnderstood } from './moments.ts'

export { BadCalendar } from './content.ts'

export interface BusyTimes {
  /** In order of their start, cut to the span. */
  entries: Entry[]
  /** What could not be understood, in words. */
  skipped: string[]
}

/** How a calendar is read. */
export interface BusyReading {
  /** What it is called in messages. */
  what?: string
  /** The practitioner's addresses in it: an event that one of them has declined is not busy. */
  owners?: readonly string[]
  /** Told now and then how many events of how many have been understood. */
  onProgress?: (done: number, total: number) => void
}

interface Span {
  from: Instant
  to: Instant
}

/** Adds what is busy. */
type Add = (id: string, start: Instant, end: Instant) => void

/**
 * The busy times of a stream of iCalendar objects (RFC 5545) that meet a span: repeated events with their exceptions,
 * all-day events as days in `home`, floating times in the calendar's own zone or in `home`. Transparent, cancelled and
 * declined events are not busy; what free/busy and availability components (RFC 7953) say counts, too. Whatever is not
 * understood costs only itself, and is listed.
 * @throws BadCalendar when the text is not iCalendar
 */
export function busyTimes(
  source: string,
  from: Instant,
  to: Instant,
  home: Zone,
  { what = 'The calendar', owners = [], onProgress = () => {} }: BusyReading = {},
): BusyTimes {
  const skipped: string[] = []
  const calendars = calendarsIn(source, what, skipped)
  const entries: Entry[] = []
  const add: Add = (id, start, end) => {
    if (end <= from || start >= to || end <= start) return
    entries.push(outside(id, instant(Math.max(start, from)), instant(Math.min(end, to))))
  }
  const total = calendars.reduce((sum, { parts }) => sum + parts.length, 0)
  let done = 0
  const step = (): void => {
    if (done++ % 200 === 0) onProgress(done - 1, total)
  }
  for (const calendar of calendars) {
    const moments = momentsIn(calendar, home, skipped)
    const mine = new Set([...owners, writtenIn(calendar, 'X-WR-CALNAME')].map(address))
    eventsIn(calendar, moments, { from, to }, mine, add, skipped, step)
    freeBusyIn(calendar, moments, add, skipped)
    entries.push(...unavailable(calendar, moments, from, to, skipped))
  }
  onProgress(total, total)
  return { entries: entries.sort((a, b) => a.start - b.start), skipped }
}

/** What stands in place of one time of a repeated event, or of it and all that follow. */
interface Exception {
  instead: Moment
  start: Moment
  length: Length
  onwards: boolean
  busy: boolean
  sequence: number
}

function eventsIn(
  calendar: Component,
  moments: Moments,
  span: Span,
  mine: ReadonlySet<string>,
  add: Add,
  skipped: string[],
  step: () => void,
): void {
  const events = calendar.parts.filter((part) => part.name === 'VEVENT')
  const attempt = (part: Component, work: () => void): void => {
    try {
      work()
    } catch (error) {
      if (!isNotUnderstood(error)) throw error
      skipped.push(`the event “${titleOf(part)}”: ${error.message}`)
    }
  }
  const exceptions = new Map<string, Map<Instant, Exception>>()
  for (const part of events) {
    const instead = propertyOf(part, 'RECURRENCE-ID')
    if (!instead) continue
    step()
    attempt(part, () => {
      const uid = writtenIn(part, 'UID')
      const { start, length } = occurringIn(part, moments)
      const exception: Exception = {
        instead: moments.read(instead),
        start,
        length,
        onwards: instead.parameters.RANGE?.toUpperCase() === 'THISANDFUTURE',
        busy: isBusy(part, mine),
        sequence: Number(writtenIn(part, 'SEQUENCE')) || 0,
      }
      const own = exceptions.get(uid) ?? new Map<Instant, Exception>()
      exceptions.set(uid, own)
      const at = momentInstant(exception.instead)
      // Of two for the same time the later one holds.
      if ((own.get(at)?.sequence ?? -1) <= exception.sequence) own.set(at, exception)
    })
  }
  for (const part of events) {
    if (propertyOf(part, 'RECURRENCE-ID')) continue
    step()
    const uid = writtenIn(part, 'UID')
    attempt(part, () => {
      const busy = isBusy(part, mine)
      const own = exceptions.get(uid)
      // What is free, and has no exceptions that are not, need not be followed.
      if (!busy && !own) return
      const event = occurringIn(part, moments)
      if (!own) {
        for (const { at, start, length } of occurrencesOf(event, span))
          add(`${uid} ${start}`, start, endsAt(at, length))
        return
      }
      const wide = widened(span, own)
      const found = new Map(occurrencesOf(event, wide).map((occurrence) => [occurrence.start, occurrence]))
      for (const { instead } of own.values()) takeOut(found, instead)
      for (const occurrence of found.values()) follow(uid, occurrence, busy, own, add)
    })
  }
  for (const [uid, own] of exceptions)
    for (const { start, length, busy } of own.values())
      if (busy) add(`${uid} ${momentInstant(start)}`, momentInstant(start), endsAt(start, length))
}

/** What is moved for all times to come may come from beyond the span. */
function widened({ from, to }: Span, own: ReadonlyMap<Instant, Exception>): Span {
  let [earlier, later] = [0, 0]
  for (const { onwards, instead, start } of own.values()) {
    if (!onwards) continue
    const by = momentInstant(start) - momentInstant(instead)
    earlier = Math.max(earlier, by)
    later = Math.max(later, -by)
  }
  return { from: instant(from - earlier), to: instant(to + later) }
}

/** One time of a repeated event, as the last exception before it that is meant for all to come has it. */
function follow(
  uid: string,
  { at, start, length }: Occurrence,
  busy: boolean,
  own: ReadonlyMap<Instant, Exception>,
  add: Add,
): void {
  let last: [Instant, Exception] | undefined
  for (const entry of own)
    if (entry[1].onwards && entry[0] <= start && (!last || entry[0] > last[0])) last = entry
  if (!last) {
    if (busy) add(`${uid} ${start}`, start, endsAt(at, length))
    return
  }
  const [, { instead, start: moved, length: theirs, busy: still }] = last
  if (!still) return
  const there: Moment = { ...moved, wall: (at.wall + moved.wall - instead.wall) as WallSeconds }
  add(`${uid} ${start}`, momentInstant(there), endsAt(there, theirs))
}

/** What is said to be busy by free/busy components (RFC 5545 §3.6.4): everything but what is said to be free. */
function freeBusyIn(calendar: Component, moments: Moments, add: Add, skipped: string[]): void {
  for (const part of calendar.parts) {
    if (part.name !== 'VFREEBUSY') continue
    for (const property of propertiesOf(part, 'FREEBUSY')) {
      if (property.parameters.FBTYPE?.toUpperCase() === 'FREE') continue
      try {
        for (const { at, end } of moments.list(property)) {
          if (!end) throw new NotUnderstood('it has no end')
          const start = momentInstant(at)
          add(`free-busy ${start}`, start, 'wall' in end ? momentInstant(end) : endsAt(at, end))
        }
      } catch (error) {
        if (!(error instanceof NotUnderstood)) throw error
        skipped.push(`the busy time “${property.value.slice(0, 60)}”: ${error.message}`)
      }
    }
  }
}

/** A stretch taken by something that is none of the practitioner's sessions. */
export const outside = (id: string, start: Instant, end: Instant): Entry => ({
  id,
  kind: 'outside',
  start,
  end,
  clearBefore: 0,
  clearAfter: 0,
})

/** A calendar address as it is compared. */
const address = (of: string): string =>
  of
    .trim()
    .toLowerCase()
    .replace(/^mailto:/, '')

/** Whether the one whose calendar it is has said no. */
const declined = (event: Component, mine: ReadonlySet<string>): boolean =>
  propertiesOf(event, 'ATTENDEE').some(
    ({ value, parameters }) => parameters.PARTSTAT?.toUpperCase() === 'DECLINED' && mine.has(address(value)),
  )

const isBusy = (event: Component, mine: ReadonlySet<string>): boolean =>
  writtenIn(event, 'TRANSP').toUpperCase() !== 'TRANSPARENT' &&
  writtenIn(event, 'STATUS').toUpperCase() !== 'CANCELLED' &&
  !declined(event, mine)
