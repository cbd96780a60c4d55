import type { Closure } from '../openings/index.ts'
import { epochMs } from '../shape/plain.ts'
import { id, list, maybe, object, one, said, text, whole, yes } from '../shape/shape.ts'
import { type Instant, instant, shift, type Zone } from '../time/index.ts'
import { apply } from './apply.ts'
import {
  type All,
  type Circumstances,
  type Command,
  type CommandKind,
  type Commands,
  type Decision,
  happened,
  MOST_OFFERS,
  notBooked,
  notWaiting,
  refuse,
} from './command.ts'
import { costOf, movable } from './deadlines.ts'
import { isNoted } from './events.ts'
import type { BookingEvent } from './happening.ts'
import { INVOICING } from './invoicing.ts'
import { MESSAGING } from './messaging.ts'
import { givesForCancelling } from './mine.ts'
import { NOTING } from './noting.ts'
import { owedFirst } from './plan.ts'
import { type Booking, MOST_LENGTH, type Start } from './record.ts'
import { hasBegun, isHeld, type StateName, seenAt, stateAt, UNDO, undoableAt } from './state.ts'
import { TILLING } from './tilling.ts'

const words = text(5_000)
const silent = maybe(yes)

/** A request that has run out can still be answered, where it is known that an answer reaches whoever asked. */
const canStillAnswer = ({ mailProved }: Booking, is: StateName): boolean => is === 'lapsed' && mailProved

/** Everything about each command: its shape, and what it makes of a booking. */
export const COMMANDS: Commands = {
  ...NOTING,
  ...INVOICING,
  ...TILLING,
  ...MESSAGING,
  welcome: {
    shape: { text: maybe(words), silent },
    decide: (booking, { text: said, silent }, is, about) => {
      const { now, zone } = about
      const settles = shift(now, UNDO)
      const welcomed = happened({
        ...{ type: 'welcomed', at: now, by: 'practitioner', settles },
        ...(said?.trim() ? { text: said.trim() } : {}),
        ...(silent ? { silent } : {}),
        // Said once more, it is booked without what is waited for.
        ...(is === 'unpaid' ? {} : owedFirst(booking, zone, settles)),
      })
      if (is === 'waiting' || is === 'unpaid') return welcomed
      if (!canStillAnswer(booking, is)) return notWaiting(is)
      // The time has been free meanwhile: somebody else may have it.
      const blocking = blockingMove(about.closuresOf({ start: booking.start, place: booking.place }), false)
      return blocking.length > 0 ? refuse('not-open.move', undefined, blocking) : welcomed
    },
  },
  decline: {
    shape: { text: words, silent },
    decide: (_, { text: said, silent }, is, { now }) =>
      is === 'waiting' || is === 'offered' || is === 'unpaid'
        ? happened({
            ...{ type: 'declined', at: now, text: said, settles: shift(now, UNDO) },
            ...(silent ? { silent } : {}),
          })
        : notWaiting(is),
  },
  offer: {
    shape: { text: words, starts: list(object({ start: epochMs, place: id }), MOST_OFFERS, 1), silent },
    decide: (booking, command, is, about) =>
      // What is booked can be offered other times, too, until it begins: its own is given up with that.
      (is === 'booked' && !hasBegun(booking, about.now)) ||
      is === 'waiting' ||
      is === 'offered' ||
      is === 'unpaid' ||
      canStillAnswer(booking, is)
        ? offer(booking, command, about)
        : notWaiting(is),
  },
  ask: {
    shape: { text: said(5_000) },
    decide: (booking, { text: asks }, is, about) => {
      if (is !== 'waiting') return notWaiting(is)
      const { now } = about
      // For an answer there is more time, once.
      const until = booking.extended ? booking.until : instant(Math.max(booking.until, about.heldFromNow()))
      return happened({ type: 'questioned', at: now, text: asks, until, settles: shift(now, UNDO) })
    },
  },
  'take-back': {
    shape: { of: whole(1, 100_000) },
    decide: (booking, { of }, _, { now }) => {
      if (undoableAt(booking, now)?.of !== of) return refuse('nothing-to-take-back')
      const back: BookingEvent = { type: 'taken-back', at: now, of }
      // Whoever was booked in by hand has asked for nothing: nothing is left to be answered.
      const undone = booking.asked.proof === 'hand' && booking.unsettled?.before.status === 'requested'
      return undone ? happened(back, { type: 'withdrawn', at: now }) : happened(back)
    },
  },
  overrule: {
    shape: { outcome: one('fits', 'look', 'closed'), text: said(2_000) },
    decide: (booking, { outcome, text: why }, is, { now }) => {
      if (!(isHeld({ is }) && is !== 'unproved') && is !== 'booked') return notWaiting(is)
      const current = booking.overruled?.outcome ?? booking.asked.reading.outcome
      return outcome === current ? happened() : happened({ type: 'overruled', at: now, outcome, text: why })
    },
  },
  move: {
    shape: {
      start: epochMs,
      place: id,
      minutes: whole(1, MOST_LENGTH),
      text: words,
      clash: yes,
      service: maybe(id),
      silent,
    },
    decide: (booking, command, is, about) =>
      is === 'booked' ? move(booking, command, about) : notBooked(is),
  },
  except: {
    shape: { granted: yes, text: words, silent },
    decide: (booking, { granted, text: why, silent }, is, { now }) => {
      if (is !== 'booked') return notBooked(is)
      if (!booking.plea || booking.plea.answer) return refuse('not-asked')
      return happened({
        ...{ type: 'excepted', at: now, granted, text: why, settles: shift(now, UNDO) },
        ...(silent ? { silent } : {}),
      })
    },
  },
  cancel: {
    shape: { by: one('practitioner'), text: words, silent },
    decide: (booking, command, _, about) =>
      command.by === 'practitioner'
        ? cancel(booking, command, about)
        : asSeen(booking, about.now, (seen) => cancel(seen, command, about)),
  },
  'move-own': {
    decide: (booking, command, _, about) =>
      asSeen(booking, about.now, (seen) => moveOwn(seen, command, about)),
  },
  reply: {
    decide: (booking, { text: said }, _, { now }) =>
      asSeen(booking, now, (seen) => {
        const { is } = stateAt(seen, now)
        if (is !== 'waiting') return notWaiting(is)
        if (!seen.question || seen.question.reply) return refuse('not-asked')
        return happened({ type: 'replied', at: now, text: said })
      }),
  },
  agree: {
    // To agree contradicts no decision: nothing is taken back for it.
    decide: (booking, { agreements }, _, { now }) => {
      const state = stateAt(seenAt(booking, now), now)
      const open = isHeld(state) || (state.is === 'booked' && !state.over)
      return open ? happened({ type: 'agreed', at: now, agreements }) : notBooked(state.is)
    },
  },
  plead: {
    decide: (booking, { text: why }, _, { now }) =>
      asSeen(booking, now, (seen) => {
        const state = stateAt(seen, now)
        if (state.is !== 'booked') return notBooked(state.is)
        if (state.begun) return refuse('too-late.client')
        return seen.plea ? refuse('not-asked.again') : happened({ type: 'pleaded', at: now, text: why })
      }),
  },
  prove: { decide: (booking, _, is, about) => prove(booking, is, about) },
  accept: { decide: answered },
  refuse: { decide: answered },
  withdraw: { decide: answered },
  lapse: {
    decide: (booking, _, __, { now }) => {
      if (booking.status !== 'requested') return happened()
      if (now <= booking.until) return refuse('hold-stands')
      // The lapse is stamped with the moment it was due, even if nobody was there to see it; where a decision stood
      // in its way and was taken back, with that moment.
      return happened({ type: 'lapsed', at: instant(Math.max(booking.until, booking.latest)) })
    },
  },
}

