import type { Instant } from '@acolhida/core/time'
import type { Db } from './database.ts'
import { token } from './token.ts'

/** A file as it was given. */
export interface StoredFile {
  visit: string
  name: string
  type: string
  data: Buffer
}

/** Files given as answers: they wait for the request they belong to, and go with it. */
export class Files {
  readonly #db: Db

  constructor(db: Db) {
    this.#db = db
  }

  add(file: { visit: string; at: Instant; name: string; type: string; data: Uint8Array }): string {
    const id = token()
    this.#db
      .prepare('INSERT INTO files (id, visit, at, name, type, data) VALUES (?, ?, ?, ?, ?, ?)')
      .run(id, file.visit, file.at, file.name, file.type, Buffer.from(file.data))
    return id
  }

  get(id: string): StoredFile | undefined {
    return this.#db.prepare('SELECT visit, name, type, data FROM files WHERE id = ?').get(id) as
      | StoredFile
      | undefined
  }

  /** A file that came with a request stays as long as that. */
  claim(id: string, booking: string): void {
    this.#db.prepare('UPDATE files SET booking = ? WHERE id = ?').run(booking, id)
  }

  /** Forgets those that nobody has sent with a request. */
  forgetWaiting(before: Instant): void {
    this.#db.prepare(`DELETE FROM files WHERE booking = '' AND at < ?`).run(before)
  }

  forgetOf(booking: string): void {
    this.#db.prepare('DELETE FROM files WHERE booking = ?').run(booking)
  }

  /** How many bytes wait for a request they belong to: of one visit, or of all. */
  waitingBytes(visit?: string): number {
    const { bytes } = this.#db
      .prepare(
        `SELECT coalesce(sum(length(data)), 0) AS bytes FROM files
         WHERE booking = '' AND (visit = ? OR ? IS NULL)`,
      )
      .get(visit ?? null, visit ?? null) as { bytes: number }
    return bytes
  }
}
