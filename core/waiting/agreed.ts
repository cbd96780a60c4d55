import { agreementsIn, type Booking } from '../booking/index.ts'
import type { CourseEvent } from '../preparing/index.ts'
import { type Agreement, chainHead } from '../terms/index.ts'
import type { LineEvent } from './line.ts'

/**
 * Every agreement that bookings, places in line and what people were given hold, with whose it is, each once: what was agreed to on getting in
 * line goes with the booking that comes of it.
 */
export function agreementsOf(
  bookings: Iterable<Booking>,
  lines: Iterable<{ id: string; events: readonly LineEvent[] }>,
  courses: Iterable<{ id: string; events: readonly CourseEvent[] }>,
): { of: string; agreement: Agreement }[] {
  const found = new Map<string, { of: string; agreement: Agreement }>()
  const add = (of: string, agreements: readonly Agreement[]): void => {
    for (const agreement of agreements) {
      const print = chainHead(agreement)
      if (!found.has(print)) found.set(print, { of, agreement })
    }
  }
  for (const booking of bookings) add(booking.id, agreementsIn(booking))
  for (const { id, events } of lines)
    for (const event of events) if (event.type === 'joined') add(id, event.agreements)
  for (const { id, events } of courses)
    for (const event of events) if (event.type === 'signed') add(id, [event.agreement])
  return [...found.values()]
}
