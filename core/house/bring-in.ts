import type { Booking, BookingEvent } from '../booking/index.ts'
import type {
  BringInBody,
  BringOutBody,
  BroughtIn,
  BroughtSession,
  BroughtStanding,
} from '../contract/bring-types.ts'
import { serviceOf } from '../practice/index.ts'
import { type Course, type GivenPath, givenPath } from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import { zone } from '../time/index.ts'
import { happenToCourse } from './course.ts'
import { enter } from './desk.ts'
import { published } from './house.ts'
import { happen, type Work } from './work.ts'

/**
 * Takes in sessions that were booked elsewhere, and how people stand, whole or not at all. Every rule but the past is set
 * aside: they are booked. Nobody is written to who is not to be.
 * @throws Refused as booking somebody in by hand is
 */
export function bringIn(work: Work, { batch, sessions, standing }: BringInBody): BroughtIn {
  for (const session of sessions) bringSession(work, batch, session)
  for (const one of standing) bringStanding(work, batch, one)
  return { sessions: sessions.length, standing: standing.length }
}

function bringSession(work: Work, batch: string, { price, paid, tell, ...session }: BroughtSession): void {
  const { now: at } = work
  const then: BookingEvent[] = paid
    ? [{ type: 'paid', at, amount: paid, way: 'other', text: '', settles: at }]
    : []
  enter(
    work,
    { ...session, clash: true, ...(tell ? {} : { silent: true }) },
    { brought: { batch, then, ...(price === undefined ? {} : { price }) } },
  )
}

function bringStanding(work: Work, batch: string, { id, person, name, left, owes }: BroughtStanding): void {
  const { house, now } = work
  const { practice } = published(house)
  if (house.course(id)) throw new Refused(409, 'id-taken', { where: 'standing' })
  const service = left && serviceOf(practice, left.service)
  if (left && !service) throw new Refused(404, 'unknown-service', { where: 'standing' })
  const line = {
    ...{ id: 'brought', name, text: '', price: 0 },
    stations:
      left && service
        ? [
            {
              ...{ id: 'session', does: 'sessions' as const, service: service.id },
              ...{ minutes: service.minutes, many: left.many },
            },
          ]
        : [],
  }
  const { path } = givenPath(practice, line, now, zone(practice.profile.zone))
  const owed = owes ? [{ id: 'owed', amount: owes.amount, due: owes.due }] : []
  const given: GivenPath = {
    ...{ ...path, price: owes?.amount ?? 0, pays: owed },
    order: [...path.order, ...owed.map((pay) => pay.id)],
  }
  happenToCourse(work, id, {
    ...{ type: 'given', at: now, person, stations: [], path: given, silent: true, broughtIn: batch },
  })
}

/** Nothing has happened to it since it was brought in. */
const isAsItCame = ({ latest }: Pick<Booking | Course, 'latest'>, at: number): boolean => latest === at

/**
 * Takes what was brought in together out again: nobody hears of it, and nobody is asked for the time that is free then. What has gone on since stays: moved, paid, agreed to,
 * or over.
 */
export function bringOut(work: Work, { batch, bookings, courses }: BringOutBody): BroughtIn {
  const { house, now: at } = work
  work.still = true
  let [sessions, standing] = [0, 0]
  for (const id of bookings) {
    const booking = house.booking(id)
    if (!booking || booking.asked.broughtIn !== batch || booking.status !== 'booked') continue
    if (!isAsItCame(booking, booking.asked.at) || booking.start <= at) continue
    happen(work, id, [{ type: 'taken-out', at }])
    sessions++
  }
  for (const id of courses) {
    const course = house.course(id)
    if (!course || course.given.broughtIn !== batch || course.ended) continue
    if (!isAsItCame(course, course.given.at)) continue
    happenToCourse(work, id, { type: 'ended', at })
    standing++
  }
  return { sessions, standing }
}
