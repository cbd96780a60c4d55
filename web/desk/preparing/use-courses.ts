import type { Practice } from '@acolhida/core/practice'
import { type CourseState, courseAt } from '@acolhida/core/preparing'
import type { Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from '../data/db.ts'
import type { BookingRow } from '../data/rows.ts'
import type { CourseRow } from '../data/tables.ts'

/** What somebody was given, with the booking it goes with. */
export interface GivenTo {
  row: CourseRow
  booking?: BookingRow
}

/** How it stands. */
export const stateOf = (practice: Practice, { row, booking }: GivenTo, now: Instant): CourseState =>
  courseAt(practice, row.course, booking, now)

/** Courses, each with its booking. */
async function withBookings(rows: CourseRow[]): Promise<GivenTo[]> {
  const ids = rows.flatMap(({ booking }) => booking ?? [])
  const found = new Map((await db.bookings.bulkGet(ids)).flatMap((row) => (row ? [[row.id, row]] : [])))
  return rows
    .toSorted((a, b) => b.course.given.at - a.course.given.at)
    .map((row) => {
      const booking = row.booking === undefined ? undefined : found.get(row.booking)
      return { row, ...(booking ? { booking } : {}) }
    })
}

/** What was given to whoever has these addresses, the newest first. */
export const useCoursesOf = (mails: readonly string[]): GivenTo[] | undefined =>
  useLiveQuery(
    async () => withBookings(await db.courses.where('mail').anyOf(mails).toArray()),
    [mails.join(' ')],
  )

/** What goes with one booking. */
export const useCoursesWith = (booking: string): GivenTo[] | undefined =>
  useLiveQuery(
    async () => withBookings(await db.courses.where('booking').equals(booking).toArray()),
    [booking],
  )

/** Everything of which something is still to be done. */
export const useOpenCourses = (): GivenTo[] | undefined =>
  useLiveQuery(async () => withBookings(await db.courses.where('open').equals(1).toArray()))
