import { type Booking, freeUntil, isTold, stateAt, type TellingStep } from '../booking/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { type Practice, placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import {
  dateAt,
  type Instant,
  longDate,
  MINUTE,
  moment,
  shift,
  span,
  type Zone,
  zone,
} from '../time/index.ts'

/** What a message is about; with subject, channel and anchor it makes the message unique. */
export type Step = TellingStep | 'word-due' | 'place' | 'enquiry-answered' | 'quote'

/** A message, ready but for its private link. */
export interface Letter {
  to: 'client' | 'practitioner'
  subject: string
  /** Plain text; `{link}` stands for the private link. */
  text: string
  /** The iCalendar method of the invitation that goes with it (RFC 5546). */
  invite?: 'REQUEST' | 'CANCEL'
}

/** To whom a step is written. */
export const receiverOf = (step: Step): Letter['to'] => (step === 'word-due' ? 'practitioner' : 'client')

/** How times are written to people in their zone, with the zone's place named when it is not the practice's. */
export function timeFor(start: Instant, minutes: number, where: Zone, home: Zone): string {
  const when = `${longDate(dateAt(where, start))}, ${span(start, shift(start, minutes * MINUTE), where)}`
  return where.name === home.name ? when : `${when} (${placeName(where.name)} time)`
}

/** "São Paulo" would be nicer, but the tz database writes "America/Sao_Paulo": its last part, in words. */
export const placeName = (zoneName: string): string =>
  (zoneName.split('/').at(-1) ?? zoneName).replaceAll('_', ' ')

interface Words {
  practice: Practice
  booking: Booking
  /** The client's zone and the practice's. */
  there: Zone
  home: Zone
  service: string
}

const wordsFor = (practice: Practice, booking: Booking): Words => ({
  practice,
  booking,
  there: zone(booking.asked.person.zone),
  home: zone(practice.profile.zone),
  service: serviceOf(practice, booking.service)?.name ?? 'your session',
})

const letter = (w: Words, body: string[]): string =>
  [`Hello ${w.booking.asked.person.name},`, ...body.filter(Boolean), w.practice.profile.name].join('\n\n')

const at = (w: Words, start: Instant): string => timeFor(start, w.booking.minutes, w.there, w.home)

function whereLine(w: Words, told: boolean): string {
  const place = placeOf(w.practice, w.booking.place)
  if (!place) return ''
  if (place.kind === 'phone') {
    return place.whoCalls === 'client'
      ? `Please call ${place.address || w.practice.profile.phone || 'me'} at that time.`
      : 'I will call you at that time.'
  }
  // At the client's, it is their own address that they read once more.
  const address = place.kind === 'client' ? w.booking.asked.address : told ? place.address : undefined
  return address ? `Where: ${place.name}, ${address}` : `Where: ${place.name}`
}

/** Whether the place's address may stand in a message that goes now. */
function tellsPlace(w: Words, now: Instant): boolean {
  const place = placeOf(w.practice, w.booking.place)
  return place !== undefined && isTold(place, stateAt(w.booking, now), w.booking.start, now)
}

function freeLine(w: Words): string {
  const place = placeOf(w.practice, w.booking.place)
  const until = freeUntil(w.booking.asked.houseRules, w.booking.start, zoneOf(w.practice, place))
  return until === undefined || until < w.booking.asked.at
    ? ''
    : `You can move or cancel it free of charge until ${moment(until, w.there)}.`
}

/** What a booking costs, where it costs something; what is asked beforehand belongs to it. */
function priceLine({ booking }: Words): string {
  const { price, deposit, asked } = booking
  if (price === 0) return ''
  const currency = { code: asked.currency, decimals: decimals(asked.currency) }
  const before = deposit > 0 ? `, of which ${money(deposit, currency)} is asked before the session` : ''
  return `The price is ${money(price, currency)}${before}.`
}

/** What the client is asked to do, and until when the time is theirs. */
function askedLines({ booking, there }: Words): string[] {
  const { asked, until } = booking
  const kept = `The time is kept for you. I answer by ${moment(until, there)}.`
  if (asked.proof === 'link' || asked.proof === 'quote') return [kept, 'Where things stand:\n{link}']
  return booking.unproved
    ? [
        `The time is kept for you until ${moment(until, there)}. Please open this link before then, so that I know this address reaches you; only then your request is with me. The link also shows where things stand:\n{link}`,
      ]
    : [
        kept,
        'Please open this link once, so that I know this address reaches you. It also shows where things stand:\n{link}',
      ]
}

