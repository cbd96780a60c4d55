import { placeOf, zoneOf } from '../practice/find.ts'
import type { GroupDate, Practice, Service } from '../practice/types.ts'
import { before, type Instant, instant, instantOf } from '../time/index.ts'
import type { DeskDoes } from './command.ts'
import type { BookingEvent, Silent } from './happening.ts'
import type { Booking } from './record.ts'
import { isHeld, stateAt } from './state.ts'

/** A group date that is judged by how many have come. */
export interface LeastDate {
  service: Service
  date: GroupDate
  start: Instant
  /** The last moment to reach the least number. */
  by: Instant
  people: number
}

/** The group dates of a practice with a least number, each with its last moment. */
export const leastDates = (practice: Practice): LeastDate[] =>
  practice.services.flatMap((service) => {
    const { least } = service
    if (!least || service.seats < 2 || service.groupAt !== 'dates') return []
    return service.groupDates.map((date): LeastDate => {
      const where = zoneOf(practice, placeOf(practice, date.place))
      const start = instantOf(where, date.start)
      return { service, date, start, by: instant(before(start, least.by, where)), people: least.people }
    })
  })

/** Whether somebody counts for a least number: who has a seat, or waits for one and can be reached. */
export function counts(booking: Booking, now: Instant): boolean {
  const { is } = stateAt(booking, now)
  return is === 'booked' || is === 'waiting' || is === 'offered' || is === 'unpaid'
}

/** What calling a session off makes of one booking of it. */
export function callOff(booking: Booking, text: string, now: Instant): BookingEvent[] {
  const state = stateAt(booking, now)
  if (state.is === 'booked')
    return [{ type: 'cancelled', at: now, by: 'practitioner', share: 0, text, settles: now }]
  return isHeld(state) ? [{ type: 'declined', at: now, text, settles: now }] : []
}

/**
 * What the practitioner says to each of those in a session that they call off, so that it can be taken back: whoever
 * has a seat or waits for one is written to; nobody who has not shown that their address is theirs, whose hold runs out.
 */
export function callingOff(
  booking: Booking,
  said: { text: string } & Silent,
  now: Instant,
): DeskDoes | undefined {
  const { is } = stateAt(booking, now)
  if (is === 'booked') return { do: 'cancel', by: 'practitioner', ...said }
  return isHeld({ is }) && is !== 'unproved' ? { do: 'decline', ...said } : undefined
}
