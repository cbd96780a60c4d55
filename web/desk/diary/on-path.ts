import type { Booking } from '@acolhida/core/booking'
import type { Between } from '@acolhida/core/openings'
import { type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import { daysInCourse } from '@acolhida/core/preparing'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'

/** From which day to which a session of a path may lie, at a place; nothing where it is of none, or while that is looked up. */
export function useDaysOnPath(practice: Practice, booking: Booking, place: string): Between | undefined {
  const { path } = booking.asked
  const now = useMinute()
  const found = useLiveQuery(async () => {
    const row = path && (await db.courses.get(path.course))
    if (!row) return undefined
    const planned = await db.bookings.bulkGet(Object.values(row.course.booked ?? {}))
    return { course: row.course, planned: new Map(planned.flatMap((one) => (one ? [[one.id, one]] : []))) }
  }, [path?.course])
  return useMemo(() => {
    if (!path || !found) return undefined
    const there = zoneOf(practice, placeOf(practice, place))
    return daysInCourse(found.course, path.session, (id) => found.planned.get(id), { now, there })
  }, [practice, path, place, found, now])
}
