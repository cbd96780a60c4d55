import { dueOf, type Subject } from '../agenda/index.ts'
import { apply, type Booking, type BookingEvent, begin } from '../booking/index.ts'
import type { Instant } from '../time/index.ts'
import { type Change, rowOf } from './changes.ts'
import type { House } from './house.ts'
import { over } from './over.ts'

/** What an act may look at besides the house. */
export interface About {
  now: Instant
  /** The time it is, where something is carried out as of an earlier moment of its own. */
  really?: Instant
  /** A new name that nobody can guess. */
  ids(): string
  /** Names this call, so that it is carried out once however often it is said; `print` is its body's fingerprint. */
  once?: { key: string; print: string }
}

/** An act under way: what it reads, and the changes it has come to so far. */
export interface Work extends About {
  readonly house: House
  readonly changes: Change[]
  /** Whom a repeated call's answer is forgotten with. */
  subject?: Subject
  /** The last running number of an invoice that the desk knows, where a relay is given back what it lacks. */
  numbered?: number
  /** What comes free by it is held out to nobody. */
  still?: boolean
  /** Happens also when the act is refused. */
  readonly anyhow: Change[]
}

/** One thing that can be done: pure but for what it adds to the work. @throws Refused when it is not done */
export type Does<B, A> = (work: Work, body: B) => A

/** What differs between the due things planned for some subjects and those that follow from the house. */
export function replanned(house: House, changes: readonly Change[], subjects: Iterable<Subject>): Change[] {
  const next = over(house, changes)
  const differs: Change[] = []
  for (const subject of subjects) {
    const wanted = dueOf(next, subject)
    const planned = house.dues(subject)
    for (const { key } of planned) {
      if (!wanted.some((due) => due.key === key)) differs.push({ type: 'undue', key, subject })
    }
    for (const due of wanted) {
      const same = planned.find((other) => other.key === due.key)
      if (same?.at !== due.at) differs.push({ type: 'due', due })
    }
  }
  return differs
}

/** Lets events happen to a booking, and gives it as it is then. */
export function happen(work: Work, id: string, events: readonly BookingEvent[]): Booking {
  let booking = events[0]?.type === 'asked' ? undefined : bookingIn(work, id)
  for (const event of events) {
    const was = booking?.status
    if (event.type === 'asked') booking = begin(id, event)
    else if (booking) booking = apply(booking, event)
    else throw new Error(`There is no booking ${id}.`)
    work.changes.push({
      type: 'event',
      booking: id,
      seq: booking.seq,
      event,
      row: rowOf(booking),
      ...(was === undefined ? {} : { was }),
    })
  }
  if (!booking) throw new Error(`Nothing happened to ${id}.`)
  return booking
}

/** A booking as it is after what this act has done to it so far. */
const bookingIn = ({ house, changes }: Work, id: string): Booking | undefined =>
  changes.length === 0 ? house.booking(id) : over(house, changes).booking(id)
