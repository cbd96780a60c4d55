import { spaceBetween } from '../openings/index.ts'
import {
  type AskAtOnce,
  type Practice,
  placeOf,
  type Service,
  waitlistOf,
  zoneOf,
} from '../practice/index.ts'
import {
  after,
  before,
  type DailyStretch,
  type Duration,
  type Instant,
  instant,
  isWithin,
  MINUTE,
  type Zone,
  zone,
} from '../time/index.ts'
import { type Able, chooseAmong, type FillBy } from './fill.ts'
import type { Waiting } from './types.ts'

/**
 * Until when a freed time stands for whoever it is held out to: for its time, and never later than the notice that they
 * and the service need; the last moment counts.
 */
export function standsUntil(
  practice: Practice,
  service: Service,
  { place, zone: theirs, notice }: Pick<Waiting, 'place' | 'zone' | 'notice'>,
  start: Instant,
  now: Instant,
): Instant {
  const { stands, least, quiet } = waitlistOf(service)
  const there = zoneOf(practice, placeOf(practice, place))
  const hours = quiet ? practice.messaging?.quiet : undefined
  const until = hours ? pausing(now, stands, hours, zone(theirs), there) : after(now, stands, there)
  const needed = [least, ...(notice ? [notice] : [])].map((one) => before(start, one, there))
  return instant(Math.min(until, ...needed))
}

/** The end of a time that does not run in the quiet hours. */
function pausing(now: Instant, by: Duration, quiet: DailyStretch, theirs: Zone, there: Zone): Instant {
  let left = after(now, by, there) - now
  let at = now
  // A quiet that never ends would stop it for good.
  for (let i = 0; left > 0 && i < LONGEST; i++) {
    const step = Math.min(left, MINUTE)
    if (!isWithin(instant(at + step / 2), quiet, theirs)) left -= step
    at = instant(at + step)
  }
  return at
}

/** For how many minutes the end of an offer is looked for: four weeks. */
const LONGEST = 28 * 1_440

/** A time that is held out to somebody. */
export interface HeldFor {
  waiting: Pick<Waiting, 'id' | 'minutes'>
  service: Service
  start: Instant
}

/** How many seats are free at a start, for groups. */
export type SeatsAt = (service: Service, start: Instant) => number

/**
 * Whom a freed time is held out to next, beside those to whom it is held out already. Of those that could come one is
 * chosen for each time, as by `fillFreed`; then a second for each, and so on, until as many are asked for one time as
 * the practitioner wants. Whose times are not in each other's way are no rivals.
 */
export function holdOutNext(
  practice: Practice,
  able: readonly Able[],
  standing: readonly HeldFor[],
  by: FillBy & { ask: AskAtOnce; seats: SeatsAt },
): HeldFor[] {
  const { ask, seats, ...how } = by
  if (ask === 'none') return []
  // Where everybody is asked, there is nothing to choose.
  if (ask === 'all')
    return able.map(({ waiting, service, starts }) => ({ waiting, service, start: starts[0]! }))
  const asked: HeldFor[] = [...standing]
  const next: HeldFor[] = []
  let left = [...able]
  while (left.length > 0) {
    // Many wait for the same: how many are asked for a time is counted once for all of them.
    const known = new Map<string, number>()
    const rivalsOf = (one: Able, start: Instant): number => {
      const key = `${one.service.id} ${one.waiting.minutes} ${one.waiting.travel} ${start}`
      const before = known.get(key)
      if (before !== undefined) return before
      const rivals = asked.filter((other) => inTheWay(practice, other, { ...one, start })).length
      known.set(key, rivals)
      return rivals
    }
    const room = left.flatMap((one) => {
      const starts = one.starts.filter(
        (start) => rivalsOf(one, start) < ask * (one.service.seats > 1 ? seats(one.service, start) : 1),
      )
      return starts.length > 0 ? [{ ...one, starts }] : []
    })
    const { chosen } = chooseAmong(practice, room, how)
    if (chosen.length === 0) break
    const ids = new Set(chosen.map(({ waiting }) => waiting.id))
    for (const { waiting, start } of chosen) {
      const { service } = left.find((one) => one.waiting.id === waiting.id)!
      const held = { waiting, service, start }
      asked.push(held)
      next.push(held)
    }
    left = left.filter(({ waiting }) => !ids.has(waiting.id))
  }
  return next
}

/** Whether two times can't both be taken, the space between sessions included; those of one group session can. */
function inTheWay({ space }: Practice, a: HeldFor, b: HeldFor): boolean {
  const [one, other] = a.start <= b.start ? [a, b] : [b, a]
  const gap = spaceBetween(space, one.service.clearAfter, other.service.clearBefore)
  return one.start + (one.waiting.minutes + gap) * MINUTE > other.start
}
