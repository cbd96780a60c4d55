import ICAL from 'ical.js'
import type { Entry } from '../openings/index.ts'
import { dayNumber, type Instant, instant, type LocalDate, type Zone, zone } from '../time/index.ts'

/** An iCalendar file that can't be read at all. */
export class BadCalendar extends Error {
  constructor(what: string, reason: string) {
    super(`${what}: ${reason}`)
    this.name = 'BadCalendar'
  }
}

/** More occurrences of one event than any calendar means. */
const MOST_OCCURRENCES = 20_000

const NOT_BUSY = new Set(['CANCELLED'])

export interface BusyTimes {
  /** In order of their start. */
  entries: Entry[]
  /** What could not be understood, in words. */
  skipped: string[]
}

/** Leaves out lines that are none, so that one broken line does not cost the whole calendar. */
function wellFormed(source: string, skipped: string[]): string {
  const lines = source
    .replace(/^\uFEFF/, '')
    .replace(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
  return lines
    .filter((line) => {
      const good = line === '' || /^[A-Za-z0-9-]+(;[^:]*(?:"[^"]*"[^:]*)*)?:/.test(line)
      if (!good) skipped.push(`the line “${line.slice(0, 60)}”`)
      return good && line !== ''
    })
    .join('\r\n')
}

/**
 * The busy times of an iCalendar file (RFC 5545) that meet a span: repeated events with their exceptions,
 * all-day events as days in `home`, floating times in `home`. Transparent and cancelled events are not busy.
 * @throws BadCalendar when the text is not iCalendar
 */
export function busyTimes(
  source: string,
  from: Instant,
  to: Instant,
  home: Zone,
  what = 'The calendar',
): BusyTimes {
  const skipped: string[] = []
  let calendar: ICAL.Component
  try {
    calendar = new ICAL.Component(ICAL.parse(wellFormed(source, skipped)))
  } catch (error) {
    throw new BadCalendar(what, `is not iCalendar: ${(error as Error).message}`)
  }
  if (calendar.name !== 'vcalendar') throw new BadCalendar(what, 'holds no VCALENDAR')
  const at = reader(calendar, home)
  const entries: Entry[] = []
  const add = (event: ICAL.Event, start: ICAL.Time, end: ICAL.Time): void => {
    const zone = zoneOf(event, 'dtstart')
    const entry: Entry = {
      id: `${event.uid} ${start.toString()}`,
      kind: 'outside',
      start: at(start, zone),
      end: at(end, zoneOf(event, 'dtend') ?? zone),
      clearBefore: 0,
      clearAfter: 0,
    }
    if (entry.end > from && entry.start < to && entry.end > entry.start) entries.push(entry)
  }
  const expand = (event: ICAL.Event): void => {
    if (!event.isRecurring()) {
      if (isBusy(event)) add(event, event.startDate, event.endDate)
      return
    }
    const occurrences = event.iterator()
    for (let i = 0; i < MOST_OCCURRENCES; i++) {
      const next = occurrences.next()
      if (!next || at(next, zoneOf(event, 'dtstart')) >= to) return
      const { item, startDate, endDate } = event.getOccurrenceDetails(next)
      if (isBusy(item)) add(item, startDate, endDate)
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
  for (const event of events) {
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
  return { entries: entries.sort((a, b) => a.start - b.start), skipped }
}

/** The zone a date of an event names; a duration, and each repetition, keep that of the start. */
const zoneOf = (event: ICAL.Event, property: 'dtstart' | 'dtend'): string | undefined =>
  event.component.getFirstProperty(property)?.getFirstParameter('tzid') || undefined

function isBusy(event: ICAL.Event): boolean {
  const transparency = String(event.component.getFirstPropertyValue('transp') ?? 'OPAQUE').toUpperCase()
  const status = String(event.component.getFirstPropertyValue('status') ?? 'CONFIRMED').toUpperCase()
  return transparency !== 'TRANSPARENT' && !NOT_BUSY.has(status)
}

/** Reads times of one calendar: by the zone's own VTIMEZONE if the name is not in the tz database. */
function reader(
  calendar: ICAL.Component,
  home: Zone,
): (time: ICAL.Time, named: string | undefined) => Instant {
  const own = new Map(
    calendar.getAllSubcomponents('vtimezone').map((component) => {
      const zone = new ICAL.Timezone(component)
      return [zone.tzid, zone] as const
    }),
  )
  return (time, named) => {
    const resolved = time.zone?.tzid
    const name = resolved && resolved !== 'floating' ? resolved : (named ?? 'floating')
    if (name === 'UTC' || name === 'Z') return instant(time.toUnixTime() * 1000)
    const day = dayNumber(`${pad(time.year, 4)}-${pad(time.month)}-${pad(time.day)}` as LocalDate)
    const minutes = time.isDate ? 0 : time.hour * 60 + time.minute + time.second / 60
    if (name === 'floating') return home.toInstant(day, minutes)
    try {
      return zone(name).toInstant(day, minutes)
    } catch {
      const described = own.get(name)
      if (!described) return home.toInstant(day, minutes)
      const there = time.clone()
      there.zone = described
      return instant(there.toUnixTime() * 1000)
    }
  }
}

const pad = (n: number, width = 2): string => String(n).padStart(width, '0')
