import type {
  Attempt,
  Contact,
  Deadline,
  Deadlines,
  DeskDoes,
  First,
  Invoice,
  Readiness,
  Start,
  StateName,
  StoredEvent,
  Unwanted,
} from '../booking/index.ts'
import type { TransferTo } from '../ledger/index.ts'
import type { Currency } from '../money/index.ts'
import type { Entry } from '../openings/index.ts'
import type { KnownPerson } from '../people/index.ts'
import type { DoorPart, Extra, Place, Practice } from '../practice/index.ts'
import type { CourseEvent } from '../preparing/index.ts'
import type { AnswerProblem, Answers, AnswerValue, Outcome, Question, QuoteLine } from '../questions/index.ts'
import type { ShownTerms } from '../terms/index.ts'
import type { Instant, Language, LocalDate } from '../time/index.ts'
import type { FreedEvent, LineEvent } from '../waiting/index.ts'
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

/** By whose clocks the times of a session are told: IANA names. */
export interface ClockNames {
  first: string
  also?: string
}

/** Where things stand with one booking, for the one who holds its private link. */
export interface LinkView {
  slug: string
  practitioner: string
  service: string
  minutes: number
  place: string
  placeId: string
  /** By whose clock its times are told. */
  clocks: ClockNames
  /** Told when the place's rule allows it. */
  address?: string
  /** When its address will be told. */
  later?: 'confirmation' | 'last-reminder'
  start: Instant
  state: StateName
  until: Instant
  /** The fingerprint of what is shown here: what is done through the link carries it. */
  shown: string
  offers: (Start & { placeName: string; clocks: ClockNames })[]
  mailProved: boolean
  /** It keeps its time from nobody until the address has proved true. */
  unheld?: boolean
  name: string
  /** Who comes, and who pays, where that is somebody else. */
  comes?: string
  pays?: string
  /** It is shown to them, not to who asked. */
  as?: 'comes' | 'pays'
  zone: string
  text: string
  price: number
  /** Of the price, asked before the session. */
  deposit: number
  currency: Currency
  deadlines: Deadline[]
  shareAfter: number
  mine?: Deadlines['mine']
  /** Due when cancelled now, in percent. */
  shareNow: number
  cancelledBy?: 'client' | 'practitioner'
  share: number
  /** Until when, and how often still, it can be moved; nothing where it can't be any more. */
  move?: {
    until: Instant
    left: number /** Where it can be moved to, where that is more than one. */
    places?: { id: string; name: string }[]
  }
  readiness: Readiness
  /** The service, where it can be booked again through this link, with what was answered and may still hold. */
  again?: string
  answersBefore?: Answers
  /** What is still to be agreed to, and whether the session can take place without. */
  toAgree?: DoorTerms[]
  unagreed?: 'may' | 'may-not'
  agreements: ToldAgreement[]
  /** What is to be paid and when, what has come, and where a transfer goes. Nothing of what is free of charge. */
  money?: {
    plan: { amount: number; due: Instant }[]
    /** What must still come before it is booked, by `until`. */
    first?: { amount: number; until: Instant }
    /** Less what was given back; below nothing, more was given than had come. */
    paid: number
    /** What has been given back, where anything was. */
    back?: number
    /** What the practitioner has promised for their own part. */
    promised?: number
    /** Still to be paid; below nothing, to be given back. */
    open: number
    /** What can be paid by card now, where anything can be. */
    byCard?: number
    transfer?: TransferTo
  }
  /** What else is still to come of the same person. */
  others: (Pick<LinkView, 'service' | 'start' | 'minutes' | 'state' | 'clocks'> & { booking: string })[]
  /** What the practitioner wants whoever has booked to see. */
  afterwards?: { text: string; address?: string }
  /** What the practitioner has asked back, and what was answered. */
  question?: { text: string; reply?: string }
  /** The exception asked for, with the answer; and whether one can be asked for. */
  plea?: { text: string; granted?: boolean }
  canPlead?: boolean
  /** The invoices made of it. */
  invoices?: Invoice[]
  /** A card is asked for: only looked at, or kept; or it is here, how its number ends. */
  card?: { asked: 'check' | 'keep' } | { ends: string; expires: string; kept: boolean }
  /** What was asked of the till last, where that is under way or came to nothing. */
  till?: { what: 'pay' | 'card'; is: 'open' | 'failed' | 'over'; amount: number; text: string }
  /** Something to read or do before it; `tick`: it can be ticked as done, `by` when, and whether it is. */
  before?: { text: string; address?: string; tick?: boolean; by?: Instant; done?: boolean }
  /** How much of what was given to do before it is left, of how much. */
  toDo?: { left: number; of: number }
  /** Whether they have said that they will be there; nothing where it is not asked, or too late. */
  coming?: boolean
  /** What they no longer want to be sent. */
  unwanted: Unwanted[]
  /** The practitioner will be so many minutes late. */
  late?: number
  /** It has run out because what had to be paid first has not come. */
  lapsedUnpaid?: boolean
  /** Questions whose answers one may read again, and the answers. */
  answers?: { question: Question; answer: AnswerValue }[]
  now: Instant
}

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

/** A door to try: as whom, and on which moment (now, where it is left out). */
export interface TrialBody {
  as: 'new' | 'known'
  at?: Instant
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
