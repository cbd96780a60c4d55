import type { Attempt, Contact, Deadline, Deadlines, First, Start } from '../booking/index.ts'
import type { Currency } from '../money/index.ts'
import type { Entry } from '../openings/index.ts'
import type { KnownPerson } from '../people/index.ts'
import type { DoorPart, Extra, Place, Practice } from '../practice/index.ts'
import type { AnswerProblem, Answers, Question, QuoteLine } from '../questions/index.ts'
import type { ShownTerms } from '../terms/index.ts'
import type { Instant, Language, LocalDate } from '../time/index.ts'
import type { RefusalWord, SaidValues } from '../words/index.ts'

/** The public half of a desk's key, as a JSON Web Key (RFC 7517). */
export interface SealKey {
  kty: 'EC'
  crv: 'P-256'
  x: string
  y: string
}

/** How something is sealed for a desk: a key agreed on anew for each (RFC 7518 §4.6), and AES in Galois/Counter Mode (§5.3). */
export const SEALING = { alg: 'ECDH-ES', enc: 'A256GCM' } as const

/** What the desk publishes to the relay: all it needs to answer clients, and no names. */
export interface DoorPackage {
  /** Rises with each publishing; the relay keeps the newest. */
  revision: number
  practice: Practice
  /** Own sessions that are not open bookings of the relay. */
  sessions: Entry[]
  people: KnownPerson[]
  /** With it the hashes of mail addresses are made. */
  salt: string
  /** With it private answers are sealed in the client's browser. */
  seal?: SealKey
}

/** A service as the door knows it: what its settings let it tell, and what follows. */
export interface DoorService extends DoorPart {
  extras: Extra[]
  byDate: boolean
  /** Whether there are price codes for it. */
  codes?: boolean
  places: (Pick<Place, 'id' | 'kind' | 'name' | 'address' | 'whoCalls' | 'travel'> & {
    /** IANA name. */
    zone: string
    /** When its address is told, where it is not told here. */
    later?: 'confirmation' | 'last-reminder'
  })[]
  questionnaire?: { id: string; version: number; questions: Question[] }
  terms: DoorTerms[]
  /** Whether somebody who fits is booked at once. */
  straight: boolean
  /** Whether one can get in line for it. */
  line?: boolean
}

/** Terms as whoever agrees to them reads them, their fields filled. */
export interface DoorTerms {
  id: string
  number: number
  title: string
  /** The language it is read in here: the one asked for, or the practice's own. */
  language: Language
  shown: ShownTerms
  fingerprint: string
}

/** Which version has been read and agreed to. */
export interface AgreedVersion {
  terms: string
  number: number
  fingerprint: string
  /** The language it was read in; the practice's own where nothing is said. */
  language?: Language
}

/** An agreement as it is told to whoever made it. */
export interface ToldAgreement {
  title: string
  number: number
  at: Instant
  name: string
  /** Of the version as published. */
  fingerprint: string
  /** The number that proves it, and all before it. */
  print: string
  /** The text as it was shown; of the first agreements it can't be told. */
  shown?: ShownTerms
}

/** What anybody who opens the door may know. */
export interface DoorView {
  slug: string
  practice: {
    name: string
    headline: string
    greeting: string
    pronouns?: string
    about?: string
    picture?: string
    zone: string
    phone?: string
    tax?: string
    taxOnTop?: boolean
  }
  currency: Currency
  /** The language it is read in, every one that can be read in, and the practitioner's own sentences in this one, as messages read already. */
  language: Language
  languages: Language[]
  words?: Readonly<Record<string, unknown>>
  services: DoorService[]
  /** With it private answers are sealed before they leave the browser. */
  seal?: SealKey
  /** Who has come, where that is known: by the private link of a booking, or in a trial. */
  visitor?: { standing: 'new' | 'known'; invited: string[] }
  /** The door is closed just now: what the practitioner says of it. */
  closed?: string
  /** A door to try: nothing in it is kept. */
  trial?: { as: TrialBody['as'] }
  now: Instant
}

/** A kind no: why in general, and what else one can do. */
export interface Closed {
  message: string
  services: { id: string; name: string }[]
  enquiry: boolean
  /** It is no no, but more than is booked without talking first. */
  instead?: boolean
  /** The question that decided it. */
  question?: string
}

/** What is decided at the end of a part of the questions, whatever comes later. */
export interface PartReading {
  closed?: Closed
  tells: string[]
}

/** The questions up to one have been answered, or left open. */
export interface WantedPart extends Wanted {
  upTo: string
}

/** What the reading lets a client know: whether the way goes on, length and price; never which rule said so. */
export interface DoorReading {
  open: boolean
  /** The practitioner's own quote, by whose link one has come. */
  quote?: { until: Instant; text: string; person: Omit<Contact, 'zone'> }
  closed?: Closed
  /** Texts that rules show. */
  tells?: string[]
  minutes: number
  lines: QuoteLine[]
  price: number
  /** Asked before the session, of the price. */
  deposit: number
  /** Of what is shown here; see `Kept`. */
  shown: string
  /** Other services that may suit better. */
  suggested?: { id: string; name: string }[]
  enquiryInstead: boolean
}

