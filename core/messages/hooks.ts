import { type Booking, paidOf, planOf, stillFirst } from '../booking/index.ts'
import { type Practice, placeOf, type StepAnchor, serviceOf, zoneOf } from '../practice/index.ts'
import { before, type Instant, instant, MINUTE, shift, type Zone } from '../time/index.ts'

/** The moment a step hangs on, what names it, and from when on it counts; nothing where there is none (yet). */
export interface Hook {
  at: Instant
  anchor: number
  from: Instant
}

/** By when the next part of a price that is still open is due. */
export function nextPayment(booking: Booking, there: Zone): Instant | undefined {
  if (booking.owes) return stillFirst(booking, there)?.until
  let left = paidOf(booking)
  for (const { amount, due } of planOf(booking, there)) {
    left -= amount
    if (left < 0) return due
  }
  return undefined
}

/** By when what is to be done before a session is to be done; nothing where there is nothing, or it is done. */
export function prepareBy(practice: Practice, booking: Booking): Instant | undefined {
  if (booking.status !== 'booked') return undefined
  const wanted = serviceOf(practice, booking.service)?.before
  const there = zoneOf(practice, placeOf(practice, booking.place))
  const { course, prepared, start } = booking
  const dues = [
    ...(wanted?.tick && prepared === undefined ? [wanted.by ? before(start, wanted.by, there) : start] : []),
    ...(course && !course.done ? [before(start, course.by, there)] : []),
  ]
  return dues.length === 0 ? undefined : instant(Math.min(...dues))
}

const on = (at: Instant | undefined, from: Instant): Hook | undefined =>
  at === undefined ? undefined : { at, anchor: at, from }

const told = ({ tells }: Booking, step: string): Hook | undefined =>
  tells?.step === step ? { at: tells.due, anchor: tells.seq, from: tells.due } : undefined

/** What a kind of step hangs on, of a booking as it stands; nothing where there is nothing of it (yet, or any more). */
export function hookOf(
  practice: Practice,
  booking: Booking,
  anchor: StepAnchor,
  there: Zone,
): Hook | undefined {
  const { status, start, minutes, worded, placedAt, owes, offers, awaited } = booking
  const placed = instant(Math.max(worded ?? 0, placedAt ?? 0))
  const waits = status === 'requested' && !booking.unproved
  switch (anchor) {
    case 'asked':
      return waits && !owes && offers.length === 0
        ? { at: awaited.at, anchor: awaited.seq, from: awaited.at }
        : undefined
    case 'offered':
      return waits && offers.length > 0 ? told(booking, 'offered') : undefined
    case 'declined':
      return status === 'declined' ? told(booking, 'declined') : undefined
    case 'cancelled':
      return status === 'cancelled' ? told(booking, 'cancelled') : undefined
    case 'booked':
      return status === 'booked' ? on(worded, placed) : undefined
    case 'moved':
      return status === 'booked' && booking.placed > 1 && placedAt !== undefined
        ? on(placedAt, placedAt)
        : undefined
    case 'payment':
      return (waits && owes) || status === 'booked' || status === 'attended'
        ? on(nextPayment(booking, there), owes ? owes.given : placed)
        : undefined
    case 'preparation':
      return on(prepareBy(practice, booking), placed)
    case 'start':
      return status === 'booked' ? { at: start, anchor: booking.placed, from: placed } : undefined
    case 'end':
      return status === 'booked' || status === 'attended'
        ? { at: shift(start, minutes * MINUTE), anchor: booking.placed, from: placed }
        : undefined
    case 'missed':
      return status === 'missed' ? on(booking.wentAt, booking.wentAt ?? placed) : undefined
    case 'quoted':
      return undefined
  }
}
