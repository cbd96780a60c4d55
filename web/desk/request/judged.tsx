import type { Booking } from '@acolhida/core/booking'
import { judged } from '@acolhida/core/booking/judged'
import type { Practice } from '@acolhida/core/practice'
import { OUTCOME } from '../parts/words.ts'

/** The outcome of a request, as a tag. */
export function Judged({ practice, booking }: { practice: Practice; booking: Booking }) {
  const outcome = judged(practice, booking)
  return <span className={`tag tag-${outcome}`}>{OUTCOME[outcome]}</span>
}
