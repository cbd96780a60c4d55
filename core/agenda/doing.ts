import type { Booking } from '../booking/index.ts'
import type { CalendarState } from '../contract/desk-types.ts'
import type { Enquiry, EnquiryNews } from '../contract/types.ts'
import { messageName, type Step, type Which } from '../messages/index.ts'
import type { Practice } from '../practice/index.ts'
import type { Course } from '../preparing/index.ts'
import { type Instant, instant } from '../time/index.ts'
import type { Freed, PlaceInLine } from '../waiting/index.ts'
import { nameOf, type Subject } from './subject.ts'

/** What can happen by itself, each with what is its own. */
interface Own {
  /** A hold has run out. */
  lapse: object
  /** A decision can't be taken back any more: what it gave up is free. */
  settle: { of: number }
  /** A start is no longer kept for a visit. */
  unkeep: object
  /** A group date has too few people, or enough. */
  judge: object
  /** A message goes. */
  message: Which
  /** The till is asked how a payment stands, or to take what is charged. */
  'ask-till': { payment: string }
  /** What came by card is given back. */
  'give-back': { payment: string; n: number; amount: number }
  /** A calendar is read. */
  'read-calendar': object
  /** What was answered, and is needed here no more, is sealed for the desk. */
  seal: object
  /** What is too old is forgotten. */
  forget: object
}

/** Something that happens by itself. */
export type Doing = { [K in keyof Own]: { do: K } & Own[K] }[keyof Own]

interface DoingKind<K extends keyof Own> {
  /** Whether it changes how things stand; such are carried out before anything later is. */
  changesState: boolean
  /** What tells it from another of its kind about the same subject; never used for something else later. */
  name?(doing: Own[K]): string
}

/** Everything about each thing that happens by itself, but for what it does (`core/house/itself.ts`, `relay/due`). */
const DOINGS: { [K in keyof Own]: DoingKind<K> } = {
  lapse: { changesState: true },
  settle: { changesState: true, name: ({ of }) => String(of) },
  unkeep: { changesState: true },
  judge: { changesState: true },
  message: { changesState: false, name: messageName },
  'ask-till': { changesState: false, name: ({ payment }) => payment },
  'give-back': { changesState: false, name: ({ payment, n, amount }) => `${payment}/${n}/${amount}` },
  'read-calendar': { changesState: false },
  seal: { changesState: false },
  forget: { changesState: false },
}

/** `at` is the first moment it may be done: an inclusive end is over a moment later. */
export interface Due {
  key: string
  at: Instant
  subject: Subject
  doing: Doing
}

/** Whether a due thing changes how things stand; such are carried out before anything later is. */
export const changesState = ({ doing }: Due): boolean => DOINGS[doing.do].changesState

/** Names a due thing for good: the same thing has the same name whenever it is planned. */
export function keyOf(subject: Subject, doing: Doing): string {
  const kind = DOINGS[doing.do] as { name?(doing: Doing): string }
  const own = `${nameOf(subject)}/${doing.do}`
  return kind.name ? `${own}/${kind.name(doing)}` : own
}

/** A due thing. @param at in ms */
export const due = (subject: Subject, doing: Doing, at: number): Due => ({
  key: keyOf(subject, doing),
  at: instant(at),
  subject,
  doing,
})

/** What became of a message so far. */
export interface Message {
  /**
   * `again`: it could not be handed over and is tried again at `due`. `handed`: it is being handed to the mail host.
   * `unknown`: the relay ended while it was. `skipped`: it was not to go after all. Others are final.
   */
  state: 'again' | 'handed' | 'sent' | 'unknown' | 'failed' | 'taken-back' | 'skipped'
  step: Step
  tries: number
  due: Instant
  /** What it hangs on, and by what it goes, where that is not mail. */
  anchor?: number
  channel?: 'text'
}

/** What planning looks at. */
export interface Planner {
  practice: Practice | undefined
  /** Whether there is a desk's key to seal with. */
  seals: boolean
  booking(id: string): Booking | undefined
  keep(visit: string): { until: Instant } | undefined
  enquiry(id: string): Enquiry | undefined
  enquiryNews(id: string): readonly EnquiryNews[]
  /** A place in line, and a freed time. */
  line(id: string): PlaceInLine | undefined
  freed(id: string): Freed | undefined
  /** What was given to somebody; everything that whoever has an address (in its normal form) was given. */
  course(id: string): Course | undefined
  coursesOf(mail: string): Course[]
  calendars(): readonly CalendarState[]
  /** Whether a due thing has been done. */
  done(key: string, subject: Subject): boolean
  message(key: string, subject: Subject): Message | undefined
  /** When old things were forgotten last. */
  forgotten(): Instant
}

/** Names the judging of one start of a group date: a date moved afterwards is judged anew. */
export const judgedKey = ({ key }: Due, start: Instant): string => `${key} ${start}`

/** In order of time; of one moment, by their names. */
export const inOrder = (a: Due, b: Due): number => a.at - b.at || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)
