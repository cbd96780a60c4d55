import type { Booking } from '../booking/index.ts'
import { type Practice, type Preparation, preparationsOf, type Service } from '../practice/index.ts'
import type { Duration, Instant } from '../time/index.ts'
import { before, zone } from '../time/index.ts'
import type { Course, Station } from './course.ts'

/** A preparation as it is given: frozen, but for what it says. @param id names it in its course */
export function stationOf(practice: Practice, preparation: Preparation, id: string): Station {
  const { is, name, due, minutes } = preparation
  const asked =
    preparation.is === 'answer'
      ? practice.questionnaires.find((one) => one.id === preparation.questionnaire)
      : undefined
  return {
    ...{ id, preparation: preparation.id, is, name, due },
    ...(minutes === undefined ? {} : { minutes }),
    ...(asked ? { questionnaire: { id: asked.id, version: asked.version } } : {}),
  }
}

/** Whether somebody has been given something that is given once. */
const hasHad = (courses: readonly Course[], preparation: string): boolean =>
  courses.some(({ given, ended, progress }) =>
    given.stations.some(
      (station) => station.preparation === preparation && (!ended || progress[station.id]?.done),
    ),
  )

/**
 * What goes out with a booking of a service: all of its preparations but those that are given once, and that its client
 * has had.
 * @param theirs what its client was given before
 */
export const stationsFor = (practice: Practice, service: Service, theirs: readonly Course[]): Station[] =>
  preparationsOf(practice, service)
    .filter(({ once, id }) => !once || !hasHad(theirs, id))
    .map((preparation) => stationOf(practice, preparation, preparation.id))

/** The longest of the times before the start by which something is to be done: then all of it is. */
export function leadOf(stations: readonly Station[]): Duration {
  const noon = Date.UTC(2027, 0, 4, 12) as Instant
  const leads = stations.flatMap(({ due }) => (due.from === 'start' ? [due.by] : []))
  const ahead = (by: Duration): number => noon - before(noon, by, zone('UTC'))
  return leads.toSorted((a, b) => ahead(b) - ahead(a))[0] ?? ('PT0S' as Duration)
}

/** Whether something must be done before the session that a course goes with. */
export const isBefore = ({ due }: Station): boolean => due.from !== 'end'

/** What a booking tells of what is to be done before it, by its course. */
export function toldBooking(
  course: Course,
  gone: (station: Station) => boolean,
): NonNullable<Booking['course']> | undefined {
  const stations = course.given.stations.filter((station) => isBefore(station) && !gone(station))
  if (stations.length === 0) return undefined
  const left = stations.filter(({ id }) => !course.progress[id]?.done)
  return {
    id: course.id,
    what: stations.map(({ preparation }) => preparation),
    by: leadOf(left.length > 0 ? left : stations),
    ...(left.length === 0 ? { done: true } : {}),
  }
}
