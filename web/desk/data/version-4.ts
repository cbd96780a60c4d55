import { type Booking, replay, type StoredEvent } from '@acolhida/core/booking'
import type { Transaction } from 'dexie'
import type { EventRow } from './tables.ts'

/** Tells the bookings of a released database anew from their records. */
export async function deskToVersion4(changes: Transaction): Promise<void> {
  const rows = await changes.table<EventRow, [string, number]>('events').orderBy('[booking+seq]').toArray()
  const records = new Map<string, StoredEvent[]>()
  for (const { booking, event } of rows) {
    const record = records.get(booking)
    if (record) record.push(event)
    else records.set(booking, [event])
  }
  const bookings = [...records].map(([id, record]) => replay(id, record))
  await changes.table<Booking, string>('bookings').bulkPut(bookings)
}
