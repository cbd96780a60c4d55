import type { CalendarState } from '@acolhida/core/door'
import type { Db } from './database.ts'

/** What has been read of other calendars. */
export class CalendarStates {
  readonly #db: Db
  #known: CalendarState[] | undefined

  constructor(db: Db) {
    this.#db = db
  }

  all(): CalendarState[] {
    this.#known ??= (
      this.#db.prepare('SELECT state FROM calendars ORDER BY id').all() as { state: string }[]
    ).map((row) => JSON.parse(row.state) as CalendarState)
    return this.#known
  }

  save(state: CalendarState): void {
    this.#db
      .prepare('INSERT OR REPLACE INTO calendars (id, state) VALUES (?, ?)')
      .run(state.id, JSON.stringify(state))
    this.#known = undefined
  }

  drop(id: string): void {
    this.#db.prepare('DELETE FROM calendars WHERE id = ?').run(id)
    this.#known = undefined
  }
}
