import type { Transaction } from 'dexie'
import { type BookingRow, bookingRow, type PersonRow, personRows, plainPerson } from './rows.ts'

/** Gives bookings and people of a released database what is found by it since: what is owed, agreed to, and counts. */
export async function deskToVersion7(changes: Transaction): Promise<void> {
  const bookings = await changes.table<BookingRow, string>('bookings').toArray()
  await changes.table<BookingRow, string>('bookings').bulkPut(bookings.map(bookingRow))
  const people = await changes.table<PersonRow, string>('people').toArray()
  await changes.table<PersonRow, string>('people').bulkPut(personRows(people.map(plainPerson), bookings))
}
