import type { Instant } from '../time/index.ts'
import type { Booking } from './record.ts'
import { isHeld, isPlaced, stateAt } from './state.ts'

/** The price code that a booking uses up at `now`: of everybody who has booked or waits with one. */
export function codeUsed(booking: Booking, now: Instant): string | undefined {
  const state = stateAt(booking, now)
  return isHeld(state) || isPlaced(state) ? booking.asked.code : undefined
}

/** How often a price code is in use, by its id. */
export const usesIn =
  (bookings: Iterable<Booking>, now: Instant) =>
  (id: string): number => {
    let uses = 0
    for (const booking of bookings) if (codeUsed(booking, now) === id) uses++
    return uses
  }
