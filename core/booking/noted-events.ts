import { anyNumber, id, list, maybe, object, one, text, whole, yes } from '../shape/shape.ts'
import { shift } from '../time/index.ts'
import {
  alsoBefore,
  anyMoney,
  came,
  decision,
  type EventKinds,
  gives,
  owes,
  settled,
  someMoney,
  standsFrom,
  worded,
  words,
} from './happening.ts'
import { othersKept } from './others-shape.ts'
import { type Booking, MOST_LATE, MOST_LENGTH, WAYS } from './record.ts'
import { withTill } from './till-events.ts'

/** Money that the till has told of: it is waited for no more. */
const tillPaid = (booking: Booking, source: string | undefined): Pick<Booking, 'till'> =>
  source?.startsWith('till ') && booking.till
    ? { till: withTill(booking, source.slice('till '.length), { is: 'paid' }) }
    : {}

/** What stands on an invoice. */
export const invoiceParts = {
  number: text(60),
  lines: list(object({ name: text(2_000), quantity: anyNumber, amount: anyMoney }), 2_100),
  total: anyMoney,
  tax: maybe(object({ name: text(80), rate: whole(0, 10_000), amount: anyMoney })),
  to: maybe(object({ name: text(200), email: maybe(text(254)) })),
  corrects: maybe(text(60)),
  text: maybe(text(2_000)),
}

/** How it went, and what the practitioner notes besides: each with its shape, and what it makes of a booking. */
export const NOTED: Pick<
  EventKinds,
  | 'attended'
  | 'missed'
  | 'running-late'
  | 'paid'
  | 'given-back'
  | 'adjusted'
  | 'asked-to-sign'
  | 'concerns'
  | 'forgiven'
  | 'invoiced'
> = {
  invoiced: {
    shape: { n: whole(1, 1_000_000_000), ...invoiceParts },
    apply: ({ type: _, n: __, ...invoice }, { booking, seq }) => ({
      ...alsoBefore(booking, { invoices: [...(booking.invoices ?? []), invoice] }),
      seq,
    }),
  },
  attended: {
    shape: { ...settled, late: maybe(whole(1, MOST_LATE)), minutes: maybe(whole(1, MOST_LENGTH)) },
    apply: ({ late, minutes, settles: end }, on) => ({
      ...came(on.before),
      seq: on.seq,
      status: 'attended',
      wentAt: standsFrom(on, end),
      ...(late === undefined ? {} : { late }),
      ...(minutes === undefined ? {} : { lasted: minutes }),
      ...decision(on, end),
    }),
  },
  missed: {
    shape: settled,
    apply: ({ settles: end }, on) => ({
      ...came(on.before),
      seq: on.seq,
      status: 'missed',
      wentAt: standsFrom(on, end),
      ...decision(on, end),
    }),
  },
  'running-late': {
    noted: true,
    shape: { ...settled, minutes: whole(1, MOST_LATE), gives },
    apply: ({ minutes, gives, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      runsLate: {
        seq: on.seq,
        due: end > on.at ? shift(end, 1) : on.at,
        minutes,
        ...(gives ? { gives } : {}),
      },
      ...decision(on, end),
    }),
  },
  paid: {
    noted: true,
    shape: {
      ...settled,
      amount: someMoney,
      way: one(...WAYS),
      text: maybe(words),
      source: maybe(text(200)),
      books: maybe(yes),
      owes,
    },
    apply: ({ at, amount, way, text: said, source, books, owes, settles: end }, on) => ({
      ...(books ? worded(on.before, on, {}, end) : on.before),
      seq: on.seq,
      ...(owes === undefined ? {} : { until: owes }),
      ...tillPaid(on.before, source),
      payments: [
        ...(on.before.payments ?? []),
        { at, amount, way, ...(said ? { text: said } : {}), ...(source ? { source } : {}) },
      ],
      ...decision(on, end),
    }),
  },
  'given-back': {
    noted: true,
    shape: { ...settled, amount: someMoney, way: one(...WAYS), text: maybe(words), source: maybe(text(200)) },
    apply: ({ at, amount, way, text: said, source, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      payments: [
        ...(on.before.payments ?? []),
        { at, amount: -amount, way, ...(said ? { text: said } : {}), ...(source ? { source } : {}) },
      ],
      ...decision(on, end),
    }),
  },
  adjusted: {
    noted: true,
    shape: { ...settled, amount: anyMoney, text: words },
    apply: ({ at, amount, text: said, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      adjusted: [...(on.before.adjusted ?? []), { at, amount, text: said }],
      ...decision(on, end),
    }),
  },
  'asked-to-sign': {
    noted: true,
    shape: { ...settled, terms: list(id, 50, 1) },
    apply: ({ terms, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      toSign: {
        terms: [...new Set([...(on.before.toSign?.terms ?? []), ...terms])],
        seq: on.seq,
        due: end > on.at ? shift(end, 1) : on.at,
      },
      ...decision(on, end),
    }),
  },
  concerns: {
    noted: true,
    shape: { ...settled, others: othersKept },
    apply: ({ others, settles: end }, on) => ({ ...on.before, seq: on.seq, others, ...decision(on, end) }),
  },
  forgiven: {
    noted: true,
    shape: { ...settled, text: words },
    apply: ({ at, text: said, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      forgiven: { at, text: said },
      ...decision(on, end),
    }),
  },
}
