import {
  bookingSubject,
  courseSubject,
  enquirySubject,
  freedSubject,
  waitingSubject,
} from '../agenda/index.ts'
import { courseAt, pathGoesOn, stillToDo } from '../preparing/index.ts'
import { DAY, shift } from '../time/index.ts'
import { isInLine, lineAt } from '../waiting/index.ts'
import type { Work } from './work.ts'

/** For how long is kept what is only needed for a while, and files that nobody has sent with a request. */
const SHORT_MEMORY = 30 * DAY
const FILES_WAIT = DAY

/** Forgets what is too old: each subject whole, with everything that was said about it. */
export function forget({ house, now, changes }: Work, memory: number): void {
  const short = shift(now, -SHORT_MEMORY)
  const { bookings, enquiries, quotes, lines, freed, courses } = house.old(shift(now, -memory), short)
  // Whom something is still to be written to is remembered until that has gone.
  const awaited = (id: string): boolean =>
    house.dues(bookingSubject(id)).some(({ doing, at }) => doing.do === 'message' && at > now)
  for (const id of bookings) if (!awaited(id)) changes.push({ type: 'forget', subject: bookingSubject(id) })
  for (const id of enquiries) changes.push({ type: 'forget', subject: enquirySubject(id) })
  // Who still waits is remembered, however long that is; what has ended is not.
  for (const id of lines) {
    const line = house.line(id)
    if (!line || !isInLine(lineAt(line, now))) changes.push({ type: 'forget', subject: waitingSubject(id) })
  }
  for (const id of freed) changes.push({ type: 'forget', subject: freedSubject(id) })
  // What is still to be done is remembered, and with it what was.
  for (const id of courses) {
    const course = house.course(id)
    const booking = course?.given.booking === undefined ? undefined : house.booking(course.given.booking)
    const open =
      course &&
      (pathGoesOn(course, (one) => house.booking(one), now) ||
        (house.practice && stillToDo(courseAt(house.practice, course, booking, now)).length > 0))
    if (!open) changes.push({ type: 'forget', subject: courseSubject(id) })
  }
  for (const id of quotes) changes.push({ type: 'forget', subject: { kind: 'quote', id } })
  changes.push({ type: 'forget-old', short, files: shift(now, -FILES_WAIT) })
  changes.push({ type: 'forgotten', at: now })
}
