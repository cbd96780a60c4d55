import { enquirySubject, keyOf, nameOf, type Subject, sessionSubject } from '@acolhida/core/agenda'
import { type Booking, leastDates, replay, type StoredEvent } from '@acolhida/core/booking'
import type { DoorPackage } from '@acolhida/core/contract'
import { rowOf } from '@acolhida/core/house'
import type { Step } from '@acolhida/core/messages'
import type { Db } from './db.ts'

const TABLES = `
  ALTER TABLE record ADD COLUMN about TEXT NOT NULL DEFAULT 'booking';
  UPDATE record SET about = 'enquiry'
    WHERE kind = 'enquiry'
      OR (kind = 'mail' AND subject NOT IN (SELECT subject FROM record WHERE kind = 'booking' AND seq = 1));
  CREATE TABLE bookings (
    id TEXT PRIMARY KEY,
    service TEXT NOT NULL,
    place TEXT NOT NULL,
    start INTEGER NOT NULL,
    minutes INTEGER NOT NULL,
    status TEXT NOT NULL,
    until INTEGER NOT NULL,
    over INTEGER NOT NULL,
    code TEXT NOT NULL
  ) STRICT;
  CREATE INDEX bookings_over ON bookings (over);
  CREATE INDEX bookings_code ON bookings (code) WHERE code <> '';
  ALTER TABLE links RENAME TO links_before;
  CREATE TABLE links (
    hash TEXT PRIMARY KEY,
    id TEXT NOT NULL,
    kind TEXT NOT NULL,
    subject TEXT NOT NULL,
    proves INTEGER NOT NULL
  ) STRICT;
  CREATE INDEX links_subject ON links (kind, subject);
  INSERT INTO links SELECT hash, hash, 'booking', booking, proves FROM links_before;
  INSERT INTO links SELECT hash, hash, 'quote', hash, 1 FROM quotes;
  DROP TABLE links_before;
  ALTER TABLE quotes RENAME COLUMN hash TO id;
  CREATE INDEX quotes_enquiry ON quotes (enquiry);
  ALTER TABLE files ADD COLUMN size INTEGER NOT NULL DEFAULT 0;
  ALTER TABLE files ADD COLUMN sha256 TEXT NOT NULL DEFAULT '';
  UPDATE files SET size = length(data);
  CREATE INDEX files_booking ON files (booking);
  ALTER TABLE done RENAME TO done_before;
  CREATE TABLE answered (
    key TEXT PRIMARY KEY,
    print TEXT NOT NULL,
    answer TEXT NOT NULL,
    at INTEGER NOT NULL,
    kind TEXT NOT NULL DEFAULT '',
    subject TEXT NOT NULL DEFAULT ''
  ) STRICT;
  CREATE INDEX answered_subject ON answered (kind, subject);
  CREATE INDEX answered_at ON answered (at);
  INSERT INTO answered (key, print, answer, at)
    SELECT key, print, replace(answer, '{"link":', '{"secret":'), at FROM done_before
    WHERE key NOT LIKE 'judged %' AND key NOT LIKE 'place %';
  CREATE TABLE done (
    key TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    subject TEXT NOT NULL,
    at INTEGER NOT NULL
  ) STRICT;
  CREATE INDEX done_subject ON done (kind, subject);
  CREATE TABLE messages (
    key TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    subject TEXT NOT NULL,
    state TEXT NOT NULL,
    step TEXT NOT NULL,
    tries INTEGER NOT NULL,
    due INTEGER NOT NULL
  ) STRICT;
  CREATE INDEX messages_subject ON messages (kind, subject);
  CREATE INDEX messages_handed ON messages (state) WHERE state = 'handed';
  CREATE TABLE agenda (
    key TEXT PRIMARY KEY,
    at INTEGER NOT NULL,
    kind TEXT NOT NULL,
    subject TEXT NOT NULL,
    doing TEXT NOT NULL
  ) STRICT;
`

/**
 * Version 5: bookings are found by a row each, what is due is planned, messages are rendered when they go, and
 * everything belongs to a subject. This is the one place that reads how earlier versions named things.
 */
