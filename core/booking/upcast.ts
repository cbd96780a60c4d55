import { EVENTS } from './events.ts'
import type { BookingEvent, StoredEvent } from './happening.ts'

/** The version of the events that this program writes. */
export const EVENT_VERSION = 2

/** A record holds what this program does not know yet. */
export class NewerRecord extends Error {
  constructor(what: string) {
    super(`This was written by a newer Acolhida (${what}). Please open it with that one.`)
    this.name = 'NewerRecord'
  }
}

/**
 * An event of any version as this program means it. The one place that knows how earlier versions wrote.
 * @throws NewerRecord for what it does not know
 */
export function upcast(event: StoredEvent): BookingEvent {
  if (event.type !== 'asked' && !Object.hasOwn(EVENTS, event.type))
    throw new NewerRecord(`an event “${event.type}”`)
  if (event.type === 'asked') {
    if ('v' in event) {
      if (event.v > EVENT_VERSION) throw new NewerRecord(`version ${event.v} of a request`)
      return event
    }
    const { standing, byHand, ...asked } = event
    return {
      ...asked,
      v: 2,
      asking: { standing, invited: false, tags: [], attempts: event.attempts.length },
      proof: byHand ? 'hand' : 'earlier',
      shown: '',
    }
  }
  // Cancelling took effect at once.
  if (event.type === 'cancelled' && !('settles' in event)) return { ...event, settles: event.at }
  return event
}
