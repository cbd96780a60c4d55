import { type Invoice, isToCome, stateAt } from '@acolhida/core/booking'
import type { ForgottenPerson } from '@acolhida/core/formats'
import { mailHash } from '@acolhida/core/people'
import { pathGoesOn } from '@acolhida/core/preparing'
import { type Agreement, chainHead } from '@acolhida/core/terms'
import { agreementsOf } from '@acolhida/core/waiting'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import type { DeskDatabase } from '../data/database.ts'
import { type AllOfTheirs, askedForThem, everythingOf, subjectsIn } from '../data/of-person.ts'
import { filesIn, filesOfCourse, type PersonRow } from '../data/rows.ts'

/** What goes with somebody, and what stays of them. */
export interface WhatGoes {
  bookings: number
  /** Requests, sessions to come, places in line and paths that go on: while there are any, nobody is forgotten. */
  open: number
  messages: number
  agreements: number
  /** Invoices stay, without a name: their numbers run on, and tax law wants them kept. */
  invoices: number
  /** What others have asked for, and they come to or pay for: it stays with those who asked. */
  asked: number
}

/** What forgetting somebody takes away. */
export async function whatGoes(db: DeskDatabase, person: PersonRow): Promise<WhatGoes> {
  const now = relayNow()
  const everything = await everythingOf(db, person)
  const { bookings, lines, courses } = everything
  const subjects = subjectsIn(everything)
  const byId = new Map(bookings.map((booking) => [booking.id, booking]))
  const open = [
    bookings.filter((booking) => isToCome(stateAt(booking, now))),
    lines.filter((line) => line.open),
    courses.filter(({ course }) => pathGoesOn(course, (id) => byId.get(id), now)),
  ]
  return {
    bookings: bookings.length,
    open: open.flat().length,
    messages: await db.mails.where('booking').anyOf(subjects).count(),
    agreements: agreedIn(everything).length,
    invoices: invoicesIn(everything).length,
    asked: (await askedForThem(db, person)).length,
  }
}

const agreedIn = ({ bookings, lines, courses }: AllOfTheirs): Agreement[] =>
  agreementsOf(bookings, lines, courses).map(({ agreement }) => agreement)
const invoicesIn = ({ bookings, courses }: AllOfTheirs): Invoice[] => [
  ...bookings.flatMap(({ invoices = [] }) => invoices),
  ...courses.flatMap(({ course: { invoices = [] } }) => invoices.map(({ parts: _, ...invoice }) => invoice)),
]

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
    const everything = await everythingOf(db, person)
    const { bookings, lines, courses, enquiries } = everything
    const forgotten: ForgottenPerson = {
      id: newKey(),
      hashes: person.emails.map((mail) => mailHash(mail, row.salt)),
      at,
      agreements: agreedIn(everything).map((one) => ({ print: chainHead(one), previous: one.previous })),
      invoices: invoicesIn(everything),
    }
    const subjects = subjectsIn(everything)
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
