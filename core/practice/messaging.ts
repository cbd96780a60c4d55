import type { Duration, Instant, WallTime } from '../time/index.ts'

/** By what a message goes: mail, or a text to the phone. */
export const CHANNELS = ['email', 'text'] as const
export type Channel = (typeof CHANNELS)[number]

/**
 * What a step hangs on. `asked`: somebody waits for an answer; `payment`, `preparation`: the moment by which it is due;
 * `quoted`: a quote was sent and is not accepted.
 */
export const STEP_ANCHORS = [
  ...(['asked', 'offered', 'declined', 'quoted', 'booked', 'moved', 'cancelled'] as const),
  ...(['payment', 'preparation', 'start', 'end', 'missed'] as const),
] as const
export type StepAnchor = (typeof STEP_ANCHORS)[number]

/** What must hold for a step to go, by what it looks at. */
export const STEP_LOOKS = [
  ...(['first-time', 'unprepared', 'to-pay', 'unconfirmed', 'nothing-booked'] as const),
  ...(['place', 'outcome', 'tag', 'service'] as const),
] as const

/** A condition of a step; `is`: one of these places, services, outcomes or tags. */
export interface StepCondition {
  if: (typeof STEP_LOOKS)[number]
  is?: string[]
  not?: boolean
}

/** One message around a booking, or a draft of one. */
export interface SequenceStep {
  id: string
  anchor: StepAnchor
  /** Before what it hangs on; else at it or after it. */
  before?: boolean
  /** How far: exact ("PT4H") or nominal ("P1D"), on the wall of whoever comes or of the place. */
  by: Duration
  /** At this time of the day that is so many days away: "the day before at 18:00". */
  at?: WallTime
  channel: Channel
  /** What it says, by its id. */
  text: string
  /** All of these must hold. */
  when?: StepCondition[]
  /** It goes at once where its moment has passed when the session is booked. */
  must?: boolean
  /** It is laid before the practitioner instead of being sent. */
  draft?: boolean
  /** It only asks whether one will come: of no use to whoever has said so. */
  asks?: boolean
  /** Since when it stands as it does: it never goes for a moment before. */
  since?: Instant
}

/** What goes around each booking of the services it belongs to. */
export interface Sequence {
  id: string
  name: string
  steps: SequenceStep[]
}

/** What a message says: plain, with `{fields}`. */
export interface MessageText {
  id: string
  name: string
  /** Of a mail; the text's name where it is left out. */
  subject?: string
  body: string
}

/** A stretch of the day in which nothing goes; both edges are allowed moments. */
export interface QuietHours {
  from: WallTime
  to: WallTime
}

/** How one's own messages go. */
export interface Alert {
  email?: boolean
  text?: boolean
}

/** What is written to the practitioner. */
export interface OwnMessages {
  /** What is told of what has happened, by the step; by mail alone where it is left out. */
  alerts?: Record<string, Alert>
  /** Services of which nothing is told. */
  services?: string[]
  /** Before each session, two at the most. */
  before?: { by: Duration; channel: Channel }[]
  /** In the morning: the day. */
  digest?: WallTime
  quiet?: QuietHours
  /** Where texts go. */
  phone?: string
}

/** How messages go, for all. */
export interface Messaging {
  /** No step of a sequence goes. */
  paused?: boolean
  /** Since when they go again: what was due before is let go. */
  resumed?: Instant
  /** In the recipient's zone. */
  quiet?: QuietHours
  /** The first line and the last of every mail, in one's own words. */
  greeting?: string
  signature?: string
  /** Where answers go, if another than the address they come from. */
  replyTo?: string
  /** How a text names who it is from. */
  sender?: string
  own?: OwnMessages
}

/** Something to read or do before a session. */
export interface BeforeSession {
  text: string
  address?: string
  /** The client can tick it as done. */
  tick?: boolean
  /** How long before the start it is to be done; by the start where it is left out. */
  by?: Duration
}

/** One of the practitioner's texts in another language, and what it stands for: changed since, it is to be looked at. */
export interface Translated {
  text: string
  of: string
}
