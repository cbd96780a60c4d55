import { type Booking, type BookingEvent, freeUntil, isTold, type Start } from '../booking/index.ts'
import { type Practice, placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import {
  dateAt,
  HOUR,
  type Instant,
  instant,
  longDate,
  MINUTE,
  moment,
  shift,
  span,
  type Zone,
  zone,
} from '../time/index.ts'

/** A message about one booking, ready but for its private link. */
export interface Letter {
  /** What it is about; with booking, channel and event it makes the message unique. */
  step:
    | 'asked'
    | 'moved'
    | 'word-due'
    | 'confirmation'
    | 'declined'
    | 'offered'
    | 'lapsed'
    | 'withdrawn'
    | 'cancelled'
    | 'place'
  to: 'client' | 'practitioner'
  due: Instant
  subject: string
  /** Plain text; `{link}` stands for the private link. */
  text: string
  /** The iCalendar method of the invitation that goes with it (RFC 5546). */
  invite?: 'REQUEST' | 'CANCEL'
}

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
  service: serviceOf(practice, booking.asked.service)?.name ?? 'your session',
})

const letter = (w: Words, body: string[]): string =>
  [`Hello ${w.booking.asked.person.name},`, ...body.filter(Boolean), w.practice.profile.name].join('\n\n')

const at = (w: Words, start: Instant): string => timeFor(start, w.booking.asked.minutes, w.there, w.home)

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

/** Tells where a session takes place, when that was left to the last reminder. */
export function placeLetter(practice: Practice, booking: Booking, due: Instant): Letter {
  const w = wordsFor(practice, booking)
  return {
    step: 'place',
    to: 'client',
    due,
    subject: `Where we meet: ${w.service}, ${moment(booking.start, w.there)}`,
    text: letter(w, [
      `${w.service} is ${at(w, booking.start)}.`,
      whereLine(w, true),
      'Everything about it is here:\n{link}',
    ]),
  }
}

/** Whether a place's address may stand in a message that goes at a moment. */
function toldBy(w: Words, due: Instant): boolean {
  const place = placeOf(w.practice, w.booking.place)
  return place !== undefined && isTold(place, { status: 'booked', start: w.booking.start }, due)
}

function freeLine(w: Words): string {
  const place = placeOf(w.practice, w.booking.place)
  const until = freeUntil(w.booking.asked.houseRules, w.booking.start, zoneOf(w.practice, place))
  return until === undefined || until < w.booking.asked.at
    ? ''
    : `You can move or cancel it free of charge until ${moment(until, w.there)}.`
}

function confirmation(w: Words, due: Instant): Letter {
  return {
    step: 'confirmation',
    to: 'client',
    due,
    subject: `Confirmed: ${w.service}, ${moment(w.booking.start, w.there)}`,
    text: letter(w, [
      `Your time is confirmed: ${w.service}, ${at(w, w.booking.start)}.`,
      whereLine(w, toldBy(w, due)),
      freeLine(w),
      'Everything about it, and the way to change it, is here:\n{link}',
      'I look forward to seeing you.',
    ]),
    invite: 'REQUEST',
  }
}

/** How long before a hold runs out the practitioner is reminded: an hour, or half of a shorter hold. */
const remindBefore = (asked: Instant, until: Instant): Instant =>
  instant(Math.max(until - HOUR, asked + (until - asked) / 2))

/**
 * The messages that follow from one more event of a booking.
 * @param booking as it is after the event
 */
export function lettersFor(practice: Practice, booking: Booking, event: BookingEvent): Letter[] {
  const w = wordsFor(practice, booking)
  switch (event.type) {
    case 'asked': {
      return [
        {
          step: 'asked',
          to: 'client',
          due: event.at,
          subject: `Your request: ${w.service}, ${moment(booking.start, w.there)}`,
          text: letter(w, [
            `Thank you. You have asked for ${w.service}, ${at(w, booking.start)}.`,
            `The time is kept for you. I answer by ${moment(booking.until, w.there)}.`,
            'Please open this link once, so that I know this address reaches you. It also shows where things stand:\n{link}',
          ]),
        },
        {
          step: 'word-due',
          to: 'practitioner',
          due: remindBefore(event.at, event.until),
          subject: `A request awaits your word until ${moment(event.until, w.home)}`,
          text: `${w.service}, ${timeFor(booking.start, event.minutes, w.home, w.home)}.\n\nThe time is kept until ${moment(event.until, w.home)}; then it is free again.`,
        },
      ]
    }
    case 'welcomed':
      return [confirmation(w, event.settles)]
    case 'accepted':
      return [confirmation(w, event.at)]
    case 'declined':
      return [
        {
          step: 'declined',
          to: 'client',
          due: event.settles,
          subject: `About your request: ${w.service}`,
          text: letter(w, [
            event.text || 'Thank you for asking. I am sorry that I can not offer you this time.',
            'Where things stand:\n{link}',
          ]),
        },
      ]
    case 'offered':
      return [
        {
          step: 'offered',
          to: 'client',
          due: event.settles,
          subject: `Other times for you: ${w.service}`,
          text: letter(w, [
            event.text,
            `I can offer you ${event.starts.length === 1 ? 'this time' : 'these times'}:`,
            event.starts.map((start: Start) => `  ${at(w, start.start)}`).join('\n'),
            `They are kept for you until ${moment(event.until, w.there)}. Please choose here:\n{link}`,
          ]),
        },
      ]
    case 'lapsed':
      return [
        {
          step: 'lapsed',
          to: 'client',
          due: event.at,
          subject: `Your request has run out: ${w.service}`,
          text: letter(w, [
            booking.asked.until < event.at
              ? 'The times I offered are no longer kept.'
              : 'I am sorry: I could not answer in time, and the time is no longer kept for you.',
            'You are welcome to choose another one. Where things stand:\n{link}',
          ]),
        },
      ]
    case 'withdrawn':
    case 'refused':
      return [
        {
          step: 'withdrawn',
          to: 'client',
          due: event.at,
          subject: `Withdrawn: ${w.service}`,
          text: letter(w, [
            event.type === 'refused'
              ? 'None of the times suited you, so the request is closed.'
              : 'You have withdrawn your request. Nothing is owed.',
            `You are welcome to ask again at any time.`,
          ]),
        },
      ]
    case 'moved':
      return [
        {
          step: 'moved',
          to: 'client',
          due: event.settles,
          subject: `Moved: ${w.service}, now ${moment(booking.start, w.there)}`,
          text: letter(w, [
            `${w.service} has moved. It is now ${at(w, booking.start)}.`,
            whereLine(w, toldBy(w, event.settles)),
            event.text,
            freeLine(w),
            'If that does not suit you, everything about it is here:\n{link}',
          ]),
          invite: 'REQUEST',
        },
      ]
    case 'cancelled':
      return [
        {
          step: 'cancelled',
          to: 'client',
          due: event.at,
          subject: `Cancelled: ${w.service}, ${moment(booking.start, w.there)}`,
          text: letter(w, [
            event.by === 'practitioner'
              ? `I am sorry, I have to cancel ${w.service}, ${at(w, booking.start)}. Nothing is owed.`
              : `You have cancelled ${w.service}, ${at(w, booking.start)}.`,
            event.by === 'client' && event.share > 0
              ? `By the rules you agreed to, ${event.share} % of the price is due.`
              : '',
            event.text,
            'Where things stand:\n{link}',
          ]),
          invite: 'CANCEL',
        },
      ]
    case 'proved':
    case 'overruled':
    case 'taken-back':
      return []
  }
}
