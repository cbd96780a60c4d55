import type { Contact, Invoice, PayWay, TillPayment } from '../booking/record.ts'
import { tillSource, withTill } from '../booking/till-events.ts'
import type { Minor } from '../money/index.ts'
import type { PreparationDue, PreparationKind } from '../practice/preparation.ts'
import type { TaxNow } from '../practice/tax.ts'
import type { Answers, Attached } from '../questions/index.ts'
import type { Agreement } from '../terms/types.ts'
import { type Instant, shift } from '../time/index.ts'

/** One thing to do, as it was given: what it says is the practice's, what it is and by when stays. */
export interface Station {
  id: string
  /** The preparation it is. */
  preparation: string
  is: PreparationKind
  name: string
  due: PreparationDue
  minutes?: number
  /** What is asked, in the version that was in force: half of it answered, it stays that. */
  questionnaire?: { id: string; version: number }
}

/** One session of a path: how long, how many whole days after the one before, and what it is worth by its minutes. */
export interface PathSession {
  id: string
  service: string
  name: string
  minutes: number
  worth: Minor
  least?: number
  most?: number
}

/** A part of the price of a path, and by when it is to come. */
export interface PathPay {
  id: string
  amount: Minor
  due: Instant
}

/** A path as it was given: what is changed of it in the practice later leaves it as it is. */
export interface GivenPath {
  id: string
  name: string
  price: Minor
  currency: string
  /** The tax in its price, as it was when it was given. */
  tax?: Omit<TaxNow, 'onTop'>
  sessions: PathSession[]
  pays: PathPay[]
  /** How it stands on the line: stations, sessions and payments by their ids. */
  order: string[]
}

/** An invoice of a path: which parts of its price it is for. */
export interface PathInvoice extends Invoice {
  parts?: string[]
}

/** Something was given to somebody: what there is to do, by whom, and for which session. */
export interface GivenToDo {
  person: Contact
  stations: Station[]
  /** The path it is, where it is one. */
  path?: GivenPath
  /** The booking it goes with. */
  booking?: string
  /** A word that goes with it. */
  text?: string
  /** Nothing is written: the confirmation of its booking tells of it, or the practitioner does. */
  silent?: boolean
  /** Until when it can be taken back, and is not told. */
  settles?: Instant
  /** With what it was brought in from another place. */
  broughtIn?: string
}

/** What can happen to a course, each with what is its own. */
export interface OwnOfCourse {
  given: GivenToDo
  /** Its page has been opened. */
  opened: object
  /** So much of a questionnaire is answered, and kept half done. */
  filled: { station: string; answered: number; of: number }
  /** Read, or ticked; `by`: the practitioner has said so. */
  done: { station: string; by: 'client' | 'practitioner' }
  /** It is to be done once more. */
  undone: { station: string; by: 'client' | 'practitioner' }
  answered: { station: string; answers: Answers; answered: number; of: number }
  signed: { station: string; agreement: Agreement }
  brought: { station: string; files: Attached[] }
  /** A session of a path is planned: this booking. */
  booked: { session: string; booking: string }
  /** Something has come for a path, or was given back (below nothing). */
  paid: { amount: Minor; way: PayWay; text?: string; source?: string }
  /** Its client has gone to the till to pay by card; and what the till told of it, but that it was paid. */
  'till-asked': { payment: string; amount: Minor; until: Instant }
  'till-said': { payment: string; message: string; is: 'failed' | 'over'; text: string }
  /** An invoice of parts of a path's price, or what takes one back; `n` is its running number. */
  invoiced: Omit<PathInvoice, 'at'> & { n: number }
  /** Nothing of it is planned for the time being; and it goes on. */
  paused: { text: string }
  resumed: object
  /** More sessions, and what they cost. */
  extended: { sessions: PathSession[]; pays: PathPay[] }
  /** The practitioner has asked again for what is not done. */
  chased: { text: string; settles: Instant }
  /** It is over: what is not done need not be done; and so much of what has come was given back with it. */
  ended: { settles?: Instant; back?: Minor }
  /** What was done last about it is taken back: its giving, its asking again, its end. */
  'taken-back': { of: number }
}

