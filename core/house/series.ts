import { bookingSubject, nameOf } from '../agenda/index.ts'
import type { Booking } from '../booking/index.ts'
import type { EnterBody } from '../contract/desk-types.ts'
import type { EndSeriesBody, MoveSeriesBody, SeriesBody } from '../contract/series-types.ts'
import { languageFor } from '../messages/index.ts'
import { type Asker, type Entry, entryFor, why } from '../openings/index.ts'
import { clientClocks, type Practice } from '../practice/index.ts'
import { printOfBooking, Refused } from '../request/index.ts'
import { type Instant, MINUTE, moment, zone, zonePlace } from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
import { askByHand, circumstances } from './circumstances.ts'
import { daysFor } from './days-on-path.ts'
import { enter, type OfPath } from './desk.ts'
import { published } from './house.ts'
import { carryOut } from './link.ts'
import { noteBooked, openPath, sessionLeft } from './path.ts'
import { lookIn } from './spoken.ts'
import type { Work } from './work.ts'

/**
 * Books somebody in for several sessions, whole or not at all. One message tells of all of them, that of the first. Those
 * of a path are what that says, and it notes them.
 * @throws Refused naming the starts that are not free any more
 */
export function enterSeries(
  work: Work,
  { sessions, text, silent, course, ...each }: SeriesBody,
): { seq: number } {
  const of = course === undefined ? undefined : openPath(work, course)
  const starts = sessions.map(({ start }) => start)
  const said = silent ? { silent } : { text: withDates(work, each, text, 'series.dates', starts) }
  const all = sessions.map(({ id, start, session }): OneOfSeries => {
    const path = of && sessionLeft(of, session)
    const own = path ? { service: path.session.service, minutes: path.session.minutes } : {}
    return { body: { ...each, ...own, id, start, clash: false }, ...(path ? { path } : {}) }
  })
  return bookAll(work, all, said)
}

/** One session of several that are booked at once. */
export interface OneOfSeries {
  body: EnterBody
  path?: OfPath
}

/**
 * Books several, whole or not at all.
 * @param said with the first; the others go in silence
 * @param client where they book it themselves: every rule holds
 */
export function bookAll(
  work: Work,
  all: readonly OneOfSeries[],
  said: Pick<EnterBody, 'text' | 'silent'>,
  client?: Asker,
): { seq: number } {
  const { practice } = published(work.house)
  const taken: Instant[] = []
  const also: Entry[] = []
  let seq = 0
  const chosen = new Map(
    all.flatMap(({ body, path }) => (path ? [[path.session.id, body.start] as const] : [])),
  )
  all.forEach(({ body, path }, i) => {
    const between =
      path && daysFor(work, { course: path.course, session: path.session.id }, body.place, chosen)
    const from = {
      ...{ also, ...(path ? { path } : {}) },
      ...(client ? { client: { ...client, ...(between ? { between } : {}) } } : {}),
    }
    try {
      seq = enter(work, { ...body, ...(i === 0 ? said : { silent: true }) }, from).seq
      also.push(entryFor(practice, { ...body, kind: 'session' }))
      if (path) noteBooked(work, path, body.id)
    } catch (error) {
      if (!(error instanceof Refused) || error.problem.code !== 'not-open') throw error
      taken.push(body.start)
    }
  })
  if (taken.length > 0) throw tookAway(practice, taken, 'series-taken')
  return { seq }
}

/** Bookings as they were seen, with whether they still are so. @throws Refused where one is not known */
function foundAll(
  { house }: Work,
  bookings: readonly { booking: string; seen: string }[],
): { booking: Booking; current: boolean }[] {
  return bookings.map(({ booking: id, seen }) => {
    const booking = house.booking(id)
    if (!booking) throw new Refused(404, 'unknown-booking')
    return { booking, current: seen === printOfBooking(booking) }
  })
}

/** How each of several is told: the first of all of them, and no other of which nothing was ever sent. */
const toldOf = (
  { house }: Work,
  { id }: Booking,
  i: number,
  { said, silent = false }: { said: string; silent?: boolean | undefined },
): { text: string; silent?: true } =>
  silent || (i > 0 && house.lines('mail', bookingSubject(id)) === 0)
    ? { text: '', silent: true }
    : { text: i === 0 ? said : '' }