/**
 * What a command makes of a booking: the events to append to its record, or why not. Pure; relay and desk call the
 * same one, and the relay's word counts. A client's command is judged against what they see; a decision not said yet
 * that it crosses is first taken back.
 */
export function decide(booking: Booking, command: Command, about: Circumstances): Decision {
  const kind = COMMANDS[command.do] as CommandKind<Command>
  return kind.decide(booking, command, stateAt(booking, about.now).is, about)
}

function answered(
  booking: Booking,
  command: All['accept' | 'refuse' | 'withdraw'],
  _: StateName,
  { now, zone }: Circumstances,
): Decision {
  return asSeen(booking, now, (seen) => answer(seen, command, now, zone))
}

/** Decides by what the client sees, and takes back first what they have not been told; what was only noted stays. */
function asSeen(booking: Booking, now: Instant, work: (seen: Booking) => Decision): Decision {
  if (booking.unsettled && isNoted(booking.unsettled)) return work(booking)
  const untold = undoableAt(booking, now)
  const decision = work(seenAt(booking, now))
  if (!untold || 'refused' in decision) return decision
  return { events: [{ type: 'taken-back', at: now, of: untold.of }, ...decision.events] }
}

function prove(booking: Booking, is: StateName, about: Circumstances): Decision {
  const { now } = about
  if (booking.mailProved) return { events: [] }
  if (is !== 'unproved') return { events: [{ type: 'proved', at: now }] }
  const { until, straight, marks, no } = about.proving()
  const proved: BookingEvent = {
    type: 'proved',
    at: now,
    until,
    ...(marks.length > 0 ? { marks } : {}),
  }
  if (no !== undefined)
    return happened(proved, { type: 'declined', at: now, by: 'rules', text: no, settles: now })
  const owes = owedFirst(apply(booking, proved), about.zone, now)
  return straight
    ? happened(proved, { type: 'welcomed', at: now, by: 'rules', settles: now, ...owes })
    : happened(proved)
}

