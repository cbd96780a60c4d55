import { type Attempt, apply, type Booking, type BookingEvent, begin, replay } from '@acolhida/core/booking'
import type { DoorPackage, Enquiry, EnquiryNews, MailNews, RecordItem } from '@acolhida/core/door'
import type { KnownPerson } from '@acolhida/core/people'
import { sha256Hex } from '@acolhida/core/terms'
import { type Instant, instant } from '@acolhida/core/time'
import { CalendarStates } from './calendar-states.ts'
import { type Db, openDatabase } from './database.ts'
import { Files } from './files.ts'
import { Quotes } from './quotes.ts'
import { token } from './token.ts'

export { token }

export interface Keep {
  visit: string
  service: string
  place: string
  start: Instant
  minutes: number
  /** The travel zone, if any. */
  travel?: string | undefined
  until: Instant
  renewed: boolean
}

export interface OutboxRow {
  key: string
  booking: string
  seq: number
  step: string
  due: Instant
  state: 'waiting' | 'asleep' | 'sent' | 'failed' | 'taken-back'
  tries: number
  recipient: string
  subject: string
  body: string
  calendar: string
}

/**
 * The relay's memory: one file, and beside it the bookings as their records tell them. Whatever changes
 * something runs inside `act`, which is one transaction; the copy in memory follows only when it has been
 * written.
 */
export class Store {
  readonly db: Db
  readonly files: Files
  readonly quotes: Quotes
  readonly calendars: CalendarStates
  readonly #bookings = new Map<string, Booking>()
  #pending: Booking[] = []
  #forgotten: string[] = []
  #package: DoorPackage | undefined
  #appended = false
  #packageChanged: DoorPackage | undefined
  /** In a trial of the door: whoever comes is this person. */
  visitor: KnownPerson | undefined
  /** Told after a transaction that added to the record or changed what the door shows. */
  onChange: () => void = () => {}

  constructor(path: string) {
    this.db = openDatabase(path)
    this.files = new Files(this.db)
    this.quotes = new Quotes(this.db)
    this.calendars = new CalendarStates(this.db)
    const rows = this.db
      .prepare(`SELECT subject, body FROM record WHERE kind = 'booking' ORDER BY subject, seq`)
      .all() as { subject: string; body: string }[]
    const records = new Map<string, BookingEvent[]>()
    for (const { subject, body } of rows) {
      const record = records.get(subject) ?? []
      record.push(JSON.parse(body) as BookingEvent)
      records.set(subject, record)
    }
    for (const [id, record] of records) this.#bookings.set(id, replay(id, record))
    const stored = this.setting('package')
    this.#package = stored ? (JSON.parse(stored) as DoorPackage) : undefined
  }

  close(): void {
    this.db.close()
  }

