import type { Booking } from '@acolhida/core/booking'
import type { Entry } from '@acolhida/core/openings'
import type { Person } from '@acolhida/core/people'
import type { Transaction } from 'dexie'
import {
  type BookingRow,
  bookingRow,
  filesLacking,
  type PersonRow,
  personRows,
  withCalendar,
} from './rows.ts'
import type { FileRow, PracticeRow, WantedFile } from './tables.ts'

/** Gives every booking and person of a released database the row that pages look for. */
export async function deskToVersion5(changes: Transaction): Promise<void> {
  const bookings = await changes.table<Booking, string>('bookings').toArray()
  await changes.table<BookingRow, string>('bookings').bulkPut(bookings.map(bookingRow))
  const people = await changes.table<Person, string>('people').toArray()
  await changes.table<PersonRow, string>('people').bulkPut(personRows(people, bookings))
  const here = new Set(await changes.table<FileRow, string>('files').toCollection().primaryKeys())
  await changes.table<WantedFile, string>('wanted').bulkPut(filesLacking(bookings, [], here))
  const row = await changes.table<PracticeRow, string>('practice').get('practice')
  const sessions = await changes.table<Entry, string>('sessions').toArray()
  await changes.table<Entry, string>('sessions').bulkPut(withCalendar(sessions, row?.practice.calendars))
}
