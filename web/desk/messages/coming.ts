import type { SentMail } from '@acolhida/core/formats'
import { hasBounced, type Outlook, outlookOf, toCome } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import { DAY, type Instant, shift } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'
import type { BookingRow } from '../data/rows.ts'
import { notSent } from './not-sent.ts'

/** One message that is still to go, with the booking it is about. */
export interface ComingMessage extends Outlook {
  booking: BookingRow
}

/** For how long after a session something may still follow, in days. */
const FOLLOWS = 57
/** A list by what its items have in common, in the order in which that comes up. */
export function grouped<T, K>(list: readonly T[], by: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>()
  for (const item of list) {
    const key = by(item)
    const group = groups.get(key)
    if (group) group.push(item)
    else groups.set(key, [item])
  }
  return groups
}

/** Everything due in a stretch of time for all, and what could not be sent lately. */
export async function comingMessages(
  db: DeskDatabase,
  practice: Practice,
  now: Instant,
  days: number,
): Promise<{ coming: ComingMessage[]; failed: { mail: SentMail; booking: BookingRow }[] }> {
  const rows = await db.bookings
    .where('start')
    .above(shift(now, -FOLLOWS * DAY))
    .toArray()
  const ids = rows.map(({ id }) => id)
  const mails = await db.mails.where('booking').anyOf(ids).toArray()
  const byBooking = grouped(mails, ({ booking }) => booking)
  const byMail = grouped(rows, ({ mail }) => mail)
  const people = await db.people
    .where('emails')
    .anyOf([...new Set(rows.map(({ mail }) => mail))])
    .toArray()
  const hushed = new Set(people.flatMap((person) => (person.hushed ? person.emails : [])))
  const until = shift(now, days * DAY)
  const coming = rows.flatMap((booking) => {
    const sent = byBooking.get(booking.id) ?? []
    const all = outlookOf(booking, practice, now, {
      hushed: hushed.has(booking.mail),
      bounced: hasBounced(sent, booking.asked.person.email),
      theirs: byMail.get(booking.mail) ?? [booking],
    })
    return toCome(all, sent, now)
      .filter(
        ({ at, is }) => at <= until && (is === 'planned' || is === 'draft' || (is === 'held' && at > now)),
      )
      .map((one) => ({ ...one, booking }))
  })
  const known = new Map(rows.map((row) => [row.id, row]))
  const failed = notSent(mails, now).flatMap((mail) => {
    const booking = known.get(mail.booking)
    return booking ? [{ mail, booking }] : []
  })
  return { coming: coming.sort((a, b) => a.at - b.at), failed }
}
