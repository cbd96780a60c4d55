import { type Booking, stateAt } from '@acolhida/core/booking'
import type { Instant } from '@acolhida/core/time'

/** A request waits for the practitioner's word as long as its hold has not run out. */
export const isAwaiting = (booking: Booking, now: Instant): boolean => stateAt(booking, now).is === 'waiting'

/** Those who wait for the practitioner's word, the most urgent first. */
export const awaitingWord = <B extends Booking>(requested: readonly B[], now: Instant): B[] =>
  requested.filter((booking) => isAwaiting(booking, now)).sort((a, b) => a.until - b.until)
