import type { TextBlock } from '../terms/types.ts'
import type { Duration } from '../time/index.ts'

/** From where it is counted by when something is to be done: back from the start, on from the end, or on from the giving. */
export const DUE_FROM = ['start', 'end', 'given'] as const
/** By when something is to be done: so long before a session begins, after it has ended, or after it was given. */
export interface PreparationDue {
  from: (typeof DUE_FROM)[number]
  by: Duration
}

/** What a client does with each kind of preparation. */
interface OwnOfPreparation {
  /** A letter, read. */
  read: { text: TextBlock[] }
  /** A document, signed by the agreement machinery. */
  sign: { terms: string }
  /** A questionnaire, answered; sealed for the desk. */
  answer: { questionnaire: string }
  /** A file, brought. */
  bring: { text: string }
  /** Something elsewhere, ticked. */
  tick: { text: string; address?: string }
}
export type PreparationKind = keyof OwnOfPreparation

/** What a client reads, signs, fills, brings or ticks before or after a session. */
export type Preparation = {
  [K in PreparationKind]: Whole<Common & { is: K } & OwnOfPreparation[K]>
}[PreparationKind]
type Whole<T> = { [P in keyof T]: T[P] }

interface Common {
  id: string
  /** As the client reads it. */
  name: string
  /** About how long it takes. */
  minutes?: number
  due: PreparationDue
  /** Given to each person once, however often they book. */
  once?: boolean
}
