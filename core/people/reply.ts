import type { Instant } from '../time/index.ts'

/** A mail that came back from somebody, put beside them by the practitioner. */
export interface Reply {
  id: string
  /** The address of theirs under which it stands, in normal form: it follows whoever has that address. */
  mail: string
  /** When it was written; where the mail doesn't say, when it was put here. */
  at: Instant
  subject: string
  text: string
  /** What was attached, by name; the files themselves stay in one's mail. */
  attached?: string[]
}

/** The longest text that is kept of one, in characters. */
export const LONGEST_REPLY = 50_000
