import type { Db } from './db.ts'

type Value = string | number | Uint8Array

/** A prepared statement, as far as it is used here. */
interface Prepared {
  run(...values: Value[]): unknown
  get(...values: Value[]): unknown
  all(...values: Value[]): unknown[]
}

/** A row with columns of text, and of numbers. */
export type Row<T extends string, N extends string = never> = { [K in T]: string } & { [K in N]: number }

/** Statements of one database, each prepared once. */
export class Statements {
  readonly #db: Db
  readonly #known = new Map<string, Prepared>()

  constructor(db: Db) {
    this.#db = db
  }

  #prepare(sql: string): Prepared {
    let statement = this.#known.get(sql)
    if (!statement) {
      statement = this.#db.prepare(sql)
      this.#known.set(sql, statement)
    }
    return statement
  }

  run(sql: string, ...values: Value[]): void {
    this.#prepare(sql).run(...values)
  }

  get<R>(sql: string, ...values: Value[]): R | undefined {
    const row = this.#prepare(sql).get(...values) as (R & { _metadata?: unknown }) | undefined
    // The driver adds how long it took, which is nothing of the row.
    if (row) delete row._metadata
    return row
  }

  all<R>(sql: string, ...values: Value[]): R[] {
    return this.#prepare(sql).all(...values) as R[]
  }
}
