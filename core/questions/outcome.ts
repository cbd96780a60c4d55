import type { Minor } from '../money/index.ts'

export type Outcome = 'fits' | 'look' | 'closed'

export interface QuoteLine {
  name: string
  quantity: number
  amount: Minor
}

/** Length and price that follow from service and answers. */
export interface Quote {
  minutes: number
  lines: QuoteLine[]
  price: Minor
  deposit: Minor
}

export interface Reason {
  /** The rule that fired, or what else decided. */
  rule?: string
  name: string
  outcome: Outcome
  note?: string
  /** The answered questions the rule looked at. */
  questions: string[]
}

/** What the rules make of a set of answers. */
export interface Reading {
  outcome: Outcome
  reasons: Reason[]
  /** For `closed`: why in general, and what else one can do. */
  kind?: { message: string; services: string[]; enquiry: boolean }
  points: number
  tags: string[]
  suggested: string[]
  quote: Quote
  /** Worth more than is booked without talking first. */
  enquiryInstead: boolean
}

const RANK: Record<Outcome, number> = { fits: 0, look: 1, closed: 2 }

/** The worse of two outcomes. */
export const worseOf = (a: Outcome, b: Outcome): Outcome => (RANK[a] >= RANK[b] ? a : b)
