import { placeOf, zoneOf } from '../practice/find.ts'
import type { GroupDate, Practice, Service } from '../practice/types.ts'
import { before, type Instant, instantOf } from '../time/index.ts'
import type { Booking } from './record.ts'

/** A group date whose last moment to reach the least number has passed. */
export interface JudgedDate {
  service: Service
  date: GroupDate
  start: Instant
  /** The bookings and requests for it. */
  bookings: Booking[]
  /** Whether enough people have come. */
  reached: boolean
}

/** Whether somebody has, or waits for, a seat. */
const hasSeat = (booking: Booking, now: Instant): boolean =>
  booking.status === 'booked' || (booking.status === 'requested' && now <= booking.until)

/** The bookings and requests that have a seat in one session. */
export const seatsTaken = (
  bookings: Iterable<Booking>,
  session: { service: string; place: string; start: Instant },
  now: Instant,
): Booking[] =>
  [...bookings].filter(
    (one) =>
      one.asked.service === session.service &&
      one.start === session.start &&
      one.place === session.place &&
      hasSeat(one, now),
  )

/** The group dates still to come whose last moment has passed, each with whether enough people have come. */
export function judgedDates(practice: Practice, bookings: Iterable<Booking>, now: Instant): JudgedDate[] {
  const all = [...bookings]
  return practice.services.flatMap((service) => {
    const { least } = service
    if (!least || service.seats < 2 || service.groupAt !== 'dates') return []
    return service.groupDates.flatMap((date) => {
      const where = zoneOf(practice, placeOf(practice, date.place))
      const start = instantOf(where, date.start)
      if (start <= now || now <= before(start, least.by, where)) return []
      const here = seatsTaken(all, { service: service.id, place: date.place, start }, now)
      return [{ service, date, start, bookings: here, reached: here.length >= least.people }]
    })
  })
}
