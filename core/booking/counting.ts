import type { Counting, Lead } from '../practice/types.ts'
import { after, before, type Instant, instant, type Zone } from '../time/index.ts'
import type { Booking } from './record.ts'

/** Something of a client's that counts against them. */
export interface Counted {
  booking: string
  at: Instant
  points: number
}

/** Why something counts: a session missed, or cancelled when that was no longer free of charge. */
export type CountedFor = 'missed' | 'late'

/** Why a booking counts against its client, if it does. */
export function countedFor({ status, cancelledBy, share }: Booking): CountedFor | undefined {
  if (status === 'missed') return 'missed'
  return status === 'cancelled' && cancelledBy === 'client' && share > 0 ? 'late' : undefined
}

/** The moment of what counts: the start of a session missed; when one was cancelled. */
const momentOf = (booking: Booking): Instant =>
  booking.status === 'missed' ? booking.start : (booking.ended ?? booking.latest)

/** What a booking counts by some rules; nothing where it was forgiven. */
export function countedBy(counting: Counting | undefined, booking: Booking): Counted | undefined {
  const why = countedFor(booking)
  const points = (why && counting?.[why]) ?? 0
  if (points === 0 || booking.forgiven) return undefined
  return { booking: booking.id, at: momentOf(booking), points }
}

/** What a booking counts: by the rules of the day one asked. */
export const countedIn = (booking: Booking): Counted | undefined =>
  countedBy(booking.asked.houseRules.counting, booking)

/** A consequence that holds. */
export interface Holds {
  lead: Lead
  /** What reached it last. */
  since: Instant
  /** It holds at this moment still. */
  until: Instant
}

/**
 * What follows from what counts of one person, at `now`. A consequence is reached by each thing that counts with which
 * the points within the time before it are enough, and lasts from there. Every edge is inclusive: a miss exactly so
 * long ago still counts.
 * @param counted in any order
 * @param where the practice's zone, in which days and months count
 */
export function holdsFor(
  leads: readonly Lead[],
  counted: readonly Counted[],
  now: Instant,
  where: Zone,
): Holds[] {
  const earlier = counted.filter(({ at }) => at <= now)
  return leads.flatMap((lead): Holds[] => {
    const reached = earlier.filter(({ at }) => pointsWithin(earlier, lead, at, where) >= lead.points)
    if (reached.length === 0) return []
    const since = reached.reduce((a, b) => (a.at >= b.at ? a : b)).at
    const until = after(since, lead.lasts, where)
    return now <= until ? [{ lead, since, until }] : []
  })
}

/** The points of what counts within the time of a consequence before a moment, that moment included. */
function pointsWithin(counted: readonly Counted[], { within }: Lead, at: Instant, where: Zone): number {
  const from = before(at, within, where)
  return counted.reduce((sum, one) => (one.at >= from && one.at <= at ? sum + one.points : sum), 0)
}

/** Whether a consequence of a kind holds. */
export const leadsTo = (holds: readonly Holds[], to: Lead['to']): boolean =>
  holds.some(({ lead }) => lead.to === to)

/** From when on something that counts can still matter at `now`. */
export const mattersFrom = (leads: readonly Lead[], now: Instant, where: Zone): Instant =>
  instant(
    Math.min(now, ...leads.map(({ within, lasts }) => before(before(now, lasts, where), within, where))),
  )

/** What some rules would have led to. */
export interface WouldLead {
  /** How many sessions were missed, and cancelled late. */
  missed: number
  late: number
  /** How many people each consequence would have met, in the order of the rules. */
  met: number[]
}

/**
 * What counting by some rules would have led to since a moment.
 * @param people the bookings of each person
 */
export function wouldLead(
  counting: Counting,
  people: Iterable<readonly Booking[]>,
  since: Instant,
  where: Zone,
): WouldLead {
  const met = counting.leads.map(() => 0)
  let [missed, late] = [0, 0]
  for (const bookings of people) {
    const recent = bookings
      .filter((booking) => !booking.forgiven && momentOf(booking) >= since)
      .map(countedFor)
    missed += recent.filter((why) => why === 'missed').length
    late += recent.filter((why) => why === 'late').length
    const counted = bookings.flatMap((booking) => countedBy(counting, booking) ?? [])
    counting.leads.forEach((lead, i) => {
      const reached = ({ at }: Counted): boolean =>
        at >= since && pointsWithin(counted, lead, at, where) >= lead.points
      if (counted.some(reached)) met[i]!++
    })
  }
  return { missed, late, met }
}