type Whole<T> = { [P in keyof T]: T[P] }
export type CourseEvent = {
  [K in keyof OwnOfCourse]: Whole<{ type: K; at: Instant } & OwnOfCourse[K]>
}[keyof OwnOfCourse]
type EventOf<K extends CourseEvent['type']> = Extract<CourseEvent, { type: K }>

/** How far one thing is. */
export interface HowFar {
  /** When it was done, and by whose word. */
  done?: { at: Instant; by: 'client' | 'practitioner' }
  /** So much of a questionnaire. */
  filled?: { at: Instant; answered: number; of: number }
  answers?: Answers
  agreement?: Agreement
  files?: Attached[]
}

/** What is written to somebody about what there is to do. */
export type CourseStep = 'to-prepare' | 'prepare-chased' | 'prepare-soon' | 'path-pay' | 'path-invoice'

/** What was given to somebody, as its record tells. */
export interface Course {
  id: string
  seq: number
  latest: Instant
  given: EventOf<'given'>
  /** By station. */
  progress: Record<string, HowFar>
  opened?: Instant
  chased?: Instant
  /** Which booking each session of its path is; what has come for it; since when it rests; what it was extended by. */
  booked?: Record<string, string>
  payments?: { seq: number; at: Instant; amount: Minor; way: PayWay; text?: string; source?: string }[]
  /** What was asked of the till, and what has come of it. */
  till?: TillPayment[]
  /** The invoices made of it, and what put one right; in order of their numbers. */
  invoices?: PathInvoice[]
  paused?: { at: Instant; text: string }
  extended?: { at: Instant; sessions: PathSession[]; pays: PathPay[] }[]
  ended?: Instant
  /** So much was given back with its end. */
  back?: Minor
  /** The event that tells them something, in which words, and from when on. */
  tells?: { seq: number; step: CourseStep; due: Instant; text?: string }
  /** What the practitioner has done last, which they can take back until a moment; and what that changed, as it was. */
  unsettled?: { seq: number; until: Instant; before?: Decided }
}
/** What asking again and ending change; nothing else of a course is touched by taking them back. */
type Decided = Pick<Course, 'chased' | 'tells' | 'ended'>

/** A course as it begins. */
export function beginCourse(id: string, given: EventOf<'given'>): Course {
  const { at, settles, silent, text } = given
  const due = settles === undefined ? at : shift(settles, 1)
  return {
    ...{ id, seq: 1, latest: at, given, progress: {} },
    ...(silent ? {} : { tells: { seq: 1, step: 'to-prepare', due, ...(text ? { text } : {}) } }),
    ...(settles === undefined ? {} : { unsettled: { seq: 1, until: settles } }),
  }
}

const withStation = (course: Course, station: string, progress: HowFar): Course => ({
  ...course,
  progress: { ...course.progress, [station]: progress },
})
const by = (at: Instant): HowFar['done'] => ({ at, by: 'client' })
const decided = (course: Course, { chased, tells, ended }: Course, until: Instant): Course => ({
  ...course,
  unsettled: {
    ...{ seq: course.seq, until },
    before: {
      ...(chased === undefined ? {} : { chased }),
      ...(tells ? { tells } : {}),
      ...(ended === undefined ? {} : { ended }),
    },
  },
})
const withPayment = (
  course: Course,
  payment: Omit<NonNullable<Course['payments']>[number], 'seq'>,
): Course => ({
  ...course,
  payments: [...(course.payments ?? []), { seq: course.seq, ...payment }],
})

