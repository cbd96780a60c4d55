import type { Closure } from '../openings/index.ts'
import { type Instant, SECOND, shift, type Zone } from '../time/index.ts'
import { cancelShare } from './deadlines.ts'
import type { Booking, BookingEvent, Command, Refusal, Start } from './record.ts'

/** What a decision may look at besides the booking. */
export interface Circumstances {
  now: Instant
  /** The zone of a booking's place. */
  zone: Zone
  /** The closures of a start for this booking's service, length and person, its own holds left out. */
  closuresOf(start: Start, minutes?: number, service?: string): Closure[]
  /** Until when offered times may stand at most. */
  offersUntil(starts: Start[]): Instant
}

export type Decision = { events: BookingEvent[] } | { refused: Refusal }

/** How long a decision can be taken back, in ms. */
export const UNDO = 8 * SECOND
/** How many times can be offered for one request. */
export const MOST_OFFERS = 3

const refuse = (code: Refusal['code'], message: string, closures?: Closure[]): Decision => ({
  refused: { code, message, ...(closures ? { closures } : {}) },
})

const ENDED: Record<Exclude<Booking['status'], 'requested'>, string> = {
  booked: 'It is booked already.',
  attended: 'The session has taken place.',
  missed: 'The session was missed.',
  declined: 'It has been turned down.',
  lapsed: 'The hold has run out, and the time is free again.',
  withdrawn: 'The client has withdrawn the request.',
  cancelled: 'It has been cancelled.',
}

const notWaiting = (booking: Booking): Decision =>
  refuse('not-waiting', booking.status === 'requested' ? 'The hold has run out.' : ENDED[booking.status])

/** The booking as its client sees it: a decision that can still be undone has not been said yet. */
export const asSeen = (booking: Booking, now: Instant): Booking =>
  booking.unsettled && now <= booking.unsettled.until && booking.unsettled.until > booking.asked.at
    ? booking.unsettled.before
    : booking

/** Whether a request still stands: it waits, and its hold has not run out. */
const waits = (booking: Booking, now: Instant): boolean =>
  booking.status === 'requested' && now <= booking.until

/**
 * What a command makes of a booking: the events to append to its record, or why not. Pure; relay and desk
 * call the same one, and the relay's word counts.
 */
export function decide(booking: Booking, command: Command, about: Circumstances): Decision {
  const { now } = about
  switch (command.do) {
    case 'welcome':
      if (!waits(booking, now)) return notWaiting(booking)
      if (booking.offers.length > 0) {
        return refuse('not-waiting', 'Other times have been offered; the client chooses among them.')
      }
      return { events: [{ type: 'welcomed', at: now, by: 'practitioner', settles: shift(now, UNDO) }] }
    case 'decline':
      if (!waits(booking, now)) return notWaiting(booking)
      return { events: [{ type: 'declined', at: now, text: command.text, settles: shift(now, UNDO) }] }
    case 'offer':
      return waits(booking, now) ? offer(command, about) : notWaiting(booking)
    case 'move':
      return move(booking, command, about)
    case 'take-back':
      if (!booking.unsettled || booking.unsettled.seq !== command.of || now > booking.unsettled.until) {
        return refuse('nothing-to-take-back', 'It is too late to undo this; the message has gone out.')
      }
      return { events: [{ type: 'taken-back', at: now, of: command.of }] }
    case 'overrule': {
      const { outcome, text } = command
      if (booking.status !== 'requested' && booking.status !== 'booked') return notWaiting(booking)
      const current = booking.overruled?.outcome ?? booking.asked.reading.outcome
      if (outcome === current) return { events: [] }
      return { events: [{ type: 'overruled', at: now, outcome, text }] }
    }
    case 'prove':
      return { events: booking.mailProved ? [] : [{ type: 'proved', at: now }] }
    case 'accept':
      return accept(booking, command, now)
    case 'refuse':
      if (!waits(booking, now)) return notWaiting(booking)
      if (booking.offers.length === 0) return refuse('not-offered', 'No other times have been offered.')
      return { events: [{ type: 'refused', at: now, text: command.text }] }
    case 'withdraw':
      return waits(asSeen(booking, now), now)
        ? { events: [{ type: 'withdrawn', at: now }] }
        : notWaiting(booking)
    case 'cancel':
      return cancel(booking, command, about)
    case 'lapse':
      if (booking.status !== 'requested') return { events: [] }
      if (now <= booking.until) return refuse('hold-stands', 'The hold still stands.')
      // The lapse is stamped with the moment it was due, even if nobody was there to see it.
      return { events: [{ type: 'lapsed', at: booking.until }] }
  }
}

