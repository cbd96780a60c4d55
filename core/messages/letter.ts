import type { Booking, Steered, Telling, TellingStep } from '../booking/index.ts'
import type { MailNews } from '../contract/desk-types.ts'
import type { Channel, Practice } from '../practice/index.ts'
import type { CourseStep } from '../preparing/course.ts'
import { DAY, type Instant, shift } from '../time/index.ts'
import type { LineStep } from '../waiting/index.ts'
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
  | 'client-comes'
  | 'not-confirmed'
  | 'not-prepared'
  | 'not-paid'
  | 'session-soon'
  | 'session-sooner'
/** What is written to the client about theirs. */
export type ClientStep = TellingStep | 'place' | 'running-late' | 'agree' | 'invoice' | 'given-back'
export type BookingStep = ClientStep | OwnStep
/** A step of a sequence, by its id. */
export type StepName = `step:${string}`
export const stepName = (id: string): StepName => `step:${id}`
export const isStepName = (step: string): step is StepName => step.startsWith('step:')
/** What a message is about; with subject, channel and anchor it makes the message unique. */
export type Step =
  | BookingStep
  | StepName
  | LineStep
  | CourseStep
  | 'freed-to-decide'
  | 'written'
  | 'digest'
  | 'enquiry-answered'
  | 'quote'

/** A message, ready but for its private link. */
export interface Letter {
  to: 'client' | 'practitioner'
  subject: string
  /** By what it goes; by mail where it is left out. */
  channel?: 'text'
  /** It can be unsubscribed from: nothing that the contract needs. */
  unsubscribe?: true
  /** Plain text; tokens stand for the private link, the practitioner's public page, a word link (`tokens.ts`). */
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

/** Which message is meant: its step, what it hangs on, and by what it goes; by mail where that is left out. */
export interface Which {
  step: Step
  anchor: number
  channel?: Channel
}

/** What makes a message the only one of its subject: planning it, noting what came of it and steering it go by this name. */
export const messageName = ({ step, channel = 'email', anchor }: Which): string =>
  `${step}/${channel}/${anchor}`

/** The message that a line of the record is about. */
export const nameOfMail = ({
  step,
  channel,
  anchor = 0,
}: Pick<MailNews, 'step' | 'channel' | 'anchor'>): string =>
  messageName({ step: step as Step, anchor, ...(channel ? { channel } : {}) })

/** What the practitioner has said of one message of a booking. */
export const steeredOf = ({ steered }: Booking, which: Which): Steered | undefined =>
  steered?.[messageName(which)]

/** When a message goes that tells no new state. */
export interface Planned {
  /** The event it hangs on, by its place in the record. */
  anchor: number
  channel?: 'text'
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
  /** Something that is told only if it is wanted. */
  wanted?: true
}
