import { awayTimes } from '../openings/away.ts'
import { type Practice, placeOf, type Service, zoneOf } from '../practice/index.ts'
import { type Instant, instantOf, MINUTE } from '../time/index.ts'
import type { Booking } from './record.ts'
import { isEnded, stateAt } from './state.ts'

/** What a change of the practice takes from something booked. */
export type Harm = 'service' | 'place' | 'date' | 'away' | 'least'

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** What is there before a change and not after it, by id. */
const gone = (before: readonly { id: string }[], after: readonly { id: string }[]): Set<string> => {
  const left = new Set(after.map(({ id }) => id))
  return new Set(before.filter(({ id }) => !left.has(id)).map(({ id }) => id))
}

/** Services whose least number has been raised, or set. */
const raised = (before: Practice, after: Practice): Service[] =>
  after.services.filter((service) => {
    const was = before.services.find(({ id }) => id === service.id)
    return was !== undefined && (service.least?.people ?? 0) > (was.least?.people ?? 0)
  })

const session = ({ service, place, start }: Pick<Booking, 'service' | 'place' | 'start'>): string =>
  `${service} ${place} ${start}`

/** The sessions whose group date has been taken away, from a service and a place that are still there. */
function datesGone(before: Practice, after: Practice): Set<string> {
  const left = new Map(after.services.map(({ id, groupDates }) => [id, groupDates]))
  const dates = before.services.flatMap(({ id, groupDates }) =>
    groupDates
      .filter((date) =>
        left.get(id)?.every((other) => other.place !== date.place || other.start !== date.start),
      )
      .map(({ place, start }) =>
        session({ service: id, place, start: instantOf(zoneOf(before, placeOf(before, place)), start) }),
      ),
  )
  return new Set(dates)
}

/** Whether a change of the practice could take something from what is booked: cheap, to be asked at each change. */
export const mayHurt = (before: Practice, after: Practice): boolean =>
  gone(before.services, after.services).size > 0 ||
  gone(before.places, after.places).size > 0 ||
  datesGone(before, after).size > 0 ||
  raised(before, after).length > 0 ||
  !same(before.away, after.away)

/**
 * What a change of the practice takes from bookings and requests that are still to come, in order of their starts: each
 * once, with the first that holds of: its service is gone, its place, its group date, the practitioner is newly away, or
 * the group has too few people for the number that is newly asked for.
 */
export function hurtBy(
  before: Practice,
  after: Practice,
  bookings: readonly Booking[],
  now: Instant,
): { booking: Booking; harm: Harm }[] {
  const here = bookings
    .filter((booking) => booking.start > now && !isEnded(stateAt(booking, now)))
    .sort((a, b) => a.start - b.start)
  if (here.length === 0) return []
  const services = gone(before.services, after.services)
  const places = gone(before.places, after.places)
  const dates = datesGone(before, after)
  const least = new Map(raised(before, after).map(({ id, least }) => [id, least!.people]))
  const end = (booking: Booking): number => booking.start + booking.minutes * MINUTE
  const from = here[0]!.start
  const to = Math.max(...here.map(end)) as Instant
  const newly = after.away.filter((away) => !before.away.some((other) => same(away, other)))
  const fresh = newly.length === 0 ? [] : awayTimes({ ...after, away: newly }, from, to)
  const known = fresh.length === 0 ? [] : awayTimes(before, from, to)
  const meets = (times: typeof fresh, booking: Booking): boolean =>
    times.some((time) => time.from < end(booking) && time.to > booking.start)
  const people = new Map<string, number>()
  for (const booking of here) {
    if (!booking.unproved) people.set(session(booking), (people.get(session(booking)) ?? 0) + 1)
  }
  const harmOf = (booking: Booking): Harm | undefined => {
    if (services.has(booking.service)) return 'service'
    if (places.has(booking.place)) return 'place'
    if (dates.has(session(booking))) return 'date'
    if (meets(fresh, booking) && !meets(known, booking)) return 'away'
    const needed = least.get(booking.service)
    return needed !== undefined && (people.get(session(booking)) ?? 0) < needed ? 'least' : undefined
  }
  return here.flatMap((booking) => {
    const harm = harmOf(booking)
    return harm ? [{ booking, harm }] : []
  })
}
