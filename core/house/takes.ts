import { bookingSubject, keyOf } from '../agenda/index.ts'
import { type Booking, entriesFor, takesWhile } from '../booking/index.ts'
import { type Entry, entryFor } from '../openings/index.ts'
import type { Practice } from '../practice/index.ts'
import type { PlaceInLine } from '../waiting/index.ts'
import type { Keep } from './changes.ts'

/**
 * What a booking takes of the diary, by what has been done: its hold stands until the agenda ends it.
 * @param done whether a due thing has been done, by its name
 */
export function bookingTakes(practice: Practice, booking: Booking, done: (key: string) => boolean): Entry[] {
  const { id, unsettled } = booking
  const settle = unsettled && keyOf(bookingSubject(id), { do: 'settle', of: unsettled.seq })
  const undoable = settle !== undefined && !done(settle)
  return entriesFor(practice, booking, takesWhile(booking, { held: true, undoable }))
}

/** What a start kept for a visit takes of it. */
export const keepTakes = (practice: Practice, keep: Keep): Entry[] => [
  entryFor(practice, { ...keep, id: `keep-${keep.visit}`, kind: 'hold' }),
]

/** What is held out to somebody in line. */
export function lineTakes(practice: Practice, { id, offer, joined }: PlaceInLine): Entry[] {
  if (!offer) return []
  const { service, place, travel } = joined
  const { start, minutes } = offer
  return [entryFor(practice, { id: `held-out-${id}`, kind: 'hold', service, place, travel, start, minutes })]
}
