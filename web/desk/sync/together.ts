import { type Booking, callingOff, type DeskDoes, UNDO } from '@acolhida/core/booking'
import type { Practice } from '@acolhida/core/practice'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { GoesWith } from '../parts/word.tsx'
import { decided, noteIntention, roundSoon } from './acts.ts'

/** One of several things that are decided together. */
export interface ForEach {
  booking: Booking
  command: DeskDoes
}

/**
 * Decides about several at once, each its own. One transaction.
 * @param change how the practice changes with it, and what that is called
 */
export async function decideEach(
  each: readonly ForEach[],
  change?: { what: string; change: (practice: Practice) => Practice },
): Promise<void> {
  const { changeHere } = await import('../data/changing.ts')
  const words = await Promise.all(each.map(({ booking, command }) => decided(booking, command)))
  await db.transaction('rw', [db.intentions, db.practice, db.changes, db.bookings], async () => {
    for (const word of words) await noteIntention(word)
    if (change) await changeHere(db, change.what, change.change, 'decided')
  })
  roundSoon()
}

/** What the practice’s change is called by which days are closed that one can’t keep. */
export const CLOSED_DAYS = 'days you can’t keep'

/**
 * Takes back what was decided for several, and the days that were closed with it, if that was the last change of the
 * practice and the same moments ago. One transaction.
 */
export async function takeAllBack(bookings: readonly Booking[]): Promise<void> {
  const { undoHere } = await import('../data/changing.ts')
  const each = bookings.flatMap((booking) =>
    booking.unsettled ? [{ booking, of: booking.unsettled.seq, until: booking.unsettled.until }] : [],
  )
  const words = await Promise.all(each.map(({ booking, of }) => decided(booking, { do: 'take-back', of })))
  await db.transaction('rw', [db.intentions, db.practice, db.changes, db.bookings], async () => {
    for (const word of words) await noteIntention(word)
    const last = await db.changes.orderBy('order').last()
    if (last?.what === CLOSED_DAYS && Date.now() - last.at < 3 * UNDO) await undoHere(db)
  })
  roundSoon()
}

/** Decides the same about several. One transaction. */
export const decideForAll = (bookings: readonly Booking[], command: DeskDoes): Promise<void> =>
  decideEach(bookings.map((booking) => ({ booking, command })))

/**
 * Calls a session off: everybody in it is told, and its date is gone. One transaction.
 * @param gone how the practice changes with it, and what that is called; nothing where it had no date of its own
 */
export async function callOffFor(
  bookings: readonly Booking[],
  said: GoesWith,
  gone?: { what: string; change: (practice: Practice) => Practice },
): Promise<void> {
  const now = relayNow()
  const each = bookings.flatMap((booking): ForEach[] => {
    const command = callingOff(booking, said, now)
    return command ? [{ booking, command }] : []
  })
  await decideEach(each, gone)
}
