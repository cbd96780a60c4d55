import type { DeskDoes, StoredEvent } from '@acolhida/core/booking'
import type {
  AnswerBody,
  DeskCourse,
  DeskFreed,
  DeskLine,
  EndSeriesBody,
  EnterBody,
  ForgetBody,
  MoveSeriesBody,
  QuoteBody,
  SeriesBody,
} from '@acolhida/core/contract'
import type { Practice } from '@acolhida/core/practice'
import type { Course, CourseEvent } from '@acolhida/core/preparing'
import type { FileKind } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import type { Freed, FreedEvent, LineEvent, PlaceInLine } from '@acolhida/core/waiting'
import type { SealKeys } from '../../seal/open.ts'

/** The practice, and what belongs to it as a whole. There is one row. */
export interface PracticeRow {
  id: 'practice'
  practice: Practice
  salt: string
  /** With it private answers are opened; made when it is first needed. */
  seal?: SealKeys
}

/** How this desk and the relay stand to each other. There is one row. */
export interface Connection {
  id: 'link'
  /** The desk's key; absent while it is not paired. */
  key?: string
  /** How far the relay's record has been fetched. */
  cursor: number
  /** The running hash of that record there: where the relay has another, its file is an older one. */
  print?: string
  /** The revision last published. */
  revision: number
  /** The fingerprint of what was last published. */
  published: string
  /** The address of the private feed of bookings, if one has been asked for. */
  feed?: string
  /** The relay no longer has, or never had, what this desk knew of it. */
  gap?: boolean
}

export interface EventRow {
  booking: string
  seq: number
  event: StoredEvent
}

/** Something the practitioner has decided that has not reached the relay, or was refused there. */
export interface Intention {
  order: number
  /** Says the same thing to the relay once. */
  key: string
  booking: string
  command:
    | DeskDoes
    | { do: 'enter'; body: EnterBody }
    | { do: 'series'; body: SeriesBody }
    | { do: 'end-series'; body: EndSeriesBody }
    | { do: 'move-series'; body: MoveSeriesBody }
    | { do: 'answer'; body: AnswerBody }
    | { do: 'quote'; body: QuoteBody }
    | { do: 'waiting'; body: DeskLine }
    | { do: 'freed'; body: DeskFreed }
    | { do: 'course'; body: DeskCourse }
    | { do: 'forget'; body: ForgetBody }
  at: Instant
  /** The fingerprint of what it was decided on. */
  seen?: string
  refused?: { code: string; message: string }
}

/** Something that happened to a booking without this desk: it stands on Today until it is put away. */
export interface NewsRow {
  /** The booking. */
  id: string
  at: Instant
  what: News
}

/** What can have happened. */
export type News =
  | 'withdrawn'
  | 'refused'
  | 'cancelled'
  | 'lapsed'
  | 'not-paid'
  | 'paid'
  | 'straight'
  | 'accepted'
  | 'called-off'
  | 'moved'
  | 'pleaded'
  | 'away'

/** A place in line: its record, and what it makes of it. */
export interface LineRow {
  id: string
  events: LineEvent[]
  line: PlaceInLine
  /** For the index: whose it is, for what, and whether it still is one. */
  mail: string
  service: string
  open?: 1
}

/** A time that has come free. */
export interface FreedRow {
  id: string
  at: Instant
  events: FreedEvent[]
  freed: Freed
  open?: 1
}

/** What somebody was given to do: its record, and what it makes of it. */
export interface CourseRow {
  id: string
  events: CourseEvent[]
  course: Course
  /** For the index: whose it is, with which booking it goes, and whether something of it is open. */
  mail: string
  booking?: string
  open?: 1
  /** Until when what was done last can be taken back. */
  undo?: Instant
}

/** A file given as an answer, with what is in it. */
export interface FileRow {
  id: string
  name: string
  type: FileKind
  data: Uint8Array<ArrayBuffer>
}

/** A file given as an answer that is not here yet. */
export type WantedFile = Omit<FileRow, 'data'>

/** The practice as it was before a change, to go back to. */
export interface PracticeChange {
  order: number
  /** What was changed, in words. */
  what: string
  at: Instant
  before: Practice
}
