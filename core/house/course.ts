import { courseSubject } from '../agenda/index.ts'
import { type Booking, UNDO } from '../booking/index.ts'
import type { DeskCourse, HalfBody, StationBody, StationDoes } from '../contract/course-types.ts'
import type { Minor } from '../money/index.ts'
import { normalMail } from '../people/index.ts'
import { MOST_OF_A_PATH, type Preparation, preparationOf, serviceOf } from '../practice/index.ts'
import {
  type Course,
  type CourseEvent,
  courseAt,
  type GivenPath,
  givenPath,
  type PathPay,
  type PathSession,
  paidFor,
  pathFault,
  pathSessions,
  type Station,
  sharesByMinutes,
  stationOf,
  stationsFor,
  stillToDo,
  toldBooking,
} from '../preparing/index.ts'
import { isAttached, isSealed, type Question, questionsOf } from '../questions/index.ts'
import { Refused } from '../request/index.ts'
import { canonicalJson } from '../terms/index.ts'
import { duration, type Instant, shift, zone } from '../time/index.ts'
import { agreeNow, checkAgreed } from './agreeing.ts'
import { type House, published } from './house.ts'
import { bookingBehind } from './link.ts'
import { over } from './over.ts'
import { happen, type Work } from './work.ts'

/** How much may be open of one person: what nobody could go through. */
const MOST_OPEN = 50

/** Lets something happen to a course. */
export function happenToCourse(work: Work, id: string, event: CourseEvent): Course {
  const seq = (over(work.house, work.changes).course(id)?.seq ?? 0) + 1
  work.changes.push({ type: 'course', id, seq, event })
  return over(work.house, work.changes).course(id)!
}

/** Everything that was given to whoever has an address. */
export const coursesOf = (house: House, email: string): Course[] => house.coursesOf(normalMail(email))

/** The booking a course goes with, as it is after what this act has done. */
export const bookingOf = ({ house, changes }: Work, { given }: Course): Booking | undefined =>
  given.booking === undefined ? undefined : over(house, changes).booking(given.booking)

/** Its booking says what is to be done before it, and whether all of it is: so its tile and its messages know. */
function tellBooking(work: Work, course: Course): void {
  const booking = bookingOf(work, course)
  if (!booking) return
  const { practice } = published(work.house)
  const next = course.ended
    ? undefined
    : toldBooking(course, ({ preparation }) => !preparationOf(practice, preparation))
  if (!next && !booking.course) return
  const told: NonNullable<Booking['course']> = next ?? { id: course.id, what: [], by: NO_TIME, done: true }
  if (canonicalJson(told) === canonicalJson(booking.course ?? null)) return
  const { id, what, by, done } = told
  const event = { type: 'to-prepare', at: work.now, course: id, what, by } as const
  happen(work, booking.id, [{ ...event, ...(done ? { done } : {}) }])
}

const NO_TIME = duration('PT0S')

/**
 * What a service has to prepare goes out with each of its bookings, from the word on, in the transaction that gives it:
 * once for each booking, and what is given once only to whom has not had it.
 */
export function giveWithBookings(work: Work): void {
  const { house, changes, now } = work
  if (!house.pack || house.trial) return
  const ids = new Set(
    changes.flatMap((change) =>
      change.type === 'event' && change.row.status === 'booked' && change.was !== 'booked'
        ? [change.booking]
        : [],
    ),
  )
  for (const id of ids) {
    const next = over(house, changes)
    const booking = next.booking(id)
    const service = booking && serviceOf(house.pack.practice, booking.service)
    if (!booking || !service?.prepares?.length || booking.status !== 'booked' || booking.course) continue
    const { person } = booking.asked
    const theirs = next.coursesOf(normalMail(person.email))
    const stations = stationsFor(house.pack.practice, service, theirs)
    if (stations.length === 0) continue
    const given = { type: 'given', at: now, person, stations, booking: id, silent: true } as const
    tellBooking(work, happenToCourse(work, work.ids(), given))
  }
}

