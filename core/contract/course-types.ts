import type { Contact, Invoice, PayWay, StateName } from '../booking/index.ts'
import type { TransferTo } from '../ledger/index.ts'
import type { Currency, Minor } from '../money/index.ts'
import type { Rhythm } from '../planning/rhythm.ts'
import type { PreparationKind } from '../practice/index.ts'
import type { Answers, Attached, Question } from '../questions/index.ts'
import type { TextBlock } from '../terms/index.ts'
import type { Instant, LocalDate, WallTime } from '../time/index.ts'
import type { WaitingWindow } from '../waiting/index.ts'
import type { ClockNames } from './link-types.ts'
import type { AgreedVersion, DoorTerms, SealKey, ToldAgreement } from './types.ts'

/** How long answers that are not sent yet may be, sealed. */
export const LONGEST_HALF = 300_000

/** One thing to do, as whoever holds the link reads it. */
export interface StationView {
  id: string
  name: string
  is: PreparationKind
  state: 'open' | 'begun' | 'done' | 'overdue'
  due?: Instant
  done?: Instant
  /** About how long it takes. */
  minutes?: number
  /** So much of a questionnaire. */
  filled?: { answered: number; of: number }
  /** A letter. */
  letter?: TextBlock[]
  /** The PDF that belongs to it, in bytes; asked for by itself. */
  document?: { name: string; size: number }
  /** What is to be brought or ticked, and where. */
  text?: string
  address?: string
  /** What is to be signed, or was. */
  terms?: DoorTerms
  agreement?: ToldAgreement
  /** What is asked; what is known already; what was kept half done, sealed by this browser or another. */
  questions?: Question[]
  known?: Answers
  half?: { n: number; sealed: string }
  files?: Pick<Attached, 'name' | 'size'>[]
}

/** What was given to somebody at once. */
export interface CourseView {
  course: string
  at: Instant
  text?: string
  path?: PathView
  /** The session it goes with. */
  session?: { service: string; start: Instant; minutes: number; clocks: ClockNames }
  stations: StationView[]
}

/** How a path stands, as its client reads it. */
export interface PathView {
  name: string
  currency: Currency
  price: Minor
  /** How its line goes: things to do, sessions and payments by their ids. */
  order: string[]
  sessions: {
    id: string
    name: string
    minutes: number
    is: 'left' | 'planned' | 'used'
    booking?: string
    start?: Instant
    clocks?: ClockNames
  }[]
  pays: { id: string; amount: Minor; due: Instant; is: 'paid' | 'open' | 'overdue' }[]
  used: number
  planned: number
  left: number
  paid: Minor
  open: Minor
  transfer?: TransferTo
  /** What can be paid by card now: all that is due, or the next part. And what was asked of the till last, unless it went well. */
  byCard?: Minor
  till?: { is: 'open' | 'failed' | 'over'; amount: Minor; text: string }
  /** Why nothing of it can be planned for the time being. */
  paused?: string
  /** Where what is left could be planned, the next session's places. */
  plan?: { places: { id: string; name: string /** IANA name. */; zone: string }[] }
}

/** What is planned of a path by its client: a rhythm, from a date on, at a time of day by the place's clock. */
export interface PlanPathBody {
  course: string
  place: string
  rhythm: Rhythm
  first: LocalDate
  time: WallTime
  windows?: WaitingWindow[]
}
export interface PathPlan {
  /** Whose clock the starts are told by. */
  clocks: ClockNames
  sessions: {
    session: string
    name: string
    minutes: number
    meant: LocalDate
    start?: Instant
    days: number
    off: number
    /** Other starts of that day. */
    others: Instant[]
  }[]
}
/** Pays by card for a path: as much as was shown. */
export interface PayPathBody {
  course: string
  amount: Minor
}
export interface BookPathBody {
  course: string
  place: string
  sessions: { session: string; start: Instant }[]
}

/** The invoices made of one session, or of a path. */
export interface InvoicesView {
  invoices: Invoice[]
  currency: Currency
  clocks: ClockNames
}

/** Everything of one person, behind a private link of theirs. */
export interface YoursView {
  slug: string
  practitioner: string
  name: string
  courses: CourseView[]
  /** Their sessions: to come, then those that were; each is opened by the same link. */
  sessions: {
    booking: string
    service: string
    start: Instant
    minutes: number
    state: StateName
    clocks: ClockNames
    /** The link leads to this one by itself. */
    own?: boolean
  }[]
  /** What they have agreed to. */
  agreements: ToldAgreement[]
  /** The invoices made of each of their sessions and paths. */
  invoices: InvoicesView[]
  /** Services that they can book by this link, also such as are for them alone. */
  again: { id: string; name: string }[]
  /** By whose clock dates are told that hang on no session. */
  clocks: ClockNames
  /** With it answers are sealed before they leave the browser. */
  seal?: SealKey
  now: Instant
}

/** What somebody does with one thing that there is to do. */
export type StationDoes =
  | { do: 'done' }
  | { do: 'undone' }
  | { do: 'sign'; name: string; agreed: AgreedVersion[] }
  /** All that was answered, each sealed for the desk; and how many of how many. */
  | { do: 'answer'; answers: Answers; answered: number; of: number }
  | { do: 'bring'; files: Attached[] }
export interface StationBody {
  course: string
  station: string
  does: StationDoes
}

/** Answers that are not sent yet, sealed with a key that this link alone has; on top of those last seen. */
export interface HalfBody {
  course: string
  station: string
  /** How often it had been kept, as far as this page knew. */
  n: number
  sealed: string
  answered: number
  of: number
}

/** What the practitioner does with what somebody was given. */
export type DeskCourseDoes =
  | {
      do: 'give'
      person: Contact
      preparations: string[]
      /** A path, in place of single preparations. */
      path?: string
      booking?: string
      text?: string
      silent?: boolean
    }
  | { do: 'chase'; text: string }
  /** It is done, or to be done once more, by the practitioner's word. */
  | { do: 'done'; station: string }
  | { do: 'undone'; station: string }
  /** It is over; and so much of what has come is given back with it. */
  | { do: 'end'; back?: Minor }
  /** Something has come for a path, or was given back (below nothing). */
  | { do: 'pay'; amount: Minor; way: PayWay; text?: string; source?: string }
  /** An invoice of these parts of its price; and one that takes another back. */
  | { do: 'invoice'; parts: string[] }
  | { do: 'correct-invoice'; number: string; text: string }
  | { do: 'pause'; text: string }
  | { do: 'resume' }
  /** So many sessions more, each like one of its own, at a price for all of them. */
  | { do: 'extend'; like: string; many: number; price: Minor }
  | { do: 'take-back'; of: number }
export interface DeskCourse {
  course: string
  command: DeskCourseDoes
}