function offer(command: Extract<Command, { do: 'offer' }>, about: Circumstances): Decision {
  const { starts, text } = command
  const distinct = new Set(starts.map(({ start, place }) => `${start} ${place}`)).size === starts.length
  if (starts.length < 1 || starts.length > MOST_OFFERS || !distinct) {
    return refuse('too-many-offers', `Offer one to ${MOST_OFFERS} different times.`)
  }
  for (const start of starts) {
    // The practitioner may override every rule but a session, a hold or an event that is in the way.
    const blocking = about.closuresOf(start).filter((c) => ['past', 'overlap', 'full'].includes(c.rule))
    if (blocking.length > 0) return refuse('not-open', 'One of these times is no longer free.', blocking)
  }
  const until = about.offersUntil(starts)
  return {
    events: [{ type: 'offered', at: about.now, starts, until, text, settles: shift(about.now, UNDO) }],
  }
}

/** What the practitioner can't override, unless a clash is wanted: the past, and another session, hold or event. */
export const blockingMove = (closures: readonly Closure[], clash: boolean): Closure[] =>
  closures.filter((one) => one.rule === 'past' || one.rule === 'full' || (one.rule === 'overlap' && !clash))

function move(booking: Booking, command: Extract<Command, { do: 'move' }>, about: Circumstances): Decision {
  const { now } = about
  const { start, place, minutes, text, clash } = command
  const service = command.service ?? booking.asked.service
  if (booking.status !== 'booked') {
    return refuse(
      'not-booked',
      booking.status === 'requested' ? 'It is not booked yet.' : ENDED[booking.status],
    )
  }
  const { asked } = booking
  const same = start === booking.start && place === booking.place && minutes === asked.minutes
  if (same && service === asked.service) return { events: [] }
  const blocking = blockingMove(about.closuresOf({ start, place }, minutes, service), clash)
  if (blocking.length > 0) return refuse('not-open', 'That time is not free.', blocking)
  const other = service === asked.service ? {} : { service }
  return {
    events: [{ type: 'moved', at: now, start, place, minutes, text, settles: shift(now, UNDO), ...other }],
  }
}

function accept(booking: Booking, command: Start, now: Instant): Decision {
  if (!waits(booking, now)) return notWaiting(booking)
  const { start, place } = command
  if (!booking.offers.some((one) => one.start === start && one.place === place)) {
    return refuse('not-offered', 'This time has not been offered, or has been taken back.')
  }
  return { events: [{ type: 'accepted', at: now, start, place }] }
}

function cancel(
  booking: Booking,
  command: Extract<Command, { do: 'cancel' }>,
  about: Circumstances,
): Decision {
  const { now, zone } = about
  if (booking.status !== 'booked') {
    return refuse(
      'not-booked',
      booking.status === 'requested' ? 'It is not booked yet.' : ENDED[booking.status],
    )
  }
  if (command.by === 'client' && now > booking.start) {
    return refuse('too-late', 'The session has begun; please write to the practitioner.')
  }
  const share =
    command.by === 'practitioner' ? 0 : cancelShare(booking.asked.houseRules, booking.start, zone, now)
  return { events: [{ type: 'cancelled', at: now, by: command.by, share, text: command.text }] }
}