/** Does one thing with what somebody was given, as the practitioner. @throws Refused */
export function deskCourse(work: Work, { course: id, command }: DeskCourse): { seq: number } {
  const { house, now: at } = work
  work.subject = courseSubject(id)
  if (command.do === 'give') return { seq: give(work, id, command) }
  const course = house.course(id)
  if (!course) throw new Refused(404, 'unknown-course')
  const by = 'practitioner'
  const settles = shift(at, UNDO)
  const happens = (event: CourseEvent): { seq: number } => {
    const next = happenToCourse(work, id, event)
    tellBooking(work, next)
    return { seq: next.seq }
  }
  switch (command.do) {
    case 'take-back': {
      const { unsettled } = course
      if (unsettled?.seq !== command.of || at > unsettled.until)
        throw new Refused(409, 'nothing-to-take-back')
      return happens({ type: 'taken-back', at, of: command.of })
    }
    case 'chase':
      if (stillToDo(stateIn(work, course)).length === 0) throw new Refused(409, 'nothing-left')
      return happens({ type: 'chased', at, text: command.text, settles })
    case 'end':
      if (course.ended) throw new Refused(409, 'course-over')
      mayGiveBack(course, command.back ?? 0)
      return happens({ type: 'ended', at, settles, ...(command.back ? { back: command.back } : {}) })
    case 'done':
    case 'undone':
      stationIn(course, command.station)
      return happens({ type: command.do, at, station: command.station, by })
    case 'pay': {
      const { amount, way, text } = pathIn(course) && command
      mayGiveBack(course, -amount)
      return happens({ type: 'paid', at, amount, way, ...(text?.trim() ? { text: text.trim() } : {}) })
    }
    case 'pause':
    case 'resume':
      pathIn(course)
      if (course.ended || (course.paused !== undefined) === (command.do === 'pause'))
        throw new Refused(409, 'course-over')
      return happens(
        command.do === 'pause' ? { type: 'paused', at, text: command.text } : { type: 'resumed', at },
      )
    case 'extend':
      pathIn(course)
      if (course.ended) throw new Refused(409, 'course-over')
      return happens({ type: 'extended', at, ...longer(course, command, at) })
  }
}

const stateIn = (work: Work, course: Course) =>
  courseAt(published(work.house).practice, course, bookingOf(work, course), work.now)

function stationIn(course: Course, id: string): Station {
  const station = course.given.stations.find((one) => one.id === id)
  if (!station) throw new Refused(404, 'unknown-course')
  return station
}

/** Makes sure that no more is given back than has come. @throws Refused */
function mayGiveBack(course: Course, amount: Minor): void {
  if (amount > 0 && amount > paidFor(course)) throw new Refused(409, 'not-paid')
}

/** The path somebody was given. @throws Refused where it is none */
export function pathIn({ given }: Course): GivenPath {
  if (!given.path) throw new Refused(409, 'no-path')
  return given.path
}

/** More sessions like one of a path's own, what they are worth, and what they cost. */
function longer(
  course: Course,
  { like, many, price }: Extract<DeskCourse['command'], { do: 'extend' }>,
  at: Instant,
): { sessions: PathSession[]; pays: PathPay[] } {
  const all = pathSessions(course)
  const own = all.find(({ id }) => id === like)
  if (!own) throw new Refused(409, 'not-left')
  const [after, most] = [all.length + many, 2 * MOST_OF_A_PATH]
  if (after > most)
    throw new Refused(409, 'path-impossible', {
      data: { what: `it would have ${after} sessions; ${most} are the most.` },
    })
  const worths = sharesByMinutes(
    price,
    Array.from({ length: many }, () => own.minutes),
  )
  const begun = `more-${(course.extended?.length ?? 0) + 1}`
  return {
    sessions: worths.map((worth, i) => ({ ...own, id: `${begun}-${i + 1}`, worth })),
    pays: price > 0 ? [{ id: begun, amount: price, due: at }] : [],
  }
}

