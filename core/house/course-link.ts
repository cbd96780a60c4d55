import { courseSubject } from '../agenda/index.ts'
import type { Booking } from '../booking/index.ts'
import type { HalfBody, StationBody, StationDoes } from '../contract/course-types.ts'
import { normalMail } from '../people/index.ts'
import { type Preparation, preparationOf, serviceOf } from '../practice/index.ts'
import type { Course, CourseEvent, Station } from '../preparing/index.ts'
import { isAttached, isSealed, type Question, questionsOf } from '../questions/index.ts'
import { Refused } from '../request/index.ts'
import { agreeNow, checkAgreed } from './agreeing.ts'
import { bookingOf, happenToCourse, stateIn, stationIn, tellBooking } from './course.ts'
import { type House, published } from './house.ts'
import { bookingBehind, type LedTo, mayDo } from './link.ts'
import type { Work } from './work.ts'

/**
 * Whose page a private link opens: by an address that it has proved, or the one booking, or the one thing to do, alone
 * that it was given with.
 */
export interface WhoseLink {
  email: string
  /** The booking, or what there is to do, that the link is of. */
  booking?: Booking
  course?: string
  /** Whether everything of that address is theirs to see. */
  whole: boolean
  /** It went to whoever comes, where somebody else has asked. */
  as?: LedTo['as']
}

/** What a private link of a course or a booking opens. @throws Refused when it leads nowhere */
export function theirsBehind(house: House, hash: string): WhoseLink {
  const link = house.link(hash)
  if (link?.subject.kind === 'course') {
    const course = house.course(link.subject.id)
    if (course) return { email: normalMail(course.given.person.email), course: course.id, whole: link.proves }
  }
  const led = bookingBehind(house, hash)
  mayDo(led, 'prepare')
  const { booking, theirs, as } = led
  return {
    ...{ email: normalMail(booking.asked.person.email), booking, whole: theirs },
    ...(as ? { as } : {}),
  }
}

/** The courses that a link may show, in the order in which they were given. */
export const coursesBehind = (house: House, { email, booking, course, whole }: WhoseLink): Course[] =>
  house
    .coursesOf(email)
    .filter(
      ({ id, given }) => whole || id === course || (booking !== undefined && given.booking === booking.id),
    )
    .toSorted((a, b) => a.given.at - b.given.at || (a.id < b.id ? -1 : 1))

/** A course that a link may show. @throws Refused */
export function courseBehind(house: House, hash: string, id: string): Course {
  const course = coursesBehind(house, theirsBehind(house, hash)).find((one) => one.id === id)
  if (!course) throw new Refused(404, 'unknown-course')
  return course
}

/** One thing to do of a course that a link may show. @throws Refused */
export function openStation(
  work: Work,
  hash: string,
  { course: id, station }: Pick<StationBody, 'course' | 'station'>,
): { course: Course; station: Station; preparation: Preparation } {
  const { house } = work
  const course = courseBehind(house, hash, id)
  work.subject = courseSubject(id)
  const found = stationIn(course, station)
  const preparation = preparationOf(published(house).practice, found.preparation)
  if (stateIn(work, course).over || !preparation) throw new Refused(409, 'course-over')
  return { course, station: found, preparation }
}

/** What is asked in one thing to do, in the version in which it was given. */
export function askedIn(house: House, { questionnaire: asked }: Station): Question[] {
  const found = published(house).practice.questionnaires.find(({ id }) => id === asked?.id)
  return (found && asked && questionsOf(found, asked.version)) ?? []
}

/** Does one thing of what there is to do, through a private link. @throws Refused */
export function doStation(
  work: Work,
  { hash, course: id, station: name, does }: StationBody & { hash: string },
): Record<string, never> {
  const { course, station, preparation } = openStation(work, hash, { course: id, station: name })
  const before = course.progress[station.id]
  const events = eventsOf(work, course, station, preparation, does, before?.done !== undefined)
  let next = course
  for (const event of events) next = happenToCourse(work, id, event)
  if (events.length > 0) tellBooking(work, next)
  return {}
}