/** Length and price as far as the answers so far tell them; what the service keeps hidden is left out. */
export interface DoorQuote {
  minutes?: number
  lines?: QuoteLine[]
  price?: number
  /** Why the code that was typed can't be used. */
  codeProblem?: string
}

export interface DoorOpenings {
  starts: Instant[]
  /** Those of them that cost less, because they keep the day whole. */
  lower: Instant[]
  /** What those cost. */
  lowerPrice?: number
  /** Those that are too near to be cancelled free of charge, where others are not. */
  near: Instant[]
  /** Dates on which nothing is open only because everything is taken; where one can wait for them. */
  full?: LocalDate[]
  /** For groups: seats left at a start. */
  seats: Record<string, number>
  minutes: number
  /** What would hold at the start that was asked about. */
  holds?: Pick<Deadlines, 'deadlines' | 'shareAfter' | 'mine'>
  /** The first date not looked at; absent when nothing lies beyond. */
  next?: LocalDate
  now: Instant
}

/**
 * A start kept for a visit while the client fills in. What is sent carries `shown`, so that nobody is booked for
 * something else than they have seen.
 */
export interface Kept extends Start {
  until: Instant
  /** The quote at this very start. */
  minutes: number
  lines: QuoteLine[]
  price: number
  /** Of the price, asked before the session. */
  deposit: number
  /** The fingerprint of the lines, dates and rules above and below. */
  shown: string
  /** Within how many minutes after sending the mail's link must be opened; absent for whom that is proved already. */
  proveWithin?: number
  /** Too much is held without a proof: it is kept from nobody, and can be asked for all the same. */
  unheld?: boolean
  /** Whether it can be renewed once more. */
  renewable: boolean
  /** What happens when, by the house rules in force. */
  deadlines: Deadline[]
  shareAfter: number
  /** The practitioner's own side of it. */
  mine?: Deadlines['mine']
  /** What must be paid before it is booked. */
  first?: First
  /** Until when the practitioner answers, if they are asked. */
  wordUntil?: Instant
  now: Instant
}

/** What a visit wants of a service. */
export interface Wanted {
  visit: string
  service: string
  answers: Answers
  /** What was added, by id. */
  extras?: string[]
  /** The travel zone, where the session is at the client's. */
  travel?: string
  /** The key of the service's own link. */
  with?: string
  /** A price code as it was typed. */
  code?: string
  /** The key of a quote that the practitioner has sent. */
  quote?: string
}

export interface WantedStart extends Wanted, Start {}

export interface WantedOpenings extends Wanted {
  place: string
  from?: LocalDate
  days: number
}

/** Which times a booking could be moved to: from a date on, at one of its service's places. */
export interface WantedMoves {
  from?: LocalDate
  days: number
  place?: string
  /** One of them, of which the rules are told as dates. */
  start?: Instant
}

export interface SendBody extends WantedStart {
  /** What the page takes for the relay's time. */
  clock: Instant
  /** The fingerprint of what was kept, as it was shown. */
  shown: string
  /** Where to come, at the client's. */
  address?: string
  person: Contact
  /** Typed as agreement to the terms. */
  agreed: AgreedVersion[]
}

export interface EnquireBody {
  visit: string
  service?: string
  name: string
  email: string
  message: string
  answers?: Answers
  /** The language they read in. */
  language?: Language
}

/** An enquiry on its way to the desk. */
export interface Enquiry {
  id: string
  at: Instant
  name: string
  email: string
  message: string
  service?: string
  answers: Answers
  attempts: Attempt[]
  /** The enquiry of the same visit in which the attempts before these stand. */
  earlier?: string
  /** Begun by the practitioner: somebody on the phone. */
  byHand?: boolean
  /** The language they read in. */
  language?: Language
  /** What the relay has sealed for the desk of the answers and attempts; see `SealedPart`. */
  sealed?: string[]
}

/** A quote that the practitioner has sent: it stands until a moment, and is accepted and booked through its link. */
export interface SentQuote {
  service: string
  minutes: number
  lines: QuoteLine[]
  price: number
  currency: string
  until: Instant
}

/** What became of an enquiry at the relay. */
export interface EnquiryNews {
  news: 'answered' | 'quoted' | 'booked'
  at: Instant
  text: string
  quote?: SentQuote
  /** The booking it has become. */
  booking?: string
  /** For `quoted`: the quote at the relay, by which its link is made. */
  id?: string
  /** For `quoted`: it went by text message. */
  by?: 'text'
}

/** Every refusal of the relay: a code for programs, a sentence for people, and what helps. */
export interface Problem {
  code: string
  /** Which sentence of the catalogues says it, and what stands in it. */
  word?: RefusalWord
  data?: SaidValues
  message: string
  /** Field or place in the body that it is about. */
  where?: string
  problems?: AnswerProblem[]
  openings?: DoorOpenings
  /** What holds now, where that is no longer what was shown. */
  quote?: { minutes: number; lines: QuoteLine[]; price: number; deposit: number }
  now?: Instant
}

/** A door to try: as whom, and on which moment (now, where it is left out). */
export interface TrialBody {
  as: 'new' | 'known'
  at?: Instant
}
