import type { Invoice, StoredEvent } from '../booking/index.ts'
import type { Enquiry, EnquiryNews, MailNews, SealKey } from '../contract/index.ts'
import type { Entry } from '../openings/index.ts'
import type { Person, Reply } from '../people/index.ts'
import type { Practice, Standing } from '../practice/index.ts'
import type { CourseEvent } from '../preparing/index.ts'
import type { FileKind } from '../questions/index.ts'
import type { Instant } from '../time/index.ts'
import type { FreedEvent, LineEvent, Waiting } from '../waiting/index.ts'

/** The version of both file formats that this program writes. */
export const FILE_VERSION = 1

/** A practice in a file, with the sessions and people the computation may need. */
export interface PracticeFile {
  format: 'acolhida-practice'
  version: typeof FILE_VERSION
  practice: Practice
  sessions?: Entry[]
  /** In a file, a person's standing can be given; a desk derives it from what has taken place. */
  people?: (Person & { standing?: Standing })[]
  /** Who waits for a time, in no order. */
  waiting?: Waiting[]
}

/** One booking with everything that happened to it. */
export interface BookingRecord {
  id: string
  events: StoredEvent[]
}

/** An enquiry with what the practitioner has made of it. */
export type DeskEnquiry = Enquiry & {
  state: 'open' | 'answered' | 'booked' | 'ended'
  history?: EnquiryNews[]
}

/** A file that came as an answer, with what is in it in base64. */
export interface KeptFile {
  id: string
  name: string
  type: FileKind
  data: string
}

/** What the relay told of one message. `n` is its place in the relay's record. */
export type SentMail = MailNews & { n: number; at: Instant; booking: string }

/** Somebody who was forgotten: nothing by which they could be known, but to who has their address already. */
export interface ForgottenPerson {
  id: string
  /** Of their addresses; see `mailHash`. */
  hashes: string[]
  at: Instant
  agreements: { print: string; previous: string }[]
  /** The invoices that were made to them, without their name: they have running numbers. */
  invoices: Invoice[]
}

/** Everything a desk holds, in a file. */
export interface Backup {
  format: 'acolhida-backup'
  version: typeof FILE_VERSION
  practice: Practice
  people: Person[]
  /** Bookings as their records. */
  bookings: BookingRecord[]
  enquiries: DeskEnquiry[]
  /** What became of the messages about bookings. */
  mails: SentMail[]
  /** Sessions entered by hand. */
  sessions: Entry[]
  /** Mails that came back and were put beside people. */
  replies?: Reply[]
  /** Places in line, and times that came free, as their records. */
  lines?: { id: string; events: LineEvent[] }[]
  freed?: { id: string; events: FreedEvent[] }[]
  /** What people were given to do, as their records. */
  courses?: { id: string; events: CourseEvent[] }[]
  /** Who was forgotten; and of their agreements the numbers, so that the chain still holds. */
  forgotten?: ForgottenPerson[]
  /** Files given as answers. */
  files?: KeptFile[]
  /** The desk's key, both halves: without it sealed answers stay sealed. */
  seal?: SealKey & { d: string }
  salt: string
  revision: number
  /** How far the relay's record has been fetched. */
  cursor: number
}
