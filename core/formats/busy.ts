import ICAL from 'ical.js'
import type { Entry } from '../openings/index.ts'
import { type Instant, instant, type Zone } from '../time/index.ts'
import { startsOfEvent } from '../time/recurrence.ts'
import { unavailable } from './availability.ts'
import { namedZone, parseCalendar, reader } from './icalendar.ts'

export { BadCalendar } from './icalendar.ts'

/** More occurrences of one event than any calendar means. */
const MOST_OCCURRENCES = 20_000

export interface BusyTimes {
  /** In order of their start. */
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

/**
 * The busy times of an iCalendar file (RFC 5545) that meet a span: repeated events with their exceptions,
 * all-day events as days in `home`, floating times in `home`. Transparent, cancelled and declined events are not busy; what
 * free/busy and availability components (RFC 7953) say counts, too.
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
  const calendar = parseCalendar(source, what, skipped)
  const at = reader(calendar, home)
  const entries: Entry[] = []
  const mine = new Set([...owners, String(calendar.getFirstPropertyValue('x-wr-calname') ?? '')].map(address))
  const add = (event: ICAL.Event, start: ICAL.Time, end: ICAL.Time): void => {
    const zone = namedZone(event.component, 'dtstart')
    const entry = outside(
      `${event.uid} ${start.toString()}`,
      at(start, zone),
      at(end, namedZone(event.component, 'dtend') ?? zone),
    )
    if (entry.end > from && entry.start < to && entry.end > entry.start) entries.push(entry)
  }
  const expand = (event: ICAL.Event): void => {
    if (!event.isRecurring()) {
      if (isBusy(event, mine)) add(event, event.startDate, event.endDate)
      return
    }
    const occurrences = startsOfEvent(event)
    for (let i = 0; i < MOST_OCCURRENCES; i++) {
      const next = occurrences.next()
      if (!next || at(next, namedZone(event.component, 'dtstart')) >= to) return
      const { item, startDate, endDate } = event.getOccurrenceDetails(next)
      if (isBusy(item, mine)) add(item, startDate, endDate)
    }
  }
  // Without exceptions given, each event would look for its own among all the others.
  const events = calendar
    .getAllSubcomponents('vevent')
    .map((component) => new ICAL.Event(component, { strictExceptions: true, exceptions: [] }))
  const exceptions = new Map<string, ICAL.Event[]>()
  for (const event of events) {
    if (event.isRecurrenceException())
      exceptions.set(event.uid, [...(exceptions.get(event.uid) ?? []), event])
  }
  for (const [i, event] of events.entries()) {
    if (i % 200 === 0) onProgress(i, events.length)
    if (event.isRecurrenceException()) continue
    try {
      for (const exception of exceptions.get(event.uid) ?? []) event.relateException(exception)
      expand(event)
    } catch (error) {
      skipped.push(
        `the event “${String(event.summary ?? event.uid ?? '').slice(0, 60)}”: ${(error as Error).message}`,
      )
    }
  }
  entries.push(...freeBusyIn(calendar, from, to), ...unavailable(calendar, from, to, home, skipped))
  onProgress(events.length, events.length)
  return { entries: entries.sort((a, b) => a.start - b.start), skipped }
}

/** What is said to be busy by free/busy components (RFC 5545 §3.6.4): everything but what is said to be free. */
function freeBusyIn(calendar: ICAL.Component, from: Instant, to: Instant): Entry[] {
  return calendar.getAllSubcomponents('vfreebusy').flatMap((component, n) =>
    component.getAllProperties('freebusy').flatMap((property, m) => {
      if (String(property.getFirstParameter('fbtype') ?? 'BUSY').toUpperCase() === 'FREE') return []
      return property.getValues().flatMap((value, i): Entry[] => {
        if (!(value instanceof ICAL.Period)) return []
        const start = instant(value.start.toUnixTime() * 1000)
        const end = instant(value.getEnd().toUnixTime() * 1000)
        if (end <= from || start >= to || end <= start) return []
        return [outside(`free-busy ${n} ${m} ${i}`, start, end)]
      })
    }),
  )
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
const declined = (event: ICAL.Event, mine: ReadonlySet<string>): boolean =>
  event.attendees.some(
    (attendee) =>
      String(attendee.getFirstParameter('partstat') ?? '').toUpperCase() === 'DECLINED' &&
      mine.has(address(String(attendee.getFirstValue()))),
  )

function isBusy(event: ICAL.Event, mine: ReadonlySet<string>): boolean {
  const transparency = String(event.component.getFirstPropertyValue('transp') ?? 'OPAQUE').toUpperCase()
  const status = String(event.component.getFirstPropertyValue('status') ?? 'CONFIRMED').toUpperCase()
  return transparency !== 'TRANSPARENT' && status !== 'CANCELLED' && !declined(event, mine)
}
