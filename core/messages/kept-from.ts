import { type Booking, isEnded, stateAt } from '../booking/index.ts'
import { isStepName, steeredOf, type Which } from './letter.ts'
import { receiverOf } from './letters.ts'
import type { StepPlan, WhySkipped } from './steps.ts'

/** What is known of whoever is written to, beyond one booking. */
export interface OfThem {
  /** The practitioner sends them no steps. */
  hushed?: boolean
  /** All of their bookings there are, this one with them. */
  theirs?: readonly Booking[]
}

/**
 * Why a message to a client that is planned for a booking is not to go after all, by what is known of them beyond it.
 * @param plans what becomes of the steps around the booking
 */
export function keptFrom(
  booking: Booking,
  which: Which,
  plans: readonly StepPlan[],
  { hushed = false, theirs = [booking] }: OfThem,
): Extract<WhySkipped, 'unproved' | 'unwanted' | 'hushed' | 'booked-again'> | undefined {
  // Whose address it is, nobody has shown: one receipt goes there, and nothing else.
  if (booking.unproved && receiverOf(which.step) === 'client' && which.step !== 'asked') return 'unproved'
  // What the practitioner has sent goes.
  if (receiverOf(which.step) === 'practitioner' || steeredOf(booking, which)?.now !== undefined)
    return undefined
  const unwanted = new Set(theirs.flatMap((one) => one.unwanted ?? []))
  if (which.channel === 'text' && unwanted.has('texts')) return 'unwanted'
  if (!isStepName(which.step)) return undefined
  if (hushed) return 'hushed'
  const step = plans.find(({ name, anchor }) => name === which.step && anchor === which.anchor)?.step
  if ((step?.anchor === 'end' || step?.anchor === 'missed') && unwanted.has('follow-ups')) return 'unwanted'
  const alone = step?.when?.some((condition) => condition.if === 'nothing-booked')
  return alone && theirs.some((one) => one.id !== booking.id && comesAfter(one, booking))
    ? 'booked-again'
    : undefined
}

/** Whether somebody has something booked after a session, has been here since, or waits for a word. */
const comesAfter = (one: Booking, session: Booking): boolean =>
  one.status === 'requested' || (one.start > session.start && !isEnded(stateAt(one, one.start)))
