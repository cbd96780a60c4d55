import type { Instant } from '../time/index.ts'

/** A text once published never changes; a new wording is a new version. */
export interface TermsVersion {
  number: number
  title: string
  text: string
}

export interface Terms {
  id: string
  /** Ascending by number; the last is in force. */
  versions: TermsVersion[]
}

/** One person's acceptance of one version of the terms. */
export interface Agreement {
  terms: string
  version: number
  /** Of the version as published. */
  fingerprint: string
  /** Of the text as it was shown, with its fields filled. */
  shown: string
  at: Instant
  /** The name as typed. */
  name: string
  service: string
  /** The fingerprint of the agreement before it in the relay's chain; empty for the first. */
  previous: string
}
