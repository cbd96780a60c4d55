import type Database from 'libsql'

/** The relay's one file, opened. */
export type Db = Database.Database

/**
 * Does something whole or not at all. SQLite ends a transaction by itself where the disk is full: what went wrong first is
 * what is said.
 */
export function atomically(db: Db, work: () => void): void {
  db.exec('BEGIN IMMEDIATE')
  try {
    work()
    db.exec('COMMIT')
  } catch (error) {
    if (db.inTransaction)
      try {
        db.exec('ROLLBACK')
      } catch {
        // It has ended by itself.
      }
    throw error
  }
}
