import { type Booking, isEnded, isPlaced, seenAt, stateAt } from '../booking/index.ts'
import type { CourseView, InvoicesView, StationView, YoursView } from '../contract/course-types.ts'
import { decimals } from '../money/currency.ts'
import { documentSize, type LetterDocument, preparationOf, serviceOf } from '../practice/index.ts'
import { type Course, courseAt, readerOfCourse, type StationState } from '../preparing/index.ts'
import { type Answers, openAnswers, type Question } from '../questions/index.ts'
import { personBehind, Refused } from '../request/index.ts'
import type { Instant } from '../time/index.ts'
import { doorTerms, toldAgreement, toldAgreements, toldSince } from './agreeing.ts'
import { askedIn, courseBehind, coursesBehind, type WhoseLink } from './course-link.ts'
import { type House, published } from './house.ts'
import { clockNames } from './link-view.ts'
import { pathView } from './path.ts'
import { isOffered } from './visitor.ts'

/** What is known already of somebody who is asked: their address and phone, and what they have answered before. */
function knownOf(house: House, course: Course, questions: readonly Question[], whole: boolean): Answers {
  const { booking } = course.given
  const of = booking === undefined ? undefined : house.booking(booking)
  const { as, to } = readerOfCourse(course, of)
  // Whoever prepares for a session of theirs that somebody else has asked for is known by their own address alone.
  if (as !== 'asks')
    return Object.fromEntries(
      questions.flatMap(({ id, kind }) => (kind === 'email' && to !== undefined ? [[id, to]] : [])),
    )
  const { email, phone } = course.given.person
  const before = whole ? house.bookingsOf(email).toSorted((a, b) => a.asked.at - b.asked.at) : []
  return Object.fromEntries(
    questions.flatMap((question): [string, Answers[string]][] => {
      if (question.kind === 'email') return [[question.id, email]]
      if (question.kind === 'phone' && phone) return [[question.id, phone]]
      const answer = before
        .map(({ asked }) => openAnswers(questions, asked.answers)[question.id])
        .findLast((one) => one !== undefined)
      return answer === undefined || question.kind === 'file' ? [] : [[question.id, answer]]
    }),
  )
}

function stationView(
  house: House,
  course: Course,
  { station, due, is, progress }: StationState,
  whole: boolean,
): StationView[] {
  const { practice } = published(house)
  const preparation = preparationOf(practice, station.preparation)
  if (is === 'gone') return []
  const { id, minutes } = station
  const view: StationView = {
    ...{ id, name: preparation?.name ?? station.name, is: station.is, state: is },
    ...(due === undefined ? {} : { due }),
    ...(progress.done ? { done: progress.done.at } : {}),
    ...(minutes === undefined ? {} : { minutes }),
    ...(progress.filled ? { filled: { answered: progress.filled.answered, of: progress.filled.of } } : {}),
    ...(progress.agreement ? { agreement: toldAgreement(practice, progress.agreement) } : {}),
    ...(progress.files ? { files: progress.files.map(({ name, size }) => ({ name, size })) } : {}),
  }
  switch (preparation?.is) {
    case 'read':
      return [
        {
          ...{ ...view, letter: preparation.text },
          ...(preparation.document
            ? { document: { name: preparation.document.name, size: documentSize(preparation.document) } }
            : {}),
        },
      ]
    case 'bring':
      return [{ ...view, text: preparation.text }]
    case 'tick':
      return [
        { ...view, text: preparation.text, ...(preparation.address ? { address: preparation.address } : {}) },
      ]
    case 'sign': {
      const version = practice.terms.find((terms) => terms.id === preparation.terms)?.versions.at(-1)
      const booking = course.given.booking === undefined ? undefined : house.booking(course.given.booking)
      const service = serviceOf(practice, booking?.service ?? '') ?? practice.services[0]
      if (progress.done || !version || !service) return [view]
      return [{ ...view, terms: doorTerms(practice, service, { id: preparation.terms, version }) }]
    }
    case 'answer': {
      if (progress.done) return [view]
      const questions = askedIn(house, station)
      const half = house.half(course.id, id)
      const known = knownOf(house, course, questions, whole)
      return [
        {
          ...{ ...view, questions },
          ...(Object.keys(known).length > 0 ? { known } : {}),
          ...(half ? { half } : {}),
        },
      ]
    }
    default:
      return [view]
  }
}

function courseView(house: House, course: Course, whole: boolean, now: Instant): CourseView | undefined {
  const { practice } = published(house)
  const { id, given } = course
  const booking = given.booking === undefined ? undefined : house.booking(given.booking)
  const seen = booking && seenAt(booking, now)
  const state = courseAt(practice, course, seen, now)
  const stations = state.stations.flatMap((one) => stationView(house, course, one, whole))
  // What is over stays, as far as something of it was done.
  const shown = state.over ? stations.filter(({ state: is }) => is === 'done') : stations
  const path = pathView(house, course, now)
  if (shown.length === 0 && (!path || (state.over && path.used + path.planned === 0))) return undefined
  return {
    ...{ course: id, at: given.at, stations: shown },
    ...(given.text ? { text: given.text } : {}),
    ...(path ? { path } : {}),
    ...(seen
      ? {
          session: {
            service: serviceOf(practice, seen.service)?.name ?? '',
            ...{ start: seen.start, minutes: seen.minutes },
            clocks: clockNames(practice, seen.place, given.person.zone),
          },
        }
      : {}),
  }
}

