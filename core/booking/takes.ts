import { type Entry, entryFor, gatherGroups } from '../openings/index.ts'
import type { Practice } from '../practice/types.ts'
import type { Instant } from '../time/index.ts'
import type { Booking, Start } from './record.ts'

/** The times a booking keeps from others at `now`: its session, its hold, the times offered for it. */
export function takes(booking: Booking, now: Instant): { kind: 'session' | 'hold'; starts: Start[] } {
  const own: Start = { start: booking.start, place: booking.place }
  // A time given up by a decision stays kept while that decision can be taken back.
  const undoable = booking.unsettled !== undefined && now <= booking.unsettled.until
  if (['booked', 'attended', 'missed'].includes(booking.status)) {
    const from = undoable ? booking.unsettled?.before : undefined
    const left =
      from?.status === 'booked' && from.start !== booking.start
        ? [{ start: from.start, place: from.place }]
        : []
    return { kind: 'session', starts: [own, ...left] }
  }
  if (booking.status === 'requested' && now <= booking.until) {
    if (booking.offers.length === 0) return { kind: 'hold', starts: [own] }
    return { kind: 'hold', starts: undoable ? [own, ...booking.offers] : booking.offers }
  }
  if (booking.status === 'declined' && undoable) return { kind: 'hold', starts: [own] }
  return { kind: 'hold', starts: [] }
}

/** The diary entries of bookings at `now`, the seats of a group counted together. */
export function bookingEntries(practice: Practice, bookings: Iterable<Booking>, now: Instant): Entry[] {
  const entries: Entry[] = []
  for (const booking of bookings) {
    const { kind, starts } = takes(booking, now)
    for (const { start, place } of starts) {
      const { service, minutes, travel } = booking.asked
      entries.push({
        ...entryFor(practice, { id: booking.id, kind, service, place, start, minutes, travel }),
        request: booking.id,
      })
    }
  }
  return gatherGroups(practice, entries)
}
