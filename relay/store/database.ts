import { chmodSync } from 'node:fs'
import Database from 'libsql'
import { fileTrouble } from '../ground/health.ts'
import { log } from '../ground/log.ts'
import { atomically, type Db } from './db.ts'
import { toVersion5 } from './version-5.ts'

/** Each step takes the file one version up; a step, once released, never changes. */
const STEPS: (string | ((db: Db) => void))[] = [
  `
  CREATE TABLE settings (name TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;
  CREATE TABLE record (
    n INTEGER PRIMARY KEY AUTOINCREMENT,
    at INTEGER NOT NULL,
    kind TEXT NOT NULL,
    subject TEXT NOT NULL,
    seq INTEGER NOT NULL,
    body TEXT NOT NULL,
    UNIQUE (kind, subject, seq)
  ) STRICT;
  CREATE TABLE links (
    hash TEXT PRIMARY KEY,
    booking TEXT NOT NULL,
    proves INTEGER NOT NULL
  ) STRICT;
  CREATE TABLE attempts (
    visit TEXT NOT NULL,
    at INTEGER NOT NULL,
    service TEXT NOT NULL,
    answers TEXT NOT NULL,
    outcome TEXT NOT NULL,
    PRIMARY KEY (visit, service, answers)
  ) STRICT;
  CREATE TABLE keeps (
    visit TEXT PRIMARY KEY,
    service TEXT NOT NULL,
    place TEXT NOT NULL,
    start INTEGER NOT NULL,
    minutes INTEGER NOT NULL,
    until INTEGER NOT NULL,
    renewed INTEGER NOT NULL
  ) STRICT;
  CREATE TABLE done (
    key TEXT PRIMARY KEY,
    print TEXT NOT NULL,
    answer TEXT NOT NULL,
    at INTEGER NOT NULL
  ) STRICT;
  CREATE TABLE outbox (
    key TEXT PRIMARY KEY,
    booking TEXT NOT NULL,
    seq INTEGER NOT NULL,
    step TEXT NOT NULL,
    due INTEGER NOT NULL,
    state TEXT NOT NULL,
    tries INTEGER NOT NULL DEFAULT 0,
    recipient TEXT NOT NULL,
    subject TEXT NOT NULL,
    body TEXT NOT NULL,
    calendar TEXT NOT NULL
  ) STRICT;
  CREATE INDEX outbox_due ON outbox (state, due);
  `,
  `
  CREATE TABLE calendars (id TEXT PRIMARY KEY, state TEXT NOT NULL) STRICT;
  `,
  `
  ALTER TABLE keeps ADD COLUMN travel TEXT NOT NULL DEFAULT '';
  `,
  `
  CREATE TABLE files (
    id TEXT PRIMARY KEY,
    visit TEXT NOT NULL,
    at INTEGER NOT NULL,
    name TEXT NOT NULL,
    type TEXT NOT NULL,
    data BLOB NOT NULL,
    booking TEXT NOT NULL DEFAULT ''
  ) STRICT;
  CREATE INDEX files_visit ON files (visit);
  CREATE TABLE quotes (
    hash TEXT PRIMARY KEY,
    enquiry TEXT NOT NULL,
    until INTEGER NOT NULL,
    booking TEXT NOT NULL DEFAULT '',
    body TEXT NOT NULL
  ) STRICT;
  `,
  toVersion5,
  // By what a message goes, and what it hangs on: needed where it is not known whether it has gone.
  `
  ALTER TABLE messages ADD COLUMN anchor INTEGER NOT NULL DEFAULT 0;
  ALTER TABLE messages ADD COLUMN channel TEXT NOT NULL DEFAULT '';
  `,
  // Places in line and freed times have records, too: an earlier program, which knows of none, opens such a file no more.
  `
  CREATE INDEX record_kind ON record (kind, at);
  `,
  // The package and what is known of calendars are sealed from now on, and are sealed anew when the file is opened; an
  // earlier program can't read them.
  `
  ALTER TABLE attempts ADD COLUMN told TEXT NOT NULL DEFAULT '';
  ALTER TABLE record ADD COLUMN print TEXT NOT NULL DEFAULT '';
  `,
  // What was answered is sealed for the desk when it is needed no more: of all there is, that is planned at the start. An
  // earlier program would hand such records on as they are.
  `
  ALTER TABLE attempts ADD COLUMN request TEXT NOT NULL DEFAULT '';
  INSERT OR IGNORE INTO agenda (key, at, kind, subject, doing)
    SELECT kind || '/' || subject || '/seal', 0, kind, subject, '{"do":"seal"}' FROM record
    WHERE seq = 1 AND kind IN ('booking', 'waiting', 'enquiry');
  `,
  // What people were given to do has records, too, and answers that are not sent yet: an earlier program knows of none.
  `
  CREATE TABLE halves (
    course TEXT NOT NULL,
    station TEXT NOT NULL,
    n INTEGER NOT NULL,
    sealed TEXT NOT NULL,
    PRIMARY KEY (course, station)
  ) STRICT;
  `,
]

/** The file is damaged. */
export class BrokenFile extends Error {
  constructor(path: string, why: string) {
    super(
      `${path} is damaged (${why}), and nothing was changed in it. Begin from a copy of it; the desk gives back what that lacks.`,
    )
    this.name = 'BrokenFile'
  }
}

/** Opens a file if every page of it can be read as what it should be. @throws BrokenFile */
function sound(path: string): Db {
  const db = new Database(path)
  try {
    const [first] = db.prepare('PRAGMA quick_check(1)').all() as { quick_check: string }[]
    if (first?.quick_check !== 'ok') throw new BrokenFile(path, first?.quick_check ?? 'unreadable')
    return db
  } catch (error) {
    db.close()
    if (error instanceof BrokenFile) throw error
    const trouble = fileTrouble(error)
    throw trouble === 'file.broken' ? new BrokenFile(path, (error as Error).message) : error
  }
}

/** The file comes from a newer relay. */
export class NewerFile extends Error {
  constructor(path: string, version: number) {
    super(`${path} was written by a newer relay (version ${version}). Please start that one.`)
    this.name = 'NewerFile'
  }
}

/**
 * Brings what is in the log into the file itself, as far as that hinders nobody; at the end (`TRUNCATE`) all of it, so
 * that the file alone is whole.
 */
export function checkpoint(db: Db, how: 'PASSIVE' | 'TRUNCATE'): void {
  try {
    db.pragma(`wal_checkpoint(${how})`)
  } catch (error) {
    // The log holds it all the same.
    log.warn({ err: error }, 'The log could not be brought into the file.')
  }
}

/**
 * Opens the relay's file, makes or upgrades its tables, and makes each answer durable: write-ahead log with a full sync
 * before a transaction counts.
 * @throws NewerFile, BrokenFile
 */
export function openDatabase(path: string): Db {
  const db = sound(path)
  if (path !== ':memory:') chmodSync(path, 0o600)
  db.pragma('journal_mode = WAL')
  db.pragma('synchronous = FULL')
  // What is deleted is overwritten: a name that is forgotten is not to be found in freed pages.
  db.pragma('secure_delete = ON')
  const { user_version: from } = db.prepare('PRAGMA user_version').get() as { user_version: number }
  if (from > STEPS.length) throw new NewerFile(path, from)
  STEPS.slice(from).forEach((step, i) => {
    atomically(db, () => {
      if (typeof step === 'string') db.exec(step)
      else step(db)
      db.exec(`PRAGMA user_version = ${from + i + 1}`)
    })
  })
  return db
}
