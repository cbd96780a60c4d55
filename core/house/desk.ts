import {
  bookingSubject,
  calendarSubject,
  courseSubject,
  dueOf,
  freedSubject,
  houseSubject,
  nameOf,
  type Subject,
  sessionSubject,
  waitingSubject,
} from '../agenda/index.ts'
import { type BookingEvent, blockingMove, leastDates, UNDO } from '../booking/index.ts'
import type { DeskCommand, EnterBody } from '../contract/desk-types.ts'
import type { DoorPackage } from '../contract/types.ts'
import { accountOf } from '../ledger/index.ts'
import type { Minor } from '../money/index.ts'
import { type Asker, type Entry, why } from '../openings/index.ts'
import { checkPractice, type Practice } from '../practice/index.ts'
import type { PathSession } from '../preparing/index.ts'
import { privateIn } from '../questions/index.ts'
import { askedOf, askFor, byPractitioner, printOfBooking, type Reckoned, Refused } from '../request/index.ts'
import { shift } from '../time/index.ts'
import '../words/all.ts'
import { wordsFaults } from '../words/check.ts'
import { type Book, bookIn } from '../words/index.ts'
import { checkByHand, readByThem, reckonByHand } from './by-hand.ts'
import { carryOut } from './link.ts'
import { happen, replanned, type Work } from './work.ts'

/** Takes what the desk publishes. What is due is planned anew afterwards, in an act of its own. */
export function publish({ house, changes }: Work, next: DoorPackage): { revision: number } {
  const current = house.pack
  if (current && next.practice.id !== current.practice.id)
    throw new Refused(409, 'another-practice', { data: { name: current.practice.profile.name } })
  if (current && next.revision < current.revision) {
    throw new Refused(409, 'older-package', { data: { current: current.revision, next: next.revision } })
  }
  const first = checkPractice(next.practice).find((fault) => fault.grade === 'error')
  const said = wordsFaults(next.practice.words ?? {}, (language, key) => {
    const [book = '', ...name] = key.split('.')
    const ours: unknown = bookIn(language, book as Book)[name.join('.')]
    return typeof ours === 'string' ? ours : undefined
  })[0]
  if (said) throw new Refused(422, 'practice', { message: said.message, where: `practice.${said.path}` })
  if (first) throw new Refused(422, 'practice', { message: first.message, where: `practice.${first.path}` })
  const open = next.seal ? -1 : newlyPrivate(next.practice, current?.practice)
  if (open >= 0) throw new Refused(422, 'no-seal', { where: `practice.questionnaires[${open}]` })
  changes.push({ type: 'package', pack: next })
  return { revision: next.revision }
}

/**
 * The first questionnaire that asks in private what was not asked so before: without the desk's key the answers would come
 * as they are, and stand in the relay's file.
 */
function newlyPrivate({ questionnaires }: Practice, before: Practice | undefined): number {
  const known = new Map(before?.questionnaires.map(({ id, questions }) => [id, privateIn(questions)]))
  return questionnaires.findIndex(({ id, questions }) =>
    [...privateIn(questions)].some((question) => !known.get(id)?.has(question)),
  )
}

/** Takes everything of the practice there is out of the house, for another one to come in. */
export function moveOut({ changes }: Work, _: Record<string, never>): Record<string, never> {
  changes.push({ type: 'emptied' })
  return {}
}

/** Plans what is due of everything open anew, after the practice has changed or another program has begun. */
export function replan({ house, changes }: Work, _: Record<string, never>): Record<string, never> {
  const practice = house.pack?.practice
  const calendars = new Set(practice?.calendars?.flatMap((calendar) => (calendar.url ? [calendar.id] : [])))
  for (const { id } of house.calendars()) if (!calendars.has(id)) changes.push({ type: 'calendar-gone', id })
  const subjects = new Map<string, Subject>()
  const add = (subject: Subject): unknown => subjects.set(nameOf(subject), subject)
  for (const { subject } of house.agenda()) add(subject)
  for (const booking of house.openBookings()) add(bookingSubject(booking.id))
  for (const { id } of house.inLine()) add(waitingSubject(id))
  for (const { id } of house.freedTimes()) add(freedSubject(id))
  for (const { id } of house.courses()) add(courseSubject(id))
  for (const { service, date } of practice ? leastDates(practice) : [])
    add(sessionSubject(service.id, date.id))
  for (const id of calendars) add(calendarSubject(id))
  add(houseSubject)
  changes.push(...replanned(house, changes, subjects.values()))
  return {}
}

/**
 * Takes messages as gone that were due before this program planned them, but for those that it knows to wait.
 * @param of about these bookings, places in line and courses alone
 */
