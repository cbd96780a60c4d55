import {
  type Booking,
  deadlinesIn,
  isTold,
  movable,
  stateAt,
  type Telling,
  type TellingStep,
  toldFrom,
} from '../booking/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { clientClocks, isInPerson, type Practice, placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import { chainHead } from '../terms/index.ts'
import {
  type Clocks,
  clocksOf,
  DAY,
  dateAt,
  HOUR,
  type Instant,
  longDate,
  MINUTE,
  moment as momentWords,
  sameClock,
  shift,
  span,
  type Zone,
  zone,
  zonePlace,
} from '../time/index.ts'
import letters from '../words/en/letters.json' with { type: 'json' }
import { sayFrom } from '../words/say.ts'

type BookingStep =
  | TellingStep
  | 'word-due'
  | 'place'
  | 'new-request'
  | 'client-cancelled'
  | 'client-moved'
  | 'has-lapsed'
/** What a message is about; with subject, channel and anchor it makes the message unique. */
export type Step = BookingStep | 'enquiry-answered' | 'quote'

/** A message, ready but for its private link. */
export interface Letter {
  to: 'client' | 'practitioner'
  subject: string
  /** Plain text; `{link}` stands for the private link, `{door}` for the practitioner's public page. */
  text: string
  /** The iCalendar method of the invitation that goes with it (RFC 5546). */
  invite?: 'REQUEST' | 'CANCEL'
}

/** "Thursday 3 December, 15:00 – 16:15 (Lisbon time; 16:15 – 17:30 in Berlin)": the zone is always named. */
export function timeFor(start: Instant, minutes: number, { first, also }: Clocks): string {
  const end = shift(start, minutes * MINUTE)
  const beside =
    also && !sameClock(first, also, start) ? `; ${span(start, end, also)} in ${zonePlace(also.name)}` : ''
  return `${longDate(dateAt(first, start))}, ${span(start, end, first)} (${zonePlace(first.name)} time${beside})`
}

interface Words {
  practice: Practice
  booking: Booking
  /** The practice's zone. */
  home: Zone
  service: string
}

const { text: say } = sayFrom(letters)

const wordsFor = (practice: Practice, booking: Booking): Words => ({
  practice,
  booking,
  home: zone(practice.profile.zone),
  service: serviceOf(practice, booking.service)?.name ?? say('your-session'),
})

/** Paragraphs as a letter: those that say nothing are left out. */
export const letterText = (practice: Practice, name: string, body: readonly string[]): string =>
  [say('hello', { name }), ...body.filter(Boolean), practice.profile.name].join('\n\n')

const clocks = ({ practice, booking }: Words, place = booking.place): Clocks =>
  clientClocks(practice, place, booking.asked.person.zone)

/** A time of this booking's length as the client reads it. */
const at = (w: Words, start = w.booking.start, place = w.booking.place): string =>
  timeFor(start, w.booking.minutes, clocks(w, place))

/** A moment as the client reads it, with its zone. */
const by = (w: Words, moment: Instant): string => {
  const { first } = clocks(w)
  return `${momentWords(moment, first)} (${zonePlace(first.name)} time)`
}

/** The start in short, for subjects. */
const when = (w: Words): string => by(w, w.booking.start)

function whereLine(w: Words, told: boolean): string {
  const { practice, booking } = w
  const place = placeOf(practice, booking.place)
  if (!place) return ''
  if (place.kind === 'phone') {
    const { phone } = booking.asked.person
    if (place.whoCalls === 'client')
      return say('you-call', { number: place.address || practice.profile.phone || practice.profile.name })
    return phone ? say('i-call-number', { phone }) : say('i-call')
  }
  // At the client's, it is their own address that they read once more.
  const address = place.kind === 'client' ? booking.asked.address : told ? place.address : undefined
  if (address) return say('where-address', { place: place.name, address })
  const later = place.address && place.told !== 'door' ? say('where-later', { when: place.told }) : ''
  return [say('where', { place: place.name }), later].filter(Boolean).join('\n')
}

/** Whether the place's address may stand in a message that goes now. */
function tellsPlace(w: Words, now: Instant): boolean {
  const place = placeOf(w.practice, w.booking.place)
  return place !== undefined && isTold(place, stateAt(w.booking, now), w.booking.start, now)
}

/** What cancelling costs when, by the rules of the day one asked. */
function costLines(w: Words, now: Instant): string {
  const { practice, booking } = w
  if (booking.price === 0) return ''
  const place = zoneOf(practice, placeOf(practice, booking.place))
  const { deadlines, shareAfter } = deadlinesIn(booking, place)
  const coming = deadlines.filter(({ kind, until }) => kind === 'cancel' && until >= now)
  const lines = coming.map(({ share = 0, until }) =>
    share === 0
      ? say('cancel-free', { until: by(w, until) })
      : say('cancel-share', { until: by(w, until), share }),
  )
  if (shareAfter > 0)
    lines.push(say(coming.length > 0 ? 'cancel-after' : 'cancel-from-now', { share: shareAfter }))
  return lines.join('\n')
}

