import { type Booking, stateAt } from '../booking/index.ts'
import { countedMail } from '../people/index.ts'
import { Refused } from '../request/index.ts'
import { HOUR, type Instant, shift } from '../time/index.ts'
import type { House } from './house.ts'

/** The requests whose mailed link has not been pressed yet, and still can be. */
export function unprovedNow(house: House, now: Instant): Booking[] {
  const found: Booking[] = []
  for (const booking of house.openBookings())
    if (booking.unproved && stateAt(booking, now).is === 'unproved') found.push(booking)
  return found
}

/** How long after one receipt to an address that nobody has shown to be theirs the next may go. */
const BETWEEN = HOUR

/**
 * Makes sure that an address which nobody has shown to be theirs is sent no more than a receipt an hour: whoever typed it
 * may have typed a stranger's. It says nothing of whether anybody is known there.
 * @throws Refused
 */
export function checkMailed(house: House, email: string, now: Instant): void {
  const since = shift(now, -BETWEEN)
  const own = house.countedOf(email).flatMap(({ unproved, asked }) => (unproved ? [asked.at] : []))
  const counted = countedMail(email)
  for (const { status, joined } of house.inLine())
    if (
      (status === 'unproved' || status === 'ended') &&
      joined.until !== undefined &&
      countedMail(joined.person.email) === counted
    )
      own.push(joined.at)
  if (own.some((at) => at > since)) throw new Refused(429, 'mailed-already', { where: 'person.email' })
}
