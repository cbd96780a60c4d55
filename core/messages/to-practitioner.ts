import type { Booking } from '../booking/index.ts'
import { type Practice, placeOf, zoneOf } from '../practice/index.ts'
import { before, HOUR, type Instant, shift, zone } from '../time/index.ts'
import { answersTold } from './answers-told.ts'
import { nextPayment, prepareBy } from './hooks.ts'
import { type LetterKind, NEWS, type OwnStep, type Planned, soon, type Written } from './letter.ts'
import { atHome, ownTime, type Words } from './lines.ts'
import { sequenceOf, stepsOf } from './steps.ts'
import { WORD_TOKEN } from './tokens.ts'

/** How long before a hold runs out the practitioner is reminded: an hour, or half of a shorter hold. */
const remindFrom = (asked: Instant, until: Instant): number =>
  Math.max(until - HOUR, asked + Math.floor((until - asked) / 2))

/** Until when it waits, and the link by which it can be answered away from the desk. */
const wordLines = (w: Words): string[] => [
  w.say('word.until', { until: atHome(w, w.booking.until) }),
  w.say('word.link', { word: WORD_TOKEN }),
]

/** Every message to the practitioner about a booking. */
export const OWN_LETTERS: { [S in OwnStep]: LetterKind } = {
  'word-due': {
    write: (w) => ({
      subject: w.say('word-due.subject', { until: atHome(w, w.booking.until) }),
      body: [w.say('word-due', { service: w.service, when: ownTime(w) }), ...wordLines(w)],
    }),
    plan: ({ status, unproved, offers, owes, awaited, until }) =>
      status === 'requested' && !unproved && !owes && offers.length === 0
        ? { anchor: awaited.seq, at: remindFrom(awaited.at, until), useful: until }
        : undefined,
  },
  'new-request': {
    write: (w) => ({
      subject: w.say('new-request.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('new-request', { service: w.service, when: ownTime(w) }), ...wordLines(w)],
    }),
    plan: ({ status, unproved, offers, owes, awaited, asked, until }) =>
      status === 'requested' && !unproved && !owes && offers.length === 0 && asked.proof !== 'hand'
        ? { anchor: awaited.seq, at: awaited.at, useful: until }
        : undefined,
  },
  'client-cancelled': {
    write: (w) => ({
      subject: w.say('client-cancelled.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [
        w.say('client-cancelled', { service: w.service, when: ownTime(w) }),
        w.booking.share > 0 && w.booking.price > 0
          ? w.say('client-cancelled.share', { share: w.booking.share })
          : w.say('client-cancelled.free'),
      ],
    }),
    plan: ({ status, cancelledBy, tells }) =>
      status === 'cancelled' && cancelledBy === 'client' && tells ? soon(tells) : undefined,
  },
  'client-moved': {
    write: (w) => ({
      subject: w.say('client-moved.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('client-moved', { service: w.service, when: ownTime(w) })],
    }),
    plan: ({ status, movedBy, tells }) =>
      status === 'booked' && movedBy === 'client' && tells?.step === 'moved' ? soon(tells) : undefined,
  },
  'has-lapsed': {
    write: (w) => ({
      subject: w.say('has-lapsed.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('has-lapsed', { service: w.service, when: ownTime(w) }), w.say('has-lapsed.still')],
    }),
    plan: ({ status, mailProved, tells }) =>
      status === 'lapsed' && mailProved && tells && !tells.offered ? soon(tells) : undefined,
  },
  'client-replied': {
    write: (w) => ({
      subject: w.say('client-replied.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('client-replied', { service: w.service, when: ownTime(w) }), ...wordLines(w)],
    }),
    plan: ({ status, question, until }) =>
      status === 'requested' && question?.reply
        ? { anchor: question.reply.seq, at: question.reply.at, useful: until }
        : undefined,
  },
  'client-pleads': {
    write: (w) => ({
      subject: w.say('client-pleads.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('client-pleads', { service: w.service, when: ownTime(w) }), w.say('client-pleads.desk')],
    }),
    plan: ({ status, plea, start }) =>
      status === 'booked' && plea && !plea.answer
        ? { anchor: plea.seq, at: plea.at, useful: start }
        : undefined,
  },
  'client-comes': {
    wanted: true,
    write: (w) => ({
      subject: w.say('client-comes.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('client-comes', { service: w.service, when: ownTime(w) })],
    }),
    plan: ({ status, coming, start }) =>
      status === 'booked' && coming !== undefined ? { anchor: coming, at: coming, useful: start } : undefined,
  },
  'not-confirmed': {
    write: (w) => ({
      subject: w.say('not-confirmed.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('not-confirmed', { service: w.service, when: ownTime(w) })],
    }),
    plan: (booking, practice) => {
      const { status, coming, start, placed } = booking
      if (status !== 'booked' || coming !== undefined || !practice) return undefined
      const asking = stepsOf(booking, practice).filter(({ step, skipped }) => step.asks && !skipped)
      const last = Math.max(...asking.map(({ at }) => at))
      const at = Math.min(last + UNANSWERED, start - HOUR)
      return at > last ? { anchor: placed, at, useful: start } : undefined
    },
  },
  'not-prepared': {
    write: (w) => ({
      subject: w.say('not-prepared.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('not-prepared', { service: w.service, when: ownTime(w) })],
    }),
    plan: (booking, practice) => {
      const by = practice && prepareBy(practice, booking)
      return by !== undefined && by < booking.start
        ? { anchor: by, at: by + 1, useful: booking.start }
        : undefined
    },
  },
  'not-paid': {
    write: (w) => ({
      subject: w.say('not-paid.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [w.say('not-paid', { service: w.service, when: ownTime(w) })],
    }),
    plan: (booking, practice) => {
      // Where it is asked for by messages of its own, and they have come to their end.
      const chased =
        practice && sequenceOf(practice, booking.service)?.steps.some(({ anchor }) => anchor === 'payment')
      if (!chased || booking.status !== 'booked') return undefined
      const by = nextPayment(booking, zoneOf(practice, placeOf(practice, booking.place)))
      return by === undefined ? undefined : { anchor: by, at: by + 1, useful: shift(by, NEWS) }
    },
  },
  'session-soon': { write: sessionSoon, plan: (booking, practice) => ownBefore(booking, practice, 0) },
  'session-sooner': { write: sessionSoon, plan: (booking, practice) => ownBefore(booking, practice, 1) },
}

/** How long after it was asked whether somebody will come it is told that they have not answered. */
const UNANSWERED = 12 * HOUR

/** What the practitioner wants to be told before each session, and what may be told of what was answered. */
function sessionSoon(w: Words): Written {
  const { booking, practice } = w
  const { name, phone } = booking.asked.person
  const about = { service: w.service, when: ownTime(w), name, phone: phone ?? 'none' }
  return {
    subject: w.say('session-soon.subject', { name, when: atHome(w, booking.start) }),
    body: [
      w.say('session-soon', about),
      answersTold(practice, booking)
        .map(({ question, answer }) => `${question}\n  ${answer}`)
        .join('\n\n'),
      w.say('session-soon.desk'),
    ],
  }
}

function ownBefore(
  { status, start, placed, placedAt, worded }: Booking,
  practice: Practice | undefined,
  nth: 0 | 1,
): Planned | undefined {
  const wanted = practice?.messaging?.own?.before?.[nth]
  if (!practice || !wanted || status !== 'booked') return undefined
  const at = before(start, wanted.by, zone(practice.profile.zone))
  const from = Math.max(worded ?? 0, placedAt ?? 0)
  // Booked so late that its moment has passed, one has just heard of it.
  return at < from
    ? undefined
    : {
        anchor: placed,
        at,
        useful: start,
        ...(wanted.channel === 'text' ? { channel: 'text' as const } : {}),
      }
}
