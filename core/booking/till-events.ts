import { epochMs, fingerprintShape, tokenShape } from '../shape/plain.ts'
import { maybe, object, one, pattern, text, whole } from '../shape/shape.ts'
import { alsoBefore, decision, type EventKinds, settled, someMoney } from './happening.ts'
import type { TillPayment } from './record.ts'

/** What the till is known by in the source of a payment. */
export const tillSource = (payment: string): string => `till ${payment}`

/** A payment as the till has been asked for it, with something of it changed. */
export const withTill = (
  { till = [] }: { readonly till?: readonly TillPayment[] },
  payment: string,
  change: Partial<TillPayment>,
): TillPayment[] => till.map((one) => (one.payment === payment ? { ...one, ...change } : one))

/** The last four figures of a card, and its last month. Never more of its number. */
export const cardShape = object({
  ends: pattern(/^[0-9]{4}$/, 4),
  expires: pattern(/^[0-9]{4}-(0[1-9]|1[0-2])$/, 7),
  key: maybe(text(100)),
})

/** What passes between a booking and the till: each event with its shape, and what it makes of a booking. */
export const TILL_EVENTS: Pick<EventKinds, 'till-asked' | 'charged' | 'till-said'> = {
  'till-asked': {
    shape: {
      payment: tokenShape,
      what: one('pay', 'card'),
      amount: whole(0, 100_000_000_000),
      until: epochMs,
    },
    apply: ({ at, payment, what, amount, until }, { booking, seq }) => ({
      ...alsoBefore(booking, {
        till: [...(booking.till ?? []), { payment, what, amount, at, until, is: 'open' }],
      }),
      seq,
    }),
  },
  charged: {
    noted: true,
    shape: {
      ...settled,
      payment: tokenShape,
      amount: someMoney,
      text: text(2_000),
      agreed: fingerprintShape,
    },
    apply: ({ at, payment, amount, text: said, agreed, settles }, on) => ({
      ...on.before,
      seq: on.seq,
      till: [
        ...(on.before.till ?? []),
        { payment, what: 'charge', amount, at, until: settles, is: 'open', text: said, agreed },
      ],
      ...decision(on, settles),
    }),
  },
  'till-said': {
    shape: {
      payment: tokenShape,
      message: text(100),
      is: one('failed', 'over', 'kept'),
      text: text(500),
      card: maybe(cardShape),
    },
    apply: ({ payment, is, text: said, card: kept }, { booking, seq }) => ({
      ...alsoBefore(booking, {
        till: withTill(booking, payment, { is, ...(said ? { text: said } : {}) }),
        ...(kept ? { card: kept } : {}),
      }),
      seq,
    }),
  },
}
