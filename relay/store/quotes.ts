import type { Contact } from '@acolhida/core/booking'
import type { Answers, Reading } from '@acolhida/core/questions'
import { sha256Hex } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import type { Db } from './database.ts'
import { token } from './token.ts'

/** A quote of the practitioner's, as it is kept. */
export interface KeptQuote {
  service: string
  person: Contact
  answers: Answers
  extras: string[]
  travel?: string
  code?: string
  reading: Reading
  until: Instant
  text: string
}

/** A quote with the enquiry it belongs to, and the booking it has become; nothing while it has not. */
export type FoundQuote = KeptQuote & { enquiry: string; booking: string }

/** Quotes that have been sent, each behind a key of which only the hash is kept. */
export class Quotes {
  readonly #db: Db

  constructor(db: Db) {
    this.#db = db
  }

  /** Keeps a quote behind a new key, and gives the key. */
  add(enquiry: string, quote: KeptQuote): string {
    const secret = token()
    this.#db
      .prepare('INSERT INTO quotes (hash, enquiry, until, body) VALUES (?, ?, ?, ?)')
      .run(sha256Hex(secret), enquiry, quote.until, JSON.stringify(quote))
    return secret
  }

  behind(secret: string): FoundQuote | undefined {
    const row = this.#db
      .prepare('SELECT enquiry, booking, body FROM quotes WHERE hash = ?')
      .get(sha256Hex(secret)) as { enquiry: string; booking: string; body: string } | undefined
    return row && { ...(JSON.parse(row.body) as KeptQuote), enquiry: row.enquiry, booking: row.booking }
  }

  use(secret: string, booking: string): void {
    this.#db.prepare('UPDATE quotes SET booking = ? WHERE hash = ?').run(booking, sha256Hex(secret))
  }

  forget(before: Instant): void {
    this.#db.prepare('DELETE FROM quotes WHERE until < ?').run(before)
  }
}
