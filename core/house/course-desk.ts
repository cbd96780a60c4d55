import { courseSubject } from '../agenda/index.ts'
import { invoicesInForce, takenBack, UNDO } from '../booking/index.ts'
import type { DeskCourse } from '../contract/course-types.ts'
import type { Minor } from '../money/index.ts'
import { type Preparation, preparationOf } from '../practice/index.ts'
import {
  type Course,
  type CourseEvent,
  givenPath,
  invoiceOfPath,
  longerFault,
  notInvoiced,
  type PathPay,
  type PathSession,
  paidFor,
  pathFault,
  pathSessions,
  sharesByMinutes,
  stationOf,
  stillToDo,
} from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import { type Instant, shift, zone } from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
import { coursesOf, happenToCourse, pathIn, stateIn, stationIn, tellBooking } from './course.ts'
import { published } from './house.ts'
import { nextInvoice } from './numbered.ts'
import type { Work } from './work.ts'

/** How much may be open of one person: what nobody could go through. */
const MOST_OPEN = 50

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
      const { amount, way, text, source } = pathIn(course) && command
      // An entry of a statement is noted once, however often the statement is opened.
      if (source !== undefined && course.payments?.some((one) => one.source === source))
        return { seq: course.seq }
      mayGiveBack(course, -amount)
      return happens({
        ...{ type: 'paid', at, amount, way },
        ...(text?.trim() ? { text: text.trim() } : {}),
        ...(source ? { source } : {}),
      })
    }
    case 'invoice': {
      pathIn(course)
      const left = notInvoiced(course)
      const parts = left.filter(({ id }) => command.parts.includes(id))
      if (parts.length < new Set(command.parts).size) throw new Refused(409, 'invoiced-already')
      const facts = invoiceOfPath(course, parts, {
        part: (about) => refusalWords('invoice.part', { ...about, name: course.given.path?.name ?? '' }),
        back: refusalWords('invoice.given-back'),
      })
      if (facts.total === 0) throw new Refused(409, 'nothing-to-invoice')
      return happens({ type: 'invoiced', at, ...nextInvoice(house), ...facts })
    }
    case 'correct-invoice': {
      const invoice = invoicesInForce(course.invoices ?? []).find(({ number }) => number === command.number)
      if (!invoice) throw new Refused(409, 'no-invoice')
      return happens({ type: 'invoiced', at, ...nextInvoice(house), ...takenBack(invoice, command.text) })
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

/** Makes sure that no more is given back than has come. @throws Refused */
function mayGiveBack(course: Course, amount: Minor): void {
  if (amount > 0 && amount > paidFor(course)) throw new Refused(409, 'not-paid')
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
  const fault = longerFault(course, many)
  if (fault) throw new Refused(409, 'path-impossible', { data: { what: fault } })
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
