import type { Outcome } from '../questions/index.ts'
import { agreementsIn } from './lacking.ts'
import { mustFirst, paidOf } from './plan.ts'
import type { Booking } from './record.ts'

/** A part of what must be done before a session. */
export type PartState = 'done' | 'waiting' | 'blocked' | 'none'

/** Which of the parts are done. `none`: not asked of this booking. */
export interface Readiness {
  questions: PartState
  terms: PartState
  word: PartState
  deposit: PartState
  preparation: PartState
}

/** The outcome that counts: the practitioner's own judgement, where there is one. */
const outcomeOf = ({ asked, overruled }: Booking): Outcome => overruled?.outcome ?? asked.reading.outcome

/**
 * Reads the readiness of a booking from its record.
 * @param lacking whether something is still to be agreed to
 * @param ticks whether its service has something to tick before it
 */
export function readiness(booking: Booking, lacking = false, ticks = false): Readiness {
  const { asked, status } = booking
  const first = Math.max(mustFirst(booking), booking.deposit)
  const { course } = booking
  const toDo = course !== undefined && course.what.length > 0
  const asksFor = toDo || ticks
  const prepared = asksFor && (!toDo || course.done === true) && (!ticks || booking.prepared !== undefined)
  const ended = ['declined', 'lapsed', 'withdrawn', 'cancelled'].includes(status)
  return {
    questions: asked.questionnaire ? (outcomeOf(booking) === 'closed' ? 'blocked' : 'done') : 'none',
    terms: lacking ? 'waiting' : agreementsIn(booking).length > 0 ? 'done' : 'none',
    word: ended ? 'blocked' : status === 'requested' && !booking.owes ? 'waiting' : 'done',
    deposit: first === 0 ? 'none' : paidOf(booking) >= first ? 'done' : ended ? 'blocked' : 'waiting',
    preparation: prepared ? 'done' : asksFor ? (ended ? 'blocked' : 'waiting') : 'none',
  }
}