export function assumeSent(
  { house, now, changes }: Work,
  { but, of }: { but: readonly string[]; of?: readonly string[] },
) {
  const subjects = [
    ...[...house.openBookings()].map((booking) => bookingSubject(booking.id)),
    ...[...house.inLine()].map((line) => waitingSubject(line.id)),
    ...[...house.courses()].map((course) => courseSubject(course.id)),
  ]
  const meant = of && new Set(of)
  for (const subject of subjects) {
    if (meant && !meant.has(subject.id)) continue
    for (const { key, at, doing } of dueOf(house, subject)) {
      if (doing.do !== 'message' || at > now || but.includes(key)) continue
      changes.push({
        type: 'message',
        key,
        subject,
        message: { state: 'sent', step: doing.step, tries: 1, due: at },
      })
    }
  }
  return {}
}

/** A session of a path: its price is its share of that, and is paid with that. */
export interface OfPath {
  course: string
  name: string
  session: PathSession
}

/** Where a session comes from that was booked elsewhere: at what price, and what has happened to it since. */
interface Brought {
  batch: string
  price?: Minor
  then: BookingEvent[]
}

/** What a session comes to whose price is said: what it is worth on its path, or was booked at elsewhere. */
function priced({ reading }: Reckoned, name: string, price: Minor): Pick<Reckoned, 'reading'> {
  const lines = price > 0 ? [{ name, quantity: 1, amount: price }] : []
  return { reading: { ...reading, quote: { ...reading.quote, price, deposit: 0, lines } } }
}

/** Carries out what the practitioner has decided. */
export function command(work: Work, body: DeskCommand): { seq: number } {
  const booking = work.house.booking(body.booking)
  if (!booking) throw new Refused(404, 'unknown-booking')
  if (body.command.do === 'charge' && body.command.amount > accountOf(booking).open)
    throw new Refused(409, 'more-than-owed')
  const current = body.seen === undefined || body.seen === printOfBooking(booking)
  return { seq: carryOut(work, booking, body.command, { current }).seq }
}

/**
 * Books somebody in by hand: the practitioner may override every rule but the past and, unless they want the clash,
 * another session.
 * @param from whose place in line it comes from, and what was held out for it; `also`: what the same act takes besides;
 * `path`: the path it is a session of; `client`: they book it themselves, and every rule holds; `brought`: it was booked
 * elsewhere
 */
export function enter(
  work: Work,
  body: EnterBody,
  from: {
    freed?: string
    line?: string
    also?: readonly Entry[]
    path?: OfPath
    client?: Asker
    brought?: Brought
  } = {},
): { seq: number } {
  const { house, now } = work
  const reckoned = reckonByHand(work, body)
  if (house.booking(body.id)) throw new Refused(409, 'id-taken', { where: 'id' })
  const { start, place, minutes } = body
  const { freed, line, also = [], path, client, brought } = from
  const ask = { ...askFor(reckoned, place, client ?? byPractitioner, now), minutes }
  const but = freed === undefined ? {} : { freed }
  const closures = why(reckoned.practice, house.diary(start, start, but, also), ask, start)
  // A path is planned as far ahead as its sessions go.
  const theirs = path ? closures.filter(({ rule }) => rule !== 'reach') : closures
  if (client && theirs.some((one) => one.rule === 'person' && one.because === 'path'))
    throw new Refused(409, 'path-order', { where: 'start' })
  if ((client ? theirs : blockingMove(closures, body.clash)).length > 0)
    throw new Refused(409, client ? 'not-open' : 'not-open.by-hand', { where: 'start' })
  const shown = checkByHand(reckoned, body, minutes)
  const read = readByThem(work, body)
  const { reading } =
    path || brought?.price !== undefined
      ? priced(read, path?.name ?? read.service.name, path?.session.worth ?? brought?.price ?? 0)
      : read
  const asked = askedOf(read, {
    at: now,
    place,
    start,
    minutes,
    proof: client ? 'link' : 'hand',
    person: body.person,
    address: body.address,
    reading,
    attempts: [],
    agreements: [],
    until: now,
    shown,
    ...(line === undefined ? {} : { line }),
    ...(brought ? { broughtIn: brought.batch } : {}),
    ...(path ? { path: { course: path.course, session: path.session.id, name: path.name } } : {}),
  })
  work.subject = bookingSubject(body.id)
  const text = body.text?.trim()
  const welcomed: BookingEvent = {
    type: 'welcomed',
    at: now,
    by: client ? 'rules' : 'practitioner',
    // What comes from elsewhere is taken out again as a whole.
    settles: client || brought ? now : shift(now, UNDO),
    ...(text ? { text } : {}),
    ...(body.silent ? { silent: true } : {}),
  }
  return { seq: happen(work, body.id, [asked, welcomed, ...(brought?.then ?? [])]).seq }
}
