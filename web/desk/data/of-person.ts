import { othersOf } from '@acolhida/core/booking'
import { normalMail } from '@acolhida/core/people'
import type { DeskDatabase } from './database.ts'
import { bookingsOf } from './people.ts'
import { type BookingRow, type PersonRow, wordsOf } from './rows.ts'

/** Everything of somebody in this desk. */
export async function everythingOf(db: DeskDatabase, person: PersonRow) {
  const [bookings, lines, courses, enquiries] = await Promise.all([
    bookingsOf(db, person),
    db.lines.where('mail').anyOf(person.emails).toArray(),
    db.courses.where('mail').anyOf(person.emails).toArray(),
    db.enquiries.filter(({ email }) => person.emails.includes(normalMail(email))).toArray(),
  ])
  return { bookings, lines, courses, enquiries }
}
export type AllOfTheirs = Awaited<ReturnType<typeof everythingOf>>

/** Whatever a message of theirs can be about. */
export const subjectsIn = ({ bookings, lines, courses, enquiries }: AllOfTheirs): string[] =>
  [...bookings, ...lines, ...courses, ...enquiries].map(({ id }) => id)

/** What others have asked for, and somebody comes to or pays for. */
export async function askedForThem(
  db: DeskDatabase,
  { emails }: Pick<PersonRow, 'emails'>,
): Promise<BookingRow[]> {
  const mine = new Set(emails)
  // By the index of words there are few that share the first of an address; of those, who has just that.
  const first = emails.flatMap((email) => wordsOf(email).slice(0, 1))
  const rows = await db.bookings.where('words').anyOf(first).distinct().toArray()
  return rows.filter(
    (row) =>
      !mine.has(row.mail) &&
      Object.values(othersOf(row)).some(({ email }) => email !== undefined && mine.has(normalMail(email))),
  )
}
