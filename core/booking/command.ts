import type { Closure } from '../openings/index.ts'
import type { Channel } from '../practice/messaging.ts'
import type { Outcome } from '../questions/index.ts'
import type { Keys } from '../shape/shape.ts'
import type { Agreement } from '../terms/types.ts'
import type { Instant, Language, Zone } from '../time/index.ts'
import { type RefusalWord, refusalWords, type SaidValues } from '../words/index.ts'
import type { BookingEvent, Silent } from './happening.ts'
import type { Booking, CardFacts, Invoice, Mark, Others, PayWay, Start, Unwanted } from './record.ts'
import type { StateName } from './state.ts'

/** What can be done with a booking, each with what is its own. */
export interface Own {
  /** `text`: a word that goes with the confirmation. */
  welcome: { text?: string } & Silent
  /** Asks something back before the word. */
  ask: { text: string }
  decline: { text: string } & Silent
  offer: { starts: Start[]; text: string } & Silent
  'take-back': { of: number }
  overrule: { outcome: Outcome; text: string }
  /** `clash`: also into another session, after that has been said. */
  move: {
    start: Instant
    place: string
    minutes: number
    text: string
    clash: boolean
    service?: string
  } & Silent
  /** By the client, to an open time of the same length. */
  'move-own': Start
  /** How it went, said after it has begun; what was said before can be put right. */
  attend: { late?: number; minutes?: number }
  /** Notes money that came or was given back, or changes what is owed. */
  pay: { amount: number; way: PayWay; text?: string; source?: string }
  'give-back': { amount: number; way: PayWay; text?: string }
  adjust: { amount: number; text: string }
  /** Asks for texts to be signed by themselves. */
  sign: { terms: string[] }
  /** Says who else it concerns: who comes, and who pays. */
  concern: { others: Others }
  miss: object
  'run-late': { minutes: number }
  /** Answers the exception asked for. */
  except: { granted: boolean; text: string } & Silent
  /** What counts against the client no longer does, for a reason. */
  forgive: { text: string }
  cancel: { by: 'client' | 'practitioner'; text: string } & Silent
  prove: object
  accept: { start: Instant; place: string }
  refuse: { text: string }
  withdraw: object
  /** Answers what the practitioner asked back. */
  reply: { text: string }
  /** Agrees to what has been lacking. */
  agree: { agreements: Agreement[] }
  /** Asks for an exception from the rules. */
  plead: { text: string }
  lapse: object
  /** Says that one will be there; what was to be done before is done, or not after all; wants no such messages, or does. */
  come: object
  prepare: { done: boolean }
  unwant: { what: Unwanted; on: boolean }
  speak: { language: Language }
  /** Writes by hand; steers one message. */
  write: { channel: Channel; subject: string; text: string; own?: boolean }
  steer: { message: string; how: 'hold' | 'release' | 'now' | 'edit'; subject?: string; text?: string }
  /** Asks the till for a payment of the client's, or for a card. */
  'till-ask': { payment: string; what: 'pay' | 'card'; amount: number }
  /** Makes an invoice of what is owed; or takes one back by another. */
  invoice: object
  'correct-invoice': { number: string; text: string }
  /** Has money taken from the card that is kept, for a reason. */
  charge: { payment: string; amount: number; text: string }
  /** What the till tells of something it was asked for; and that it has given something back. */
  'till-say': TillTells
  'till-gave': { payment: string; n: number; amount: number }
}

/** What the till tells: by which message, of which payment, and what. */
export interface TillTells {
  payment: string
  message: string
  says: 'paid' | 'failed' | 'over' | 'kept'
  text: string
  card?: CardFacts
}

