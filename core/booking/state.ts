import { type Instant, MINUTE, SECOND } from '../time/index.ts'
import type { Booking, Start } from './record.ts'

/**
 * What a booking is at a moment: the one telling of it. Nothing else compares what a record says with the time.
 *
 * - `unproved`: asked for, and the mailed link not opened yet; held for a short while
 * - `waiting`: for the practitioner's word
 * - `offered`: for the client's choice among other times
 * - `unpaid`: the word is given, and a payment that must come first is waited for
 */
export type State =
  | { is: 'unproved' | 'waiting' | 'unpaid'; until: Instant }
  | { is: 'offered'; starts: Start[]; until: Instant }
  | { is: 'booked'; begun: boolean; over: boolean }
  | { is: 'attended' | 'missed' | 'declined' | 'lapsed' | 'withdrawn' }
  | { is: 'cancelled'; by: 'client' | 'practitioner'; share: number }

export type StateName = State['is']

export const STATES = [
  ...([
    'unproved',
    'waiting',
    'offered',
    'unpaid',
    'booked',
    'attended',
    'missed',
    'declined',
    'lapsed',
  ] as const),
  ...(['withdrawn', 'cancelled'] as const),
] satisfies StateName[]

/** Whether a session that starts then has begun: at its very start it has not yet. */
export const hasBegun = ({ start }: Pick<Booking, 'start'>, now: Instant): boolean => now > start

/** The state of a booking. Every "until" is inclusive: a hold has lapsed when `now > until`. */
export function stateAt(booking: Booking, now: Instant): State {
  const { status, until, offers, start, minutes, share, cancelledBy } = booking
  switch (status) {
    case 'requested':
      if (now > until) return { is: 'lapsed' }
      if (booking.unproved) return { is: 'unproved', until }
      if (offers.length > 0) return { is: 'offered', starts: offers, until }
      return { is: booking.owes ? 'unpaid' : 'waiting', until }
    case 'booked':
      return { is: 'booked', begun: hasBegun(booking, now), over: now >= start + minutes * MINUTE }
    case 'cancelled':
      return { is: 'cancelled', by: cancelledBy ?? 'practitioner', share }
    default:
      return { is: status }
  }
}

/** How long a decision can be taken back, in ms. */
export const UNDO = 8 * SECOND

/** The decision that can still be taken back at `now`, by its place in the record. */
export const undoableAt = (
  { unsettled }: Booking,
  now: Instant,
): { of: number; until: Instant } | undefined =>
  unsettled && now <= unsettled.until ? { of: unsettled.seq, until: unsettled.until } : undefined

/** The booking as its client sees it: a decision that can still be taken back has not been said yet. */
export const seenAt = (booking: Booking, now: Instant): Booking =>
  booking.unsettled && undoableAt(booking, now) ? booking.unsettled.before : booking

/** Whether something is waited for, an answer or a payment: a time is held. */
export const isHeld = ({ is }: { is: StateName }): boolean =>
  is === 'unproved' || is === 'waiting' || is === 'offered' || is === 'unpaid'

/** Whether something of it is still to come: an answer, a payment, or the session itself. */
export const isToCome = (state: State): boolean => isHeld(state) || (state.is === 'booked' && !state.over)

/** Whether somebody comes, is here or was to be. */
export const isPlaced = ({ is }: { is: StateName }): boolean =>
  is === 'booked' || is === 'attended' || is === 'missed'

/** Whether it has come to an end without a session. */
export const isEnded = (state: State): boolean => !isHeld(state) && !isPlaced(state)
