import type { Due, Message, Subject } from '../agenda/index.ts'
import type {
  Asked,
  Attempt,
  Booking,
  BookingEvent,
  BookingStatus,
  ConcernedAs,
  Contact,
} from '../booking/index.ts'
import type { CalendarState, MailNews } from '../contract/desk-types.ts'
import type { DoorPackage, Enquiry, EnquiryNews } from '../contract/types.ts'
import type { CourseEvent } from '../preparing/index.ts'
import type { Answers, FileKind, Reading } from '../questions/index.ts'
import { type Instant, instant, MINUTE } from '../time/index.ts'
import type { FreedEvent, LineEvent, PlaceInLine } from '../waiting/index.ts'

/** A start kept for a visit while the client fills in. */
export interface Keep {
  visit: string
  service: string
  place: string
  start: Instant
  minutes: number
  /** The travel zone, if any. */
  travel?: string
  until: Instant
  renewed: boolean
}

/** What is known of a file given as an answer; its bytes are written in the same transaction. */
export interface FileFacts {
  id: string
  visit: string
  at: Instant
  name: string
  type: FileKind
  size: number
  /** Of its bytes, in hexadecimal. */
  sha256: string
  /** The booking it came with; empty while it waits for one. */
  booking: string
}

/** Answers that are not sent yet, sealed with a key that only their links have; `n`: how often they were kept. */
export interface Half {
  n: number
  sealed: string
}

/** A quote of the practitioner's, as it is kept: reckoned once, and taken as it stands. */
export interface KeptQuote {
  id: string
  enquiry: string
  service: string
  person: Contact
  answers: Answers
  extras: string[]
  travel?: string
  code?: string
  reading: Reading
  until: Instant
  text: string
  /** The booking it has become; empty while it has not. */
  booking: string
}

/** A private link. Who holds it is known by a secret that this machine never sees. */
export interface Link {
  id: string
  subject: Subject
  /** Whether it went by mail, so that opening it shows that the address is theirs. */
  proves: boolean
  /** It went to whoever comes, or pays, for a session that somebody else has asked for. */
  as?: Exclude<ConcernedAs, 'asks'>
  /** A word link: the practitioner's own, for one request, away from the desk. */
  word?: boolean
}

/** The answer that a call was given, so that the same call again gets the same. */
export interface Answered {
  key: string
  /** Of the call's body. */
  print: string
  answer: unknown
  at: Instant
  /** What it was about: it is forgotten with that. */
  subject?: Subject
}

/** What a booking is found by where it is written, without its record. */
export type BookingIndex = Pick<Booking, 'service' | 'place' | 'start' | 'minutes' | 'status' | 'until'> & {
  /** The moment it is over at the latest. */
  over: Instant
  /** The price code, if any. */
  code: string
}

export const rowOf = (booking: Booking): BookingIndex => {
  const { service, place, start, minutes, status, until, asked } = booking
  return { service, place, start, minutes, status, until, over: overAt(booking), code: asked.code ?? '' }
}

/** When a booking is over, and its hold with it. */
export const overAt = ({ start, minutes, until }: Booking): Instant =>
  instant(Math.max(start + minutes * MINUTE, until))

interface Sealed<K extends Subject['kind'], B> {
  type: 'sealed'
  kind: K
  id: string
  body: B
}

/** Everything that can happen to the house. The store writes it, then the memory follows. */
export type Change =
  | { type: 'package'; pack: DoorPackage }
  /** Another practice comes: nothing of the one before stays. */
  | { type: 'emptied' }
  /** `was`: what the booking was before, nothing of a new one; `row`: what it is found by after it. */
  | {
      type: 'event'
      booking: string
      seq: number
      event: BookingEvent
      was?: BookingStatus
      row: BookingIndex
    }
  | { type: 'enquiry'; id: string; seq: number; at: Instant; body: Enquiry | EnquiryNews }
  /** Something has happened to a place in line, or to a freed time. */
  | { type: 'waiting'; id: string; seq: number; event: LineEvent }
  | { type: 'freed'; id: string; seq: number; event: FreedEvent }
  /** Something has happened to what was given to somebody. */
  | { type: 'course'; id: string; seq: number; event: CourseEvent }
  /** Answers of it that are not sent yet, sealed; and that there are none any more. */
  | { type: 'half'; course: string; station: string; half: Half }
  | { type: 'half-gone'; course: string; station: string }
  /** Of what a record begins with, a part is sealed now. */
  | Sealed<'booking', Asked>
  | Sealed<'waiting', PlaceInLine['joined']>
  | Sealed<'enquiry', Enquiry>
  /** A line of the record about a message. */
  | { type: 'mail'; subject: Subject; seq: number; at: Instant; body: MailNews }
  | { type: 'keep'; keep: Keep }
  | { type: 'unkeep'; visit: string }
  /** `gone`: older ones that give way to it. */
  | { type: 'attempt'; visit: string; attempt: Attempt; gone?: readonly Attempt[] }
  /** The attempts of a visit so far stand in an enquiry's record, and are not written into another. */
  | { type: 'attempts-told'; visit: string; enquiry: string }
  /** They stand in a request, and go from the visit with what is sealed of that. */
  | { type: 'attempts-sent'; visit: string; booking: string }
  | { type: 'file'; file: FileFacts }
  | { type: 'claim'; file: string; booking: string }
  | { type: 'quote'; quote: KeptQuote }
  | { type: 'quote-used'; id: string; booking: string }
  | { type: 'link'; link: Link }
  /** No word link leads anywhere any more. */
  | { type: 'words-ended' }
  /** The head of the chain of agreements. */
  | { type: 'chain'; head: string }
  /** The last running number of an invoice. */
  | { type: 'numbered'; n: number }
  | { type: 'calendar'; state: CalendarState }
  | { type: 'calendar-gone'; id: string }
  | { type: 'due'; due: Due }
  | { type: 'undue'; key: string; subject: Subject }
  | { type: 'done'; key: string; subject: Subject; at: Instant }
  | { type: 'message'; key: string; subject: Subject; message: Message }
  | { type: 'answered'; answered: Answered }
  | { type: 'forget'; subject: Subject }
  /** What is kept for a while only: attempts, answered calls, files that wait. */
  | { type: 'forget-old'; short: Instant; files: Instant }
  | { type: 'forgotten'; at: Instant }

/** What listeners are told of a change: that the practice, the openings, or only the record has another state. */
export type Told = 'practice' | 'openings' | 'record'

export function touches(change: Change): Told | undefined {
  if (change.type === 'package' || change.type === 'emptied') return 'practice'
  const taken = ['event', 'waiting', 'keep', 'unkeep', 'calendar', 'calendar-gone', 'done', 'forget']
  if (taken.includes(change.type)) return 'openings'
  return change.type === 'enquiry' ||
    change.type === 'mail' ||
    change.type === 'freed' ||
    change.type === 'course'
    ? 'record'
    : undefined
}
