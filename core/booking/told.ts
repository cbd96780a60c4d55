import type { Place } from '../practice/types.ts'
import { DAY, type Instant, instant } from '../time/index.ts'
import type { Booking } from './record.ts'

/** How long before a session the last reminder goes, with which a place can be told, in ms. */
export const LAST_REMINDER = DAY

/** Whether a client may be told the address of a place, by its own rule. */
export function isTold(
  place: Place,
  { status, start }: Pick<Booking, 'status' | 'start'>,
  now: Instant,
): boolean {
  if (place.told === 'door') return true
  if (status !== 'booked' && status !== 'attended') return false
  return place.told === 'confirmation' || now >= toldFrom(start)
}

/** From when the place of a session is told with the last reminder. */
export const toldFrom = (start: Instant): Instant => instant(start - LAST_REMINDER)
