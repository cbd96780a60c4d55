import type { BookPathBody, PathPlan, PlanPathBody } from '../contract/course-types.ts'
import { type Asker, newClient } from '../openings/index.ts'
import { type PlanEach, type PlanWish, planEnd, planSessions, startsOn } from '../planning/index.ts'
import { placeOf, type Service, zoneOf } from '../practice/index.ts'
import { plannedAs } from '../preparing/index.ts'
import { askerFor, personBehind, Refused } from '../request/index.ts'
import { addDays, dateAt, dayNumber, type LocalDate } from '../time/index.ts'
import { coursesBehind, theirsBehind, type WhoseLink } from './course-link.ts'
import { daysFor } from './days-on-path.ts'
import { type House, published } from './house.ts'
import { checkWindows } from './line.ts'
import { clockNames } from './link-view.ts'
import { type OpenPath, openPath, sessionLeft } from './path.ts'
import { bookAll, type OneOfSeries, withDates } from './series.ts'
import type { Work } from './work.ts'

/** The path of a course that a link may show, with what is left of it. @throws Refused */
function theirPath(work: Work, hash: string, id: string): OpenPath & { theirs: WhoseLink } {
  const theirs = theirsBehind(work.house, hash)
  if (!theirs.whole || !coursesBehind(work.house, theirs).some((course) => course.id === id))
    throw new Refused(404, 'unknown-course')
  return { ...openPath(work, id), theirs }
}

/** How the openings look to whoever has been given a path: its services are theirs to book. */
function askerOfPath(house: House, { email }: WhoseLink, services: readonly string[]): Asker {
  const { people, salt } = published(house)
  const person = personBehind({ people, salt }, email)
  const asker = person ? { ...askerFor(person), blocked: false } : newClient
  return { ...asker, invited: [...asker.invited, ...services] }
}

/** How far ahead a path is planned: as far as its sessions go, whatever the service's own reach. */
const farEnough = (service: Service, until: LocalDate): Service => ({
  ...service,
  reach: { kind: 'until', date: until },
})

/** How many other starts of its day are offered with each session planned. */
const OTHERS = 12

/** What is left of a path, planned by its client: nothing is booked. @throws Refused */
export function planPath(work: Work, { hash, ...body }: PlanPathBody & { hash: string }): PathPlan {
  const { house, now } = work
  const { course: id, place, rhythm, first, time, windows } = body
  const { left, theirs, course } = theirPath(work, hash, id)
  const { practice } = published(house)
  if (left.length === 0) throw new Refused(409, 'course-over')
  const found = placeOf(practice, place)
  const meant = plannedAs(
    practice,
    left.map(({ session }) => session),
  )
  if (!meant) throw new Refused(409, 'course-over')
  const [firstOne] = meant as [PlanEach]
  if (!found || !firstOne.service.places.includes(place)) throw new Refused(404, 'unknown-place')
  const there = zoneOf(practice, found)
  if (windows) checkWindows(windows, firstOne.minutes, there.name, now)
  const asker = askerOfPath(
    house,
    theirs,
    meant.map(({ service }) => service.id),
  )
  // Nothing is planned in what is over.
  const today = dateAt(there, now)
  const begin = [first, today].toSorted().at(-1)!
  const until = planEnd({ rhythm, first: begin, count: left.length, each: meant })
  const each = meant.map((one) => ({ ...one, service: farEnough(one.service, until) }))
  const [head] = each as [PlanEach]
  const wish: PlanWish = {
    ...{ service: head.service, place, minutes: head.minutes, asker, now, rhythm, time },
    ...{ first: begin, count: left.length, each, ...(windows?.length ? { windows } : {}) },
  }
  const from = there.toInstant(dayNumber(begin), 0)
  const diary = house.diary(from, there.toInstant(dayNumber(addDays(until, 1)), 0))
  const { sessions } = planSessions(practice, diary, wish)
  const planned = new Map(
    sessions.flatMap(({ start }, i) => (start === undefined ? [] : [[left[i]!.session.id, start] as const])),
  )
  return {
    clocks: clockNames(practice, place, course.given.person.zone),
    sessions: sessions.map(({ meant, start, days, minutes }, i) => {
      const { session } = left[i]!
      const own = each[i]!
      const day = start === undefined ? meant : dateAt(there, start)
      const of = { course: id, session: session.id }
      const between = daysFor(work, of, place, new Map([...planned].filter(([one]) => one !== session.id)))
      const others = startsOn(practice, diary, { ...wish, ...own, asker: { ...asker, between } }, day)
      return {
        ...{ session: session.id, name: own.service.name, minutes: session.minutes, meant },
        ...(start === undefined ? {} : { start }),
        ...{ days, off: minutes, others: others.slice(0, OTHERS) },
      }
    }),
  }
}

/** Books sessions of a path as its client has planned them, whole or not at all. @throws Refused */
export function bookPath(
  work: Work,
  { hash, ...body }: BookPathBody & { hash: string },
): Record<string, never> {
  const { house } = work
  const { place, sessions } = body
  const of = theirPath(work, hash, body.course)
  const { person } = of.course.given
  const seen = new Set<string>()
  const all = sessions.map(({ session, start }): OneOfSeries => {
    if (seen.has(session)) throw new Refused(409, 'not-left')
    seen.add(session)
    const path = sessionLeft(of, session)
    const { service, minutes } = path.session
    return {
      path,
      body: { id: work.ids(), service, place, start, minutes, person, clash: false },
    }
  })
  const asker = askerOfPath(
    house,
    of.theirs,
    all.map(({ body: one }) => one.service),
  )
  const starts = sessions.map(({ start }) => start)
  const text = withDates(work, { person, place }, undefined, 'series.dates', starts)
  bookAll(work, all, { text }, asker)
  work.subject = { kind: 'course', id: of.course.id }
  return {}
}