  /** Runs one act in one transaction. When it throws, nothing of it remains. */
  act<T>(work: () => T): T {
    this.#pending = []
    this.#forgotten = []
    this.#appended = false
    this.#packageChanged = undefined
    try {
      const result = this.db.transaction(work)()
      for (const booking of this.#pending) this.#bookings.set(booking.id, booking)
      for (const id of this.#forgotten) this.#bookings.delete(id)
      if (this.#packageChanged) this.#package = this.#packageChanged
      if (this.#appended || this.#packageChanged) this.onChange()
      return result
    } finally {
      this.#pending = []
    }
  }

  setting(name: string): string | undefined {
    const row = this.db.prepare('SELECT value FROM settings WHERE name = ?').get(name) as
      | { value: string }
      | undefined
    return row?.value
  }

  set(name: string, value: string): void {
    this.db
      .prepare(
        'INSERT INTO settings (name, value) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET value = excluded.value',
      )
      .run(name, value)
  }

  unset(name: string): void {
    this.db.prepare('DELETE FROM settings WHERE name = ?').run(name)
  }

  get package(): DoorPackage | undefined {
    return this.#package
  }

  savePackage(next: DoorPackage): void {
    this.set('package', JSON.stringify(next))
    this.#packageChanged = next
  }

  booking(id: string): Booking | undefined {
    return this.#pending.findLast((one) => one.id === id) ?? this.#bookings.get(id)
  }

  bookings(): Iterable<Booking> {
    return this.#bookings.values()
  }

  #append(at: Instant, kind: string, subject: string, seq: number, body: unknown): void {
    this.db
      .prepare('INSERT INTO record (at, kind, subject, seq, body) VALUES (?, ?, ?, ?, ?)')
      .run(at, kind, subject, seq, JSON.stringify(body))
    this.#appended = true
  }

  /** Appends one event to a booking's record and gives the booking after it. */
  appendEvent(id: string, event: BookingEvent): Booking {
    const before = this.booking(id)
    const after = event.type === 'asked' ? begin(id, event) : apply(before ?? missing(id), event)
    this.#append(event.at, 'booking', id, after.seq, event)
    this.#pending.push(after)
    return after
  }

  appendEnquiry(enquiry: Enquiry): void {
    this.#append(enquiry.at, 'enquiry', enquiry.id, 1, enquiry)
  }

  appendMail(at: Instant, row: Pick<OutboxRow, 'key' | 'booking'>, news: MailNews): void {
    const { n } = this.db
      .prepare(`SELECT count(*) AS n FROM record WHERE kind = 'mail' AND subject = ?`)
      .get(row.booking) as { n: number }
    this.#append(at, 'mail', row.booking, n + 1, news)
  }

  recordAfter(after: number, most: number): RecordItem[] {
    const rows = this.db
      .prepare('SELECT n, at, kind, subject, seq, body FROM record WHERE n > ? ORDER BY n LIMIT ?')
      .all(after, most) as {
      n: number
      at: number
      kind: string
      subject: string
      seq: number
      body: string
    }[]
    return rows.map((row) => ({ ...row, at: instant(row.at), body: JSON.parse(row.body) }) as RecordItem)
  }

  /** The newest number of the record, and the first below which nothing has been forgotten. */
  recordEnds(): { first: number; last: number } {
    const { last } = this.db.prepare('SELECT max(n) AS last FROM record').get() as { last: number | null }
    return { first: Number(this.setting('forgotten') ?? 0) + 1, last: last ?? 0 }
  }

  /** Forgets bookings that ended before an instant, with their links and messages, and enquiries as old. */
  forgetRecord(before: Instant): void {
    let newest = 0
    const drop = (kind: string, subject: string): void => {
      const { n } = this.db
        .prepare('SELECT max(n) AS n FROM record WHERE kind = ? AND subject = ?')
        .get(kind, subject) as { n: number | null }
      newest = Math.max(newest, n ?? 0)
      this.db.prepare('DELETE FROM record WHERE kind = ? AND subject = ?').run(kind, subject)
    }
    for (const booking of this.#bookings.values()) {
      if (booking.start >= before || (booking.status === 'requested' && booking.until >= before)) continue
      drop('booking', booking.id)
      drop('mail', booking.id)
      this.db.prepare('DELETE FROM links WHERE booking = ?').run(booking.id)
      this.files.forgetOf(booking.id)
      this.#forgotten.push(booking.id)
    }
    const enquiries = this.db
      .prepare(`SELECT subject FROM record WHERE kind = 'enquiry' AND at < ?`)
      .all(before) as { subject: string }[]
    for (const { subject } of enquiries) drop('enquiry', subject)
    if (newest > Number(this.setting('forgotten') ?? 0)) this.set('forgotten', String(newest))
  }

  appendEnquiryNews(id: string, news: EnquiryNews): number {
    const { n } = this.db
      .prepare(`SELECT count(*) AS n FROM record WHERE kind = 'enquiry' AND subject = ?`)
      .get(id) as { n: number }
    this.#append(news.at, 'enquiry', id, n + 1, news)
    return n + 1
  }

  enquiry(id: string): Enquiry | undefined {
    const row = this.db
      .prepare(`SELECT body FROM record WHERE kind = 'enquiry' AND subject = ? AND seq = 1`)
      .get(id) as { body: string } | undefined
    return row && (JSON.parse(row.body) as Enquiry)
  }

  addLink(booking: string, proves: boolean): string {
    const secret = token()
    this.db
      .prepare('INSERT INTO links (hash, booking, proves) VALUES (?, ?, ?)')
      .run(sha256Hex(secret), booking, proves ? 1 : 0)
    return secret
  }

  link(secret: string): { booking: string; proves: boolean } | undefined {
    const row = this.db.prepare('SELECT booking, proves FROM links WHERE hash = ?').get(sha256Hex(secret)) as
      | { booking: string; proves: number }
      | undefined
    return row && { booking: row.booking, proves: row.proves === 1 }
  }

  addAttempt(visit: string, attempt: Attempt): void {
    this.db
      .prepare(
        `INSERT INTO attempts (visit, at, service, answers, outcome) VALUES (?, ?, ?, ?, ?)
         ON CONFLICT DO UPDATE SET at = excluded.at, outcome = excluded.outcome`,
      )
      .run(visit, attempt.at, attempt.service, JSON.stringify(attempt.answers), attempt.outcome)
  }

  attempts(visit: string): Attempt[] {
    const rows = this.db
      .prepare('SELECT at, service, answers, outcome FROM attempts WHERE visit = ? ORDER BY at, rowid')
      .all(visit) as { at: number; service: string; answers: string; outcome: string }[]
    return rows.map((row) => ({ ...row, answers: JSON.parse(row.answers) }) as Attempt)
  }

  keepOf(visit: string): Keep | undefined {
    return this.#keeps('visit = ?', visit)[0]
  }

  keepsAt(now: Instant): Keep[] {
    return this.#keeps('until >= ?', now)
  }

  #keeps(where: string, value: string | number): Keep[] {
    const rows = this.db.prepare(`SELECT * FROM keeps WHERE ${where}`).all(value) as (Omit<
      Keep,
      'renewed'
    > & {
      renewed: number
      travel: string
    })[]
    return rows.map(({ visit, service, place, start, minutes, travel, until, renewed }) => ({
      visit,
      service,
      place,
      start,
      minutes,
      travel: travel || undefined,
      until,
      renewed: renewed === 1,
    }))
  }

  keep(keep: Keep): void {
    this.db
      .prepare(
        `INSERT OR REPLACE INTO keeps (visit, service, place, start, minutes, travel, until, renewed)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run(
        keep.visit,
        keep.service,
        keep.place,
        keep.start,
        keep.minutes,
        keep.travel ?? '',
        keep.until,
        keep.renewed ? 1 : 0,
      )
    this.#appended = true
  }

  unkeep(visit: string): void {
    const { changes } = this.db.prepare('DELETE FROM keeps WHERE visit = ?').run(visit)
    if (changes > 0) this.#appended = true
  }

  done(key: string): { print: string; answer: unknown } | undefined {
    const row = this.db.prepare('SELECT print, answer FROM done WHERE key = ?').get(key) as
      | { print: string; answer: string }
      | undefined
    return row && { print: row.print, answer: JSON.parse(row.answer) }
  }

  markDone(key: string, print: string, answer: unknown, at: Instant): void {
    this.db
      .prepare('INSERT INTO done (key, print, answer, at) VALUES (?, ?, ?, ?)')
      .run(key, print, JSON.stringify(answer), at)
  }

  post(row: Omit<OutboxRow, 'state' | 'tries'>): void {
    this.db
      .prepare(
        `INSERT INTO outbox (key, booking, seq, step, due, state, recipient, subject, body, calendar)
         VALUES (?, ?, ?, ?, ?, 'waiting', ?, ?, ?, ?) ON CONFLICT DO NOTHING`,
      )
      .run(
        row.key,
        row.booking,
        row.seq,
        row.step,
        row.due,
        row.recipient,
        row.subject,
        row.body,
        row.calendar,
      )
  }

  outboxDue(now: Instant, most: number): OutboxRow[] {
    return this.db
      .prepare(`SELECT * FROM outbox WHERE state = 'waiting' AND due <= ? ORDER BY due, key LIMIT ?`)
      .all(now, most) as OutboxRow[]
  }

  waitingLetters(booking: string): OutboxRow[] {
    return this.db
      .prepare(`SELECT * FROM outbox WHERE state = 'waiting' AND booking = ?`)
      .all(booking) as OutboxRow[]
  }

  /** What has gone, or will not go, is kept without its text. */
  settleLetter(key: string, state: 'sent' | 'failed' | 'taken-back'): void {
    this.db.prepare(`UPDATE outbox SET state = ?, body = '', calendar = '' WHERE key = ?`).run(state, key)
  }

  /** Sets the reminder of the word aside while a decision stands; it wakes when that is taken back. */
  sleepReminder(key: string): void {
    this.db.prepare(`UPDATE outbox SET state = 'asleep' WHERE key = ?`).run(key)
  }

  wakeReminder(key: string): void {
    this.db.prepare(`UPDATE outbox SET state = 'waiting' WHERE key = ? AND state = 'asleep'`).run(key)
  }

  sleepingReminder(booking: string): OutboxRow | undefined {
    return this.db.prepare(`SELECT * FROM outbox WHERE state = 'asleep' AND booking = ?`).get(booking) as
      | OutboxRow
      | undefined
  }

  retryLetter(key: string, due: Instant): void {
    this.db.prepare('UPDATE outbox SET tries = tries + 1, due = ? WHERE key = ?').run(due, key)
  }

  /** Forgets what is older than `before`: what is only needed for a while. */
  forget(before: Instant): void {
    this.db.prepare('DELETE FROM attempts WHERE at < ?').run(before)
    this.db.prepare('DELETE FROM done WHERE at < ?').run(before)
    this.db.prepare('DELETE FROM keeps WHERE until < ?').run(before)
    this.quotes.forget(before)
    this.db.prepare(`DELETE FROM outbox WHERE state <> 'waiting' AND due < ?`).run(before)
  }
}

function missing(id: string): never {
  throw new Error(`There is no booking ${id}.`)
}
