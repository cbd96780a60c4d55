import { agreementsIn, type StoredEvent } from '@acolhida/core/booking'
import { questionsAsked } from '@acolhida/core/booking/judged'
import type { DeskEnquiry, SentMail } from '@acolhida/core/formats'
import { accountOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import type { Person, Reply } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { type CourseEvent, courseAt, ledgerOfPath } from '@acolhida/core/preparing'
import { answerWords, asksSomething, isAttached } from '@acolhida/core/questions'
import type { Agreement } from '@acolhida/core/terms'
import { dateWords, type Instant } from '@acolhida/core/time'
import type { LineEvent } from '@acolhida/core/waiting'
import type { DeskDatabase } from '../data/database.ts'
import { type AllOfTheirs, everythingOf, subjectsIn } from '../data/of-person.ts'
import { type BookingRow, type PersonRow, plainPerson } from '../data/rows.ts'
import type { CourseRow } from '../data/tables.ts'
import { bookingLine, currencyOf, serviceName, standingWords, termsTitle, when } from '../parts/words.ts'
import { answeredIn, stationWords } from '../preparing/words.ts'

/** Everything that is kept of one person, as data. */
export interface PersonFile {
  format: 'acolhida-person'
  version: 1
  person: Person
  bookings: { id: string; events: StoredEvent[] }[]
  enquiries: DeskEnquiry[]
  messages: SentMail[]
  lines: { id: string; events: LineEvent[] }[]
  /** What they were given to do, and paths, as their records. */
  courses: { id: string; events: CourseEvent[] }[]
  replies: Reply[]
}

/** Everything that is kept of somebody: to be handed over, and the rows that it is read from. */
export interface Gathered {
  file: PersonFile
  everything: AllOfTheirs
}

/** Gathers everything that is kept of somebody. */
export async function gatheredOf(db: DeskDatabase, row: PersonRow): Promise<Gathered> {
  const tables = [db.bookings, db.events, db.enquiries, db.mails, db.lines, db.courses, db.replies]
  return db.transaction('r', tables, async (): Promise<Gathered> => {
    const everything = await everythingOf(db, row)
    const { bookings, enquiries, lines, courses } = everything
    const records = await Promise.all(
      bookings.map(async ({ id }) => {
        const rows = await db.events
          .where('[booking+seq]')
          .between([id, 0], [id, Number.MAX_SAFE_INTEGER])
          .sortBy('seq')
        return { id, events: rows.map(({ event }) => event) }
      }),
    )
    const file: PersonFile = {
      ...{ format: 'acolhida-person', version: 1 },
      person: plainPerson(row),
      bookings: records,
      enquiries,
      messages: await db.mails.where('booking').anyOf(subjectsIn(everything)).toArray(),
      lines: lines.map(({ id, events }) => ({ id, events })),
      courses: courses.map(({ id, events }) => ({ id, events })),
      replies: await db.replies.where('mail').anyOf(row.emails).toArray(),
    }
    return { file, everything }
  })
}

const section = (title: string, lines: readonly string[]): string[] =>
  lines.length === 0 ? [] : ['', title.toUpperCase(), '', ...lines]

/** The same to be read: a plain text, in the order in which things happened. */
export function readableOf(
  practice: Practice,
  { file: { person, enquiries, messages, replies, lines }, everything }: Gathered,
  now: Instant,
): string {
  const at = (moment: Instant): string => when(practice, moment)
  const bookings = everything.bookings.toSorted((a, b) => a.start - b.start)
  const byId = new Map(bookings.map((booking) => [booking.id, booking]))
  const courses = everything.courses.toSorted((a, b) => a.course.given.at - b.course.given.at)
  return [
    person.name,
    `What ${practice.profile.name} keeps of them, on ${at(now)}`,
    ...section('Kept about them', [
      ...person.emails.map((email) => `Mail: ${email}`),
      ...(person.phone ? [`Phone: ${person.phone}`] : []),
      ...(person.pronouns ? [`Pronouns: ${person.pronouns}`] : []),
      ...(person.birthday ? [`Born on ${dateWords(person.birthday)}`] : []),
      ...(person.cameFrom ? [`Came from: ${person.cameFrom}`] : []),
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
    ...courses.flatMap((row) =>
      section(
        row.course.given.path?.name ?? `Given on ${at(row.course.given.at)}`,
        aboutCourse(practice, row, row.booking === undefined ? undefined : byId.get(row.booking), now),
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
    ...agreementsIn(booking).map((agreement) => agreedWords(practice, agreement)),
    ...lines.map(({ at, what, amount }) => `${when(practice, at)}: ${what} ${money(amount, currency)}`),
  ]
}

/** What somebody was given to do, to be read: how far each thing is, what was answered and signed, what has come for it. */
function aboutCourse(
  practice: Practice,
  { course }: CourseRow,
  booking: BookingRow | undefined,
  now: Instant,
): string[] {
  const { path, text } = course.given
  const { stations } = courseAt(practice, course, booking, now)
  const currency = path && currencyOf(path.currency)
  return [
    ...(text ? [text] : []),
    ...stations.flatMap((one) => [
      `${one.station.name}: ${stationWords(practice, one)}`,
      ...answeredIn(practice, one).map(
        ({ question, answer }) =>
          `${question.text} ${isAttached(answer) ? answer.name : answerWords(question, answer)}`,
      ),
      ...(one.progress.agreement ? [agreedWords(practice, one.progress.agreement)] : []),
      ...(one.progress.files ?? []).map(({ name }) => `Brought: ${name}`),
    ]),
    ...(currency
      ? ledgerOfPath(course).map(
          ({ at, what, amount }) => `${when(practice, at)}: ${what} ${money(amount, currency)}`,
        )
      : []),
  ]
}

const agreedWords = (practice: Practice, { terms, version, at, name }: Agreement): string =>
  `Agreed to “${termsTitle(practice, terms, version)}” on ${when(practice, at)} as ${name}`
