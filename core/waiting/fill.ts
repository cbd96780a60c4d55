import {
  type Asker,
  type Closure,
  type Diary,
  newClient,
  openStarts,
  spaceBetween,
  why,
} from '../openings/index.ts'
import {
  type Practice,
  type Preference,
  placeOf,
  type Service,
  serviceOf,
  travelled,
  travelZoneOf,
  waitlistOf,
  zoneOf,
} from '../practice/index.ts'
import {
  after,
  dateAt,
  dayNumber,
  duration,
  HOUR,
  type Instant,
  instant,
  MINUTE,
  zone,
} from '../time/index.ts'
import type { Candidate } from './candidate.ts'
import { type Packing, packBest } from './packing.ts'
import type { Waiting } from './types.ts'
import { couldCome } from './windows.ts'

/** Time that has come free. */
export interface FreedTime {
  from: Instant
  to: Instant
}

/** Why somebody who waits is not to have a freed time. */
export type WhyNotThem =
  /** Their service is gone, or they may not book it. */
  | { why: 'not-for-them' }
  /** It is too short for their session. */
  | { why: 'too-short' }
  /** No window of theirs holds a session in it. */
  | { why: 'windows' }
  /** They, or the service, need more notice. */
  | { why: 'notice' }
  /** No start in it is open: what stands in the way where least does, and where that is. */
  | { why: 'closed'; start?: Instant; closures: Closure[] }
  /** Somebody else has it. */
  | { why: 'others' }

/** Who is to have a freed time. */
export interface Filled extends Omit<Packing, 'chosen'> {
  chosen: { waiting: Waiting; start: Instant }[]
  others: ({ waiting: Waiting } & WhyNotThem)[]
}

/** What a freed time is filled by. */
export interface FillBy {
  prefer: Preference
  /** What a session is worth; its price where nothing is said. */
  by?: 'price' | 'minutes'
  /** Who each of them is to openings, by person; a newcomer where nobody is known. */
  askerOf?: (person: string) => Asker | undefined
  now: Instant
  /** How many ways are looked at. */
  most?: number
  /** A session may also lie in it in part, and go on into what was free already. */
  meets?: boolean
  /** Why nobody could come is not looked into. */
  bare?: boolean
}

/** Somebody who could have a session in a freed time, and where it could begin. */
export interface Able {
  waiting: Waiting
  service: Service
  starts: Instant[]
}

/** Who could have a session in a freed time, and why the others could not. */
export interface WhoCould {
  able: Able[]
  others: Filled['others']
}

/**
 * Fills a freed time with those who wait, each once, at starts that are open to them and lie in their windows. By longest
 * wait, and by those one works with already, it goes through the line; `fullest` takes what is worth most in all.
 */
export function fillFreed(
  practice: Practice,
  diary: Diary,
  line: readonly Waiting[],
  freed: FreedTime,
  by: FillBy,
): Filled {
  const { able, others } = whoCould(practice, diary, line, freed, by)
  const { chosen, ...packing } = chooseAmong(practice, able, by)
  const has = new Set(chosen.map(({ waiting }) => waiting.id))
  const left = able.flatMap(({ waiting }) =>
    has.has(waiting.id) ? [] : [{ waiting, why: 'others' as const }],
  )
  return { chosen, ...packing, others: [...others, ...left] }
}

/** Who of those that wait could have a session in a freed time. */
export function whoCould(
  practice: Practice,
  diary: Diary,
  line: readonly Waiting[],
  freed: FreedTime,
  by: FillBy,
): WhoCould {
  const could: WhoCould = { able: [], others: [] }
  // Many wait for the same: what is open is looked up once for all to whom it is the same.
  const known = new Map<string, Instant[]>()
  for (const waiting of line) {
    const found = startsFor(practice, diary, waiting, freed, by, known)
    if ('why' in found) could.others.push({ waiting, ...found })
    else could.able.push({ waiting, ...found })
  }
  return could
}

/** Chooses among those who could come, one for each time. */
export function chooseAmong(practice: Practice, able: readonly Able[], by: FillBy): Omit<Filled, 'others'> {
  if (able.length === 0) return { chosen: [], value: 0, bound: 0, proven: true, steps: 0 }
  const worth = ({ price, minutes }: Waiting): number => (by.by === 'minutes' ? minutes : price)
  // Sessions begin at whole minutes, whenever the time came free.
  const first = Math.min(...able.map(({ starts }) => starts[0] ?? Number.POSITIVE_INFINITY))
  const begin = Math.floor(first / MINUTE) * MINUTE
  const candidates = able.map(
    ({ waiting, service, starts }): Candidate => ({
      id: waiting.id,
      minutes: waiting.minutes,
      before: service.clearBefore,
      after: service.clearAfter,
      value: worth(waiting),
      waited: Math.max(0, Math.floor((by.now - waiting.since) / HOUR)),
      starts: starts.map((start) => (start - begin) / MINUTE),
    }),
  )
  const { space } = practice
  const packing =
    by.prefer === 'fullest'
      ? packBest(candidates, { space, ...(by.most === undefined ? {} : { most: by.most }) })
      : inOrder(candidates, inLine(able, by), space)
  const byId = new Map(able.map((one) => [one.waiting.id, one]))
  return {
    ...packing,
    chosen: packing.chosen.map(({ id, start }) => ({
      waiting: byId.get(id)!.waiting,
      start: instant(begin + start * MINUTE),
    })),
  }
}

