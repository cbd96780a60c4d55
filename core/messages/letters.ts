import { type Booking, freeUntil, isTold, stateAt, type TellingStep, toldFrom } from '../booking/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { type Practice, placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import {
  dateAt,
  HOUR,
  type Instant,
  longDate,
  MINUTE,
  moment,
  shift,
  span,
  type Zone,
  zone,
} from '../time/index.ts'

type BookingStep = TellingStep | 'word-due' | 'place'
/** What a message is about; with subject, channel and anchor it makes the message unique. */
export type Step = BookingStep | 'enquiry-answered' | 'quote'

/** A message, ready but for its private link. */
export interface Letter {
  to: 'client' | 'practitioner'
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

/** What a message about a booking says. */
interface Written {
  subject: string
  /** Paragraphs; empty ones are left out. */
  body: string[]
  invite?: NonNullable<Letter['invite']>
}

/** When a message goes that tells no new state. */
interface Planned {
  /** The event it hangs on, by its place in the record. */
  anchor: number
  at: number
  /** The last moment at which it is of use. */
  useful: Instant
}

/** How long before a hold runs out the practitioner is reminded: an hour, or half of a shorter hold. */
const remindFrom = (asked: Instant, until: Instant): number =>
  Math.max(until - HOUR, asked + Math.floor((until - asked) / 2))

interface LetterKind {
  to: Letter['to']
  write(w: Words, now: Instant): Written
  /** When it goes. One without this tells how things stand, and goes when the record says so. */
  plan?(booking: Booking, practice: Practice | undefined): Planned | undefined
}

const when = ({ booking, there }: Words): string => moment(booking.start, there)
const STANDS = 'Where things stand:\n{link}'

/** Everything about each message: to whom it goes, when, and what it says by how things stand then. */
const LETTERS: { [S in BookingStep]: LetterKind } = {
  asked: {
    to: 'client',
    write: (w) => ({
      subject: `Your request: ${w.service}, ${when(w)}`,
      body: [`Thank you. You have asked for ${w.service}, ${at(w, w.booking.start)}.`, ...askedLines(w)],
    }),
  },
  'word-due': {
    to: 'practitioner',
    write: ({ booking, service, home }) => ({
      subject: `A request awaits your word until ${moment(booking.until, home)}`,
      body: [
        `${service}, ${timeFor(booking.start, booking.minutes, home, home)}.`,
        `The time is kept until ${moment(booking.until, home)}; then it is free again.`,
      ],
    }),
    plan: ({ status, unproved, offers, awaited, until }) =>
      status === 'requested' && !unproved && offers.length === 0
        ? { anchor: awaited.seq, at: remindFrom(awaited.at, until), useful: until }
        : undefined,
  },
  confirmation: {
    to: 'client',
    write: (w, now) => ({
      subject: `Confirmed: ${w.service}, ${when(w)}`,
      body: [
        `Your time is confirmed: ${w.service}, ${at(w, w.booking.start)}.`,
        whereLine(w, tellsPlace(w, now)),
        priceLine(w),
        freeLine(w),
        'Everything about it, and the way to change it, is here:\n{link}',
        'I look forward to seeing you.',
      ],
      invite: 'REQUEST',
    }),
  },
  place: {
    to: 'client',
    write: (w) => ({
      subject: `Where we meet: ${w.service}, ${when(w)}`,
      body: [
        `${w.service} is ${at(w, w.booking.start)}.`,
        whereLine(w, true),
        'Everything about it is here:\n{link}',
      ],
    }),
    plan: ({ status, tells, start, placed, place: id }, practice) => {
      const place = practice && placeOf(practice, id)
      if (status !== 'booked' || place?.told !== 'last-reminder' || !place.address) return undefined
      const from = toldFrom(start)
      // What goes that late anyway tells it.
      return (tells?.due ?? 0) < from ? { anchor: placed, at: from, useful: start } : undefined
    },
  },
  declined: {
    to: 'client',
    write: ({ booking, service }) => ({
      subject: `About your request: ${service}`,
      body: [booking.text || 'Thank you for asking. I am sorry that I can not offer you this time.', STANDS],
    }),
  },
  offered: {
    to: 'client',
    write: (w) => ({
      subject: `Other times for you: ${w.service}`,
      body: [
        w.booking.text,
        `I can offer you ${w.booking.offers.length === 1 ? 'this time' : 'these times'}:`,
        w.booking.offers.map(({ start }) => `  ${at(w, start)}`).join('\n'),
        `They are kept for you until ${moment(w.booking.until, w.there)}. Please choose here:\n{link}`,
      ],
    }),
  },
  lapsed: {
    to: 'client',
    write: ({ booking, service }) => ({
      subject: `Your request has run out: ${service}`,
      body: [
        booking.tells?.offered
          ? 'The times I offered are no longer kept.'
          : 'I am sorry: I could not answer in time, and the time is no longer kept for you.',
        `You are welcome to choose another one. ${STANDS}`,
      ],
    }),
  },
  withdrawn: {
    to: 'client',
    write: ({ service }) => ({
      subject: `Withdrawn: ${service}`,
      body: ['The request is closed. Nothing is owed.', 'You are welcome to ask again at any time.'],
    }),
  },
  moved: {
    to: 'client',
    write: (w, now) => ({
      subject: `Moved: ${w.service}, now ${when(w)}`,
      body: [
        `${w.service} has moved. It is now ${at(w, w.booking.start)}.`,
        whereLine(w, tellsPlace(w, now)),
        w.booking.text,
        freeLine(w),
        'If that does not suit you, everything about it is here:\n{link}',
      ],
      invite: 'REQUEST',
    }),
  },
  cancelled: {
    to: 'client',
    write: (w) => ({
      subject: `Cancelled: ${w.service}, ${when(w)}`,
      body: [
        w.booking.cancelledBy === 'practitioner'
          ? `I am sorry, I have to cancel ${w.service}, ${at(w, w.booking.start)}. Nothing is owed.`
          : `You have cancelled ${w.service}, ${at(w, w.booking.start)}.`,
        w.booking.cancelledBy === 'client' && w.booking.share > 0
          ? `By the rules you agreed to, ${w.booking.share} % of the price is due.`
          : '',
        w.booking.text,
        STANDS,
      ],
      invite: 'CANCEL',
    }),
  },
}

const isOfBooking = (step: Step): step is BookingStep => Object.hasOwn(LETTERS, step)

/** To whom a step is written. */
export const receiverOf = (step: Step): Letter['to'] => (isOfBooking(step) ? LETTERS[step].to : 'client')

/** The messages about a booking that go at a moment of their own, in no order. */
export const plannedLetters = (
  booking: Booking,
  practice: Practice | undefined,
): (Planned & { step: BookingStep })[] =>
  (Object.keys(LETTERS) as BookingStep[]).flatMap((step) => {
    const planned = LETTERS[step].plan?.(booking, practice)
    return planned ? [{ step, ...planned }] : []
  })

/**
 * A message about a booking as it stands when it goes: written from its state at that moment, and the practice in
 * force. Nothing where it is of no use any more.
 * @throws Error for a step that is about no booking
 */
export function letterFor(
  practice: Practice,
  booking: Booking,
  step: Step,
  now: Instant,
): Letter | undefined {
  if (!isOfBooking(step)) throw new Error(`${step} is about no booking.`)
  const { to, write, plan } = LETTERS[step]
  const planned = plan?.(booking, practice)
  if (planned && now > planned.useful) return undefined
  const w = wordsFor(practice, booking)
  const { subject, body, invite } = write(w, now)
  const text = to === 'client' ? letter(w, body) : body.join('\n\n')
  return { to, subject, text, ...(invite ? { invite } : {}) }
}
