import type { Booking } from '@acolhida/core/booking'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { personOfMail } from '../data/people.ts'
import { ifMissedWords } from './if-missed-words.ts'

/** What would follow if it were missed, read before it is said. */
export function IfMissed({ desk, booking }: { desk: Desk; booking: Booking }) {
  const now = useMinute()
  const person = useLiveQuery(
    () => personOfMail(db, booking.asked.person.email),
    [booking.asked.person.email],
  )
  const words = ifMissedWords(desk.practice, booking, person, now)
  return words ? <span className="w-0 min-w-full text-[13px] text-soft">If missed: {words}</span> : null
}
