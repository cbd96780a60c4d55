import type { Instant, Language } from '../time/index.ts'

/** What is filled into terms when somebody reads them, so that the text and the rules can't disagree. */
export const TERMS_FIELDS = [
  ...(['practitioner', 'service', 'notice', 'free-until', 'late-cost', 'moves', 'grace', 'my-side'] as const),
] as const
export type TermsField = (typeof TERMS_FIELDS)[number]

/** A piece of a line: words, bold or leading somewhere, or a field. */
export type Piece = { text: string; bold?: boolean; href?: string } | { field: TermsField }
/** A paragraph, or a list of lines. */
export type TextBlock = { p: Piece[] } | { list: Piece[][]; ordered?: boolean }

/** One clause: what it is called, what it says, and that in one line. */
export interface Clause {
  id: string
  title: string
  short: string
  text: TextBlock[]
}

/**
 * Who must agree once a version has been published: whoever books next; of people who have agreed to one before it,
 * nobody; or also whoever has something booked, before that takes place.
 */
export type Again = 'next' | 'newcomers' | 'before'

/** What is agreed to, in one language. */
export interface TermsText {
  title: string
  /** A plain text; empty where there are clauses. */
  text: string
  clauses?: Clause[]
  /** The address of a longer document that belongs to it. */
  document?: string
}

/**
 * A text once published never changes; a new wording is a new version. Another language may come later, and then
 * stays as it is, too.
 */
export interface TermsVersion extends TermsText {
  number: number
  again?: Again
  /** The same in other languages. */
  also?: Record<Language, TermsText>
  /** When it was published; of the first versions nobody noted it. */
  since?: Instant
}

export interface Terms {
  id: string
  /** Signed by itself, by those who are asked to, and belonging to no service: a contract, a waiver. */
  separate?: boolean
  /** Ascending by number; the last is in force. */
  versions: TermsVersion[]
}

/** A version as somebody reads it, with its fields filled: a plain text, or clauses. */
export type ShownTerms =
  | string
  | {
      title: string
      clauses: { title: string; short: string; text: TextBlock[] }[]
      document?: string
    }

/** One person's acceptance of one version of the terms. */
export interface Agreement {
  terms: string
  version: number
  /** Of the version as published. */
  fingerprint: string
  /** Of the text as it was shown, with its fields filled. */
  shown: string
  /** In which of the version's other languages it was shown; nothing where it was shown as first written. */
  language?: Language
  /** What the fields were filled with; the first agreements don't say it. */
  fields?: Record<string, string>
  at: Instant
  /** The name as typed. */
  name: string
  service: string
  /** The fingerprint of the agreement before it in the relay's chain; empty for the first. */
  previous: string
}
