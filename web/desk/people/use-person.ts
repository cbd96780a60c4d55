import { useLiveQuery } from 'dexie-react-hooks'
import { db } from '../data/db.ts'
import { askedForThem } from '../data/of-person.ts'
import { bookingsOf } from '../data/people.ts'
import type { BookingRow, PersonRow } from '../data/rows.ts'

/** Somebody, and their bookings; and what others have asked for that concerns them. */
export interface FoundPerson {
  person: PersonRow | undefined
  bookings: BookingRow[]
  asked: BookingRow[]
}

/** Somebody by their id, live; nothing while they are looked up. */
export function usePerson(id: string): FoundPerson | undefined {
  const found = useLiveQuery(async () => {
    const person = await db.people.get(id)
    if (!person) return { id, person, bookings: [], asked: [] }
    return { id, person, bookings: await bookingsOf(db, person), asked: await askedForThem(db, person) }
  }, [id])
  return found?.id === id ? found : undefined
}
