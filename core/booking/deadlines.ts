import type { Answering, HouseRules } from '../practice/types.ts'
import {
  after,
  before,
  type Duration,
  HOUR,
  type Instant,
  instant,
  MINUTE,
  shift,
  type Zone,
} from '../time/index.ts'
import { type MineAt, mineAt } from './mine.ts'
import type { Booking } from './record.ts'

/** A moment by which something must be done; an act counts while `now ≤ until`. */
export interface Deadline {
  kind: 'cancel' | 'move'
  until: Instant
  /** For `cancel`: the share of the price due until then, in percent. */
  share?: number
}

export interface Deadlines {
  /** In order of time. */
  deadlines: Deadline[]
  /** The share due once every cancellation deadline has passed. */
  shareAfter: number
  /** After this moment the practitioner can call the session missed. */
  missedFrom: Instant
  mine?: MineAt
}

/**
 * The deadlines of a session by the rules of the day one asked.
 * @param zone the place's zone, in which nominal offsets count
 */
export function deadlinesOf(rules: HouseRules, start: Instant, zone: Zone): Deadlines {
  const mine = mineAt(rules, start, zone)
  const deadlines: Deadline[] = rules.cancel.map((tier) => ({
    kind: 'cancel',
    until: before(start, tier.until, zone),
    share: tier.share,
  }))
  deadlines.push({ kind: 'move', until: before(start, rules.move.until, zone) })
  return {
    deadlines: deadlines.sort((a, b) => a.until - b.until),
    shareAfter: rules.cancelAfter,
    missedFrom: missedFrom(rules, start),
    ...(mine ? { mine } : {}),
  }
}

/** Whether a session can be called missed: whoever is within the grace minutes can still come. */
export const canBeMissed = ({ asked, start }: Ruled, now: Instant): boolean =>
  now > missedFrom(asked.houseRules, start)

const missedFrom = ({ graceMinutes }: HouseRules, start: Instant): Instant =>
  shift(start, graceMinutes * MINUTE)

/** What the rules and the record of a booking say of its deadlines. */
type Ruled = Pick<Booking, 'start' | 'leastShare' | 'worded' | 'plea'> & { asked: { houseRules: HouseRules } }

/** Whether the practitioner has made an exception from the rules: free to cancel, and to move once, until it begins. */
const isExcepted = (plea: Booking['plea']): boolean => plea?.answer?.granted === true

/** However near a session is: so long after the word was given, what was ever free still is, in ms. */
const FREE_AFTER_WORD = HOUR

/**
 * The deadlines of a booking: by the rules of the day one asked, for the start in force. No free one ends earlier than
 * an hour after the word was given, or than the start; and none is cheaper than it was when the client moved it.
 */
export function deadlinesIn({ asked, start, leastShare = 0, worded, plea }: Ruled, zone: Zone): Deadlines {
  const found = deadlinesOf(asked.houseRules, start, zone)
  if (isExcepted(plea))
    return {
      ...found,
      deadlines: [
        { kind: 'cancel', until: start, share: 0 },
        { kind: 'move', until: start },
      ],
    }
  const kept = worded === undefined ? undefined : instant(Math.min(start, worded + FREE_AFTER_WORD))
  const longer = found.deadlines.map((deadline) =>
    kept !== undefined && deadline.share === 0 && deadline.until < kept
      ? { ...deadline, until: kept }
      : deadline,
  )
  const free = Math.max(...longer.flatMap(({ share, until }) => (share === 0 ? [until] : [])))
  return {
    ...found,
    deadlines: longer
      // What would cost something while it is free never holds.
      .filter(({ share, until }) => !share || until > free)
      .map((deadline) =>
        deadline.share === undefined
          ? deadline
          : { ...deadline, share: Math.max(deadline.share, leastShare) },
      )
      .sort((a, b) => a.until - b.until),
    shareAfter: Math.max(found.shareAfter, leastShare),
  }
}

/** The share of the price, in percent, that the client's cancelling of a booking costs at `now`. */
export function costOf(booking: Ruled, zone: Zone, now: Instant): number {
  const { deadlines, shareAfter } = deadlinesIn(booking, zone)
  const next = deadlines.find(({ kind, until }) => kind === 'cancel' && now <= until)
  return next?.share ?? shareAfter
}

/**
 * Until when, and how often still, a client may move a booking by the rules of the day one asked; nothing where they
 * have moved it often enough.
 */
export function movable(
  {
    asked,
    start,
    moves = 0,
    plea,
  }: Pick<Booking, 'start' | 'moves' | 'plea'> & { asked: { houseRules: HouseRules } },
  zone: Zone,
): { until: Instant; left: number } | undefined {
  if (isExcepted(plea)) return { until: start, left: 1 }
  const { times, until } = asked.houseRules.move
  const left = times - moves
  return left > 0 ? { until: before(start, until, zone), left } : undefined
}

/** The last moment to cancel free of charge; nothing when there is none. */
export const freeUntil = (rules: HouseRules, start: Instant, zone: Zone): Instant | undefined =>
  deadlinesOf(rules, start, zone)
    .deadlines.filter((deadline) => deadline.kind === 'cancel' && deadline.share === 0)
    .at(-1)?.until

/**
 * Until when a request is held: the later of `min(asked + answer time, start − word lead)` and
 * `min(asked + least answer time, start)`.
 */
export function holdUntil(answering: Answering, asked: Instant, start: Instant, zone: Zone): Instant {
  const usual = Math.min(after(asked, answering.answerTime, zone), before(start, answering.wordLead, zone))
  const least = Math.min(after(asked, answering.leastAnswerTime, zone), start)
  return instant(Math.max(usual, least))
}

/** How long a request is held until its mailed link has been opened, unless the practice says otherwise. */
const PROOF_TIME = 'PT30M' as Duration

/** Until when a request is held whose address has not proved true yet: never past the start. */
export const proofUntil = (
  { proofTime = PROOF_TIME }: Answering,
  asked: Instant,
  start: Instant,
  zone: Zone,
): Instant => instant(Math.min(after(asked, proofTime, zone), start))