export type Of<K extends keyof Own> = { do: K } & Own[K]
export type All = { [K in keyof Own]: Of<K> }
/** What the practitioner can do with a booking. */
export type DeskDoes =
  | All['welcome' | 'decline' | 'offer' | 'ask' | 'take-back' | 'overrule' | 'move' | 'attend' | 'miss']
  | All['forgive' | 'run-late' | 'except' | 'sign' | 'concern' | 'pay' | 'give-back' | 'adjust' | 'charge']
  | All['invoice' | 'correct-invoice' | 'write' | 'steer']
  | ({ do: 'cancel'; by: 'practitioner'; text: string } & Silent)

/** What a client can do with theirs. */
export type ClientDoes =
  | All['prove' | 'accept' | 'refuse' | 'withdraw' | 'move-own' | 'reply' | 'plead' | 'agree']
  | All['come' | 'prepare' | 'unwant' | 'speak']
  | { do: 'cancel'; by: 'client'; text: string }

export type Command = DeskDoes | ClientDoes | All['lapse' | 'till-ask' | 'till-say' | 'till-gave']

/** Why a command could not be carried out: a code for programs, a sentence for people. */
export interface Refusal {
  code:
    | 'not-proved'
    | 'not-waiting'
    | 'not-booked'
    | 'too-late'
    | 'too-early'
    | 'not-open'
    | 'not-offered'
    | 'nothing-to-take-back'
    | 'too-many-offers'
    | 'hold-stands'
    | 'not-counted'
    | 'not-asked'
    | 'not-paid'
    | 'nothing-to-pay'
    | 'paying-already'
    | 'no-card'
    | 'unknown-payment'
    | 'nothing-to-invoice'
    | 'invoiced-already'
    | 'no-invoice'
    | 'nothing-before'
    | 'no-phone'
  word: RefusalWord
  data?: SaidValues
  message: string
  closures?: Closure[]
}

/** What a decision may look at besides the booking. */
export interface Circumstances {
  now: Instant
  /** The zone of a booking's place. */
  zone: Zone
  /** The closures of a start for this booking's service, length and person, its own holds left out. */
  closuresOf(start: Start, minutes?: number, service?: string): Closure[]
  /** As `closuresOf`, by the rules that bind the client. */
  closedToClient(start: Start): Closure[]
  /** Until when a request would be held if it were asked now. */
  heldFromNow(): Instant
  /** Until when offered times may stand at most. */
  offersUntil(starts: Start[]): Instant
  /** Whether something is to be done before it that its client can tick. */
  ticks: boolean
  /** What an invoice of it would say, and the running number it would have. */
  invoice(): Pick<Invoice, 'lines' | 'total' | 'tax'>
  nextInvoice(): { n: number; number: string }
  /** What follows when the address proves true: until when it is held then, and whether no word is needed. */
  proving(): {
    until: Instant
    straight: boolean
    marks: Mark[] /** A kind no, where nothing may be booked online. */
    no?: string
  }
}

export type Decision = { events: BookingEvent[] } | { refused: Refusal }

/** How many times can be offered for one request. */
export const MOST_OFFERS = 3

/** Refuses, with the sentence that is behind a word. */
export const refuse = (
  word: RefusalWord & (Refusal['code'] | `${Refusal['code']}.${string}`),
  data?: SaidValues,
  closures?: Closure[],
): Decision => ({
  refused: {
    word,
    code: word.split('.')[0] as Refusal['code'],
    ...(data ? { data } : {}),
    message: refusalWords(word, data),
    ...(closures ? { closures } : {}),
  },
})

/** Why a request can't be decided on, by what it is. */
export const notWaiting = (is: StateName): Decision =>
  refuse(is === 'unproved' ? 'not-proved' : 'not-waiting', { is })
export const notBooked = (is: StateName): Decision => refuse('not-booked', { is })

/** What there is to know of a command. */
export interface CommandKind<C> {
  /** The shape of what the practitioner says with it; nothing where it is not theirs. */
  shape?: Keys
  decide(booking: Booking, command: C, is: StateName, about: Circumstances): Decision
}

export const happened = (...events: BookingEvent[]): Decision => ({ events })

export type Commands = { [K in keyof Own]: CommandKind<Of<K>> }