/** Gives somebody what there is to do, by hand. */
function give(work: Work, id: string, command: Extract<DeskCourse['command'], { do: 'give' }>): number {
  const { house, now } = work
  const { practice, seal } = published(house)
  if (house.course(id)) throw new Refused(409, 'id-taken', { where: 'course' })
  const { person, preparations, booking: bookingId, text, silent } = command
  const booking = bookingId === undefined ? undefined : house.booking(bookingId)
  if (bookingId !== undefined && !booking) throw new Refused(404, 'unknown-booking')
  const found = preparations.map((one) => preparationOf(practice, one))
  if (found.some((one) => one === undefined)) throw new Refused(404, 'unknown-preparation')
  const path = command.path === undefined ? undefined : practice.paths?.find(({ id }) => id === command.path)
  if (command.path !== undefined && !path) throw new Refused(404, 'unknown-path')
  const impossible = path && pathFault(practice, path)
  if (impossible) throw new Refused(409, 'path-impossible', { data: { what: impossible } })
  if (!path && preparations.length === 0) throw new Refused(404, 'unknown-preparation')
  const of = path && givenPath(practice, path, now, zone(practice.profile.zone))
  const stations = of?.stations ?? (found as Preparation[]).map((one) => stationOf(practice, one, one.id))
  if (!seal && stations.some(({ is }) => is === 'answer')) throw new Refused(422, 'no-seal.preparation')
  const open = coursesOf(house, person.email).filter((course) => stillToDo(stateIn(work, course)).length > 0)
  if (open.length >= MOST_OPEN) throw new Refused(409, 'too-many-courses')
  const settles = shift(now, UNDO)
  const course = happenToCourse(work, id, {
    ...{ type: 'given', at: now, person, stations },
    ...(of ? { path: of.path } : {}),
    ...(booking ? { booking: booking.id } : {}),
    ...(text?.trim() ? { text: text.trim() } : {}),
    ...(silent ? { silent } : { settles }),
  })
  return course.seq
}

/** Whose page a private link opens: by an address that it has proved, or the one booking alone that it was given with. */
export interface WhoseLink {
  email: string
  /** The booking that the link is of. */
  booking?: Booking
  /** Whether everything of that address is theirs to see. */
  whole: boolean
}

/** What a private link of a course or a booking opens. @throws Refused when it leads nowhere */
export function theirsBehind(house: House, hash: string): WhoseLink {
  const link = house.link(hash)
  if (link?.subject.kind === 'course') {
    const course = house.course(link.subject.id)
    if (course) return { email: normalMail(course.given.person.email), whole: link.proves }
  }
  const { booking, theirs } = bookingBehind(house, hash)
  return { email: normalMail(booking.asked.person.email), booking, whole: theirs }
}

/** The courses that a link may show, in the order in which they were given. */
export const coursesBehind = (house: House, { email, booking, whole }: WhoseLink): Course[] =>
  house
    .coursesOf(email)
    .filter(({ given }) => whole || (booking !== undefined && given.booking === booking.id))
    .toSorted((a, b) => a.given.at - b.given.at || (a.id < b.id ? -1 : 1))

/** One thing to do of a course that a link may show. @throws Refused */
export function openStation(
  work: Work,
  hash: string,
  { course: id, station }: Pick<StationBody, 'course' | 'station'>,
): { course: Course; station: Station; preparation: Preparation } {
  const { house } = work
  const course = coursesBehind(house, theirsBehind(house, hash)).find((one) => one.id === id)
  if (!course) throw new Refused(404, 'unknown-course')
  work.subject = courseSubject(id)
  const found = stationIn(course, station)
  const preparation = preparationOf(published(house).practice, found.preparation)
  if (stateIn(work, course).over || !preparation) throw new Refused(409, 'course-over')
  return { course, station: found, preparation }
}

/** What is asked in one thing to do, in the version in which it was given. */
export function askedIn(house: House, { questionnaire: asked }: Station): Question[] {
  const found = published(house).practice.questionnaires.find(({ id }) => id === asked?.id)
  return (found && asked && questionsOf(found, asked.version)) ?? []
}

