import type { Booking, Telling, TellingStep } from '../booking/index.ts'
import type { Practice } from '../practice/index.ts'
import { DAY, type Instant, shift } from '../time/index.ts'
import type { Words } from './lines.ts'

/** What is written to the practitioner about a booking. */
export type OwnStep =
  | 'word-due'
  | 'new-request'
  | 'client-cancelled'
  | 'client-moved'
  | 'has-lapsed'
  | 'client-replied'
  | 'client-pleads'
/** What is written to the client about theirs. */
export type ClientStep = TellingStep | 'place' | 'running-late' | 'agree' | 'invoice' | 'given-back'
export type BookingStep = ClientStep | OwnStep
/** What a message is about; with subject, channel and anchor it makes the message unique. */
export type Step = BookingStep | 'enquiry-answered' | 'quote'

/** A message, ready but for its private link. */
export interface Letter {
  to: 'client' | 'practitioner'
  subject: string
  /** Plain text; `{link}` stands for the private link, `{door}` for the practitioner's public page, `{word}` for a word link. */
  text: string
  /** The iCalendar method of the invitation that goes with it (RFC 5546). */
  invite?: 'REQUEST' | 'CANCEL'
}

/** What a message about a booking says. */
export interface Written {
  subject: string
  /** Paragraphs; empty ones are left out. */
  body: string[]
  invite?: NonNullable<Letter['invite']>
}

/** When a message goes that tells no new state. */
export interface Planned {
  /** The event it hangs on, by its place in the record. */
  anchor: number
  at: number
  /** The last moment at which it is of use. */
  useful: Instant
}

/** How long news of what has happened is of use. */
export const NEWS = 5 * DAY

/** At the moment at which the client is told, too. */
export const soon = ({ seq, due }: Telling): Planned => ({ anchor: seq, at: due, useful: shift(due, NEWS) })

/** One message about a booking. */
export interface LetterKind {
  write(w: Words, now: Instant): Written
  /** When it goes. One without this tells how things stand, and goes when the record says so. */
  plan?(booking: Booking, practice: Practice | undefined): Planned | undefined
}