export function toVersion5(db: Db): void {
  db.exec(TABLES)
  const bookings = replayed(db)
  const insert = db.prepare(
    `INSERT INTO bookings (id, service, place, start, minutes, status, until, over, code)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  )
  for (const booking of bookings.values()) {
    const row = rowOf(booking)
    insert.run(
      booking.id,
      row.service,
      row.place,
      row.start,
      row.minutes,
      row.status,
      row.until,
      row.over,
      row.code,
    )
  }
  moveMessages(db, bookings)
  moveJudged(db)
  db.exec('DROP TABLE outbox; DROP TABLE done_before;')
}

function replayed(db: Db): Map<string, Booking> {
  const rows = db
    .prepare(`SELECT subject, body FROM record WHERE kind = 'booking' ORDER BY subject, seq`)
    .all() as { subject: string; body: string }[]
  const records = new Map<string, StoredEvent[]>()
  for (const { subject, body } of rows) {
    const record = records.get(subject) ?? []
    record.push(JSON.parse(body) as StoredEvent)
    records.set(subject, record)
  }
  return new Map([...records].map(([id, record]) => [id, replay(id, record)]))
}

/** Messages that have gone are known by their new names; those that wait are named, and planned anew. */
function moveMessages(db: Db, bookings: ReadonlyMap<string, Booking>): void {
  const insert = db.prepare(
    'INSERT OR IGNORE INTO messages (key, kind, subject, state, step, tries, due) VALUES (?, ?, ?, ?, ?, ?, ?)',
  )
  const waiting: string[] = []
  const rows = db.prepare('SELECT booking, seq, step, state, tries, due FROM outbox').all() as {
    booking: string
    seq: number
    step: Step
    state: string
    tries: number
    due: number
  }[]
  for (const { booking: id, seq, step, state, tries, due } of rows) {
    const booking = bookings.get(id)
    const subject: Subject = booking ? { kind: 'booking', id } : enquirySubject(id)
    const anchor = step === 'place' && booking ? booking.placed : seq
    const key = keyOf(subject, { do: 'message', step, anchor })
    if (state === 'waiting' || state === 'asleep') {
      waiting.push(key)
      if (tries > 0) insert.run(key, subject.kind, id, 'again', step, tries, due)
    } else insert.run(key, subject.kind, id, state, step, tries, due)
  }
  // What was said about enquiries and has left no trace in the outbox went long ago.
  const news = db
    .prepare(`SELECT subject, seq, at, body FROM record WHERE kind = 'enquiry' AND seq > 1`)
    .all() as { subject: string; seq: number; at: number; body: string }[]
  const plan = db.prepare('INSERT INTO agenda (key, at, kind, subject, doing) VALUES (?, ?, ?, ?, ?)')
  for (const { subject: id, seq, at, body } of news) {
    const { news: what } = JSON.parse(body) as { news: string }
    if (what === 'booked') continue
    const subject = enquirySubject(id)
    const doing = {
      do: 'message' as const,
      step: what === 'quoted' ? ('quote' as const) : ('enquiry-answered' as const),
      anchor: seq,
    }
    const key = keyOf(subject, doing)
    // A quote that waits gets another link: the one before was in its text alone.
    if (waiting.includes(key)) plan.run(key, at, subject.kind, id, JSON.stringify(doing))
    else insert.run(key, subject.kind, id, 'sent', doing.step, 1, at)
  }
  db.prepare('INSERT INTO settings (name, value) VALUES (?, ?)').run(
    'waiting-before-5',
    JSON.stringify(waiting),
  )
}

function moveJudged(db: Db): void {
  const row = db.prepare(`SELECT value FROM settings WHERE name = 'package'`).get() as
    | { value: string }
    | undefined
  if (!row) return
  const { practice } = JSON.parse(row.value) as DoorPackage
  const judged = db.prepare('SELECT at FROM done_before WHERE key = ?')
  for (const { service, date, start } of leastDates(practice)) {
    const before = judged.get(`judged ${service.id} ${start}`) as { at: number } | undefined
    if (!before) continue
    const subject = sessionSubject(service.id, date.id)
    db.prepare('INSERT INTO done (key, kind, subject, at) VALUES (?, ?, ?, ?)').run(
      `${nameOf(subject)}/judge ${start}`,
      subject.kind,
      subject.id,
      before.at,
    )
  }
}
