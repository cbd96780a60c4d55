import {
  type Booking,
  isEnded,
  isHeld,
  openOnAsking,
  type State,
  stateAt,
  stillFirst,
} from '../booking/index.ts'
import { accountOf } from '../ledger/index.ts'
import type { Minor } from '../money/index.ts'
import { type Practice, placeOf, zoneOf } from '../practice/index.ts'
import { type Course, owingOf } from '../preparing/index.ts'
import type { Instant } from '../time/index.ts'

/** What can be paid by card for a booking now, in minor units: what must come first, or what is open. */
export function payableNow(practice: Practice, booking: Booking, now: Instant): number {
  if (!practice.cards) return 0
  const state = stateAt(booking, now)
  if (state.is === 'unproved' || state.is === 'offered') return 0
  if (isHeld(state)) {
    // Before the word only what is asked for on asking.
    if (state.is === 'waiting') return openOnAsking(booking)
    return stillFirst(booking, zoneOf(practice, placeOf(practice, booking.place)))?.amount ?? 0
  }
  return Math.max(0, accountOf(booking).open)
}

/** What can be paid by card for a path now, in minor units: all that is due, or else the part that is next. */
export function payableForPath({ cards }: Practice, course: Course, now: Instant): Minor {
  const owing = cards && owingOf(course, now)
  return owing ? owing.due || owing.next.open : 0
}

/** Which card is asked for with a booking, if any: only looked at, or kept. */
export function cardAsked(
  { cards }: Practice,
  { asked, card, price }: Booking,
  state: State,
): 'check' | 'keep' | undefined {
  if (!cards?.ask || card || price === 0 || isEnded(state) || state.is === 'unproved') return undefined
  if (state.is === 'attended' || state.is === 'missed') return undefined
  return cards.strangers && asked.asking.standing !== 'new' ? undefined : cards.ask
}
