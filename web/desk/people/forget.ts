import { agreementsIn, isEnded, stateAt } from '@acolhida/core/booking'
import type { ForgottenPerson } from '@acolhida/core/formats'
import { mailHash } from '@acolhida/core/people'
import { chainHead } from '@acolhida/core/terms'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import type { DeskDatabase } from '../data/database.ts'
import { bookingsOf } from '../data/people.ts'
import { filesIn, filesOfCourse, type PersonRow } from '../data/rows.ts'

/** What goes with somebody, and what stays of them. */
export interface WhatGoes {
  bookings: number
  /** Requests, sessions to come and places in line: while there are any, nobody is forgotten. */
  open: number
  messages: number
  agreements: number
  /** Invoices stay, without a name: their numbers run on, and tax law wants them kept. */
  invoices: number
}

/** Everything of somebody in this desk. */
async function everythingOf(db: DeskDatabase, person: PersonRow) {
  const [bookings, lines, courses, enquiries] = await Promise.all([
    bookingsOf(db, person),
    db.lines.where('mail').anyOf(person.emails).toArray(),
    db.courses.where('mail').anyOf(person.emails).toArray(),
    db.enquiries.filter(({ email }) => person.emails.includes(email.toLowerCase())).toArray(),
  ])
  return { bookings, lines, courses, enquiries }
}

/** What forgetting somebody takes away. */
export async function whatGoes(db: DeskDatabase, person: PersonRow): Promise<WhatGoes> {
  const now = relayNow()
  const { bookings, lines, courses, enquiries } = await everythingOf(db, person)
  const subjects = [...bookings, ...lines, ...courses, ...enquiries].map(({ id }) => id)
  const isOpen = bookings.filter((booking) => {
    const state = stateAt(booking, now)
    return (
      !isEnded(state) &&
      !(state.is === 'booked' && state.over) &&
      !['attended', 'missed'].includes(booking.status)
    )
  })
  return {
    bookings: bookings.length,
    open: isOpen.length + lines.filter(({ open }) => open).length,
    messages: await db.mails.where('booking').anyOf(subjects).count(),
    agreements:
      bookings.reduce((sum, booking) => sum + agreementsIn(booking).length, 0) +
      courses.reduce((sum, { events }) => sum + events.filter(({ type }) => type === 'signed').length, 0),
    invoices: bookings.reduce((sum, { invoices = [] }) => sum + invoices.length, 0),
  }
}

/**
 * Forgets somebody: everything of theirs goes from this desk, in one transaction with what the relay is to be told. What
 * stays has no name: the numbers of their agreements, so that those of others still verify; the invoices; and hashes of
 * their addresses, so that no older copy brings them back.
 * @throws Error while something of theirs is open
 */
export async function forgetPerson(db: DeskDatabase, person: PersonRow): Promise<void> {
  const { open } = await whatGoes(db, person)
  if (open > 0) throw new Error('Something of theirs is still open. Please end that first.')
  const at = relayNow()
  await db.transaction('rw', db.tables, async () => {
    const row = await db.practice.get('practice')
    if (!row) throw new Error('There is no practice here.')
    const { bookings, lines, courses, enquiries } = await everythingOf(db, person)
    const agreements = [
      ...bookings.flatMap(agreementsIn),
      ...lines.flatMap(({ line }) => line.joined.agreements),
      ...courses.flatMap(({ events }) =>
        events.flatMap((event) => (event.type === 'signed' ? [event.agreement] : [])),
      ),
    ]
    const numbers = new Map(agreements.map((one) => [chainHead(one), one.previous]))
    const forgotten: ForgottenPerson = {
      id: newKey(),
      hashes: person.emails.map((mail) => mailHash(mail, row.salt)),
      at,
      agreements: [...numbers].map(([print, previous]) => ({ print, previous })),
      invoices: bookings.flatMap(({ invoices = [] }) => invoices),
    }
    const subjects = [...bookings, ...lines, ...courses, ...enquiries].map(({ id }) => id)
    const files = [...bookings.flatMap(filesIn), ...courses.flatMap(({ course }) => filesOfCourse(course))]
    for (const id of bookings.map((one) => one.id))
      await db.events.where('[booking+seq]').between([id, 0], [id, Number.MAX_SAFE_INTEGER]).delete()
    await db.bookings.bulkDelete(bookings.map(({ id }) => id))
    await db.lines.bulkDelete(lines.map(({ id }) => id))
    await db.courses.bulkDelete(courses.map(({ id }) => id))
    await db.enquiries.bulkDelete(enquiries.map(({ id }) => id))
    await db.mails.where('booking').anyOf(subjects).delete()
    await db.news.bulkDelete(subjects)
    await db.replies.where('mail').anyOf(person.emails).delete()
    await db.files.bulkDelete(files.map(({ id }) => id))
    await db.wanted.bulkDelete(files.map(({ id }) => id))
    await db.intentions.where('booking').anyOf(subjects).delete()
    await db.people.delete(person.id)
    await db.forgotten.add(forgotten)
    await db.intentions.add({
      ...{ key: newKey(), booking: forgotten.id, at },
      command: { do: 'forget', body: { people: [{ hashes: forgotten.hashes, before: at }] } },
    })
  })
}
