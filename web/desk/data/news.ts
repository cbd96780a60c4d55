import type { Booking, StoredEvent } from '@acolhida/core/booking'
import { DAY, type Instant } from '@acolhida/core/time'
import type { News } from './tables.ts'

/** What is older is no news any more, in ms. */
export const NEWS_FOR = 14 * DAY

/** What the last event of a record tells the practitioner who did not do it themselves; nothing where they did. */
export function newsOf(booking: Booking, event: StoredEvent): News | undefined {
  // What was decided on the way, the desk has not seen being decided.
  if ('away' in event && event.away) return 'away'
  switch (event.type) {
    case 'withdrawn':
      // Whoever withdraws before anybody heard of them leaves no news.
      return booking.mailProved ? 'withdrawn' : undefined
    case 'refused':
      return 'refused'
    case 'accepted':
      return 'accepted'
    case 'lapsed':
      return booking.owes ? 'not-paid' : booking.mailProved ? 'lapsed' : undefined
    case 'welcomed':
      return event.by === 'rules' && booking.asked.proof !== 'hand' && !booking.owes ? 'straight' : undefined
    case 'paid':
      // What the till tells; what the practitioner has noted is no news to them.
      return event.source?.startsWith('till ') ? 'paid' : undefined
    case 'moved':
      return event.by === 'client' ? 'moved' : undefined
    case 'pleaded':
      return 'pleaded'
    case 'cancelled':
      if (event.by === 'client') return 'cancelled'
      // The practitioner's own can be taken back for a while; a group date that too few came to can't.
      return 'settles' in event && event.settles === event.at ? 'called-off' : undefined
    default:
      return undefined
  }
}

/** Whether something that happened at a moment is still news at another. */
export const isFresh = (at: Instant, now: Instant): boolean => now - at < NEWS_FOR
