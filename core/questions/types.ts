import type { Minor } from '../money/index.ts'
import type { Condition } from './base.ts'
import type { Effect } from './effects.ts'
import type { Question } from './kinds/index.ts'
import type { Outcome } from './outcome.ts'

export * from './base.ts'
export type { Effect } from './effects.ts'
export type { Question } from './kinds/index.ts'
export type { Outcome } from './outcome.ts'

export interface Rule {
  id: string
  name: string
  when: Condition
  effect: Effect
}

/** From this many points on, the outcome is at least this. */
export interface Band {
  from: number
  outcome: Outcome
  /** What it is called: "moderate". */
  name?: string
}

/** What is asked and what follows from the answers. */
export interface Sheet {
  questions: Question[]
  rules: Rule[]
  bands: Band[]
  /** Prices above this are looked at first; above `enquiryAbove` they become an enquiry. */
  lookAbove?: Minor
  enquiryAbove?: Minor
}

export interface Questionnaire extends Sheet {
  id: string
  name: string
  version: number
  /** The next version, while it is being written. It stays at the desk. */
  draft?: Sheet
  /** What earlier versions asked, so that old answers keep their questions. */
  past?: { version: number; questions: Question[] }[]
}