const APPLY: {
  [K in CourseEvent['type']]: (course: Course, event: EventOf<K>, before: Course) => Course
} = {
  given: (course) => course,
  opened: (course, { at }) => (course.opened === undefined ? { ...course, opened: at } : course),
  filled: (course, { station, at, answered, of }) =>
    withStation(course, station, { ...course.progress[station], filled: { at, answered, of } }),
  done: (course, { station, at, by }) =>
    withStation(course, station, { ...course.progress[station], done: { at, by } }),
  undone: (course, { station }) => {
    const { done: _, ...rest } = course.progress[station] ?? {}
    return withStation(course, station, rest)
  },
  answered: (course, { station, at, answers, answered, of }) =>
    withStation(course, station, { done: by(at)!, filled: { at, answered, of }, answers }),
  signed: (course, { station, at, agreement }) => withStation(course, station, { done: by(at)!, agreement }),
  brought: (course, { station, at, files }) => withStation(course, station, { done: by(at)!, files }),
  booked: (course, { session, booking }) => ({ ...course, booked: { ...course.booked, [session]: booking } }),
  paid: (course, { at, amount, way, text, source }) => {
    const next = withPayment(course, {
      ...{ at, amount, way },
      ...(text ? { text } : {}),
      ...(source ? { source } : {}),
    })
    const told = course.till?.find(({ payment }) => tillSource(payment) === source)
    return told ? { ...next, till: withTill(course, told.payment, { is: 'paid' }) } : next
  },
  'till-asked': (course, { at, payment, amount, until }) => ({
    ...course,
    till: [...(course.till ?? []), { payment, what: 'pay', amount, at, until, is: 'open' }],
  }),
  'till-said': (course, { payment, is, text }) => ({
    ...course,
    till: withTill(course, payment, { is, ...(text ? { text } : {}) }),
  }),
  invoiced: (course, { type: _, n: __, ...invoice }) => ({
    ...course,
    invoices: [...(course.invoices ?? []), invoice],
  }),
  paused: (course, { at, text }) => ({ ...course, paused: { at, text } }),
  resumed: ({ paused: _, ...course }) => course,
  extended: (course, { at, sessions, pays }) => ({
    ...course,
    extended: [...(course.extended ?? []), { at, sessions, pays }],
  }),
  chased: (course, { at, text, settles }, before) =>
    decided(
      {
        ...course,
        chased: at,
        tells: { seq: course.seq, step: 'prepare-chased', due: shift(settles, 1), ...(text ? { text } : {}) },
      },
      before,
      settles,
    ),
  ended: (course, { at, settles, back }, before) => {
    const { tells: _, ...rest } = back ? withPayment(course, { at, amount: -back, way: 'transfer' }) : course
    const over = { ...rest, ended: at, ...(back ? { back } : {}) }
    return settles === undefined ? over : decided(over, before, settles)
  },
  'taken-back': (course, { at, of }) => {
    if (course.unsettled?.seq !== of) return course
    // What has happened meanwhile stays; what came with the act itself goes with it.
    const { unsettled, chased: _, tells: __, ended: ___, back: ____, payments, ...rest } = course
    const kept = payments?.filter(({ seq }) => seq !== of)
    const { before = { ended: at } } = unsettled
    return { ...rest, ...(kept?.length ? { payments: kept } : {}), ...before }
  },
}

/** A course after something has happened to it. */
export function applyCourse(before: Course, event: CourseEvent): Course {
  const course = { ...before, seq: before.seq + 1, latest: event.at }
  return (APPLY[event.type] as (course: Course, event: CourseEvent, before: Course) => Course)(
    course,
    event,
    before,
  )
}

/** A course from its whole record. @throws RangeError for a record that does not begin with its giving */
export function replayCourse(id: string, record: readonly CourseEvent[]): Course {
  const [first, ...rest] = record
  if (first?.type !== 'given') throw new RangeError(`The record of ${id} has no beginning.`)
  return rest.reduce(applyCourse, beginCourse(id, first))
}
