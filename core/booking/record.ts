import type { Closure } from '../openings/index.ts'
import type { HouseRules } from '../practice/types.ts'
import type { Answers, Outcome, Reading } from '../questions/index.ts'
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

export interface Asked extends Happened, Start {
  type: 'asked'
  service: string
  minutes: number
  person: Contact
  /** The known person behind the mail address, as the relay saw it. */
  standing: 'new' | 'known'
  answers: Answers
  questionnaire?: { id: string; version: number }
  reading: Reading
  /** Earlier attempts of the same visit whose answers differed. */
  attempts: Attempt[]
  agreements: Agreement[]
  /** The rules of the day one asked; they stay with the booking. */
  houseRules: HouseRules
  currency: string
  until: Instant
  /** Entered by the practitioner instead of asked at the door. */
  byHand?: boolean
  /** What was added, by id. */
  extras?: string[]
  /** How far the practitioner travels, and where to. */
  travel?: string
  address?: string
  /** The price code, by id. */
  code?: string
}

/** One thing that happened to a booking. The list of them is the booking. */
export type BookingEvent =
  | Asked
  | (Happened & { type: 'proved' })
  | (Decided & { type: 'welcomed'; by: 'practitioner' | 'rules' })
  | (Decided & { type: 'declined'; text: string })
  | (Decided & { type: 'offered'; starts: Start[]; until: Instant; text: string })
  | (Happened & Start & { type: 'accepted' })
  | (Happened & { type: 'refused'; text: string })
  /** To another time, place, length or service; the rules of the day one asked go with it. */
  | (Decided & Start & { type: 'moved'; minutes: number; text: string; service?: string })
  | (Happened & { type: 'lapsed' })
  | (Happened & { type: 'withdrawn' })
  | (Happened & { type: 'cancelled'; by: 'client' | 'practitioner'; share: number; text: string })
  /** The practitioner has judged otherwise than the rules, and says why. */
  | (Happened & { type: 'overruled'; outcome: Outcome; text: string })
  /** Takes the decision `of` (its place in the record, from 1) back as if it had not been. */
  | (Happened & { type: 'taken-back'; of: number })

export type BookingStatus =
  | 'requested'
  | 'booked'
  | 'attended'
  | 'missed'
  | 'declined'
  | 'lapsed'
  | 'withdrawn'
  | 'cancelled'

/** What a booking has come to, as its record tells. */
export interface Booking extends Start {
  id: string
  status: BookingStatus
  /** How many events its record has. */
  seq: number
  asked: Asked
  /** Until when a request is held; for offered times, until when they stand. */
  until: Instant
  offers: Start[]
  mailProved: boolean
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
}

export type Command =
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
  | { do: 'prove' }
  | { do: 'accept'; start: Instant; place: string }
  | { do: 'refuse'; text: string }
  | { do: 'withdraw' }
  | { do: 'cancel'; by: 'client' | 'practitioner'; text: string }
  | { do: 'lapse' }

/** Why a command could not be carried out: a code for programs, a sentence for people. */
export interface Refusal {
  code:
    | 'unknown-booking'
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
