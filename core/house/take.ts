import { bookingSubject, waitingSubject } from '../agenda/index.ts'
import { type Asked, type BookingEvent, begin, holdUntil, owedFirst } from '../booking/index.ts'
import type { TakeBody } from '../contract/line-types.ts'
import { newClient, why } from '../openings/index.ts'
import { placeOf, type Service, serviceOf, travelled, travelZoneOf, zoneOf } from '../practice/index.ts'
import {
  askedOf,
  askerFor,
  askFor,
  askingOf,
  personBehind,
  printOfBooking,
  printOfShown,
  type Reckoned,
  Refused,
  reckon,
  refusalOf,
  shownOf,
} from '../request/index.ts'
import { duration, type Instant } from '../time/index.ts'
import { lineAt, type PlaceInLine } from '../waiting/index.ts'
import { agreeNow, checkAgreed, termsOf } from './agreeing.ts'
import { happenInLine, linesNow } from './filling.ts'
import { diaryAfter } from './freed-spans.ts'
import { type House, published } from './house.ts'
import { lineBehind } from './line.ts'
import { askToMove } from './moving.ts'
import { openRequestsOf, tooManyOpen } from './send.ts'
import { marksAgainst, wordFor } from './standing.ts'
import { happen, type Work } from './work.ts'

/** What somebody in line wants comes to now: as whoever is known behind their address, which is proved. */
export function reckonLine({ house, now }: Pick<Work, 'house' | 'now'>, { joined }: PlaceInLine): Reckoned {
  const { practice, people, salt } = published(house)
  const { service, place, answers, extras, travel, code, person, byHand, attempts } = joined
  const known = personBehind({ people, salt }, person.email)
  const unasked = byHand === true && Object.keys(answers).length === 0
  return reckon(
    practice,
    { service, place, answers: unasked ? undefined : answers, extras, travel, code },
    {
      by: unasked ? 'practitioner' : 'client',
      asking: askingOf(known, service, attempts.length),
      person: known?.id,
    },
    { now, used: (id) => house.used(id) },
  )
}

/** What of the terms in force has not been agreed to on getting in line. */
export function lackingInLine({ house }: Pick<Work, 'house'>, line: PlaceInLine, service: Service) {
  const { people, salt } = published(house)
  const known = personBehind({ people, salt }, line.joined.person.email)
  return termsOf(house, service, known).filter(
    ({ id, version }) =>
      !line.joined.agreements.some((one) => one.terms === id && one.version === version.number),
  )
}

/** Why a freed time that is held out can't be taken as things stand; nothing where it can. */
export function whyNotTake(
  work: Pick<Work, 'house' | 'now'>,
  line: PlaceInLine,
  reckoned: Reckoned,
): Refused | undefined {
  const { house, now } = work
  const { offer, joined } = line
  if (!offer) return new Refused(409, 'freed-gone')
  const { practice, service, reading } = reckoned
  const refused = refusalOf(reckoned)
  // What the practitioner has said on the phone needs no answers.
  if (refused && !joined.byHand) return refused
  if (!serviceOf(practice, joined.service)?.on)
    return new Refused(409, 'service-off', { data: { service: service.name } })
  if (marksAgainst(house, joined.person.email, now).includes('not-online'))
    return new Refused(409, 'not-online')
  const { people, salt } = published(house)
  const person = personBehind({ people, salt }, joined.person.email)
  const asker = person ? { ...askerFor(person), blocked: false } : undefined
  const ask = askFor(
    { service: { ...service, notice: duration('PT0S'), bookableBy: 'everyone' }, reading },
    joined.place,
    { who: 'client', standing: 'new', invited: [service.id], blocked: false, ...asker },
    now,
  )
  const { start, freed } = offer
  return why(practice, house.diary(start, start, { freed }), ask, start).length > 0
    ? new Refused(409, 'freed-taken')
    : undefined
}

/** Why nothing is held out to somebody any more. */
function goneFor(line: PlaceInLine, freed: string): Refused {
  const last = line.had.includes(freed) ? line.last : undefined
  return new Refused(
    409,
    last?.how === 'taken' ? 'freed-taken' : last?.how === 'let-go' ? 'freed-over' : 'freed-gone',
  )
}

/**
 * Takes the freed time that is held out: exactly what was shown, at the rules of today. Of several who take it the first
 * has it; the others are told so, and stay in line.
 */
export function takeFreed(work: Work, { hash, ...body }: TakeBody & { hash: string }): { link: string } {
  const { house, now } = work
  const { line } = lineBehind(house, hash)
  work.subject = waitingSubject(line.id)
  const state = lineAt(line, now)
  if (state.is === 'taken' || state.is === 'ended' || state.is === 'unproved')
    throw new Refused(409, 'line-over')
  const { offer } = line
  if (!offer || offer.freed !== body.freed) throw goneFor(line, body.freed)
  if (now > offer.until) throw new Refused(409, 'freed-over')
  const booking =
    line.joined.instead === undefined
      ? takeNew(work, line, body)
      : takeEarlier(work, line, line.joined.instead, body)
  happenInLine(work, line.id, { type: 'taken', at: now, freed: offer.freed, booking })
  passOthers(work, offer.freed, line.id)
  const link = work.ids()
  work.changes.push({ type: 'link', link: { id: link, subject: bookingSubject(booking), proves: false } })
  return { link }
}

