import type { Channel } from '../practice/messaging.ts'
import type { TaxNow } from '../practice/tax.ts'
import type { HouseRules, PaymentLine } from '../practice/types.ts'
import type { Answers, Asking, Outcome, Reading } from '../questions/index.ts'
import type { Agreement } from '../terms/types.ts'
import type { Duration, Instant, Language } from '../time/index.ts'

/** Somebody whom a session concerns besides who has asked for it. */
export interface Other {
  name: string
  email?: string
  phone?: string
}

/** Who else a session concerns: whoever comes, where it is for somebody else, and whoever pays. */
export interface Others {
  /** `reminded`: what reminds of the session goes to them; `agrees`: what is to be agreed to and prepared does. */
  comes?: Other & { reminded?: boolean; agrees?: boolean }
  pays?: Other
}

/** Who asks, as they wrote it. */
export interface Contact {
  name: string
  email: string
  phone?: string
  /** Their own zone: how times are written to them. */
  zone: string
  /** The language they read in. */
  language?: Language
  /** Who comes or pays, where that is somebody else. */
  others?: Others
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

/** Something that happened. */
export interface Happened {
  at: Instant
}

/**
 * How it is known that whoever asks can be reached at their address. `open`: not yet, the link mailed to them must be
 * opened first; by the private `link` of an earlier booking, a `quote` or the practitioner's `hand` it is. `earlier`:
 * asked before this was asked for.
 */
export type Proof = 'open' | 'link' | 'quote' | 'hand' | 'earlier'

/** How money can come and go. */
export const WAYS = ['cash', 'card', 'transfer', 'other'] as const
export type PayWay = (typeof WAYS)[number]

/** Money that came, or went back. */
export interface Payment {
  at: Instant
  /** In minor units; below nothing, given back. */
  amount: number
  way: PayWay
  text?: string
  /** What it is known by where it came from: the entry of a statement. */
  source?: string
}

/** One line of an invoice, in minor units; what is taken off is below nothing. */
export interface InvoiceLine {
  name: string
  quantity: number
  amount: number
}

/** An invoice as it was made; it never changes. */
export interface Invoice {
  /** As it stands on it. */
  number: string
  at: Instant
  lines: InvoiceLine[]
  total: number
  /** What of the total is tax. */
  tax?: { name: string; rate: number; amount: number }
  /** Who it is made out to, where that is not who asked. */
  to?: { name: string; email?: string }
  /** The number of the invoice that this one takes back, and why. */
  corrects?: string
  text?: string
}

/** Something asked of the till, and what has come of it. */
export interface TillPayment {
  /** Its name there and here. */
  payment: string
  /** A payment, a card to look at or keep, or money from a card that is kept. */
  what: 'pay' | 'card' | 'charge'
  /** In minor units. */
  amount: number
  at: Instant
  /** Until when its page stands; of a charge, until when it can be taken back. */
  until: Instant
  is: 'open' | 'paid' | 'failed' | 'over' | 'kept'
  text?: string
  /** Of a charge: the number of the agreement it rests on. */
  agreed?: string
}

/** What is known of a card: how its number ends, its last month (`YYYY-MM`), and the till's key to it if it is kept. */
export interface CardFacts {
  ends: string
  expires: string
  key?: string
}

/** Something written by hand; `own`: sent from the practitioner's own phone, and only noted. */
export interface HandWritten {
  seq: number
  at: Instant
  /** From when on it goes. */
  due: Instant
  channel: Channel
  subject: string
  text: string
  own?: boolean
}

/** How the practitioner has steered one message, by its name. */
export interface Steered {
  /** It is held back. */
  held?: boolean
  /** It goes at this moment, whatever it would have waited for. */
  now?: Instant
  /** What it says instead. */
  subject?: string
  text?: string
}

/** What somebody no longer wants to be sent. */
export const UNWANTED = ['follow-ups', 'texts'] as const
export type Unwanted = (typeof UNWANTED)[number]

/** What the practitioner should know of who has asked; the client never sees it. */
export type Mark = (typeof PERSON_MARKS)[number]

/**
 * `blocked`, `not-invited`: as the practitioner has set it of this person; `ask-always`: every request of theirs is
 * looked at; `ask`, `pay-first`, `not-online`: what their misses have led to.
 */
export const PERSON_MARKS = [
  'blocked',
  'not-invited',
  'ask',
  'pay-first',
  'not-online',
  'ask-always',
] as const

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
  /** How the price is paid, by the lines of the day one asked. */
  payment?: PaymentLine[]
  /** The tax of that day. */
  tax?: TaxNow
  /** How long a time waits for a payment that must come first; nothing where none can be made before it is booked. */
  first?: Duration
  /** The place in line it came from. */
  line?: string
  /** The path it is a session of: which one, as it was given, and what it is called. */
  path?: { course: string; session: string; name: string }
  /** With what it was brought in from another place. */
  broughtIn?: string
  /** Too much was held without a proof then: it keeps its time from nobody before its address proves true. */
  unheld?: boolean
  /** What the relay has sealed for the desk of the answers, attempts and reasons; see `SealedPart`. */
  sealed?: string[]
}

