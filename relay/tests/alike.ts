import {
  bookingSubject,
  courseSubject,
  type Due,
  freedSubject,
  inOrder,
  nameOf,
  type Subject,
  waitingSubject,
} from '@acolhida/core/agenda'
import { stateAt } from '@acolhida/core/booking'
import { agendaAnew, type Doorkeeper } from '@acolhida/core/house'
import { DAY, type Instant, instant, shift } from '@acolhida/core/time'
import { VISITS } from './histories.ts'

/** Everything by which two houses can be told apart. */
export function portrait(keeper: Doorkeeper, now: Instant): unknown {
  const { house } = keeper
  const bookings = [...house.openBookings()].sort((a, b) => (a.id < b.id ? -1 : 1))
  const { entries } = house.diary(shift(now, -20 * DAY), shift(now, 60 * DAY))
  return {
    bookings,
    states: bookings.map((booking) => stateAt(booking, now)),
    entries: [...entries].sort((a, b) => a.start - b.start || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)),
    lines: [...house.inLine()].sort((a, b) => (a.id < b.id ? -1 : 1)),
    freed: [...house.freedTimes()].sort((a, b) => (a.id < b.id ? -1 : 1)),
    courses: [...house.courses()].sort((a, b) => (a.id < b.id ? -1 : 1)),
    halves: [...house.courses()]
      .flatMap(({ id, given }) => given.stations.map((one) => [id, one.id, house.half(id, one.id)]))
      .sort(),
    agenda: [...house.agenda()],
    chain: house.chain,
    revision: house.pack?.revision,
    forgotten: house.forgotten(),
    attempts: VISITS.map((visit) => house.attempts(visit)),
    keeps: VISITS.map((visit) => house.keep(visit)),
    enquiries: [0, 1, 2].map((n) => house.enquiryNews(`enquiry-${n}`)),
  }
}

/** The agenda as it would be made anew from the house, and as it has been kept. */
export function agendas({ house }: Doorkeeper): { kept: Due[]; anew: Due[] } {
  const kept = [...house.agenda()]
  const subjects = new Map<string, Subject>(kept.map(({ subject }) => [nameOf(subject), subject]))
  for (const { id } of house.openBookings()) subjects.set(nameOf(bookingSubject(id)), bookingSubject(id))
  for (const { id } of house.inLine()) subjects.set(nameOf(waitingSubject(id)), waitingSubject(id))
  for (const { id } of house.courses()) subjects.set(nameOf(courseSubject(id)), courseSubject(id))
  for (const { id } of house.freedTimes()) subjects.set(nameOf(freedSubject(id)), freedSubject(id))
  return { kept, anew: agendaAnew(house, subjects.values()).sort(inOrder) }
}

/** Times kept for one that meet those kept for another, where nobody has wished for a clash. */
export function overlaps(keeper: Doorkeeper, clashes: ReadonlySet<string>): string[] {
  const { house } = keeper
  // Of one freed time several may be asked; the first has it.
  const freed = new Map<string, string>(
    [...house.inLine()].flatMap(({ id, offer }) => (offer ? [[`held-out-${id}`, offer.freed] as const] : [])),
  )
  const rivals = (a: string, b: string): boolean => freed.has(a) && freed.get(a) === freed.get(b)
  const entries = house
    .diary(instant(0), instant(4_000_000_000_000))
    .entries.filter((entry) => entry.service === 'a' && !clashes.has(entry.id))
  return entries.flatMap((a, i) =>
    entries
      .slice(i + 1)
      .flatMap((b) =>
        a.id !== b.id && a.start < b.end && b.start < a.end && !rivals(a.id, b.id)
          ? [`${a.id} and ${b.id}`]
          : [],
      ),
  )
}