/** Does one thing of what there is to do, through a private link. @throws Refused */
export function doStation(
  work: Work,
  { hash, course: id, station: name, does }: StationBody & { hash: string },
): Record<string, never> {
  const { course, station, preparation } = openStation(work, hash, { course: id, station: name })
  const before = course.progress[station.id]
  const events = eventsOf(work, course, station, preparation, does, before?.done !== undefined)
  let next = course
  for (const event of events) next = happenToCourse(work, id, event)
  if (events.length > 0) tellBooking(work, next)
  return {}
}

function eventsOf(
  work: Work,
  course: Course,
  { id: station, is }: Station,
  preparation: Preparation,
  does: StationDoes,
  done: boolean,
): CourseEvent[] {
  const { now: at } = work
  const by = 'client'
  switch (does.do) {
    case 'done':
    case 'undone':
      if (is !== 'read' && is !== 'tick') throw new Refused(409, 'not-so')
      return done === (does.do === 'done') ? [] : [{ type: does.do, at, station, by }]
    case 'sign':
      if (preparation.is !== 'sign') throw new Refused(409, 'not-so')
      return done
        ? []
        : [{ type: 'signed', at, station, agreement: sign(work, course, preparation.terms, does) }]
    case 'answer': {
      if (is !== 'answer') throw new Refused(409, 'not-so')
      const { answers, answered, of } = does
      // Nothing that is asked here is ever read at the relay.
      if (
        published(work.house).seal &&
        Object.values(answers).some((one) => !isSealed(one) && !isAttached(one))
      )
        throw new Refused(422, 'not-sealed')
      for (const one of Object.values(answers)) if (isAttached(one)) claim(work, course, one.file)
      work.changes.push({ type: 'half-gone', course: course.id, station })
      return [{ type: 'answered', at, station, answers, answered, of }]
    }
    case 'bring': {
      if (is !== 'bring') throw new Refused(409, 'not-so')
      for (const { file } of does.files) claim(work, course, file)
      return [{ type: 'brought', at, station, files: does.files }]
    }
  }
}

/** A file that was uploaded for this course belongs to it. @throws Refused where there is none such */
function claim({ house, changes }: Work, { id }: Course, file: string): void {
  const facts = house.file(file)
  if (!facts || facts.visit !== id) throw new Refused(404, 'unknown-file')
  if (!facts.booking) changes.push({ type: 'claim', file, booking: id })
}

function sign(
  work: Work,
  course: Course,
  terms: string,
  { name, agreed }: Extract<StationDoes, { do: 'sign' }>,
) {
  const { practice } = published(work.house)
  const version = practice.terms.find(({ id }) => id === terms)?.versions.at(-1)
  const booking = bookingOf(work, course)
  const service = serviceOf(practice, booking?.service ?? '') ?? practice.services[0]
  if (!version || !service) throw new Refused(409, 'course-over')
  const wanted = [{ id: terms, version }]
  checkAgreed(practice, wanted, agreed)
  return agreeNow(work, service, wanted, name)[0]!
}

/** Keeps answers that are not sent yet. @throws Refused where others have been kept meanwhile */
export function keepHalf(work: Work, { hash, ...half }: HalfBody & { hash: string }): { n: number } {
  const { house, now: at } = work
  const { course: id, station, n, sealed, answered, of } = half
  const { course } = openStation(work, hash, half)
  const progress = course.progress[station]
  if (stationIn(course, station).is !== 'answer' || progress?.done) throw new Refused(409, 'course-over')
  const before = house.half(id, station)
  if ((before?.n ?? 0) !== n) throw new Refused(409, 'half-elsewhere')
  work.changes.push({ type: 'half', course: id, station, half: { n: n + 1, sealed } })
  if (progress?.filled?.answered !== answered || progress.filled.of !== of)
    happenToCourse(work, id, { type: 'filled', at, station, answered, of })
  return { n: n + 1 }
}

/** Notes that somebody has opened their page: once for each course. */
export function openCourses(work: Work, { hash }: { hash: string }): Record<string, never> {
  const { house, now: at } = work
  for (const { id, opened } of coursesBehind(house, theirsBehind(house, hash)))
    if (opened === undefined) happenToCourse(work, id, { type: 'opened', at })
  return {}
}