/**
 * Cancels several sessions of somebody, whole or not at all. The first message tells of all of them; of those about which
 * nothing was ever sent, no other goes.
 * @throws Refused as cancelling one is
 */
export function endSeries(work: Work, { bookings, text, silent }: EndSeriesBody): { seq: number } {
  const found = foundAll(work, bookings)
  const [{ booking: first }] = found as [(typeof found)[number]]
  const starts = found.map(({ booking }) => booking.start)
  const { place, asked } = first
  const said = withDates(work, { place, person: asked.person }, text, 'series.ended', starts)
  let seq = 0
  found.forEach(({ booking, current }, i) => {
    const told = toldOf(work, booking, i, { said, silent })
    seq = carryOut(work, booking, { do: 'cancel', by: 'practitioner', ...told }, { current }).seq
  })
  return { seq }
}

/**
 * Moves several sessions of somebody, whole or not at all, each to its own start; none of them is in another's way where
 * it was before, and where one goes there, nothing of it can be taken back by itself. They are told of as those that are cancelled.
 * @throws Refused as moving one is; naming the starts that are taken
 */
export function moveSeries(work: Work, { bookings, text, silent }: MoveSeriesBody): { seq: number } {
  const { house, now } = work
  const { practice } = published(house)
  const found = foundAll(work, bookings)
  const [{ booking: first }] = found as [(typeof found)[number]]
  const starts = bookings.map(({ start }) => start)
  const { place, asked } = first
  const said = withDates(work, { place, person: asked.person }, text, 'series.moved', starts)
  const owners = found.map(({ booking }) => nameOf(bookingSubject(booking.id)))
  // Where one goes to where another was, none is taken back by itself: it would lie in that other.
  const final = found.some(({ booking: one }, i) =>
    found.some(({ booking: other }, j) => {
      const from = starts[i]!
      return (
        i !== j && from < other.start + other.minutes * MINUTE && other.start < from + one.minutes * MINUTE
      )
    }),
  )
  const also: Entry[] = []
  const taken: Instant[] = []
  let seq = 0
  found.forEach(({ booking, current }, i) => {
    const start = starts[i]!
    const { minutes, service } = booking
    const to = { start, place: booking.place, minutes, clash: false }
    const about = {
      ...circumstances(house, booking, now),
      closuresOf: () =>
        why(
          practice,
          house.diary(start, start, { owners }, also),
          askByHand(practice, booking, to, now),
          start,
        ),
    }
    const told = toldOf(work, booking, i, { said, silent })
    try {
      seq = carryOut(work, booking, { do: 'move', ...to, ...told }, { current, about, final }).seq
      also.push(entryFor(practice, { ...to, id: booking.id, service, kind: 'session' }))
    } catch (error) {
      if (!(error instanceof Refused) || error.problem.code !== 'not-open') throw error
      taken.push(start)
    }
  })
  if (taken.length > 0) throw tookAway(practice, taken, 'series-taken.moved')
  return { seq }
}

/** Some of the starts wished for are not free. */
function tookAway(
  practice: Practice,
  taken: readonly Instant[],
  word: 'series-taken' | 'series-taken.moved',
): Refused {
  const home = zone(practice.profile.zone)
  const times = taken.map((start) => moment(start, home)).join('; ')
  return new Refused(409, word, { where: 'sessions', data: { times, many: taken.length } })
}

/** A word with the moments of all of them, as whoever comes reads them. */
export function withDates(
  { house }: Work,
  { person, place }: Pick<SeriesBody, 'person' | 'place'>,
  text: string | undefined,
  what: 'series.dates' | 'series.ended' | 'series.moved',
  starts: readonly Instant[],
): string {
  const { practice } = published(house)
  const { first } = clientClocks(practice, place, person.zone)
  const dates = lookIn(house, languageFor(practice, person), () =>
    refusalWords(what, {
      place: zonePlace(first.name),
      times: starts.map((start) => `– ${moment(start, first)}`).join('\n'),
    }),
  )
  return [text?.trim(), dates].filter(Boolean).join('\n\n')
}
