import { tokenShape } from '../shape/plain.ts'
import { said } from '../shape/shape.ts'
import { chainHead } from '../terms/agreement.ts'
import { formatInstant, MINUTE, shift } from '../time/index.ts'
import { type Commands, happened, refuse } from './command.ts'
import { type BookingEvent, someMoney } from './happening.ts'
import { agreementsIn } from './lacking.ts'
import { bookedBy, paidOf } from './plan.ts'
import type { Booking, TillPayment } from './record.ts'
import { isHeld, UNDO } from './state.ts'
import { tillSource } from './till-events.ts'

/** How long the till's page stands open for one payment, in ms. */
export const TILL_TIME = 30 * MINUTE

/**
 * The payment that the till has still to tell the end of, if any: no second one is begun beside it, also when its page
 * has run out, as it may have been paid.
 */
export const openAtTill = ({
  till = [],
}: {
  readonly till?: readonly TillPayment[]
}): TillPayment | undefined => till.find(({ is }) => is === 'open')

/** What came by one payment at the till, less what was given back of it. */
export const leftOf = ({ payments = [] }: Pick<Booking, 'payments'>, payment: string): number => {
  const own = tillSource(payment)
  return payments.reduce(
    (sum, { source, amount }) => (source === own || source?.startsWith(`${own} back `) ? sum + amount : sum),
    0,
  )
}

/** Whether a card is kept that may be charged: something was agreed to, and nothing is under way. */
export const canCharge = (booking: Booking): boolean => whyNoCharge(booking) === undefined

function whyNoCharge(booking: Booking): 'no-card' | 'no-card.agreement' | 'paying-already' | undefined {
  if (!booking.card?.key) return 'no-card'
  if (agreementsIn(booking).length === 0) return 'no-card.agreement'
  return openAtTill(booking) ? 'paying-already' : undefined
}

/** Whether the card of a booking is no longer good in the month of its session (UTC, as a card names no zone). */
export const expiresBefore = ({ card, start }: Pick<Booking, 'card' | 'start'>): boolean =>
  card !== undefined && card.expires < formatInstant(start).slice(0, 7)

/** What is done with a booking at the till. */
export const TILLING: Pick<Commands, 'till-ask' | 'charge' | 'till-say' | 'till-gave'> = {
  'till-ask': {
    decide: (booking, { payment, what, amount }, is, { now }) => {
      if (what === 'pay' && amount <= 0) return refuse('nothing-to-pay')
      if (what === 'card' && !isHeld({ is }) && is !== 'booked') return refuse('nothing-to-pay')
      if (openAtTill(booking)) return refuse('paying-already')
      return happened({ type: 'till-asked', at: now, payment, what, amount, until: shift(now, TILL_TIME) })
    },
  },
  charge: {
    shape: { payment: tokenShape, amount: someMoney, text: said(2_000) },
    decide: (booking, { payment, amount, text: why }, _, { now }) => {
      if (booking.till?.some((one) => one.payment === payment)) return happened()
      const not = whyNoCharge(booking)
      if (not) return refuse(not)
      const agreed = chainHead(agreementsIn(booking).at(-1)!)
      return happened({
        ...{ type: 'charged', at: now, payment, amount, text: why, agreed },
        settles: shift(now, UNDO),
      })
    },
  },
  'till-say': {
    decide: (booking, { payment, message, says, text: why, card }, is, { now, zone }) => {
      const asked = booking.till?.find((one) => one.payment === payment)
      if (!asked) return refuse('unknown-payment')
      // What has come, has come, however late it is told; everything else only where nothing was told yet.
      if (asked.is === 'paid' || asked.is === 'kept' || (asked.is !== 'open' && says !== 'paid'))
        return happened()
      if (says !== 'paid') {
        const kept = says === 'kept' && card ? { card } : {}
        return happened({ type: 'till-said', at: now, payment, message, is: says, text: why, ...kept })
      }
      const { amount } = asked
      const paid: BookingEvent = {
        ...{ type: 'paid', at: now, amount, way: 'card', source: tillSource(payment), settles: now },
        ...bookedBy(booking, { amount, way: 'card' }, is, zone),
      }
      return happened(paid)
    },
  },
  'till-gave': {
    decide: (booking, { payment, n, amount }, _, { now }) => {
      const source = `${tillSource(payment)} back ${n}`
      if (booking.payments?.some((one) => one.source === source)) return happened()
      if (amount > leftOf(booking, payment) || amount > paidOf(booking)) return refuse('not-paid')
      return happened({ type: 'given-back', at: now, amount, way: 'card', source, settles: now })
    },
  },
}
