import { useLiveQuery } from 'dexie-react-hooks'
import { db } from '../data/db.ts'
import { bookingsOf } from '../data/people.ts'
import type { BookingRow, PersonRow } from '../data/rows.ts'

/** Somebody by their id, with all their bookings, live; nothing while they are looked up. */
export function usePerson(id: string): { person: PersonRow | undefined; bookings: BookingRow[] } | undefined {
  const found = useLiveQuery(async () => {
    const person = await db.people.get(id)
    return { id, person, bookings: person ? await bookingsOf(db, person) : [] }
  }, [id])
  return found?.id === id ? found : undefined
}