/** Where somebody could begin in a freed time, or why nowhere. */
function startsFor(
  practice: Practice,
  diary: Diary,
  waiting: Waiting,
  { from, to }: FreedTime,
  { now, askerOf, meets = false, bare = false }: FillBy,
  known: Map<string, Instant[]>,
): { service: Service; starts: Instant[] } | WhyNotThem {
  const own = serviceOf(practice, waiting.service)
  if (!own?.on || !own.places.includes(waiting.place)) return { why: 'not-for-them' }
  const { minutes, place } = waiting
  const length = minutes * MINUTE
  if (!meets && to - from < length) return { why: 'too-short' }
  const at = placeOf(practice, place)
  const there = zoneOf(practice, at)
  const asker = askerOf?.(waiting.person) ?? newClient
  const earliest = Math.max(
    meets ? 0 : from,
    after(now, waitlistOf(own).least, there),
    waiting.notice ? after(now, waiting.notice, there) : 0,
  )
  const service = travelled(own, travelZoneOf(at, waiting.travel))
  // An offer has a notice of its own, in place of what openings ask for.
  const ask = { service: { ...service, notice: duration('PT0S') }, place, minutes, asker, now }
  const begins = (meets ? from - length + MINUTE : from) as Instant
  const isIn = (start: Instant): boolean =>
    meets ? start + length > from && start < to : start >= from && start + length <= to
  const { standing, invited, blocked } = asker
  const same = [service.id, waiting.travel, place, minutes, standing, invited.includes(service.id), blocked]
  const key = same.join(' ')
  let open = known.get(key)
  if (!open) {
    const first = dateAt(there, begins)
    const days = dayNumber(dateAt(there, to)) - dayNumber(first) + 1
    open = openStarts(practice, diary, ask, first, days).filter(isIn)
    known.set(key, open)
  }
  const clock = zone(waiting.zone)
  const { earlier = Number.POSITIVE_INFINITY } = waiting
  const suits = (start: Instant): boolean => start < earlier && couldCome(waiting, start, clock)
  const theirs = open.filter(suits)
  const starts = theirs.filter((start) => start >= earliest)
  // What lies in it whole comes before what goes on into what was free already.
  const whole = starts.filter((start) => start >= from && start + length <= to)
  if (starts.length > 0) return { service, starts: whole.length > 0 ? whole : starts }
  if (theirs.length > 0) return { why: 'notice' }
  if (open.length > 0) return { why: 'windows' }
  if (bare) return { why: 'closed', closures: [] }
  // Of where they could begin, the start that the least stands in the way of says most.
  const closed = everyStep(begins, meets ? instant(to + length) : to, minutes)
    .filter((start) => isIn(start) && suits(start))
    .slice(0, MOST_ASKED)
    .map((start) => ({ start, closures: why(practice, diary, ask, start) }))
  if (closed.length === 0) return { why: 'windows' }
  const least = closed.reduce((least, one) => (one.closures.length < least.closures.length ? one : least))
  return { why: 'closed', ...least }
}

/** At how many starts it is asked what stands in the way. */
const MOST_ASKED = 100

/** A freed time in steps of five minutes, as clocks show them, at which a session would end in it. */
function everyStep(from: Instant, to: Instant, minutes: number): Instant[] {
  const step = 5 * MINUTE
  const first = Math.ceil(from / step) * step
  const length = Math.max(0, Math.floor((to - minutes * MINUTE - first) / step) + 1)
  return Array.from({ length }, (_, nth) => instant(first + nth * step))
}

/** Those who could come in the order in which they are asked. */
const inLine = (able: readonly Able[], { prefer, askerOf }: FillBy): string[] => {
  const known = ({ waiting }: Able): number =>
    prefer === 'known-first' && askerOf?.(waiting.person)?.standing === 'known' ? 0 : 1
  return [...able]
    .sort(
      (a, b) =>
        known(a) - known(b) || a.waiting.since - b.waiting.since || (a.waiting.id < b.waiting.id ? -1 : 1),
    )
    .map(({ waiting }) => waiting.id)
}

/** One after the other takes the first start that is left. */
function inOrder(
  candidates: readonly Candidate[],
  order: readonly string[],
  space: Practice['space'],
): Packing {
  const gap = (earlier: Candidate, later: Candidate): number =>
    spaceBetween(space, earlier.after, later.before)
  const placed: { of: Candidate; start: number }[] = []
  for (const id of order) {
    const of = candidates.find((one) => one.id === id)
    const start = of?.starts.find((minute) =>
      placed.every((other) =>
        other.start < minute
          ? other.start + other.of.minutes + gap(other.of, of) <= minute
          : minute + of.minutes + gap(of, other.of) <= other.start,
      ),
    )
    if (of && start !== undefined) placed.push({ of, start })
  }
  const value = placed.reduce((sum, { of }) => sum + of.value, 0)
  return {
    chosen: placed.sort((a, b) => a.start - b.start).map(({ of, start }) => ({ id: of.id, start })),
    ...{ value, bound: value, proven: true, steps: order.length },
  }
}
