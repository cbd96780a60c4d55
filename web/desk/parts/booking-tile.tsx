import { type Booking, type InForce, lackingIn, readiness } from '@acolhida/core/booking'
import { type Practice, ticksBefore } from '@acolhida/core/practice'
import { useLiveQuery } from 'dexie-react-hooks'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { personOfMail } from '../data/people.ts'

/** What is still to be agreed to; who else has agreed to what is asked only where something might be. */
export function useLacking(practice: Practice, booking: Booking): InForce[] {
  const at = relayNow()
  const perhaps = lackingIn(practice, booking, {}, at)
  const { email } = booking.asked.person
  const agreed = useLiveQuery(
    async () => (perhaps.length === 0 ? {} : ((await personOfMail(db, email))?.agreed ?? {})),
    [email, perhaps.length],
  )
  return perhaps.length === 0 || !agreed ? [] : lackingIn(practice, booking, agreed, at)
}

/** The tile of a booking, with what is still to be agreed to. */
export const BookingTile = ({
  practice,
  booking,
  size,
}: {
  practice: Practice
  booking: Booking
  size: number
}) => (
  <ReadinessTile
    readiness={readiness(booking, useLacking(practice, booking).length > 0, ticksBefore(practice, booking))}
    size={size}
  />
)
