import { epochMs, madeName } from '../shape/plain.ts'
import { count, id, list, maybe, number, object, one, text, yes } from '../shape/shape.ts'
import { agreementShape as agreement } from '../terms/shape.ts'
import {
  alsoBefore,
  cancelled,
  decision,
  type Event,
  type EventKinds,
  ended,
  gives,
  type Later,
  length,
  owes,
  settled,
  silent,
  standsFrom,
  start,
  telling,
  unlessSilent,
  unowed,
  untold,
  whoMoved,
  worded,
  words,
} from './happening.ts'
import { MESSAGE_EVENTS } from './message-events.ts'
import { NOTED } from './noted-events.ts'
import { type Booking, PERSON_MARKS } from './record.ts'
import { TILL_EVENTS } from './till-events.ts'

/** Everything about each event: its shape, and what it makes of a booking. */
export const EVENTS: EventKinds = {
  ...NOTED,
  ...TILL_EVENTS,
  ...MESSAGE_EVENTS,
  proved: {
    shape: { until: maybe(epochMs), marks: maybe(list(one(...PERSON_MARKS), 10)) },
    apply: ({ until, marks }, { booking, seq, at }) => {
      const held = booking.unproved && until !== undefined ? { unproved: false, until } : {}
      const awaited = booking.unproved ? { awaited: { seq, at } } : {}
      const change = { mailProved: true, ...held, ...awaited, ...(marks ? { marks } : {}) }
      return { ...alsoBefore(booking, change), seq }
    },
  },
  welcomed: {
    shape: { ...settled, by: one('practitioner', 'rules'), text: maybe(words), owes, silent },
    apply: (event, on) => ({
      ...unlessSilent(worded(on.before, on, event, event.settles), event),
      text: event.text ?? '',
      ...decision(on, event.settles),
    }),
  },
  declined: {
    shape: { ...settled, text: words, by: maybe(one('rules')), silent },
    apply: (event, on) =>
      unlessSilent(
        {
          ...on.before,
          seq: on.seq,
          status: 'declined',
          text: event.text,
          ...telling(on, 'declined', event.settles),
          ...decision(on, event.settles),
        },
        event,
      ),
  },
  offered: {
    shape: { ...settled, starts: list(object(start), 10, 1), until: epochMs, text: words, gives, silent },
    apply: ({ starts, until, text: said, gives, settles: end, silent }, on) =>
      unlessSilent(
        {
          ...unowed(on.before),
          ...(gives ? { gives } : {}),
          seq: on.seq,
          // Also after it had run out, or was booked: it is a request again.
          status: 'requested',
          sequence: on.before.status === 'booked' ? on.before.sequence + 1 : on.before.sequence,
          offers: starts,
          until,
          text: said,
          ...telling(on, 'offered', end),
          ...decision(on, end),
        },
        { silent },
      ),
  },
  accepted: {
    shape: { ...start, owes },
    apply: (event, on) => ({
      // Of what was booked, the practitioner has given up the time.
      ...worded(whoMoved(on.before, {}), on, event),
      start: event.start,
      place: event.place,
      text: '',
      // Whoever had it in their calendar before has it there anew.
      sequence: on.before.worded === undefined ? on.before.sequence : on.before.sequence + 1,
      placed: on.seq,
      placedAt: on.at,
    }),
  },
  refused: {
    shape: { text: words },
    apply: (event, on) => ({
      ...on.before,
      seq: on.seq,
      status: 'withdrawn',
      text: event.text,
      offers: [],
      ...telling(on, 'withdrawn'),
    }),
  },
  moved: {
    shape: {
      ...settled,
      ...start,
      minutes: length,
      text: words,
      service: maybe(id),
      by: maybe(one('client')),
      least: maybe(number(0, 100)),
      freed: maybe(madeName),
      silent,
    },
    apply: (event, on) =>
      unlessSilent(
        {
          ...whoMoved(on.before, event),
          seq: on.seq,
          service: event.service ?? on.before.service,
          start: event.start,
          place: event.place,
          minutes: event.minutes,
          text: event.text,
          sequence: on.before.sequence + 1,
          placed: on.seq,
          placedAt: standsFrom(on, event.settles),
          ...telling(on, 'moved', event.settles),
          ...decision(on, event.settles),
        },
        event,
      ),
  },
  lapsed: {
    shape: {},
    apply: (_, on) => ({
      ...untold(on.before),
      seq: on.seq,
      status: 'lapsed',
      offers: [],
      ...ended(on, 'lapsed', on.before.offers.length > 0),
    }),
  },
  withdrawn: {
    shape: {},
    apply: (_, on) => ({
      ...untold(on.before),
      seq: on.seq,
      status: 'withdrawn',
      offers: [],
      ...ended(on, 'withdrawn'),
    }),
  },
  'taken-out': {
    shape: {},
    apply: (_, on) => {
      const { payments: _paid, ...rest } = untold(on.before)
      return { ...rest, seq: on.seq, status: 'withdrawn' }
    },
  },
  cancelled: {
    shape: { ...settled, ...cancelled, silent },
    apply: ({ by, share, text: said, gives, settles: end, silent }, on) =>
      unlessSilent(
        {
          ...on.before,
          ...(gives ? { gives } : {}),
          seq: on.seq,
          status: 'cancelled',
          cancelledBy: by,
          ended: on.at,
          share,
          text: said,
          sequence: on.before.sequence + 1,
          ...telling(on, 'cancelled', end),
          ...decision(on, end),
        },
        { silent },
      ),
  },
  questioned: {
    shape: { ...settled, text: words, until: epochMs },
    apply: ({ text: said, until, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      question: { seq: on.seq, text: said },
      extended: true,
      until,
      ...telling(on, 'question', end),
      ...decision(on, end),
    }),
  },
  replied: {
    shape: { text: words },
    apply: ({ text: said }, { booking, seq, at }) => {
      const { question } = booking
      return {
        ...alsoBefore(booking, question ? { question: { ...question, reply: { seq, at, text: said } } } : {}),
        seq,
      }
    },
  },
  pleaded: {
    shape: { text: words },
    apply: ({ text: said }, { booking, seq, at }) => ({
      ...alsoBefore(booking, { plea: { seq, at, text: said } }),
      seq,
    }),
  },
  excepted: {
    shape: { ...settled, granted: yes, text: words, silent },
    apply: ({ granted, text: said, settles: end, silent }, on) =>
      unlessSilent(
        {
          ...on.before,
          seq: on.seq,
          ...(on.before.plea ? { plea: { ...on.before.plea, answer: { granted, text: said } } } : {}),
          ...telling(on, 'excepted', end),
          ...decision(on, end),
        },
        { silent },
      ),
  },
  agreed: {
    shape: { agreements: list(agreement, 100, 1) },
    apply: ({ agreements }, { booking, seq }) => ({
      ...alsoBefore(booking, { agreed: [...(booking.agreed ?? []), ...agreements] }),
      seq,
    }),
  },
  overruled: {
    shape: { outcome: one('fits', 'look', 'closed'), text: text(2_000) },
    apply: ({ at, outcome, text: said }, { booking, seq }) => ({
      ...alsoBefore(booking, { overruled: { at, outcome, text: said } }),
      seq,
    }),
  },
  'taken-back': {
    shape: { of: count },
    apply: (_, { booking, seq }) => {
      if (!booking.unsettled) throw new Error(`Booking ${booking.id}: nothing to take back at ${seq}.`)
      return { ...booking.unsettled.before, seq }
    },
  },
}

/** Whether what can still be taken back was only noted, by the kind of its event. */
export const isNoted = ({ what }: NonNullable<Booking['unsettled']>): boolean =>
  EVENTS[what as Later['type']].noted === true

/** The kind of an event, for what is asked of any. */
export const eventKind = (event: Later): Event<Later> => EVENTS[event.type] as Event<Later>
