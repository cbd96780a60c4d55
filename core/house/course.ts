import type { Booking } from '../booking/index.ts'
import { normalMail } from '../people/index.ts'
import { preparationOf, serviceOf } from '../practice/index.ts'
import {
  type Course,
  type CourseEvent,
  type CourseState,
  courseAt,
  type GivenPath,
  readerOfCourse,
  type Station,
  stationsFor,
  toldBooking,
} from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import { canonicalJson } from '../terms/index.ts'
import { duration } from '../time/index.ts'
import { type House, published } from './house.ts'
import { over } from './over.ts'
import { happen, type Work } from './work.ts'

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
export function tellBooking(work: Work, course: Course): void {
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
    const told = readerOfCourse({ given: { person } }, booking).as === 'asks'
    const given = {
      ...{ type: 'given' as const, at: now, person, stations, booking: id },
      // The confirmation tells who asked; whoever prepares themselves is told once the word stands.
      ...(told ? { silent: true } : booking.unsettled ? { settles: booking.unsettled.until } : {}),
    }
    tellBooking(work, happenToCourse(work, work.ids(), given))
  }
}

/** How it stands after what this act has done. */
export const stateIn = (work: Work, course: Course): CourseState =>
  courseAt(published(work.house).practice, course, bookingOf(work, course), work.now)

/** One thing of it. @throws Refused */
export function stationIn(course: Course, id: string): Station {
  const station = course.given.stations.find((one) => one.id === id)
  if (!station) throw new Refused(404, 'unknown-course')
  return station
}

/** The path somebody was given. @throws Refused where it is none */
export function pathIn({ given }: Course): GivenPath {
  if (!given.path) throw new Refused(409, 'no-path')
  return given.path
}
