import type { Deadline, Deadlines, Invoice, Readiness, Start, StateName, Unwanted } from '../booking/index.ts'
import type { TransferTo } from '../ledger/index.ts'
import type { Currency } from '../money/index.ts'
import type { Answers, AnswerValue, Question } from '../questions/index.ts'
import type { Instant } from '../time/index.ts'
import type { DoorTerms, ToldAgreement } from './types.ts'

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
