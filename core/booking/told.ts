import type { Place } from '../practice/types.ts'
import { DAY, type Instant, instant } from '../time/index.ts'
import { isPlaced, type State } from './state.ts'

/** How long before a session the last reminder goes, with which a place can be told, in ms. */
export const LAST_REMINDER = DAY

/** Whether a client may be told the address of a place, by its own rule. */
export function isTold(place: Place, state: State, start: Instant, now: Instant): boolean {
  if (place.told === 'door') return true
  if (!isPlaced(state)) return false
  return place.told === 'confirmation' || now >= toldFrom(start)
}

/** From when the place of a session is told with the last reminder. */
export const toldFrom = (start: Instant): Instant => instant(start - LAST_REMINDER)
