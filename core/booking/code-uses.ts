import type { Instant } from '../time/index.ts'
import type { Booking } from './record.ts'

/** How often a price code is in use, by its id: by everybody who has booked or waits with it at `now`. */
export const usesIn =
  (bookings: Iterable<Booking>, now: Instant) =>
  (id: string): number => {
    let uses = 0
    for (const { asked, status, until } of bookings) {
      const waits = status === 'requested' && until >= now
      if (asked.code === id && (waits || ['booked', 'attended', 'missed'].includes(status))) uses++
    }
    return uses
  }