/** Until when, and how often, the client may move it; nothing where they may not, or no longer. */
function moveUntil({ practice, booking }: Words, now: Instant) {
  const may = movable(booking, zoneOf(practice, placeOf(practice, booking.place)))
  return may && now <= may.until ? may : undefined
}

function moveLine(w: Words, now: Instant): string {
  const may = moveUntil(w, now)
  return may ? say('move-until', { until: by(w, may.until), left: may.left }) : ''
}

const everythingLine = (w: Words, now: Instant): string =>
  say('confirmation.everything', { ...LINKS, how: moveUntil(w, now) ? 'both' : 'cancel' })

/** What a booking costs; what is asked beforehand belongs to it. */
function priceLine({ booking }: Words): string {
  const { price, deposit, asked } = booking
  const currency = { code: asked.currency, decimals: decimals(asked.currency) }
  if (price === 0) return say('free-of-charge')
  const words = { price: money(price, currency), deposit: money(deposit, currency) }
  return deposit > 0 ? say('price-deposit', words) : say('price', words)
}

/** What was agreed to, with the number that proves it and all that was agreed before. */
function agreedLines(w: Words): string {
  return w.booking.asked.agreements
    .map((agreement) => {
      const terms = w.practice.terms.find(({ id }) => id === agreement.terms)
      const title =
        terms?.versions.find(({ number }) => number === agreement.version)?.title ?? agreement.terms
      return say('agreed', {
        title: `“${title}”`,
        version: agreement.version,
        when: by(w, agreement.at),
        print: chainHead(agreement),
      })
    })
    .join('\n')
}

/** What the client is asked to do, and until when the time is theirs. */
function askedLines(w: Words): string[] {
  const { asked, until, unproved } = w.booking
  const kept = say('asked.kept', { until: by(w, until) })
  if (asked.proof === 'link' || asked.proof === 'quote') return [kept, say('stands', LINKS)]
  return unproved
    ? [say('asked.prove', { until: by(w, until), ...LINKS })]
    : [kept, say('asked.open-once', LINKS)]
}

/** Links are filled in when a message goes. */
const LINKS = { link: '{link}', door: '{door}' }

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

/** A moment as the practitioner reads it. */
const atHome = ({ home }: Words, moment: Instant): string => momentWords(moment, home)

/** The time of a booking as the practitioner reads it: the place's clock first, where it has one of its own. */
const ownTime = ({ practice, booking, home }: Words): string => {
  const place = placeOf(practice, booking.place)
  return timeFor(booking.start, booking.minutes, clocksOf(isInPerson(place), zoneOf(practice, place), home))
}

/** How long news of what has happened is of use. */
const NEWS = 5 * DAY

/** At the moment at which the client is told, too. */
const soon = ({ seq, due }: Telling): Planned => ({ anchor: seq, at: due, useful: shift(due, NEWS) })

interface LetterKind {
  to: Letter['to']
  write(w: Words, now: Instant): Written
  /** When it goes. One without this tells how things stand, and goes when the record says so. */
  plan?(booking: Booking, practice: Practice | undefined): Planned | undefined
}

