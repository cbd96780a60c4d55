import type { Contact, DeskDoes, Start, StateName, StoredEvent } from '../booking/index.ts'
import type { Currency } from '../money/index.ts'
import type { Entry } from '../openings/index.ts'
import type { CourseEvent } from '../preparing/index.ts'
import type { Answers, Outcome } from '../questions/index.ts'
import type { Instant } from '../time/index.ts'
import type { FreedEvent, LineEvent } from '../waiting/index.ts'
import type { Enquiry, EnquiryNews } from './types.ts'

/** One request as its practitioner reads it away from the desk: what is needed to decide, and nothing that is private. */
export interface WordView {
  booking: string
  practitioner: string
  name: string
  known: boolean
  service: string
  minutes: number
  price: number
  currency: Currency
  place: string
  placeId: string
  start: Instant
  /** The practice's zone, by whose clock it is told; and the client's. */
  zone: string
  clientZone: string
  state: StateName
  until: Instant
  outcome: Outcome
  /** What the rules say of it, and what else makes one look. */
  reasons: string[]
  /** What may be read of the answers. */
  answers: { question: string; answer: string }[]
  /** How often they answered differently before. */
  attempts: number
  question?: { text: string; reply?: string }
  /** The decision that can still be taken back. */
  undo?: { of: number; until: Instant }
  /** What was said last with a decision. */
  text: string
  /** The fingerprint of what is decided on. */
  shown: string
  now: Instant
}

/** A session of the day, on the practitioner's phone. */
export interface DaySession extends Start {
  booking: string
  name: string
  phone?: string
  service: string
  minutes: number
  placeName: string
  /** Where one goes, or what one opens. */
  address?: string
  state: StateName
  begun: boolean
  over: boolean
  /** Whether it can be said that it was missed. */
  missable: boolean
  /** What one's own part gives the client, in percent of the price: for cancelling now, for coming later than `after`. */
  gives?: { cancelling: number; after: number; late: number }
  /** What has been said of one's being late, in minutes. */
  late?: number
  undo?: { of: number; until: Instant }
  shown: string
}

/** The practitioner's day on the phone. */
export interface DayView {
  practitioner: string
  zone: string
  /** Of today and tomorrow, in order of time. */
  sessions: DaySession[]
  /** Who waits for a word, the most urgent first. */
  waiting: WordView[]
  now: Instant
}

/** What is decided away from the desk. */
export interface AwayBody {
  command: DeskDoes
  /** The fingerprint of what it was decided on. */
  seen: string
}

/** One line of the relay's record, as the desk fetches it. */
export type RecordItem = { n: number; at: Instant } & (
  | { kind: 'booking'; subject: string; seq: number; body: StoredEvent }
  | { kind: 'enquiry'; subject: string; seq: number; body: Enquiry | EnquiryNews }
  | { kind: 'mail'; subject: string; seq: number; body: MailNews }
  | { kind: 'waiting'; subject: string; seq: number; body: LineEvent }
  | { kind: 'freed'; subject: string; seq: number; body: FreedEvent }
  | { kind: 'course'; subject: string; seq: number; body: CourseEvent }
)

/** What became of a message. */
export interface MailNews {
  step: string
  /** `waiting`: it was not taken, and is tried again; `unknown`: it was being handed over when the relay ended. */
  state: 'waiting' | 'sent' | 'failed' | 'taken-back' | 'unknown' | 'skipped'
  /** By text; by mail where it is left out. */
  channel?: 'text'
  /** The event it hangs on. */
  anchor?: number
  to: string
  subject: string
  due: Instant
  reason?: string
  /** As it went, with private links masked, and the fingerprint of that. */
  text?: string
  print?: string
}

/** What a desk gives back to a relay whose file is older than what it has told. */
export interface GiveBackBody {
  bookings: { id: string; events: StoredEvent[] }[]
  lines: { id: string; events: LineEvent[] }[]
  freed: { id: string; events: FreedEvent[] }[]
  courses: { id: string; events: CourseEvent[] }[]
  enquiries: Enquiry[]
  /** The newest head of the chain of agreements, where the relay's own stands somewhere before it. */
  chain?: string
  /** The last running number of an invoice that the desk knows. */
  numbered?: number
}

/** People who are forgotten: by the hashes of their addresses, and until when what began of theirs goes. */
export interface ForgetBody {
  people: { hashes: string[]; before: Instant }[]
}

/** Of what a relay has records, and how many lines each has. */
export interface Holdings {
  bookings: Record<string, number>
  lines: Record<string, number>
  freed: Record<string, number>
  courses: Record<string, number>
  enquiries: Record<string, number>
  /** The head of its chain of agreements; empty before the first. */
  chain: string
}

export interface RecordPage {
  items: RecordItem[]
  /** The running hash of the record as it is at the cursor that was asked from, and at the last of these; empty where that is not known. */
  before: string
  print: string
  /** The newest number there is. */
  last: number
  /** The oldest number kept; below it the relay has forgotten. */
  first: number
  now: Instant
}

/** What the relay knows of one of the practitioner's other calendars. */
export interface CalendarState {
  id: string
  url: string
  /** When reading it was last tried. */
  tried: Instant
  /** When it was last read in full; absent before that. */
  read?: Instant
  /** Why it could not be read the last time; its intervals are those of the time before. */
  problem?: string
  /** What in it could not be understood. */
  skipped: string[]
  entries: Entry[]
}

/** A decision of the practitioner's about a booking. */
export interface DeskCommand {
  booking: string
  command: DeskDoes
  /** The fingerprint of what it was decided on; nothing where it matters to none of it. */
  seen?: string
}

/** An answer to an enquiry, by mail. */
export interface AnswerBody {
  enquiry: string
  text: string
}

/** A quote to be sent to somebody, for an enquiry there is or as a new one. The relay reckons it. */
export interface QuoteBody {
  enquiry: string
  service: string
  person: Contact
  answers?: Answers
  extras?: string[]
  travel?: string
  code?: string
  until: Instant
  text: string
  /** By text message, to the phone given with the person; by mail where nothing is said. */
  by?: 'text'
  /** The fingerprint of the quote as the desk showed it. */
  shown?: string
}

/** Somebody booked in by hand. */
export interface EnterBody extends Start {
  id: string
  service: string
  minutes: number
  person: Contact
  /** Also into another session, after that has been said. */
  clash: boolean
  /** Asked on the phone; absent when booked in without questions. */
  answers?: Answers
  extras?: string[]
  travel?: string
  code?: string
  address?: string
  /** A word that goes with the confirmation. */
  text?: string
  /** No confirmation is sent. */
  silent?: boolean
  /** The fingerprint of the quote as the desk showed it. */
  shown?: string
}

/** A desk that wants to be paired. */
export interface PairBody {
  code: string
  /** The id of the desk's practice. */
  practice: string
  /** Whether a desk paired before may be cut off. */
  replace: boolean
  /** What may go from the relay: what it holds of another practice, or all. Nothing where it is left out. */
  empty?: 'others' | 'all'
}

export interface RelayStatus {
  now: Instant
  /** The demo's clock has been moved forward by hand. */
  moved: boolean
  /** Whether any desk is paired with it. */
  paired: boolean
  revision: number
  /** The id of the demo practice, where it hands that out. */
  demo?: string
  /** Where the door is reached, with a slash at the end. */
  doorUrl: string
  /** Cards can be taken, and whether money is meant. */
  till?: 'live' | 'trial'
  /** The clock has leapt, and nothing happens by itself until the desk says that it is right. */
  leapt?: { from: Instant; to: Instant }
}
