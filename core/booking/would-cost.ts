import type { HouseRules } from '../practice/types.ts'
import type { Instant, Zone } from '../time/index.ts'
import { costOf } from './deadlines.ts'
import type { Booking } from './record.ts'

/** What clients' cancellations come to by some rules. */
export interface WouldCost {
  cancellations: number
  /** How many at which share, in percent, the cheapest first. */
  shares: { share: number; count: number }[]
  /** How many cost more by these rules than they did. */
  dearer: number
}

/**
 * What the sessions that clients cancelled since a moment would have cost by other rules, each looked at for the moment
 * at which it was cancelled. Those that cost nothing anyway are left out.
 * @param zoneOf the zone of a booking's place
 */
export function wouldHaveCost(
  bookings: Iterable<Booking>,
  houseRules: HouseRules,
  since: Instant,
  zoneOf: (booking: Booking) => Zone,
): WouldCost {
  const counts = new Map<number, number>()
  let [cancellations, dearer] = [0, 0]
  for (const booking of bookings) {
    const { status, cancelledBy, latest, ended = latest, price, share: was } = booking
    if (status !== 'cancelled' || cancelledBy !== 'client' || ended < since || price === 0) continue
    const share = costOf({ ...booking, asked: { houseRules } }, zoneOf(booking), ended)
    cancellations++
    if (share > was) dearer++
    counts.set(share, (counts.get(share) ?? 0) + 1)
  }
  const shares = [...counts].map(([share, count]) => ({ share, count })).sort((a, b) => a.share - b.share)
  return { cancellations, shares, dearer }
}