/** Everything about each message: to whom it goes, when, and what it says by how things stand then. */
const LETTERS: { [S in BookingStep]: LetterKind } = {
  asked: {
    to: 'client',
    write: (w) => ({
      subject: say('asked.subject', { service: w.service, when: when(w) }),
      body: [say('asked', { service: w.service, when: at(w) }), ...askedLines(w)],
    }),
  },
  'word-due': {
    to: 'practitioner',
    write: (w) => ({
      subject: say('word-due.subject', { until: atHome(w, w.booking.until) }),
      body: [
        say('word-due', { service: w.service, when: ownTime(w) }),
        say('word-due.until', { until: atHome(w, w.booking.until) }),
      ],
    }),
    plan: ({ status, unproved, offers, awaited, until }) =>
      status === 'requested' && !unproved && offers.length === 0
        ? { anchor: awaited.seq, at: remindFrom(awaited.at, until), useful: until }
        : undefined,
  },
  'new-request': {
    to: 'practitioner',
    write: (w) => ({
      subject: say('new-request.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [
        say('new-request', { service: w.service, when: ownTime(w) }),
        say('new-request.until', { until: atHome(w, w.booking.until) }),
      ],
    }),
    plan: ({ status, unproved, offers, awaited, asked, until }) =>
      status === 'requested' && !unproved && offers.length === 0 && asked.proof !== 'hand'
        ? { anchor: awaited.seq, at: awaited.at, useful: until }
        : undefined,
  },
  'client-cancelled': {
    to: 'practitioner',
    write: (w) => ({
      subject: say('client-cancelled.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [
        say('client-cancelled', { service: w.service, when: ownTime(w) }),
        w.booking.share > 0 && w.booking.price > 0
          ? say('client-cancelled.share', { share: w.booking.share })
          : say('client-cancelled.free'),
      ],
    }),
    plan: ({ status, cancelledBy, tells }) =>
      status === 'cancelled' && cancelledBy === 'client' && tells ? soon(tells) : undefined,
  },
  'client-moved': {
    to: 'practitioner',
    write: (w) => ({
      subject: say('client-moved.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('client-moved', { service: w.service, when: ownTime(w) })],
    }),
    plan: ({ status, movedBy, tells }) =>
      status === 'booked' && movedBy === 'client' && tells?.step === 'moved' ? soon(tells) : undefined,
  },
  'has-lapsed': {
    to: 'practitioner',
    write: (w) => ({
      subject: say('has-lapsed.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('has-lapsed', { service: w.service, when: ownTime(w) }), say('has-lapsed.still')],
    }),
    plan: ({ status, mailProved, tells }) =>
      status === 'lapsed' && mailProved && tells && !tells.offered ? soon(tells) : undefined,
  },
  confirmation: {
    to: 'client',
    write: (w, now) => ({
      subject: say('confirmation.subject', { service: w.service, when: when(w) }),
      body: [
        say('confirmation', { service: w.service, when: at(w) }),
        w.booking.text,
        whereLine(w, tellsPlace(w, now)),
        priceLine(w),
        costLines(w, now),
        moveLine(w, now),
        everythingLine(w, now),
        say('confirmation.looking-forward'),
        agreedLines(w),
      ],
      invite: 'REQUEST',
    }),
  },
  place: {
    to: 'client',
    write: (w) => ({
      subject: say('place.subject', { service: w.service, when: when(w) }),
      body: [say('place', { service: w.service, when: at(w) }), whereLine(w, true), say('everything', LINKS)],
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
    write: (w) => ({
      subject: say('declined.subject', { service: w.service, when: when(w) }),
      body: [
        ...(w.booking.text
          ? [w.booking.text, say('declined.which', { service: w.service, when: at(w) })]
          : [say('declined', { service: w.service, when: at(w) })]),
        say('stands', LINKS),
        say('again', LINKS),
      ],
    }),
  },
  offered: {
    to: 'client',
    write: (w) => ({
      subject: say('offered.subject', { service: w.service }),
      body: [
        w.booking.text,
        say('offered', { count: w.booking.offers.length }),
        w.booking.offers.map(({ start, place }) => `  ${at(w, start, place)}`).join('\n'),
        say('offered.until', { until: by(w, w.booking.until), ...LINKS }),
      ],
    }),
  },
  lapsed: {
    to: 'client',
    write: (w) => ({
      subject: say('lapsed.subject', { service: w.service, when: when(w) }),
      body: [
        say(
          w.booking.tells?.offered
            ? 'lapsed.offered'
            : w.booking.mailProved
              ? 'lapsed.asked'
              : 'lapsed.unproved',
          { service: w.service, when: at(w) },
        ),
        say('stands', LINKS),
        say('again', LINKS),
      ],
    }),
  },
  withdrawn: {
    to: 'client',
    write: (w) => ({
      subject: say('withdrawn.subject', { service: w.service, when: when(w) }),
      body: [say('withdrawn', { service: w.service, when: at(w) }), say('again', LINKS)],
    }),
  },
  moved: {
    to: 'client',
    write: (w, now) => ({
      subject: say('moved.subject', { service: w.service, when: when(w) }),
      body: [
        say(w.booking.movedBy ? 'moved.by-you' : 'moved', { service: w.service, when: at(w) }),
        whereLine(w, tellsPlace(w, now)),
        w.booking.text,
        priceLine(w),
        costLines(w, now),
        ...(w.booking.movedBy ? [moveLine(w, now), everythingLine(w, now)] : [say('moved.link', LINKS)]),
      ],
      invite: 'REQUEST',
    }),
  },
  cancelled: {
    to: 'client',
    write: (w) => {
      const mine = w.booking.cancelledBy === 'practitioner'
      const about = { service: w.service, when: at(w) }
      const due = w.booking.share > 0 && w.booking.price > 0
      return {
        subject: say('cancelled.subject', { service: w.service, when: when(w) }),
        body: mine
          ? [say('cancelled.by-me', about), w.booking.text, say('stands', LINKS), say('again', LINKS)]
          : [
              say('cancelled.by-you', about),
              due ? say('cancelled.share', { share: w.booking.share }) : say('cancelled.free'),
              say('stands', LINKS),
              say('again', LINKS),
            ],
        invite: 'CANCEL',
      }
    },
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
  const text =
    to === 'client'
      ? letterText(practice, booking.asked.person.name, body)
      : body.filter(Boolean).join('\n\n')
  return { to, subject, text, ...(invite ? { invite } : {}) }
}
