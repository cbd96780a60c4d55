import type { Closure } from '../openings/index.ts'
import type { HouseRules } from '../practice/types.ts'
import type { Answers, Asking, Outcome, Reading } from '../questions/index.ts'
import type { Agreement } from '../terms/types.ts'
import type { Instant } from '../time/index.ts'

/** Who asks, as they wrote it. */
export interface Contact {
  name: string
  email: string
  phone?: string
  /** Their own zone: how times are written to them. */
  zone: string
}

/** A set of answers given during a visit, and what came of it. */
export interface Attempt {
  at: Instant
  service: string
  answers: Answers
  outcome: Outcome
}

export interface Start {
  start: Instant
  place: string
}

interface Happened {
  at: Instant
}

/** A decision that can be taken back while `now ≤ settles`; its message waits as long. */
interface Decided extends Happened {
  settles: Instant
}

/**
 * How it is known that whoever asks can be reached at their address. `open`: not yet, the link mailed to them must be
 * opened first; by the private `link` of an earlier booking, a `quote` or the practitioner's `hand` it is. `earlier`:
 * asked before this was asked for.
 */
export type Proof = 'open' | 'link' | 'quote' | 'hand' | 'earlier'

/** What the practitioner should know of who has asked; the client never sees it. */
export type Mark = 'blocked' | 'not-invited'

export interface Asked extends Happened, Start {
  type: 'asked'
  /** The version of this event; without one it is the first. */
  v: 2
  service: string
  minutes: number
  person: Contact
  /** Who the rules read it as, so that a later look reads it as the same person. */
  asking: Asking
  proof: Proof
  answers: Answers
  questionnaire?: { id: string; version: number }
  reading: Reading
  /** Earlier attempts of the same visit whose answers differed. */
  attempts: Attempt[]
  agreements: Agreement[]
  /** The rules of the day one asked; they stay with the booking. */
  houseRules: HouseRules
  currency: string
  /** Until when the time is held. */
  until: Instant
  /** The fingerprint of what the client, or the practitioner by hand, was shown; empty where nothing was. */
  shown: string
  /** What was added, by id. */
  extras?: string[]
  /** How far the practitioner travels, and where to. */
  travel?: string
  address?: string
  /** The price code, by id. */
  code?: string
}

interface Moved extends Decided, Start {
  type: 'moved'
  minutes: number
  text: string
  service?: string
}

interface Cancelled extends Decided {
  type: 'cancelled'
  by: 'client' | 'practitioner'
  share: number
  text: string
}

/** One thing that happened to a booking. The list of them is the booking. */
export type BookingEvent =
  | Asked
  /** The address has proved true; what was unproved until then is held for the practitioner's word from now on. */
  | (Happened & { type: 'proved'; until?: Instant; marks?: Mark[] })
  | (Decided & { type: 'welcomed'; by: 'practitioner' | 'rules' })
  | (Decided & { type: 'declined'; text: string })
  | (Decided & { type: 'offered'; starts: Start[]; until: Instant; text: string })
  | (Happened & Start & { type: 'accepted' })
  | (Happened & { type: 'refused'; text: string })
  /** To another time, place, length or service; the rules of the day one asked go with it. */
  | Moved
  | (Happened & { type: 'lapsed' })
  | (Happened & { type: 'withdrawn' })
  | Cancelled
  /** The practitioner has judged otherwise than the rules, and says why. */
  | (Happened & { type: 'overruled'; outcome: Outcome; text: string })
  /** Takes the decision `of` (its place in the record, from 1) back as if it had not been. */
  | (Happened & { type: 'taken-back'; of: number })

/** Events as they were written before version 2. */
export type EarlierEvent =
  | (Omit<Asked, 'v' | 'asking' | 'proof' | 'shown'> & { standing: 'new' | 'known'; byHand?: boolean })
  | Omit<Cancelled, 'settles'>

/** Events as files and databases hold them; they are never rewritten. */
export type StoredEvent = BookingEvent | EarlierEvent

export type BookingStatus =
  | 'requested'
  | 'booked'
  | 'attended'
  | 'missed'
  | 'declined'
  | 'lapsed'
  | 'withdrawn'
  | 'cancelled'

/**
 * What a booking has come to, as its record tells: what is in force now stands beside what was asked. What this means
 * at a moment, `stateAt` tells, and nothing else.
 */
export interface Booking extends Start {
  id: string
  status: BookingStatus
  /** How many events its record has, and the moment of the last. */
  seq: number
  latest: Instant
  asked: Asked
  service: string
  minutes: number
  /** In minor units of the currency asked in. */
  price: number
  deposit: number
  /** Until when a request is held; for offered times, until when they stand. */
  until: Instant
  offers: Start[]
  /** Whether the link mailed to the address has been opened. */
  mailProved: boolean
  /** Whether it waits for that. */
  unproved: boolean
  marks: Mark[]
  /** The decision that can still be taken back, and what the booking was before it. */
  unsettled?: { seq: number; until: Instant; before: Booking }
  /** What was said last with a decision. */
  text: string
  /** The price share due after a cancellation, in percent. */
  share: number
  cancelledBy?: 'client' | 'practitioner'
  /** What the practitioner has judged instead of the rules, and why. */
  overruled?: { at: Instant; outcome: Outcome; text: string }
  /** Revision of the calendar entry sent (RFC 5545 SEQUENCE). */
  sequence: number
  /** The last event that tells the client how things stand, and from when on it may be told; nothing of an end unproved. */
  tells?: Telling
  /** The event since which the practitioner's word is awaited, and its moment. */
  awaited: { seq: number; at: Instant }
  /** The event that set the start in force. */
  placed: number
}

/** The messages that tell a client how things stand. */
export type TellingStep =
  | 'asked'
  | 'confirmation'
  | 'declined'
  | 'offered'
  | 'lapsed'
  | 'withdrawn'
  | 'moved'
  | 'cancelled'

export interface Telling {
  seq: number
  step: TellingStep
  /** The first moment at which it may go. */
  due: Instant
  /** For `lapsed`: it was the times offered that have run out. */
  offered?: boolean
}

/** What the practitioner can do with a booking. */
export type DeskDoes =
  | { do: 'welcome' }
  | { do: 'decline'; text: string }
  | { do: 'offer'; starts: Start[]; text: string }
  | { do: 'take-back'; of: number }
  | { do: 'overrule'; outcome: Outcome; text: string }
  /** `clash`: also into another session, after that has been said. */
  | {
      do: 'move'
      start: Instant
      place: string
      minutes: number
      text: string
      clash: boolean
      service?: string
    }
  | { do: 'cancel'; by: 'practitioner'; text: string }

/** What a client can do with theirs. */
export type ClientDoes =
  | { do: 'prove' }
  | { do: 'accept'; start: Instant; place: string }
  | { do: 'refuse'; text: string }
  | { do: 'withdraw' }
  | { do: 'cancel'; by: 'client'; text: string }

export type Command = DeskDoes | ClientDoes | { do: 'lapse' }

/** Why a command could not be carried out: a code for programs, a sentence for people. */
export interface Refusal {
  code:
    | 'not-proved'
    | 'not-waiting'
    | 'not-booked'
    | 'too-late'
    | 'not-open'
    | 'not-offered'
    | 'nothing-to-take-back'
    | 'too-many-offers'
    | 'hold-stands'
  message: string
  closures?: Closure[]
}
