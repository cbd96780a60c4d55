import {
  bookingSubject,
  calendarSubject,
  courseSubject,
  enquirySubject,
  freedSubject,
  houseSubject,
  nameOf,
  type Subject,
  visitSubject,
  waitingSubject,
} from '../agenda/index.ts'
import { Refused, type Turned } from '../request/index.ts'
import type { Change } from './changes.ts'
import { giveWithBookings } from './course.ts'
import { fillWhatIsFree } from './filling.ts'
import type { House } from './house.ts'
import { numbersGiven } from './numbered.ts'
import { type About, type Does, replanned, type Work } from './work.ts'

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
    if (!work.still) {
      fillWhatIsFree(work)
      giveWithBookings(work)
    }
    if (about.once) {
      const { key, print } = about.once
      const subject = work.subject ? { subject: work.subject } : {}
      work.changes.push({ type: 'answered', answered: { key, print, answer, at: about.now, ...subject } })
    }
    work.changes.push(...numbersGiven(house, work.changes, work.numbered))
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
    case 'sealed':
      return { kind: change.kind, id: change.id }
    case 'waiting':
      return waitingSubject(change.id)
    case 'freed':
      return freedSubject(change.id)
    case 'course':
      return courseSubject(change.id)
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
    // What goes with a session hangs on when that is.
    const course = change.type === 'event' ? house.booking(change.booking)?.course : undefined
    if (course) touched.set(nameOf(courseSubject(course.id)), courseSubject(course.id))
  }
  return touched.size === 0 ? changes : [...changes, ...replanned(house, changes, touched.values())]
}