/** A new booking of somebody who has waited: as a request is sent, but for what was answered and agreed to before. */
function takeNew(work: Work, line: PlaceInLine, { shown: print, agreed }: Omit<TakeBody, 'freed'>): string {
  const { house, now } = work
  const { joined, offer } = line
  const reckoned = reckonLine(work, line)
  const refused = whyNotTake(work, line, reckoned)
  if (refused) throw refused
  const { practice, service, reading, asking } = reckoned
  const { place, person } = joined
  const { start } = offer!
  const lacking = lackingInLine(work, line, service)
  checkAgreed(practice, lacking, agreed)
  if (openRequestsOf(house, person.email, now) >= practice.limits.openRequests)
    throw tooManyOpen(practice.limits.openRequests)
  const shown = shownOf(practice, service.id, reading.quote, { start, place, as: asking.standing })
  if (printOfShown(shown) !== print) throw new Refused(409, 'changed.freed', { where: 'shown' })
  const there = zoneOf(practice, placeOf(practice, place))
  const asked: Asked = askedOf(reckoned, {
    at: now,
    place,
    start,
    // Their address was proved by the mailed link of their place in line.
    proof: 'link',
    person,
    address: joined.address,
    reading,
    attempts: joined.attempts,
    agreements: [...joined.agreements, ...agreeNow(work, service, lacking, person.name)],
    until: holdUntil(practice.answering, now, start, there),
    shown: print,
    line: line.id,
  })
  const known = personBehind(published(house), person.email)
  const { word, marks } = wordFor(house, { service, reading, person: known, email: person.email }, now)
  const events: BookingEvent[] = [
    asked,
    ...(marks.length > 0 ? [{ type: 'proved' as const, at: now, marks }] : []),
  ]
  // Whoever was looked at on getting in line needs no second word, unless something has come up since.
  if (word === undefined || (line.looked && marks.length === 0))
    events.push({
      ...{ type: 'welcomed', at: now, by: 'rules', settles: now },
      ...owedFirst(begin('', asked), there, now),
    })
  const id = work.ids()
  happen(work, id, events)
  return id
}

/** The earlier time takes the place of the one they have: a move that costs nothing and is not counted. */
function takeEarlier(
  work: Work,
  line: PlaceInLine,
  booking: string,
  { shown }: Omit<TakeBody, 'freed'>,
): string {
  const { house, now } = work
  const { start, freed, minutes } = line.offer!
  const own = house.booking(booking)
  const there = earlierShown(house, line, now)
  if (!own || !there) throw new Refused(409, 'line-over')
  if (there.cannot) throw there.cannot
  if (there.print !== shown) throw new Refused(409, 'changed.freed', { where: 'shown' })
  happen(work, booking, [
    ...[{ type: 'moved' as const, at: now, settles: now, start, place: own.place, minutes, text: '', freed }],
  ])
  return booking
}

/** What whoever has a time already is shown of an earlier one: it, at the price they have. */
export function earlierShown(house: House, { joined, offer }: PlaceInLine, now: Instant) {
  const own = joined.instead === undefined ? undefined : house.booking(joined.instead)
  if (!own || !offer || own.status !== 'booked' || own.start <= offer.start) return undefined
  const ask = askToMove(house, own, own.place, now)
  const diary = house.diary(offer.start, offer.start, { booking: own.id, freed: offer.freed })
  const closures = why(
    published(house).practice,
    diary,
    { ...ask, service: { ...ask.service, notice: duration('PT0S') } },
    offer.start,
  )
  const moved = { ...own, start: offer.start }
  return {
    booking: moved,
    print: printOfBooking(moved),
    ...(closures.length > 0 ? { cannot: new Refused(409, 'freed-taken') } : {}),
  }
}

/** Whoever was asked for a time that is no longer open is told so. */
export function passOthers(work: Work, freed: string, but: string): void {
  const { house, now } = work
  const { practice } = published(house)
  const known = new Map<string, boolean>()
  for (const other of linesNow(work)) {
    const { offer, joined } = other
    const service = serviceOf(practice, joined.service)
    if (other.id === but || offer?.freed !== freed || !service) continue
    const { start, minutes } = offer
    const key = `${service.id} ${joined.place} ${joined.travel} ${start} ${minutes}`
    const gone = known.get(key) ?? isTaken(work, other)
    known.set(key, gone)
    if (gone) happenInLine(work, other.id, { type: 'passed', at: now, freed, why: 'taken' })
  }
}

/** Whether what is held out to somebody meets what is taken after this act. */
function isTaken(work: Work, { joined, offer }: PlaceInLine): boolean {
  const { practice } = published(work.house)
  const own = serviceOf(practice, joined.service)
  if (!own || !offer) return true
  const { start, freed, minutes } = offer
  const service = {
    ...travelled(own, travelZoneOf(placeOf(practice, joined.place), joined.travel)),
    notice: duration('PT0S'),
  }
  const ask = {
    service,
    place: joined.place,
    minutes,
    asker: { ...newClient, invited: [own.id] },
    now: work.now,
  }
  return why(practice, diaryAfter(work, start, start, freed), ask, start).length > 0
}
