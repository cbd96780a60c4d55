import type { Transaction } from 'dexie'
import { type BookingRow, type PersonRow, personRows, plainPerson } from './rows.ts'

/** Gives every person of a released database what their bookings tell of them by now. */
export async function deskToVersion7(changes: Transaction): Promise<void> {
  const bookings = await changes.table<BookingRow, string>('bookings').toArray()
  const people = await changes.table<PersonRow, string>('people').toArray()
  await changes.table<PersonRow, string>('people').bulkPut(personRows(people.map(plainPerson), bookings))
}