/**
 * A message about a booking as it stands when it goes: written from its state at that moment, and the practice in
 * force.
 */
export function letterFor(practice: Practice, booking: Booking, step: Step, now: Instant): Letter {
  const w = wordsFor(practice, booking)
  const to = receiverOf(step)
  const when = moment(booking.start, w.there)
  switch (step) {
    case 'asked':
      return {
        to,
        subject: `Your request: ${w.service}, ${when}`,
        text: letter(w, [
          `Thank you. You have asked for ${w.service}, ${at(w, booking.start)}.`,
          ...askedLines(w),
        ]),
      }
    case 'word-due':
      return {
        to,
        subject: `A request awaits your word until ${moment(booking.until, w.home)}`,
        text: `${w.service}, ${timeFor(booking.start, booking.minutes, w.home, w.home)}.\n\nThe time is kept until ${moment(booking.until, w.home)}; then it is free again.`,
      }
    case 'confirmation':
      return {
        to,
        subject: `Confirmed: ${w.service}, ${when}`,
        text: letter(w, [
          `Your time is confirmed: ${w.service}, ${at(w, booking.start)}.`,
          whereLine(w, tellsPlace(w, now)),
          priceLine(w),
          freeLine(w),
          'Everything about it, and the way to change it, is here:\n{link}',
          'I look forward to seeing you.',
        ]),
        invite: 'REQUEST',
      }
    case 'place':
      return {
        to,
        subject: `Where we meet: ${w.service}, ${when}`,
        text: letter(w, [
          `${w.service} is ${at(w, booking.start)}.`,
          whereLine(w, true),
          'Everything about it is here:\n{link}',
        ]),
      }
    case 'declined':
      return {
        to,
        subject: `About your request: ${w.service}`,
        text: letter(w, [
          booking.text || 'Thank you for asking. I am sorry that I can not offer you this time.',
          'Where things stand:\n{link}',
        ]),
      }
    case 'offered':
      return {
        to,
        subject: `Other times for you: ${w.service}`,
        text: letter(w, [
          booking.text,
          `I can offer you ${booking.offers.length === 1 ? 'this time' : 'these times'}:`,
          booking.offers.map(({ start }) => `  ${at(w, start)}`).join('\n'),
          `They are kept for you until ${moment(booking.until, w.there)}. Please choose here:\n{link}`,
        ]),
      }
    case 'lapsed':
      return {
        to,
        subject: `Your request has run out: ${w.service}`,
        text: letter(w, [
          booking.tells?.offered
            ? 'The times I offered are no longer kept.'
            : 'I am sorry: I could not answer in time, and the time is no longer kept for you.',
          'You are welcome to choose another one. Where things stand:\n{link}',
        ]),
      }
    case 'withdrawn':
      return {
        to,
        subject: `Withdrawn: ${w.service}`,
        text: letter(w, [
          'The request is closed. Nothing is owed.',
          'You are welcome to ask again at any time.',
        ]),
      }
    case 'moved':
      return {
        to,
        subject: `Moved: ${w.service}, now ${when}`,
        text: letter(w, [
          `${w.service} has moved. It is now ${at(w, booking.start)}.`,
          whereLine(w, tellsPlace(w, now)),
          booking.text,
          freeLine(w),
          'If that does not suit you, everything about it is here:\n{link}',
        ]),
        invite: 'REQUEST',
      }
    case 'cancelled':
      return {
        to,
        subject: `Cancelled: ${w.service}, ${when}`,
        text: letter(w, [
          booking.cancelledBy === 'practitioner'
            ? `I am sorry, I have to cancel ${w.service}, ${at(w, booking.start)}. Nothing is owed.`
            : `You have cancelled ${w.service}, ${at(w, booking.start)}.`,
          booking.cancelledBy === 'client' && booking.share > 0
            ? `By the rules you agreed to, ${booking.share} % of the price is due.`
            : '',
          booking.text,
          'Where things stand:\n{link}',
        ]),
        invite: 'CANCEL',
      }
    case 'enquiry-answered':
    case 'quote':
      throw new Error(`${step} is about no booking.`)
  }
}