/** The PDF of a letter that a link may show. @throws Refused */
export function letterDocument(
  house: House,
  hash: string,
  { course: id, station: name }: { course: string; station: string },
): LetterDocument {
  const course = courseBehind(house, hash, id)
  const station = course.given.stations.find((one) => one.id === name)
  const preparation = station && preparationOf(published(house).practice, station.preparation)
  if (preparation?.is !== 'read' || !preparation.document) throw new Refused(404, 'unknown-file')
  return preparation.document
}

/** How whoever reads the page is called: who prepares, where the link is of that alone. */
function nameOf(house: House, course: Course | undefined, { whole, booking }: WhoseLink): string {
  const { booking: id, person } = course?.given ?? {}
  if (course && !whole) return readerOfCourse(course, id === undefined ? undefined : house.booking(id)).name
  return person?.name ?? booking?.asked.person.name ?? ''
}

/** Everything of one person: what there is to do, their sessions, what they agreed to, what they can book. */
export function yoursView(house: House, theirs: WhoseLink, now: Instant): YoursView {
  const { practice, seal, people, salt } = published(house)
  const courses = coursesBehind(house, theirs)
  const bookings = theirs.whole
    ? house.bookingsOf(theirs.email).filter(({ mailProved, id }) => mailProved || id === theirs.booking?.id)
    : theirs.booking
      ? [theirs.booking]
      : []
  const sessions = bookings
    .map((booking) => ({ booking, seen: seenAt(booking, now) }))
    .toSorted((a, b) => {
      const [past, other] = [a.seen.start < now, b.seen.start < now]
      return (
        Number(past) - Number(other) || (past ? b.seen.start - a.seen.start : a.seen.start - b.seen.start)
      )
    })
  const zoneName =
    courses.at(-1)?.given.person.zone ?? theirs.booking?.asked.person.zone ?? practice.profile.zone
  const invited = theirs.whole ? (personBehind({ people, salt }, theirs.email)?.invited ?? []) : []
  const had = new Set(sessions.flatMap(({ seen }) => (isPlaced(stateAt(seen, now)) ? [seen.service] : [])))
  const name = nameOf(house, courses.at(-1), theirs)
  return {
    slug: practice.profile.slug,
    practitioner: practice.profile.name,
    name,
    courses: courses.flatMap((course) => courseView(house, course, theirs.whole, now) ?? []),
    sessions: sessions
      .filter(({ seen }) => (seen.start >= now ? !isEnded(stateAt(seen, now)) : isPlaced(stateAt(seen, now))))
      .map(({ booking, seen }) => ({
        booking: booking.id,
        service: serviceOf(practice, seen.service)?.name ?? '',
        ...{ start: seen.start, minutes: seen.minutes, state: stateAt(seen, now).is },
        clocks: clockNames(practice, seen.place, seen.asked.person.zone),
        ...(booking.id === theirs.booking?.id ? { own: true } : {}),
      })),
    agreements: [
      ...bookings.flatMap((booking) =>
        theirs.as ? toldSince(practice, booking) : toldAgreements(practice, booking),
      ),
      ...courses.flatMap(({ progress }) =>
        Object.values(progress).flatMap(({ agreement }) =>
          agreement ? [toldAgreement(practice, agreement)] : [],
        ),
      ),
    ].toSorted((a, b) => b.at - a.at),
    invoices: theirs.as ? [] : [...bookings.flatMap(ofBooking), ...courses.flatMap(ofPath)],
    again: practice.services
      .filter(({ id }) => had.has(id) || invited.includes(id))
      .filter((service) => had.has(service.id) || isOffered(house, service, now, undefined))
      .map(({ id, name }) => ({ id, name })),
    clocks: { first: zoneName },
    ...(seal ? { seal } : {}),
    now,
  }

  function ofBooking({ invoices, asked, place }: Booking): InvoicesView[] {
    if (!invoices) return []
    const currency = { code: asked.currency, decimals: decimals(asked.currency) }
    return [{ invoices, currency, clocks: clockNames(practice, place, asked.person.zone) }]
  }

  function ofPath({ invoices, given: { path } }: Course): InvoicesView[] {
    if (!invoices || !path) return []
    const currency = { code: path.currency, decimals: decimals(path.currency) }
    const shown = invoices.map(({ parts: _, ...invoice }) => invoice)
    return [{ invoices: shown, currency, clocks: { first: zoneName } }]
  }
}
