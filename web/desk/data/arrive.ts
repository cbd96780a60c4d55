import { type Booking, type Contact, replay, type StoredEvent } from '@acolhida/core/booking'
import type { Enquiry, EnquiryNews, RecordPage } from '@acolhida/core/contract'
import { normalMail, type Person, stageNoted } from '@acolhida/core/people'
import type { CourseEvent } from '@acolhida/core/preparing'
import { isSealed } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import type { LineEvent } from '@acolhida/core/waiting'
import { connectionRow, type DeskDatabase } from './database.ts'
import { courseRow, freedRow, lineRow } from './lines-in.ts'
import { isFresh, newsOf } from './news.ts'
import { keepPerson } from './people.ts'
import { bookingRow, filesIn, filesOfCourse, plainPerson } from './rows.ts'

/**
 * Takes in a page of the relay's record: events, messages, people and the cursor, in one transaction, so that
 * a page is there whole or not at all. What is there already stays as it is.
 * @param key that it was fetched with: where another one is used by now, it may belong to another practice
 */
export async function takeIn(db: DeskDatabase, page: RecordPage, key?: string): Promise<void> {
  const tables = [
    ...[db.connection, db.events, db.bookings, db.enquiries, db.people, db.mails, db.files, db.wanted],
    ...[db.news, db.lines, db.freed, db.courses, db.practice],
  ]
  await db.transaction('rw', tables, async () => {
    if (key !== undefined && (await connectionRow(db)).key !== key) return
    const touched = new Set<string>()
    for (const item of page.items) {
      if (item.kind === 'booking') {
        // What came with a backup is no news, though the relay tells it again.
        const known = await db.events.get([item.subject, item.seq])
        if (known && (isWhole(known.event) || JSON.stringify(known.event) === JSON.stringify(item.body)))
          continue
        await db.events.put({ booking: item.subject, seq: item.seq, event: item.body })
        touched.add(item.subject)
      } else if (item.kind === 'waiting') {
        const events = (await db.lines.get(item.subject))?.events ?? []
        const first = events[item.seq - 1]
        if (!first || !isWhole(first)) events[item.seq - 1] = item.body
        await db.lines.put(lineRow(item.subject, events))
        if (item.body.type === 'joined') await meet(db, item.subject, item.body.person)
      } else if (item.kind === 'freed') {
        const events = (await db.freed.get(item.subject))?.events ?? []
        events[item.seq - 1] = item.body
        await db.freed.put(freedRow(item.subject, events))
      } else if (item.kind === 'course') {
        const events = (await db.courses.get(item.subject))?.events ?? []
        const before = events[item.seq - 1]
        if (!before || !isOpenAnswer(before)) events[item.seq - 1] = item.body
        const row = courseRow(item.subject, events)
        await db.courses.put(row)
        if (item.body.type === 'given') await meet(db, item.subject, item.body.person)
        for (const file of filesOfCourse(row.course))
          if ((await db.files.where('id').equals(file.id).count()) === 0) await db.wanted.put(file)
      } else if (item.kind === 'enquiry') {
        await hear(db, item.subject, item.body)
      } else {
        await db.mails.put({ ...item.body, n: item.n, at: item.at, booking: item.subject })
      }
    }
    for (const id of touched) {
      const rows = await db.events
        .where('[booking+seq]')
        .between([id, 0], [id, Number.MAX_SAFE_INTEGER])
        .sortBy('seq')
      const booking = replay(
        id,
        rows.map((row) => row.event),
      )
      await db.bookings.put(bookingRow(booking))
      await meet(db, booking.id, booking.asked.person)
      await tell(db, booking, rows.at(-1)?.event, page.now)
      await moveOn(db, booking, rows.at(-1)?.event, page.now)
      for (const file of filesIn(booking)) {
        if ((await db.files.where('id').equals(file.id).count()) === 0) await db.wanted.put(file)
      }
    }
    const last = page.items.at(-1)
    if (last) await db.connection.put({ ...(await connectionRow(db)), cursor: last.n, print: page.print })
  })
}

/**
 * Whether what a record begins with is here with nothing sealed in it. It never changes but by sealing at the relay, so
 * what comes again is no more than that, and less where this desk has not the key.
 */
const isWhole = (event: StoredEvent | LineEvent): boolean =>
  (event.type === 'asked' || event.type === 'joined') && !('sealed' in event && event.sealed)

/** Answers that are here opened; what comes again is sealed, and less where this desk has not the key. */
const isOpenAnswer = (event: CourseEvent): boolean =>
  event.type === 'answered' && !Object.values(event.answers).some(isSealed)

/** What has happened without the practitioner is news; what they do about it themselves ends that. */
async function tell(
  db: DeskDatabase,
  booking: Booking,
  last: StoredEvent | undefined,
  now: Instant,
): Promise<void> {
  const what = last && newsOf(booking, last)
  if (last && what && isFresh(last.at, now)) await db.news.put({ id: booking.id, at: last.at, what })
  else await db.news.delete(booking.id)
}

/** Booking or finishing something can set the word for how far one has come with somebody; each change is noted. */
async function moveOn(
  db: DeskDatabase,
  booking: Booking,
  last: StoredEvent | undefined,
  now: Instant,
): Promise<void> {
  const of = last?.type === 'welcomed' ? 'booked' : last?.type === 'attended' ? 'attended' : undefined
  if (!last || !of || booking.status !== of || !isFresh(last.at, now)) return
  const practice = (await db.practice.get('practice'))?.practice
  const stage = practice?.services.find(({ id }) => id === booking.service)?.moves?.[of]
  if (!stage) return
  for (const row of await db.people
    .where('emails')
    .equals(normalMail(booking.asked.person.email))
    .toArray()) {
    const person = plainPerson(row)
    // What was said since by hand, or by something later, stays.
    if (person.stage === stage || (person.stages?.at(-1)?.at ?? 0) >= last.at) continue
    await keepPerson(db, stageNoted({ ...person, stage }, person.stage, last.at))
  }
}

/** An enquiry, or what became of it at the relay; each is taken in once. */
async function hear(db: DeskDatabase, id: string, body: Enquiry | EnquiryNews): Promise<void> {
  const known = await db.enquiries.get(id)
  if (!('news' in body)) {
    if (!known) await db.enquiries.put({ ...body, state: 'open' })
    return
  }
  const history = known?.history ?? []
  if (!known || history.some((news) => news.at === body.at && news.news === body.news)) return
  const state = body.news === 'booked' ? 'booked' : 'answered'
  await db.enquiries.put({ ...known, state, history: [...history, body] })
}

/**
 * Somebody is known by their mail address from their first request on, or since they wait; what their bookings tell of them is kept with
 * them.
 */
async function meet(db: DeskDatabase, from: string, { name, email, phone }: Contact): Promise<void> {
  const mail = normalMail(email)
  const known = await db.people.where('emails').equals(mail).toArray()
  for (const person of known) await keepPerson(db, plainPerson(person))
  if (known.length > 0) return
  const person: Person = {
    id: `person-${from}`,
    name,
    emails: [mail],
    invited: [],
    blocked: false,
    note: '',
    ...(phone ? { phone } : {}),
  }
  await keepPerson(db, person)
}