/** How many minutes late somebody can have come, and how long a session can have lasted, at the most. */
export const MOST_LATE = 1_440
export const MOST_LENGTH = 14_400

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
  /** When it stopped being a request, whatever it is since. */
  decided?: Instant
  asked: Asked
  service: string
  minutes: number
  /** In minor units of the currency asked in. */
  price: number
  deposit: number
  /** Until when a request is held; for offered times, until when they stand. */
  until: Instant
  offers: Start[]
  /** The word is given, and what must be paid first has not all come: when it was given. */
  owes?: { given: Instant }
  /** Whether the link mailed to the address has been opened. */
  mailProved: boolean
  /** Whether it waits for that. */
  unproved: boolean
  marks: Mark[]
  /** The decision that can still be taken back, and what the booking was before it. */
  unsettled?: { seq: number; until: Instant; before: Booking; what: string }
  /** What was said last with a decision. */
  text: string
  /** The price share due after a cancellation, in percent. */
  share: number
  cancelledBy?: 'client' | 'practitioner'
  /** What the practitioner's giving up the time so late gives the client, in percent of the price; see `givenIn`. */
  gives?: number
  /** How often the client has moved it, and whether they did so last; nothing where never. */
  moves?: number
  movedBy?: 'client'
  /** What cancelling costs at the least since the client moved it, in percent. */
  leastShare?: number
  /** What the practitioner asked back before their word, and what came of it; the hold is longer for it once. */
  question?: { seq: number; text: string; reply?: { seq: number; at: Instant; text: string } }
  extended?: boolean
  /** The practitioner comes so many minutes late, and from when on that may be told. */
  runsLate?: { seq: number; due: Instant; minutes: number; gives?: number }
  /** The exception that the client has asked for, and the practitioner's answer. */
  plea?: { seq: number; at: Instant; text: string; answer?: { granted: boolean; text: string } }
  /** What was paid, and given back (below nothing), each by a way. */
  payments?: Payment[]
  /** What was asked of the till; and the card that is looked at or kept. */
  till?: TillPayment[]
  card?: CardFacts
  /** The invoices made of it, and what put one right; in order of their numbers. */
  invoices?: Invoice[]
  /** What was added to what is owed, or taken off it, and why. */
  adjusted?: { at: Instant; amount: number; text: string }[]
  /** What was agreed to after it was asked for; and texts to be signed by themselves, with since when that is told. */
  agreed?: Agreement[]
  toSign?: { terms: string[]; seq: number; due: Instant }
  /** When it was cancelled. */
  ended?: Instant
  /** It no longer counts against the client, and why. */
  forgiven?: { at: Instant; text: string }
  /** How many minutes late the client came, and how long it really lasted, in minutes, where that was said. */
  late?: number
  lasted?: number
  /** When the word was given that it is booked, and could not be taken back any more. */
  worded?: Instant
  /** What the practitioner has judged instead of the rules, and why. */
  overruled?: { at: Instant; outcome: Outcome; text: string }
  /** Revision of the calendar entry sent (RFC 5545 SEQUENCE). */
  sequence: number
  /** The last event that tells the client how things stand, and from when on it may be told; nothing of an end unproved. */
  tells?: Telling
  /** The event since which the practitioner's word is awaited, and its moment. */
  awaited: { seq: number; at: Instant }
  /** The event that set the start in force; and from when on that stands, where it is not the first. */
  placed: number
  placedAt?: Instant
  /** From when on it stands how it went. */
  wentAt?: Instant
  /** The client has said that they will be there. */
  coming?: Instant
  /** What was to be ticked before it is done. */
  prepared?: Instant
  /** What is to be done before it, by its course: which preparations, so long before the start, and whether all of it is. */
  course?: { id: string; what: string[]; by: Duration; done?: boolean }
  written?: HandWritten[]
  steered?: Record<string, Steered>
  unwanted?: Unwanted[]
  /** The language its client has chosen since. */
  language?: Language
  /** Who else it concerns, as it was said since; see `othersOf`. */
  others?: Others
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
  | 'question'
  | 'excepted'
  | 'to-pay'

export interface Telling {
  seq: number
  step: TellingStep
  /** The first moment at which it may go. */
  due: Instant
  /** For `lapsed`: it was the times offered that have run out. */
  offered?: boolean
}
