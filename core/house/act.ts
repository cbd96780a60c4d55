import {
  bookingSubject,
  calendarSubject,
  dueOf,
  enquirySubject,
  houseSubject,
  nameOf,
  type Subject,
  visitSubject,
} from '../agenda/index.ts'
import { apply, type Booking, type BookingEvent, begin } from '../booking/index.ts'
import { Refused, type Turned } from '../request/index.ts'
import type { Instant } from '../time/index.ts'
import { type Change, rowOf } from './changes.ts'
import type { House } from './house.ts'
import { over } from './over.ts'

/** What an act may look at besides the house. */
export interface About {
  now: Instant
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
  /** Happens also when the act is refused. */
  readonly anyhow: Change[]
}

/** One thing that can be done: pure but for what it adds to the work. @throws Refused when it is not done */
export type Does<B, A> = (work: Work, body: B) => A

export type Done<A> = { changes: Change[]; answer: A } | { refused: Turned; changes: Change[] }

/**
 * Carries one act out on paper: reads the house and gives the changes, or why not. It alters nothing. The due things
 * of every subject it touches are reckoned anew and compared with those that are planned.
 */
export function act<B, A>(house: House, does: Does<B, A>, body: B, about: About): Done<A> {
  const before = about.once && house.answered(about.once.key)
  if (before) {
    if (before.print === about.once?.print) return { changes: [], answer: before.answer as A }
    const reused = new Refused(422, 'key-reused', {
      where: 'idempotency-key',
    })
    return { refused: reused, changes: [] }
  }
  const work: Work = { ...about, house, changes: [], anyhow: [] }
  try {
    const answer = does(work, body)
    if (about.once) {
      const { key, print } = about.once
      const subject = work.subject ? { subject: work.subject } : {}
      work.changes.push({ type: 'answered', answered: { key, print, answer, at: about.now, ...subject } })
    }
    return { changes: planned(house, work.changes), answer }
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    return { refused: error, changes: planned(house, work.anyhow) }
  }
}

/** Whom a change can give other things to come; publishing touches open subjects by an act of its own. */
function subjectOf(change: Change): Subject | undefined {
  switch (change.type) {
    case 'event':
      return bookingSubject(change.booking)
    case 'enquiry':
      return enquirySubject(change.id)
    case 'keep':
      return visitSubject(change.keep.visit)
    case 'unkeep':
      return visitSubject(change.visit)
    case 'calendar':
      return calendarSubject(change.state.id)
    case 'calendar-gone':
      return calendarSubject(change.id)
    case 'done':
    case 'message':
    case 'forget':
      return change.subject
    case 'forgotten':
      return houseSubject
    default:
      return undefined
  }
}

/** The changes with those of the agenda that follow from them. */
function planned(house: House, changes: Change[]): Change[] {
  const touched = new Map<string, Subject>()
  for (const change of changes) {
    const subject = subjectOf(change)
    if (subject) touched.set(nameOf(subject), subject)
  }
  return touched.size === 0 ? changes : [...changes, ...replanned(house, changes, touched.values())]
}

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
    if (event.type === 'invoiced') work.changes.push({ type: 'numbered', n: event.n })
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
