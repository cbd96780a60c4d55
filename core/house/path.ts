import type { PathView } from '../contract/course-types.ts'
import { transferTo } from '../ledger/index.ts'
import { decimals } from '../money/currency.ts'
import { placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import { balanceOf, type Course, paysAt, type SessionOfPath } from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import type { Instant } from '../time/index.ts'
import { happenToCourse, pathIn } from './course.ts'
import type { OfPath } from './desk.ts'
import { type House, published } from './house.ts'
import { clockNames } from './link-view.ts'
import { over } from './over.ts'
import { payableForPath } from './payable.ts'
import type { Work } from './work.ts'

/** A path of which sessions can be planned. */
export interface OpenPath {
  course: Course
  left: SessionOfPath[]
}

/** A path as it is after what this act has done. @throws Refused where nothing of it can be planned */
export function openPath(work: Work, id: string): OpenPath {
  const { house, changes, now } = work
  const next = over(house, changes)
  const course = next.course(id)
  if (!course) throw new Refused(404, 'unknown-course')
  pathIn(course)
  if (course.ended) throw new Refused(409, 'course-over')
  if (course.paused) throw new Refused(409, 'path-rests')
  const { sessions } = balanceOf(course, (booking) => next.booking(booking), now)
  return { course, left: sessions.filter(({ is }) => is === 'left') }
}

/** One of the sessions that are left of a path. @throws Refused where it is not one of them */
export function sessionLeft({ course, left }: OpenPath, id: string | undefined): OfPath {
  const found = left.find(({ session }) => session.id === id)
  if (!found) throw new Refused(409, 'not-left')
  return { course: course.id, name: pathIn(course).name, session: found.session }
}

/** The path notes which booking a session of it is. */
export function noteBooked(work: Work, { course, session }: OfPath, booking: string): void {
  happenToCourse(work, course, { type: 'booked', at: work.now, session: session.id, booking })
}

/** How a path stands, as its client reads it. */
export function pathView(house: House, course: Course, now: Instant): PathView | undefined {
  const { path, person } = course.given
  if (!path) return undefined
  const { practice } = published(house)
  const balance = balanceOf(course, (id) => house.booking(id), now)
  const { transfer: to } = practice
  const { open, paid } = balance
  const byCard = payableForPath(practice, course, now)
  const last = course.till?.at(-1)
  const next = balance.sessions.find(({ is }) => is === 'left')?.session
  const service = next && serviceOf(practice, next.service)
  return {
    name: path.name,
    currency: { code: path.currency, decimals: decimals(path.currency) },
    price: balance.price,
    order: [
      ...path.order,
      ...(course.extended ?? []).flatMap((one) => [...one.pays, ...one.sessions].map(({ id }) => id)),
    ],
    sessions: balance.sessions.map(({ session: { id, name, minutes, service: of }, is, booking }) => ({
      ...{ id, minutes, is, name: serviceOf(practice, of)?.name ?? name },
      ...(booking
        ? {
            ...{ booking: booking.id, start: booking.start },
            clocks: clockNames(practice, booking.place, person.zone),
          }
        : {}),
    })),
    pays: paysAt(course, now).map(({ id, amount, due, is }) => ({ id, amount, due, is })),
    ...{ used: balance.used, planned: balance.planned, left: balance.left, paid, open },
    ...(to && open > 0 ? { transfer: transferTo(to, course, open, path.currency) } : {}),
    ...(byCard > 0 ? { byCard } : {}),
    ...(last && last.is !== 'paid' && last.is !== 'kept'
      ? { till: { is: last.is, amount: last.amount, text: last.text ?? '' } }
      : {}),
    ...(course.paused ? { paused: course.paused.text } : {}),
    ...(service && !course.paused && !course.ended
      ? {
          plan: {
            places: service.places.flatMap((id) => {
              const place = placeOf(practice, id)
              return place && place.kind !== 'client'
                ? [{ id, name: place.name, zone: zoneOf(practice, place).name }]
                : []
            }),
          },
        }
      : {}),
  }
}
