import { type Entry, entryFor, gatherGroups } from '../openings/index.ts'
import type { Practice } from '../practice/types.ts'
import type { Instant } from '../time/index.ts'
import type { Booking, Start } from './record.ts'
import { undoableAt } from './state.ts'

/** A time that a booking keeps from others. */
export interface TakenTime extends Start {
  kind: 'session' | 'hold'
  service: string
  minutes: number
}

/** What stands of a booking: whether its hold does, and whether its last decision can still be taken back. */
export interface Stands {
  held: boolean
  undoable: boolean
}

/**
 * The times a booking keeps from others: its session, its hold, the times offered for it, and what a decision gives
 * up, as long as that can be taken back.
 */
export function takesWhile(booking: Booking, stands: Stands): TakenTime[] {
  const { status, offers, service, minutes, start, place } = booking
  const own = (kind: TakenTime['kind']): TakenTime => ({ kind, start, place, service, minutes })
  const before = stands.undoable ? booking.unsettled?.before : undefined
  if (status === 'booked' || status === 'attended' || status === 'missed') {
    // Where it was moved from; an earlier request for the same time is no second one.
    const left = before?.status === 'booked' ? takesWhile(before, { held: true, undoable: false }) : []
    return [own('session'), ...left.filter((taken) => taken.start !== start || taken.place !== place)]
  }
  if (status === 'requested' && booking.unproved && booking.asked.unheld) return []
  if (status === 'requested' && stands.held) {
    const offered = offers.map((offer): TakenTime => ({ ...own('hold'), ...offer }))
    if (offered.length === 0) return [own('hold')]
    // What it would be taken back to is still its own; of what had run out, nothing is.
    const given = before && isKept(before) ? takesWhile(before, { held: true, undoable: false }) : []
    const again = (one: TakenTime): boolean =>
      offers.some((offer) => offer.start === one.start && offer.place === one.place)
    return [...given.filter((one) => !again(one)), ...offered]
  }
  return before && (status === 'declined' || status === 'cancelled')
    ? takesWhile(before, { held: true, undoable: false })
    : []
}

/** Whether it keeps a time while nothing ends its hold. */
const isKept = ({ status }: Booking): boolean => status === 'requested' || status === 'booked'

/** The times a booking keeps from others at `now`. */
export const takes = (booking: Booking, now: Instant): TakenTime[] =>
  takesWhile(booking, { held: now <= booking.until, undoable: undoableAt(booking, now) !== undefined })

/** A booking's entries in the diary, before the seats of groups are counted together. */
export const entriesFor = (practice: Practice, booking: Booking, taken: readonly TakenTime[]): Entry[] =>
  taken.map((time) => ({
    ...entryFor(practice, { ...time, id: booking.id, travel: booking.asked.travel }),
    request: booking.id,
  }))

/** The diary entries of bookings at `now`, the seats of a group counted together. */
export function bookingEntries(practice: Practice, bookings: Iterable<Booking>, now: Instant): Entry[] {
  const entries: Entry[] = []
  for (const booking of bookings) entries.push(...entriesFor(practice, booking, takes(booking, now)))
  return gatherGroups(practice, entries)
}
