import ICAL from 'ical.js'
import type { Entry } from '../openings/index.ts'
import type { Instant, Zone } from '../time/index.ts'
import { startsOfEvent } from '../time/recurrence.ts'
import { namedZone, reader } from './icalendar.ts'

/** A stretch of time. */
export interface Stretch {
  from: Instant
  to: Instant
}

/** More repetitions of one available stretch than anybody means. */
const MOST = 20_000

/** Stretches in order, joined where they meet or touch. */
export function joined(stretches: readonly Stretch[]): Stretch[] {
  const sorted = [...stretches]
    .filter((stretche) => stretche.to > stretche.from)
    .sort((a, b) => a.from - b.from)
  const result: Stretch[] = []
  for (const stretch of sorted) {
    const last = result.at(-1)
    if (last && stretch.from <= last.to) last.to = Math.max(last.to, stretch.to) as Instant
    else result.push({ ...stretch })
  }
  return result
}

/** What is left of some stretches without others. */
export function without(stretches: readonly Stretch[], taken: readonly Stretch[]): Stretch[] {
  let left = joined(stretches)
  for (const gone of joined(taken)) {
    left = left.flatMap(({ from, to }) => {
      if (gone.to <= from || gone.from >= to) return [{ from, to }]
      const parts: Stretch[] = []
      if (gone.from > from) parts.push({ from, to: gone.from })
      if (gone.to < to) parts.push({ from: gone.to, to })
      return parts
    })
  }
  return left
}

/** When somebody is available, and for which times anything is said at all. */
export interface Availability {
  free: Stretch[]
  covered: Stretch[]
}

/** Reads dates of one VAVAILABILITY or AVAILABLE component; nothing where it has none. */
type DateOf = (component: ICAL.Component, property: 'dtstart' | 'dtend') => Instant | undefined

const dates =
  (calendar: ICAL.Component, home: Zone): DateOf =>
  (component, property) => {
    const at = reader(calendar, home)
    const time = component.getFirstPropertyValue(property) as ICAL.Time | null
    if (time) return at(time, namedZone(component, property))
    const start = component.getFirstPropertyValue('dtstart') as ICAL.Time | null
    const length = component.getFirstPropertyValue('duration') as ICAL.Duration | null
    if (property !== 'dtend' || !start || !length) return undefined
    const end = start.clone()
    end.addDuration(length)
    return at(end, namedZone(component, 'dtstart'))
  }

/** The stretches of one AVAILABLE component that meet a span, each as long as the first. */
function repetitions(
  component: ICAL.Component,
  calendar: ICAL.Component,
  span: Stretch,
  home: Zone,
): Stretch[] {
  const at = reader(calendar, home)
  const event = new ICAL.Event(component, { strictExceptions: true, exceptions: [] })
  const zone = namedZone(component, 'dtstart')
  const endZone = namedZone(component, 'dtend') ?? zone
  const made = (start: ICAL.Time, end: ICAL.Time): Stretch => ({
    from: at(start, zone),
    to: at(end, endZone),
  })
  if (!event.isRecurring()) return [made(event.startDate, event.endDate)]
  const found: Stretch[] = []
  const times = startsOfEvent(event)
  for (let i = 0; i < MOST; i++) {
    const next = times.next()
    if (!next) break
    const { startDate, endDate } = event.getOccurrenceDetails(next)
    const stretch = made(startDate, endDate)
    if (stretch.from >= span.to) break
    if (stretch.to > span.from) found.push(stretch)
  }
  return found
}

/** Priority 0, or none, is the lowest; 1 is the highest (RFC 7953 §3.1, PRIORITY). */
const rank = (component: ICAL.Component): number => {
  const priority = Number(component.getFirstPropertyValue('priority') ?? 0)
  return priority === 0 ? 10 : priority
}

/**
 * What the VAVAILABILITY components of a calendar (RFC 7953) say about a span: from the lowest priority to the
 * highest, each makes its own time unavailable and then its AVAILABLE stretches free. Components of one priority are
 * taken together: what any of them calls available is free.
 */
export function availabilityIn(
  calendar: ICAL.Component,
  from: Instant,
  to: Instant,
  home: Zone,
  skipped: string[] = [],
): Availability {
  const span = { from, to }
  const dateOf = dates(calendar, home)
  const components = calendar.getAllSubcomponents('vavailability')
  const ranks = [...new Set(components.map(rank))].sort((a, b) => b - a)
  let free: Stretch[] = []
  const covered: Stretch[] = []
  for (const number of ranks) {
    const own: Stretch[] = []
    const available: Stretch[] = []
    for (const component of components.filter((other) => rank(other) === number)) {
      const whole: Stretch = {
        from: Math.max(dateOf(component, 'dtstart') ?? from, from) as Instant,
        to: Math.min(dateOf(component, 'dtend') ?? to, to) as Instant,
      }
      own.push(whole)
      for (const part of component.getAllSubcomponents('available')) {
        try {
          available.push(...within(repetitions(part, calendar, span, home), whole))
        } catch (error) {
          const name = String(
            part.getFirstPropertyValue('summary') ?? part.getFirstPropertyValue('uid') ?? '',
          )
          skipped.push(`the availability “${name.slice(0, 60)}”: ${(error as Error).message}`)
        }
      }
    }
    free = joined([...without(free, own), ...available])
    covered.push(...own)
  }
  return { free, covered: joined(covered) }
}

const within = (stretches: readonly Stretch[], whole: Stretch): Stretch[] =>
  stretches.flatMap(({ from, to }) => {
    const part = {
      from: Math.max(from, whole.from) as Instant,
      to: Math.min(to, whole.to) as Instant,
    }
    return part.to > part.from ? [part] : []
  })

/** The times a calendar's availability leaves unavailable, as entries of the diary. */
export function unavailable(
  calendar: ICAL.Component,
  from: Instant,
  to: Instant,
  home: Zone,
  skipped: string[],
): Entry[] {
  const { free, covered } = availabilityIn(calendar, from, to, home, skipped)
  return without(covered, free).map((stretch, i) => ({
    id: `unavailable ${i}`,
    kind: 'outside',
    start: stretch.from,
    end: stretch.to,
    clearBefore: 0,
    clearAfter: 0,
  }))
}