function eventsOf(
  work: Work,
  course: Course,
  { id: station, is }: Station,
  preparation: Preparation,
  does: StationDoes,
  done: boolean,
): CourseEvent[] {
  const { now: at } = work
  const by = 'client'
  switch (does.do) {
    case 'done':
    case 'undone':
      if (is !== 'read' && is !== 'tick') throw new Refused(409, 'not-so')
      return done === (does.do === 'done') ? [] : [{ type: does.do, at, station, by }]
    case 'sign':
      if (preparation.is !== 'sign') throw new Refused(409, 'not-so')
      return done
        ? []
        : [{ type: 'signed', at, station, agreement: sign(work, course, preparation.terms, does) }]
    case 'answer': {
      if (is !== 'answer') throw new Refused(409, 'not-so')
      const { answers, answered, of } = does
      // Nothing that is asked here is ever read at the relay.
      if (
        published(work.house).seal &&
        Object.values(answers).some((one) => !isSealed(one) && !isAttached(one))
      )
        throw new Refused(422, 'not-sealed')
      for (const one of Object.values(answers)) if (isAttached(one)) claim(work, course, one.file)
      work.changes.push({ type: 'half-gone', course: course.id, station })
      return [{ type: 'answered', at, station, answers, answered, of }]
    }
    case 'bring': {
      if (is !== 'bring') throw new Refused(409, 'not-so')
      for (const { file } of does.files) claim(work, course, file)
      return [{ type: 'brought', at, station, files: does.files }]
    }
  }
}

/** A file that was uploaded for this course belongs to it. @throws Refused where there is none such */
function claim({ house, changes }: Work, { id }: Course, file: string): void {
  const facts = house.file(file)
  if (!facts || facts.visit !== id) throw new Refused(404, 'unknown-file')
  if (!facts.booking) changes.push({ type: 'claim', file, booking: id })
}

function sign(
  work: Work,
  course: Course,
  terms: string,
  { name, agreed }: Extract<StationDoes, { do: 'sign' }>,
) {
  const { practice } = published(work.house)
  const version = practice.terms.find(({ id }) => id === terms)?.versions.at(-1)
  const booking = bookingOf(work, course)
  const service = serviceOf(practice, booking?.service ?? '') ?? practice.services[0]
  if (!version || !service) throw new Refused(409, 'course-over')
  const wanted = [{ id: terms, version }]
  checkAgreed(practice, wanted, agreed)
  return agreeNow(work, service, wanted, name)[0]!
}

/** Keeps answers that are not sent yet. @throws Refused where others have been kept meanwhile */
export function keepHalf(work: Work, { hash, ...half }: HalfBody & { hash: string }): { n: number } {
  const { house, now: at } = work
  const { course: id, station, n, sealed, answered, of } = half
  const { course } = openStation(work, hash, half)
  const progress = course.progress[station]
  if (stationIn(course, station).is !== 'answer' || progress?.done) throw new Refused(409, 'course-over')
  const before = house.half(id, station)
  if ((before?.n ?? 0) !== n) throw new Refused(409, 'half-elsewhere')
  work.changes.push({ type: 'half', course: id, station, half: { n: n + 1, sealed } })
  if (progress?.filled?.answered !== answered || progress.filled.of !== of)
    happenToCourse(work, id, { type: 'filled', at, station, answered, of })
  return { n: n + 1 }
}

/** Notes that somebody has opened their page: once for each course. */
export function openCourses(work: Work, { hash }: { hash: string }): Record<string, never> {
  const { house, now: at } = work
  for (const { id, opened } of coursesBehind(house, theirsBehind(house, hash)))
    if (opened === undefined) happenToCourse(work, id, { type: 'opened', at })
  return {}
}
