import { HOUR, type Instant } from '../time/index.ts'
import { type LetterKind, type OwnStep, soon } from './letter.ts'
import { atHome, ownTime, say, type Words } from './lines.ts'

/** How long before a hold runs out the practitioner is reminded: an hour, or half of a shorter hold. */
const remindFrom = (asked: Instant, until: Instant): number =>
  Math.max(until - HOUR, asked + Math.floor((until - asked) / 2))

/** Until when it waits, and the link by which it can be answered away from the desk. */
const wordLines = (w: Words): string[] => [
  say('word.until', { until: atHome(w, w.booking.until) }),
  say('word.link', { word: '{word}' }),
]

/** Every message to the practitioner about a booking. */
export const OWN_LETTERS: { [S in OwnStep]: LetterKind } = {
  'word-due': {
    write: (w) => ({
      subject: say('word-due.subject', { until: atHome(w, w.booking.until) }),
      body: [say('word-due', { service: w.service, when: ownTime(w) }), ...wordLines(w)],
    }),
    plan: ({ status, unproved, offers, owes, awaited, until }) =>
      status === 'requested' && !unproved && !owes && offers.length === 0
        ? { anchor: awaited.seq, at: remindFrom(awaited.at, until), useful: until }
        : undefined,
  },
  'new-request': {
    write: (w) => ({
      subject: say('new-request.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('new-request', { service: w.service, when: ownTime(w) }), ...wordLines(w)],
    }),
    plan: ({ status, unproved, offers, owes, awaited, asked, until }) =>
      status === 'requested' && !unproved && !owes && offers.length === 0 && asked.proof !== 'hand'
        ? { anchor: awaited.seq, at: awaited.at, useful: until }
        : undefined,
  },
  'client-cancelled': {
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
    write: (w) => ({
      subject: say('client-moved.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('client-moved', { service: w.service, when: ownTime(w) })],
    }),
    plan: ({ status, movedBy, tells }) =>
      status === 'booked' && movedBy === 'client' && tells?.step === 'moved' ? soon(tells) : undefined,
  },
  'has-lapsed': {
    write: (w) => ({
      subject: say('has-lapsed.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('has-lapsed', { service: w.service, when: ownTime(w) }), say('has-lapsed.still')],
    }),
    plan: ({ status, mailProved, tells }) =>
      status === 'lapsed' && mailProved && tells && !tells.offered ? soon(tells) : undefined,
  },
  'client-replied': {
    write: (w) => ({
      subject: say('client-replied.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('client-replied', { service: w.service, when: ownTime(w) }), ...wordLines(w)],
    }),
    plan: ({ status, question, until }) =>
      status === 'requested' && question?.reply
        ? { anchor: question.reply.seq, at: question.reply.at, useful: until }
        : undefined,
  },
  'client-pleads': {
    write: (w) => ({
      subject: say('client-pleads.subject', { service: w.service, when: atHome(w, w.booking.start) }),
      body: [say('client-pleads', { service: w.service, when: ownTime(w) }), say('client-pleads.desk')],
    }),
    plan: ({ status, plea, start }) =>
      status === 'booked' && plea && !plea.answer
        ? { anchor: plea.seq, at: plea.at, useful: start }
        : undefined,
  },
}
