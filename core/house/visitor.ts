import { type Booking, isPlaced, stateAt } from '../booking/index.ts'
import { type Asker, newClient } from '../openings/index.ts'
import { type KnownPerson, normalMail } from '../people/index.ts'
import { offeredOn, type Service } from '../practice/index.ts'
import type { Course } from '../preparing/index.ts'
import { askerFor, personBehind } from '../request/index.ts'
import { sha256Hex } from '../terms/index.ts'
import { dateAt, type Instant, zone } from '../time/index.ts'
import type { KeptQuote, Link } from './changes.ts'
import { type House, published } from './house.ts'

/** What a key from an address opens: the private link of a booking, a quote, what was given, or nothing. */
export interface Opened {
  link: Link
  booking?: Booking
  quote?: KeptQuote
  course?: Course
}

/**
 * Whether whoever holds a private link of a booking is the one whose address it is: it came there by mail, or the
 * address was proved before they asked. The link a page gets at sending shows nothing of the kind, whatever becomes of
 * the mail: anybody can type an address, and wait until its owner opens what was sent there.
 */
export const isTheirs = ({ proves, as }: Pick<Link, 'proves' | 'as'>, { asked }: Booking): boolean =>
  as === undefined && (proves || asked.proof === 'link' || asked.proof === 'quote')

/** What a private link leads to. */
export function opened(house: House, key: string | undefined): Opened | undefined {
  const link = key === undefined ? undefined : house.link(sha256Hex(key))
  if (!link || link.word) return undefined
  const { kind, id } = link.subject
  const booking = kind === 'booking' ? house.booking(id) : undefined
  const quote = kind === 'quote' ? house.quote(id) : undefined
  const course = kind === 'course' ? house.course(id) : undefined
  return {
    link,
    ...(booking ? { booking } : {}),
    ...(quote ? { quote } : {}),
    ...(course ? { course } : {}),
  }
}

/** The booking of whoever comes by a private link that shows who they are. */
function ownBooking(house: House, key: string | undefined): Booking | undefined {
  const found = opened(house, key)
  return found?.booking && isTheirs(found.link, found.booking) ? found.booking : undefined
}

/**
 * The address of whoever comes by a private link that shows that it is theirs: of a booking of theirs, or of what they
 * were given.
 */
function ownMail(house: House, key: string | undefined): string | undefined {
  const found = opened(house, key)
  if (found?.course && found.link.proves) return found.course.given.person.email
  return ownBooking(house, key)?.asked.person.email
}

/** Whether a key is that of a service's own link. */
const hasOwnLink = (service: Service, key: string | undefined): boolean =>
  key !== undefined && service.linkKey !== undefined && sha256Hex(service.linkKey) === sha256Hex(key)

/** Whether a key is the private link of somebody who has this service booked, or had it: they may book it again. */
function hasBooked(house: House, service: Service, key: string | undefined, now: Instant): boolean {
  const { booking, course, link } = opened(house, key) ?? {}
  const had = (one: Booking): boolean => one.service === service.id && isPlaced(stateAt(one, now))
  if (course && link?.proves) return house.bookingsOf(course.given.person.email).some(had)
  return booking !== undefined && had(booking)
}

/** Whether a key is that of a quote for this service: whoever was sent one may see and book it. */
const hasQuote = (house: House, service: Service, key: string | undefined): boolean =>
  opened(house, key)?.quote?.service === service.id

/** Whether a key is the right to a service, whether or not it is at the door. */
const hasRight = (house: House, service: Service, key: string | undefined, now: Instant): boolean =>
  hasBooked(house, service, key, now) || hasQuote(house, service, key)

/**
 * Who comes, as far as that is proved: in a trial it is settled, and the private link of a booking tells whose it is.
 * Without either, one is read as a newcomer, whatever address is typed.
 */
export function visitorOf(house: House, key: string | undefined): KnownPerson | undefined {
  if (house.trial) return house.trial.visitor
  const mail = ownMail(house, key)
  return mail === undefined ? undefined : personBehind(published(house), mail)
}

/** The address of whoever comes by a private link that shows that it is theirs. */
export const visitorMail = (house: House, key: string | undefined): string | undefined =>
  house.trial ? undefined : ownMail(house, key)

/** Whether the address that is typed is proved by the link one has come by. */
export function provesAddress(house: House, key: string | undefined, email: string): boolean {
  if (house.trial) return true
  const mail = ownMail(house, key)
  if (mail === undefined) return false
  const { people, salt } = published(house)
  const typed = normalMail(email)
  if (normalMail(mail) === typed) return true
  const person = personBehind({ people, salt }, mail)
  return person !== undefined && personBehind({ people, salt }, email)?.id === person.id
}

/**
 * How the openings of a service look to whoever comes. Whom the practitioner has blocked sees what anybody does; where
 * only invited people may book, the service's own link shows them all the same.
 */
export function askerOf(house: House, service: Service, key: string | undefined, now: Instant): Asker {
  const visitor = visitorOf(house, key)
  const asker = visitor ? { ...askerFor(visitor), blocked: false } : newClient
  const linked = hasOwnLink(service, key) || hasRight(house, service, key, now)
  return linked ? { ...asker, invited: [...asker.invited, service.id] } : asker
}

/** Whether the practitioner has closed the door; a trial shows it open. */
export const isClosed = (house: House): boolean =>
  house.trial === undefined && published(house).practice.door?.open === false

/** Whether a service is at the door; for whoever has had it, it stays so when it has been taken off. */
export function isOffered(house: House, service: Service, now: Instant, key: string | undefined): boolean {
  const { profile } = published(house).practice
  const shown = !isClosed(house) && offeredOn(service, dateAt(zone(profile.zone), now))
  return shown || hasRight(house, service, key, now)
}

/** Whether somebody may see a service at the door: it is for everyone, or they came by its link. */
export const mayBeSeen = (house: House, service: Service, key: string | undefined, now: Instant): boolean =>
  service.bookableBy === 'everyone' ||
  hasOwnLink(service, key) ||
  hasRight(house, service, key, now) ||
  (visitorOf(house, key)?.invited.includes(service.id) ?? false)