function answer(
  booking: Booking,
  command: Extract<Command, { do: 'accept' | 'refuse' | 'withdraw' }>,
  now: Instant,
  zone: Zone,
): Decision {
  const state = stateAt(booking, now)
  if (command.do === 'withdraw') {
    return isHeld(state) ? { events: [{ type: 'withdrawn', at: now }] } : notWaiting(state.is)
  }
  if (state.is === 'waiting' || state.is === 'unproved') return refuse('not-offered')
  if (state.is !== 'offered') return notWaiting(state.is)
  if (command.do === 'refuse') return { events: [{ type: 'refused', at: now, text: command.text }] }
  const { start, place } = command
  if (!state.starts.some((other) => other.start === start && other.place === place)) {
    return refuse('not-offered.this')
  }
  // What was booked already has had what must come first.
  const owes = booking.worded === undefined ? owedFirst({ ...booking, start, place }, zone, now) : {}
  return happened({ type: 'accepted', at: now, start, place, ...owes })
}

function offer(booking: Booking, command: Extract<Command, { do: 'offer' }>, about: Circumstances): Decision {
  const { starts, text, silent } = command
  const distinct = new Set(starts.map(({ start, place }) => `${start} ${place}`)).size === starts.length
  if (starts.length < 1 || starts.length > MOST_OFFERS || !distinct) {
    return refuse('too-many-offers', { most: MOST_OFFERS })
  }
  for (const start of starts) {
    // The practitioner may override every rule but a session, a hold or an event that is in the way.
    const blocking = about.closuresOf(start).filter((c) => ['past', 'overlap', 'full'].includes(c.rule))
    if (blocking.length > 0) return refuse('not-open.offers', undefined, blocking)
  }
  const { now } = about
  const gives = booking.status === 'booked' ? givesForCancelling(booking, about.zone, now) : 0
  return happened({
    ...{ type: 'offered', at: now, starts, until: about.offersUntil(starts), text },
    ...(gives > 0 ? { gives } : {}),
    ...(silent ? { silent } : {}),
    settles: shift(now, UNDO),
  })
}

/** What the practitioner can't override, unless a clash is wanted: the past, and another session, hold or event. */
export const blockingMove = (closures: readonly Closure[], clash: boolean): Closure[] =>
  closures.filter(
    (closure) => closure.rule === 'past' || closure.rule === 'full' || (closure.rule === 'overlap' && !clash),
  )

function move(booking: Booking, command: Extract<Command, { do: 'move' }>, about: Circumstances): Decision {
  const { now } = about
  const { start, place, minutes, text, clash, silent } = command
  const service = command.service ?? booking.service
  if (hasBegun(booking, now)) return refuse('too-late')
  const same = start === booking.start && place === booking.place && minutes === booking.minutes
  if (same && service === booking.service) return { events: [] }
  const blocking = blockingMove(about.closuresOf({ start, place }, minutes, service), clash)
  if (blocking.length > 0) return refuse('not-open.move', undefined, blocking)
  const other = { ...(service === booking.service ? {} : { service }), ...(silent ? { silent } : {}) }
  return {
    events: [{ type: 'moved', at: now, start, place, minutes, text, settles: shift(now, UNDO), ...other }],
  }
}

function moveOwn(booking: Booking, { start, place }: Start, about: Circumstances): Decision {
  const { now, zone } = about
  const state = stateAt(booking, now)
  if (state.is !== 'booked') return notBooked(state.is)
  if (state.begun) return refuse('too-late.client')
  if (start === booking.start && place === booking.place) return happened()
  const may = movable(booking, zone)
  if (!may) return refuse('too-late.moves')
  if (now > may.until) return refuse('too-late.move')
  const closures = about.closedToClient({ start, place })
  if (closures.length > 0) return refuse('not-open.moving', undefined, closures)
  const least = costOf(booking, zone, now)
  const { minutes } = booking
  return happened({
    type: 'moved',
    at: now,
    start,
    place,
    minutes,
    text: '',
    settles: now,
    by: 'client',
    ...(least > 0 ? { least } : {}),
  })
}

function cancel(
  booking: Booking,
  { by, text, ...how }: Extract<Command, { do: 'cancel' }>,
  { now, zone }: Circumstances,
): Decision {
  const state = stateAt(booking, now)
  if (state.is !== 'booked') return notBooked(state.is)
  if (by === 'practitioner') {
    const gives = givesForCancelling(booking, zone, now)
    const own = {
      by,
      share: 0,
      text,
      ...(gives > 0 ? { gives } : {}),
      ...('silent' in how && how.silent ? { silent: true } : {}),
    }
    return happened({ type: 'cancelled', at: now, ...own, settles: shift(now, UNDO) })
  }
  if (state.begun) return refuse('too-late.client')
  const share = costOf(booking, zone, now)
  return { events: [{ type: 'cancelled', at: now, by, share, text, settles: now }] }
}

/** The booking after events, one by one. */
export const afterEvents = (booking: Booking, events: readonly BookingEvent[]): Booking =>
  events.reduce(apply, booking)
