import { bookingSubject } from '../agenda/index.ts'
import {
  type Asked,
  afterEvents,
  type BookingEvent,
  begin,
  holdUntil,
  isHeld,
  owedFirst,
  proofUntil,
  stateAt,
} from '../booking/index.ts'
import type { SendBody } from '../contract/types.ts'
import { type Practice, placeOf, zoneOf } from '../practice/index.ts'
import { isAttached } from '../questions/index.ts'
import { askedOf, printOfShown, Refused, shownOf } from '../request/index.ts'
import { type Instant, MINUTE } from '../time/index.ts'
import { agreeNow, checkAgreed, termsOf } from './agreeing.ts'
import type { House } from './house.ts'
import { wordFor } from './standing.ts'
import { understandOpen } from './understand.ts'
import { checkMailed, unprovedNow } from './unproved.ts'
import { checkOpen, type Unheld } from './visit.ts'
import { provesAddress, visitorMail, visitorOf } from './visitor.ts'
import { happen, type Work } from './work.ts'

/** How far a page's idea of the time may be from the relay's, in ms. */
const CLOCK_TOLERANCE = MINUTE

/** How many requests may wait for their mailed link at once, for each that one person may have open. */
export const UNPROVED_FOR_EACH = 1_000

/** What a client can mend and send again: until then their start stays kept. */
const MENDABLE = new Set([
  ...[
    'clock-differs',
    'no-address',
    'no-phone',
    'not-agreed',
    'terms-changed',
    'answers',
    'changed',
    'code',
    'travel',
  ],
])

/**
 * Takes a request: reckons it anew, checks that the start is still open and that nothing has changed since it was shown,
 * and begins its record.
 */
export function send(work: Work, body: SendBody & Unheld): { link: string } {
  try {
    return sent(work, body)
  } catch (error) {
    // A start is kept for a way that goes on, and for no other.
    const over = error instanceof Refused && !MENDABLE.has(error.problem.code)
    if (over && work.house.keep(body.visit)) work.anyhow.push({ type: 'unkeep', visit: body.visit })
    throw error
  }
}

function sent(work: Work, { unheld, ...body }: SendBody & Unheld): { link: string } {
  const { house, now } = work
  checkClock(body.clock, now)
  const understood = understandOpen(house, { ...body, sending: true }, now)
  const { practice, service, answers, quote } = understood
  const { place, start, visit } = body
  checkReach(practice, body)
  const visitor = visitorOf(house, body.with)
  const wanted = termsOf(house, service, visitor)
  checkAgreed(practice, wanted, body.agreed)
  const proof: Asked['proof'] = quote
    ? 'quote'
    : provesAddress(house, body.with, body.person.email)
      ? 'link'
      : 'open'
  checkHowMany(house, practice, body, proof, now)
  const reading = checkOpen(house, understood, body, now)
  checkShown(
    body,
    shownOf(practice, service.id, reading.quote, { start, place, as: understood.asking.standing }),
  )
  const there = zoneOf(practice, placeOf(practice, place))
  const asked = askedOf(understood, {
    at: now,
    place,
    start,
    proof,
    person: body.person,
    address: placeOf(practice, place)?.kind === 'client' ? body.address : undefined,
    reading,
    attempts: understood.earlier,
    agreements: agreeNow(work, service, wanted, body.person.name),
    until:
      proof === 'open'
        ? proofUntil(practice.answering, now, start, there)
        : holdUntil(practice.answering, now, start, there),
    shown: body.shown,
    ...(unheld && proof === 'open' ? { unheld } : {}),
  })
  const id = work.ids()
  work.subject = bookingSubject(id)
  if (house.keep(visit)) work.changes.push({ type: 'unkeep', visit })
  const events: BookingEvent[] = [asked]
  // Whoever accepts a quote has been looked at by whoever sent it.
  const welcome = (): void => {
    const booking = afterEvents(begin(id, asked), events.slice(1))
    events.push({ type: 'welcomed', at: now, by: 'rules', settles: now, ...owedFirst(booking, there, now) })
  }
  if (quote) welcome()
  else if (proof !== 'open') {
    const { word, marks } = wordFor(
      house,
      { service, reading, person: visitor, email: visitorMail(house, body.with) },
      now,
    )
    if (marks.length > 0) events.push({ type: 'proved', at: now, marks })
    if (word === undefined) welcome()
  }
  happen(work, id, events)
  work.changes.push({ type: 'attempts-sent', visit, booking: id })
  for (const answer of Object.values(answers))
    if (isAttached(answer)) work.changes.push({ type: 'claim', file: answer.file, booking: id })
  if (quote) {
    const subject = { kind: 'enquiry' as const, id: quote.enquiry }
    work.changes.push({ type: 'quote-used', id: quote.id, booking: id })
    work.changes.push({
      type: 'enquiry',
      id: quote.enquiry,
      seq: house.lines('enquiry', subject) + 1,
      at: now,
      body: { news: 'booked', at: now, text: '', booking: id },
    })
  }
  const link = work.ids()
  work.changes.push({ type: 'link', link: { id: link, subject: work.subject, proves: false } })
  return { link }
}

export function checkClock(clock: Instant, now: Instant): void {
  if (Math.abs(clock - now) <= CLOCK_TOLERANCE) return
  throw new Refused(409, 'clock-differs', { where: 'clock', now })
}

/** Where to come, and whom to call, must be known. */
export function checkReach(
  practice: Practice,
  { place: id, address, person }: Pick<SendBody, 'place' | 'address' | 'person'>,
): void {
  const place = placeOf(practice, id)
  if (place?.kind === 'client' && !address) throw new Refused(422, 'no-address', { where: 'address' })
  if (place?.kind === 'phone' && place.whoCalls !== 'client' && !person.phone)
    throw new Refused(422, 'no-phone', { where: 'person.phone' })
}

function checkShown(body: SendBody, shown: ReturnType<typeof shownOf>): void {
  if (printOfShown(shown) === body.shown) return
  const { minutes, lines, price, deposit } = shown
  throw new Refused(409, 'changed.shown', {
    where: 'shown',
    quote: { minutes, lines: [...lines], price, deposit },
  })
}

/** How many requests of one address wait at `now`; those who have not shown that it is theirs do not count. */
export function openRequestsOf(house: House, email: string, now: Instant): number {
  return house
    .countedOf(email)
    .filter((one) => one.status === 'requested' && !one.unproved && isHeld(stateAt(one, now))).length
}

export function tooManyOpen(open: number): Refused {
  return new Refused(409, 'too-many-open', { data: { open }, where: 'person.email' })
}

/** Before an address is proved, only how many are unproved counts; afterwards, how many it has open. */
function checkHowMany(
  house: House,
  practice: Practice,
  body: SendBody,
  proof: Asked['proof'],
  now: Instant,
): void {
  const most = practice.limits.openRequests
  if (proof !== 'open') {
    const open = openRequestsOf(house, body.person.email, now)
    if (open >= most) throw tooManyOpen(open)
    return
  }
  checkMailed(house, body.person.email, now)
  if (unprovedNow(house, now).length >= most * UNPROVED_FOR_EACH) throw new Refused(429, 'too-many-unproved')
}
