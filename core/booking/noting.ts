import { shareOf } from '../money/rounding.ts'
import { id, list, maybe, one, said, text, whole } from '../shape/shape.ts'
import { canonicalJson } from '../terms/fingerprint.ts'
import { shift } from '../time/index.ts'
import { type Commands, happened, notBooked, refuse } from './command.ts'
import { countedFor } from './counting.ts'
import { canBeMissed } from './deadlines.ts'
import { anyMoney, someMoney } from './happening.ts'
import { givenIn, givesForLate } from './mine.ts'
import { othersOf } from './others.ts'
import { othersShape } from './others-shape.ts'
import { bookedBy, paidOf } from './plan.ts'
import { MOST_LATE, MOST_LENGTH, WAYS } from './record.ts'
import { hasBegun, isPlaced, stateAt, UNDO } from './state.ts'

const words = text(5_000)

/** What the practitioner notes of a booking without deciding over it: how it went, money, what they ask and forgive. */
export const NOTING: Pick<
  Commands,
  'attend' | 'miss' | 'pay' | 'give-back' | 'adjust' | 'sign' | 'concern' | 'run-late' | 'forgive'
> = {
  attend: {
    shape: { late: maybe(whole(1, MOST_LATE)), minutes: maybe(whole(1, MOST_LENGTH)) },
    decide: (booking, { late, minutes }, is, { now }) => {
      if (!isPlaced({ is })) return notBooked(is)
      if (!hasBegun(booking, now)) return refuse('too-early.attend')
      const same = is === 'attended' && booking.late === late && booking.lasted === minutes
      const said = { ...(late ? { late } : {}), ...(minutes ? { minutes } : {}) }
      return same ? happened() : happened({ type: 'attended', at: now, settles: shift(now, UNDO), ...said })
    },
  },
  miss: {
    shape: {},
    decide: (booking, _, is, { now }) => {
      if (!isPlaced({ is })) return notBooked(is)
      if (!canBeMissed(booking, now))
        return refuse('too-early.miss', { minutes: booking.asked.houseRules.graceMinutes })
      return is === 'missed' ? happened() : happened({ type: 'missed', at: now, settles: shift(now, UNDO) })
    },
  },
  pay: {
    shape: { amount: someMoney, way: one(...WAYS), text: maybe(words), source: maybe(text(200)) },
    decide: (booking, { do: _, ...said }, is, { now, zone }) => {
      // An entry of a statement is noted once, however often the statement is opened.
      const known =
        said.source !== undefined && booking.payments?.some(({ source }) => source === said.source)
      if (known) return happened()
      return happened({
        type: 'paid',
        at: now,
        ...said,
        settles: shift(now, UNDO),
        ...bookedBy(booking, said, is, zone),
      })
    },
  },
  'give-back': {
    shape: { amount: someMoney, way: one(...WAYS), text: maybe(words) },
    decide: (booking, { do: _, ...said }, is, { now }) => {
      // What was promised for one's own part is given whether anything has come or not, of what owes nothing else.
      const promised = isPlaced({ is }) ? 0 : shareOf(booking.price, givenIn(booking).share)
      if (said.amount > paidOf(booking) + promised) return refuse('not-paid')
      return happened({ type: 'given-back', at: now, ...said, settles: shift(now, UNDO) })
    },
  },
  adjust: {
    shape: { amount: anyMoney, text: said(2_000) },
    decide: (_, { amount, text: why }, __, { now }) =>
      amount === 0
        ? happened()
        : happened({ type: 'adjusted', at: now, amount, text: why, settles: shift(now, UNDO) }),
  },
  sign: {
    shape: { terms: list(id, 50, 1) },
    decide: (booking, { terms }, _, { now }) => {
      const state = stateAt(booking, now)
      if (state.is !== 'booked' || state.over) return notBooked(state.is)
      const already = new Set(booking.toSign?.terms)
      return terms.every((one) => already.has(one))
        ? happened()
        : happened({ type: 'asked-to-sign', at: now, terms, settles: shift(now, UNDO) })
    },
  },
  concern: {
    shape: { others: othersShape },
    decide: (booking, { others }, _, { now }) =>
      canonicalJson(others) === canonicalJson(othersOf(booking))
        ? happened()
        : happened({ type: 'concerns', at: now, others, settles: shift(now, UNDO) }),
  },
  'run-late': {
    shape: { minutes: whole(1, MOST_LATE) },
    decide: (booking, { minutes }, _, { now }) => {
      const state = stateAt(booking, now)
      if (state.is !== 'booked') return notBooked(state.is)
      if (state.over) return refuse('too-late')
      const gives = givesForLate(booking, minutes)
      return happened({
        type: 'running-late',
        at: now,
        minutes,
        ...(gives > 0 ? { gives } : {}),
        settles: shift(now, UNDO),
      })
    },
  },
  forgive: {
    shape: { text: said(2_000) },
    decide: (booking, { text: why }, _, { now }) => {
      if (!countedFor(booking)) return refuse('not-counted')
      const same = booking.forgiven?.text === why
      return same ? happened() : happened({ type: 'forgiven', at: now, text: why, settles: shift(now, UNDO) })
    },
  },
}
