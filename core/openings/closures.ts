import type { Instant, LocalDate } from '../time/index.ts'
import type { Entry } from './diary.ts'

/** The rules that can close a start, in the order in which they are named. */
export const CLOSURE_RULES = [
  'past',
  'notice',
  'reach',
  'away',
  'hours',
  'grid',
  'day-edge',
  'overlap',
  'clear',
  'day-limit',
  'week-limit',
  'full',
  'untidy',
  'person',
] as const

export type ClosureRule = (typeof CLOSURE_RULES)[number]

/** Why a start can't be booked: a rule and what it refers to. */
export type Closure =
  | { rule: 'past' }
  /** Open from `from` on; `week` when the whole week has closed. */
  | { rule: 'notice'; service: string; from: Instant; week: boolean }
  | { rule: 'reach'; service: string; last: LocalDate }
  | { rule: 'away'; away: string; note?: string }
  | { rule: 'hours'; date: LocalDate; because: 'none' | 'outside' | 'reserved' | 'clear'; changed: boolean }
  | { rule: 'grid'; service: string }
  | { rule: 'day-edge'; service: string; edge: 'earliest' | 'latest' }
  | { rule: 'overlap'; entry: Entry }
  /** `needed` and `left` in minutes. */
  | { rule: 'clear'; entry: Entry; side: 'before' | 'after'; needed: number; left: number }
  | { rule: 'day-limit' | 'week-limit'; of: 'service' | 'practice'; service: string; limit: number }
  | { rule: 'full'; service: string; because: 'no-seat' | 'no-date' | 'too-few' }
  /** `left` minutes would stay free there, too few to use. */
  | { rule: 'untidy'; service: string; side: 'before' | 'after'; left: number }
  | { rule: 'person'; because: 'invited-only' | 'link-only' | 'blocked' }
