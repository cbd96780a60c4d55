import type { TextBlock } from '../terms/types.ts'
import type { Duration } from '../time/index.ts'

/** From where it is counted by when something is to be done: back from the start, on from the end, or on from the giving. */
export const DUE_FROM = ['start', 'end', 'given'] as const
/** By when something is to be done: so long before a session begins, after it has ended, or after it was given. */
export interface PreparationDue {
  from: (typeof DUE_FROM)[number]
  by: Duration
}

/** A PDF that belongs to a letter: what it is called, and its bytes as a `data:` address (RFC 2397). */
export interface LetterDocument {
  name: string
  data: string
}

/** The largest PDF of one letter, and of all together, in bytes: they travel with the practice. */
export const LARGEST_DOCUMENT = 750_000
export const MOST_DOCUMENTS = 4_000_000

/** What is before the bytes of one. */
const PDF = 'data:application/pdf;base64,'

/** How large one is, in bytes (RFC 4648 §4: three for four characters, less one for each sign that fills up). */
export const documentSize = ({ data }: LetterDocument): number =>
  ((data.length - PDF.length) * 3) / 4 - (data.endsWith('==') ? 2 : data.endsWith('=') ? 1 : 0)

/** The bytes of one, in base64. */
export const documentBytes = ({ data }: LetterDocument): string => data.slice(PDF.length)

/** What a client does with each kind of preparation. */
interface OwnOfPreparation {
  /** A letter, read: written here, or a PDF, or both. */
  read: { text: TextBlock[]; document?: LetterDocument }
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
