import { bookingSubject } from '../agenda/index.ts'
import {
  type Booking,
  type BookingEvent,
  type Circumstances,
  type ClientDoes,
  type Command,
  decide,
  seenAt,
  stateAt,
} from '../booking/index.ts'
import { printOfBooking, Refused } from '../request/index.ts'
import type { RefusalWord } from '../words/index.ts'
import type { Link } from './changes.ts'
import { circumstances } from './circumstances.ts'
import { type House, published } from './house.ts'
import { costNow, siblingsOf } from './link-view.ts'
import { openRequestsOf, tooManyOpen } from './send.ts'
import { isTheirs } from './visitor.ts'
import { happen, type Work } from './work.ts'

/** What a private link leads to. */
export interface LedTo {
  booking: Booking
  /** The link came by mail. */
  proves: boolean
  /** Whoever holds it is the one whose address it is; see `isTheirs`. */
  theirs: boolean
  /** It went to whoever comes, or pays, where somebody else has asked. */
  as?: Link['as']
}

/** What whoever comes to a session that somebody else has asked for can do with it themselves. */
const THEIRS: ReadonlySet<ClientDoes['do']> = new Set(['come', 'prepare', 'agree'])

/** Makes sure that something can be done through a link: whoever has asked decides; who pays does nothing but that. @throws Refused */
export function mayDo({ as }: LedTo, what: ClientDoes['do']): void {
  if (as === 'pays' || (as === 'comes' && !THEIRS.has(what))) throw new Refused(409, 'asks-decides')
}

/**
 * The booking that a private link leads to, or another of the same address; that of what was given leads only to such. @throws Refused when it leads nowhere
 * @param other by its id; only for whoever it is shown of that the address is theirs
 */
export function bookingBehind(house: House, hash: string, other?: string): LedTo {
  const link = house.link(hash)
  if (link?.subject.kind === 'course' && link.proves && other !== undefined) {
    const course = house.course(link.subject.id)
    const own = house
      .bookingsOf(course?.given.person.email ?? '')
      .find(({ id, mailProved }) => id === other && mailProved)
    if (own) return { booking: own, proves: false, theirs: true }
  }
  const leads = link?.subject.kind === 'booking' && !link.word
  const booking = leads ? house.booking(link.subject.id) : undefined
  if (!link || !booking) {
    throw new Refused(404, 'unknown-link')
  }
  const theirs = isTheirs(link, booking)
  if (other === undefined || other === booking.id)
    return { booking, proves: link.proves, theirs, ...(link.as ? { as: link.as } : {}) }
  const found = theirs ? siblingsOf(house, booking).find(({ id }) => id === other) : undefined
  if (!found) throw new Refused(404, 'unknown-link')
  return { booking: found, proves: false, theirs }
}

/**
 * Lets a command happen to a booking.
 * @param current says whether it was decided on what is in force; asked last, as the core's own reason tells more
 * @param theirs whether its client reads what stands in the way
 * @param about what is looked at besides the booking; as the house is, unless it is said
 * @param final whether it stands at once, and can't be taken back
 * @throws Refused with the core's reason
 */
export function carryOut(
  work: Work,
  booking: Booking,
  command: Command,
  {
    current = true,
    theirs = false,
    about,
    final = false,
  }: { current?: boolean; theirs?: boolean; about?: Circumstances; final?: boolean } = {},
): Booking {
  work.subject = bookingSubject(booking.id)
  const events = decidedOn(work, booking, command, { current, theirs, about })
  const stand = final
    ? events.map((event) => ('settles' in event ? { ...event, settles: work.now } : event))
    : events
  return events.length === 0 ? booking : happen(work, booking.id, stand)
}

/** Reasons whose sentences speak to the practitioner, as a client reads them. */
const TO_CLIENTS: Partial<Record<RefusalWord, RefusalWord>> = {
  'not-waiting': 'not-waiting.theirs',
  'not-booked': 'not-booked.theirs',
}

/** What a command makes of a booking; see `carryOut`. @throws Refused with the core's reason */
export function decidedOn(
  work: Work,
  booking: Booking,
  command: Command,
  {
    current,
    theirs = false,
    about,
  }: { current: boolean; theirs?: boolean; about?: Circumstances | undefined },
): BookingEvent[] {
  const decision = decide(booking, command, about ?? circumstances(work.house, booking, work.now))
  if ('refused' in decision) {
    const { word, data } = decision.refused
    throw new Refused(409, (theirs && TO_CLIENTS[word]) || word, data ? { data } : {})
  }
  if (!current) {
    throw new Refused(409, 'changed.decided')
  }
  return decision.events
}

/** What is done through a private link: by the SHA-256 of its secret, and the fingerprint of what was shown. */
export interface ThroughLink {
  hash: string
  /** Another booking of the same address. */
  other?: string
  command: ClientDoes
  shown?: string
}

/** Does one thing through a private link. */
export function throughLink(work: Work, { hash, other, command, shown }: ThroughLink): Record<string, never> {
  const { house, now } = work
  const led = bookingBehind(house, hash, other)
  const { booking, proves } = led
  if (command.do === 'prove') {
    // Only the link in the mail shows that the mail arrived; the one the page got at sending does not.
    if (!proves) return {}
    const { limits } = published(house).practice
    const open = openRequestsOf(house, booking.asked.person.email, now)
    if (stateAt(booking, now).is === 'unproved' && open >= limits.openRequests) throw tooManyOpen(open)
  }
  mayDo(led, command.do)
  // What costs something, or binds, is done on what was seen.
  const binds = command.do === 'accept' || command.do === 'cancel' || command.do === 'move-own'
  if (binds && shown !== printOfBooking(seenAt(booking, now), costNow(house, booking, now))) {
    throw new Refused(409, 'changed.opened')
  }
  carryOut(work, booking, command, { theirs: true })
  return {}
}
