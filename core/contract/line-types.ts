import type { Contact } from '../booking/index.ts'
import type { Currency } from '../money/index.ts'
import type { AskAtOnce } from '../practice/index.ts'
import type { Answers } from '../questions/index.ts'
import type { Instant } from '../time/index.ts'
import type { LineState, LineWishes, WhyEnded, WhyPassed } from '../waiting/index.ts'
import type { ClockNames } from './link-types.ts'
import type { AgreedVersion, DoorTerms, Kept, Wanted } from './types.ts'

/** Somebody gets in line: what they want, when they could come, and who they are. */
export interface JoinBody extends Wanted, LineWishes {
  place: string
  clock: Instant
  address?: string
  person: Contact
  agreed: AgreedVersion[]
}

/** What is done with a place in line through its private link. */
export type LineDoes =
  /** The mail has arrived. */
  | { do: 'prove' }
  | ({ do: 'change' } & LineWishes)
  | { do: 'pause' }
  | { do: 'resume' }
  | { do: 'leave' }
  | { do: 'still' }
  /** The freed time is not for them. */
  | { do: 'turn'; freed: string }

/** A freed time is taken, as it was shown; what is new since they got in line comes with it. */
export interface TakeBody {
  freed: string
  shown: string
  agreed: AgreedVersion[]
}

/** A freed time that is held out, as whoever holds the link reads it. */
export interface FreedView
  extends Pick<
    Kept,
    | 'minutes'
    | 'lines'
    | 'price'
    | 'deposit'
    | 'shown'
    | 'deadlines'
    | 'shareAfter'
    | 'mine'
    | 'first'
    | 'wordUntil'
  > {
  freed: string
  start: Instant
  until: Instant
  /** What has changed of the terms since they were agreed to. */
  toAgree: DoorTerms[]
  /** It can't be taken as things stand: why, and a code. */
  cannot?: { code: string; message: string }
}

/** Where things stand with a place in line, for the one who holds its private link. */
export interface LineView {
  slug: string
  practitioner: string
  service: string
  serviceId: string
  place: string
  placeId: string
  minutes: number
  price: number
  currency: Currency
  /** By whose clock times are told. */
  clocks: ClockNames
  name: string
  email: string
  /** Whether a text message can reach them. */
  phone: boolean
  state: LineState['is']
  why?: WhyEnded
  /** Until when an address can be proved. */
  until?: Instant
  since: Instant
  wishes: LineWishes
  /** How many others wait for the same service, and how often a time of it fell free in the last four weeks. */
  others: number
  freedLately: number
  offer?: FreedView
  /** What became of the last freed time that was held out: let go by, not wanted, or somebody else's. */
  last?: { start: Instant; how: WhyPassed | 'turned' | 'let-go' }
  /** By the hours there are, nothing could ever be open in their windows. */
  outside?: boolean
  /** Times that are open just now in their windows, at most three. */
  open: Instant[]
  /** They have this time already, and want an earlier one. */
  instead?: Instant
  now: Instant
}

/** What the practitioner does with a place in line. */
export type DeskLineDoes =
  /** Puts somebody in line by hand; `instead` of a booking they have already, for an earlier time. */
  | ({
      do: 'join'
      service: string
      place: string
      person: Contact
      answers?: Answers
      extras?: string[]
      travel?: string
      address?: string
      instead?: string
      silent?: boolean
    } & LineWishes)
  | ({ do: 'change' } & LineWishes)
  | { do: 'pause' }
  | { do: 'resume' }
  /** Has looked at them; takes back that they were taken out. */
  | { do: 'look' }
  | { do: 'back' }
  /** Takes them out, with a word; it can be taken back for some seconds. */
  | { do: 'out'; text: string }
export interface DeskLine {
  line: string
  command: DeskLineDoes
}

/** What the practitioner does with a freed time; `offer` and `book` also with one that they name themselves. */
export type DeskFreedDoes =
  | { do: 'go'; ask: AskAtOnce }
  | { do: 'stop' }
  | { do: 'skip'; line: string; back?: boolean }
  | { do: 'offer'; line: string; start: Instant }
  | { do: 'book'; line: string; start: Instant; booking: string; silent?: boolean }
export interface DeskFreed {
  freed: string
  command: DeskFreedDoes
}
