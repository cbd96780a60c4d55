import { placeOf, serviceOf, zoneOf } from '../practice/find.ts'
import { travelled, travelZoneOf } from '../practice/travel.ts'
import type { Practice } from '../practice/types.ts'
import { type DayNumber, type Instant, instantOf, MINUTE, shift, weekStart, zone } from '../time/index.ts'

/** A stretch of the diary that is taken: a session, a hold, or an event of another calendar. */
export interface Entry {
  id: string
  kind: 'session' | 'hold' | 'outside'
  start: Instant
  end: Instant
  /** Minutes; none for an outside event, towards which only the service's own clear time counts. */
  clearBefore: number
  clearAfter: number
  service?: string
  place?: string
  /** For a group: how many there are and how many are taken. */
  seats?: number
  taken?: number
  /** The other calendar it comes from, by id. */
  calendar?: string
  /** The request it belongs to: times offered for one request count once for limits. */
  request?: string
}

/** Everything taken, sorted and counted once, to be asked about many times. */
export interface Diary {
  readonly entries: readonly Entry[]
  /** The longest entry in ms, so that a search by start knows how far back to look. */
  readonly longest: number
  /** Sessions and holds on a date of the practice's zone, or in its week, of one service or of all. */
  count(span: 'day' | 'week', day: DayNumber, service?: string): number
}

/** Every group date of a practice as an entry that nobody has come to yet. */
function groupsOf(practice: Practice): readonly Entry[] {
  const before = groups.get(practice)
  if (before) return before
  const made = practice.services.flatMap((service) => {
    if (service.seats < 2 || service.groupAt !== 'dates') return []
    return service.groupDates.map((date): Entry => {
      const start = instantOf(zoneOf(practice, placeOf(practice, date.place)), date.start)
      return {
        id: date.id,
        kind: 'session',
        start,
        end: shift(start, service.minutes * MINUTE),
        clearBefore: service.clearBefore,
        clearAfter: service.clearAfter,
        service: service.id,
        place: date.place,
        seats: service.seats,
        taken: 0,
      }
    })
  })
  groups.set(practice, made)
  return made
}

const groups = new WeakMap<Practice, readonly Entry[]>()

/** The entries of group dates to which nobody has come yet; they keep their time all the same. */
const emptyGroups = (practice: Practice, entries: readonly Entry[]): Entry[] =>
  groupsOf(practice).filter(
    (date) => !entries.some((entry) => entry.start === date.start && entry.service === date.service),
  )

/** Prepares what is taken for questions about openings. Entries without a length are left out. */
export function makeDiary(practice: Practice, taken: readonly Entry[]): Diary {
  const entries = [...taken, ...emptyGroups(practice, taken)]
    .filter((entry) => entry.end > entry.start)
    .sort((a, b) => a.start - b.start || a.end - b.end || (a.id < b.id ? -1 : 1))
  const home = zone(practice.profile.zone)
  let counts: Map<string, number> | undefined
  const counted = (): Map<string, number> => {
    if (counts) return counts
    counts = new Map()
    const requests = new Set<string>()
    for (const entry of entries) {
      if (entry.kind === 'outside') continue
      const { day } = home.toWall(entry.start)
      const week = weekStart(day, practice.profile.weekStart)
      const { service, request } = entry
      for (const key of [`day ${day}`, `week ${week}`, `day ${day} ${service}`, `week ${week} ${service}`]) {
        if (request && requests.has(`${request} ${key}`)) continue
        if (request) requests.add(`${request} ${key}`)
        counts.set(key, (counts.get(key) ?? 0) + 1)
      }
    }
    return counts
  }
  return {
    entries,
    longest: entries.reduce((most, entry) => Math.max(most, entry.end - entry.start), 0),
    count: (span, day, service) => {
      const first = span === 'day' ? day : weekStart(day, practice.profile.weekStart)
      return counted().get(service === undefined ? `${span} ${first}` : `${span} ${first} ${service}`) ?? 0
    },
  }
}

/**
 * A booking's place in the diary.
 * @param minutes the length, which the answers may have changed from the service's own
 */
export function entryFor(
  practice: Practice,
  part: {
    id: string
    kind: 'session' | 'hold'
    service: string
    place: string
    start: Instant
    minutes: number
    travel?: string | undefined
  },
): Entry {
  const found = serviceOf(practice, part.service)
  const service = found && travelled(found, travelZoneOf(placeOf(practice, part.place), part.travel))
  return {
    id: part.id,
    kind: part.kind,
    start: part.start,
    end: shift(part.start, part.minutes * MINUTE),
    clearBefore: service?.clearBefore ?? 0,
    clearAfter: service?.clearAfter ?? 0,
    service: part.service,
    place: part.place,
  }
}

/** Joins the bookings of one group session into one entry with its seats counted. */
export function gatherGroups(practice: Practice, entries: readonly Entry[]): Entry[] {
  const gathered: Entry[] = []
  const groups = new Map<string, Entry>()
  for (const entry of entries) {
    const seats = entry.service ? (serviceOf(practice, entry.service)?.seats ?? 1) : 1
    if (seats < 2 || entry.kind === 'outside') {
      gathered.push(entry)
      continue
    }
    const key = `${entry.service} ${entry.start} ${entry.place}`
    const group = groups.get(key)
    if (group) {
      group.taken = (group.taken ?? 0) + (entry.taken ?? 1)
      if (entry.end > group.end) group.end = entry.end
    } else {
      const first = { ...entry, kind: 'session' as const, seats, taken: entry.taken ?? 1 }
      groups.set(key, first)
      gathered.push(first)
    }
  }
  return gathered
}
