import { agreementsIn, type StoredEvent } from '@acolhida/core/booking'
import { questionsAsked } from '@acolhida/core/booking/judged'
import type { DeskEnquiry, SentMail } from '@acolhida/core/formats'
import { accountOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import { normalMail, type Person, type Reply } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { answerWords, asksSomething, isAttached } from '@acolhida/core/questions'
import { dateWords, type Instant } from '@acolhida/core/time'
import type { LineEvent } from '@acolhida/core/waiting'
import type { DeskDatabase } from '../data/database.ts'
import { bookingsOf } from '../data/people.ts'
import { type BookingRow, type PersonRow, plainPerson } from '../data/rows.ts'
import { bookingLine, currencyOf, serviceName, standingWords, termsTitle, when } from '../parts/words.ts'

/** Everything that is kept of one person, as data. */
export interface PersonFile {
  format: 'acolhida-person'
  version: 1
  person: Person
  bookings: { id: string; events: StoredEvent[] }[]
  enquiries: DeskEnquiry[]
  messages: SentMail[]
  lines: { id: string; events: LineEvent[] }[]
  replies: Reply[]
}

/** Gathers everything that is kept of somebody. */
export async function everythingOf(db: DeskDatabase, row: PersonRow): Promise<PersonFile> {
  return db.transaction(
    'r',
    [db.bookings, db.events, db.enquiries, db.mails, db.lines, db.replies],
    async (): Promise<PersonFile> => {
      const bookings = await bookingsOf(db, row)
      const enquiries = await db.enquiries
        .filter(({ email }) => row.emails.includes(normalMail(email)))
        .toArray()
      const about = [...bookings.map(({ id }) => id), ...enquiries.map(({ id }) => id)]
      const lines = await db.lines.where('mail').anyOf(row.emails).toArray()
      const records = await Promise.all(
        bookings.map(async ({ id }) => {
          const rows = await db.events
            .where('[booking+seq]')
            .between([id, 0], [id, Number.MAX_SAFE_INTEGER])
            .sortBy('seq')
          return { id, events: rows.map(({ event }) => event) }
        }),
      )
      return {
        ...{ format: 'acolhida-person', version: 1 },
        person: plainPerson(row),
        bookings: records,
        enquiries,
        messages: await db.mails.where('booking').anyOf(about).toArray(),
        lines: lines.map(({ id, events }) => ({ id, events })),
        replies: await db.replies.where('mail').anyOf(row.emails).toArray(),
      }
    },
  )
}

const section = (title: string, lines: readonly string[]): string[] =>
  lines.length === 0 ? [] : ['', title.toUpperCase(), '', ...lines]

/** The same to be read: a plain text, in the order in which things happened. */
export function readableOf(
  practice: Practice,
  { person, enquiries, messages, replies, lines }: PersonFile,
  rows: readonly BookingRow[],
  now: Instant,
): string {
  const at = (moment: Instant): string => when(practice, moment)
  const bookings = [...rows].sort((a, b) => a.start - b.start)
  return [
    person.name,
    `What ${practice.profile.name} keeps of them, on ${at(now)}`,
    ...section('Kept about them', [
      ...person.emails.map((email) => `Mail: ${email}`),
      ...(person.phone ? [`Phone: ${person.phone}`] : []),
      ...(person.pronouns ? [`Pronouns: ${person.pronouns}`] : []),
      ...(person.birthday ? [`Born on ${dateWords(person.birthday)}`] : []),
      ...(person.stages ?? []).map(({ at: since, stage }) => `${at(since)}: ${stage || 'no word any more'}`),
      ...(person.tags ? [`Tags: ${person.tags.join(', ')}`] : []),
      ...(person.note ? ['Note:', person.note] : []),
      ...(person.sealedNotes ? ['A private note is sealed, and stands here nowhere.'] : []),
      ...(person.followUps ?? []).map(({ on, text }) => `To come back to on ${dateWords(on)}: ${text}`),
    ]),
    ...bookings.flatMap((booking) =>
      section(
        `${serviceName(practice, booking.service)}, ${at(booking.start)}`,
        aboutBooking(practice, booking, now),
      ),
    ),
    ...section(
      'Waited for',
      lines.flatMap(({ events }) =>
        events.flatMap((event) =>
          event.type === 'joined' ? [`${serviceName(practice, event.service)}, since ${at(event.at)}`] : [],
        ),
      ),
    ),
    ...section(
      'Written by them',
      [
        ...enquiries.map(({ at: sent, message }) => ({ sent, text: message })),
        ...replies.map(({ at: sent, subject, text }) => ({ sent, text: `${subject}\n${text}` })),
      ]
        .sort((a, b) => a.sent - b.sent)
        .map(({ sent, text }) => `${at(sent)}: ${text}`),
    ),
    ...section(
      'Sent to them',
      [...messages]
        .sort((a, b) => a.at - b.at)
        .filter(({ state }) => state === 'sent')
        .flatMap(({ at: sent, subject, text }) => [`${at(sent)}: ${subject}`, ...(text ? [text, ''] : [])]),
    ),
    '',
  ].join('\n')
}

/** One booking to be read: how it stands, what was answered and agreed to, what was paid. */
function aboutBooking(practice: Practice, booking: BookingRow, now: Instant): string[] {
  const { asked } = booking
  const { lines } = accountOf(booking)
  const currency = currencyOf(asked.currency)
  return [
    `${standingWords(booking, now)} · ${bookingLine(practice, booking)}`,
    `Asked for on ${when(practice, asked.at)} by ${asked.person.name}, ${asked.person.email}`,
    ...questionsAsked(practice, booking)
      .filter(asksSomething)
      .flatMap((question) => {
        const answer = asked.answers[question.id]
        if (answer === undefined) return []
        return [`${question.text} ${isAttached(answer) ? answer.name : answerWords(question, answer)}`]
      }),
    ...agreementsIn(booking).map(
      ({ terms, version, at, name }) =>
        `Agreed to “${termsTitle(practice, terms, version)}” on ${when(practice, at)} as ${name}`,
    ),
    ...lines.map(({ at, what, amount }) => `${when(practice, at)}: ${what} ${money(amount, currency)}`),
  ]
}
