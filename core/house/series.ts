import { bookingSubject } from '../agenda/index.ts'
import type { Booking } from '../booking/index.ts'
import type { EndSeriesBody, SeriesBody } from '../contract/series-types.ts'
import type { EnterBody } from '../contract/types.ts'
import { languageFor } from '../messages/index.ts'
import { type Asker, type Entry, entryFor } from '../openings/index.ts'
import { clientClocks } from '../practice/index.ts'
import { printOfBooking, Refused } from '../request/index.ts'
import { type Instant, moment, zone, zonePlace } from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
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
  all.forEach(({ body, path }, i) => {
    const from = { also, ...(path ? { path } : {}), ...(client ? { client } : {}) }
    try {
      seq = enter(work, { ...body, ...(i === 0 ? said : { silent: true }) }, from).seq
      also.push(entryFor(practice, { ...body, kind: 'session' }))
      if (path) noteBooked(work, path, body.id)
    } catch (error) {
      if (!(error instanceof Refused) || error.problem.code !== 'not-open') throw error
      taken.push(body.start)
    }
  })
  if (taken.length > 0) {
    const home = zone(practice.profile.zone)
    const times = taken.map((start) => moment(start, home)).join('; ')
    throw new Refused(409, 'series-taken', { where: 'sessions', data: { times, many: taken.length } })
  }
  return { seq }
}

/**
 * Cancels several sessions of somebody, whole or not at all. The first message tells of all of them; of those about which
 * nothing was ever sent, no other goes.
 * @throws Refused as cancelling one is
 */
export function endSeries(work: Work, { bookings, text, silent }: EndSeriesBody): { seq: number } {
  const { house } = work
  const found = bookings.map(({ booking: id, seen }): { booking: Booking; current: boolean } => {
    const booking = house.booking(id)
    if (!booking) throw new Refused(404, 'unknown-booking')
    return { booking, current: seen === printOfBooking(booking) }
  })
  const [{ booking: first }] = found as [(typeof found)[number]]
  const starts = found.map(({ booking }) => booking.start)
  const { place, asked } = first
  const said = withDates(work, { place, person: asked.person }, text, 'series.ended', starts)
  let seq = 0
  found.forEach(({ booking, current }, i) => {
    const quiet = silent || (i > 0 && house.lines('mail', bookingSubject(booking.id)) === 0)
    const goes = quiet ? { text: '', silent: true } : { text: i === 0 ? said : '' }
    seq = carryOut(work, booking, { do: 'cancel', by: 'practitioner', ...goes }, { current }).seq
  })
  return { seq }
}

/** A word with the moments of all of them, as whoever comes reads them. */
export function withDates(
  { house }: Work,
  { person, place }: Pick<SeriesBody, 'person' | 'place'>,
  text: string | undefined,
  what: 'series.dates' | 'series.ended',
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
