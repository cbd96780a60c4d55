import { type Doing, type Due, type Message, nameOf, quoteSubject, type Subject } from '@acolhida/core/agenda'
import { type Attempt, type Booking, replay, type StoredEvent } from '@acolhida/core/booking'
import type { CalendarState, DoorPackage, Enquiry, EnquiryNews } from '@acolhida/core/contract'
import {
  type Answered,
  type Change,
  type FileFacts,
  type Half,
  type Keep,
  type KeptQuote,
  type Link,
  type Loaded,
  type Old,
  REMEMBERED,
  type Store,
  type Untold,
} from '@acolhida/core/house'
import type { Which } from '@acolhida/core/messages'
import type { CourseEvent } from '@acolhida/core/preparing'
import type { FileKind, Outcome } from '@acolhida/core/questions'
import { sha256Hex } from '@acolhida/core/terms'
import { type Instant, instant, shift } from '@acolhida/core/time'
import type { FreedEvent, LineEvent } from '@acolhida/core/waiting'
import { fileTrouble, type Health } from '../ground/health.ts'
import { atomically, type Db } from './db.ts'
import type { Secrets } from './keys.ts'
import { type Row, Statements } from './statements.ts'
import { LINKS_AS, type Locks, WORD_LINK, write } from './write.ts'

const subjectOf = (row: Row<'kind' | 'subject'>): Subject => ({
  kind: row.kind as Subject['kind'],
  id: row.subject,
})

/** The relay's file as the doorkeeper's store. Changes are written in one transaction. */
export class SqliteStore implements Store {
  readonly db: Db
  /** Told whether it can be written. */
  health: Health | undefined
  readonly #secrets: Secrets
  readonly #sql: Statements
  readonly #locks: Locks

  constructor(db: Db, secrets: Secrets) {
    this.db = db
    this.#secrets = secrets
    this.#sql = new Statements(db)
    this.#locks = {
      hashOf: (link) => sha256Hex(this.#secrets.of(link)),
      seal: (text) => this.#secrets.seal(text),
    }
  }

  write(changes: readonly Change[], bytes?: Uint8Array): void {
    this.#guarded(() =>
      atomically(this.db, () => {
        for (const change of changes) write(this.#sql, change, this.#locks, bytes)
      }),
    )
  }

  /** Whether it can be written is known from each attempt. */
  #guarded(writes: () => void): void {
    try {
      writes()
    } catch (error) {
      const trouble = fileTrouble(error)
      if (trouble) this.health?.is(trouble, error)
      throw error
    }
    this.health?.isWell('file')
  }

  /** Seals what a file of an earlier version holds in clear, and leaves nothing of it behind. */
  sealOld(): void {
    const pack = this.setting('package')
    const states = this.#sql.all<Row<'id' | 'state'>>('SELECT id, state FROM calendars')
    const open = states.filter(({ state }) => !this.#secrets.isSealed(state))
    if ((pack === undefined || this.#secrets.isSealed(pack)) && open.length === 0) return
    if (pack !== undefined && !this.#secrets.isSealed(pack)) this.set('package', this.#secrets.seal(pack))
    for (const { id, state } of open)
      this.#sql.run('UPDATE calendars SET state = ? WHERE id = ?', this.#secrets.seal(state), id)
    this.db.exec('VACUUM')
    this.db.pragma('wal_checkpoint(TRUNCATE)')
  }

  setting(name: string): string | undefined {
    return this.#sql.get<Row<'value'>>('SELECT value FROM settings WHERE name = ?', name)?.value
  }

  /** Keeps what is the relay's own, and none of the house. */
  set(name: string, value: string): void {
    this.#guarded(() =>
      this.#sql.run('INSERT OR REPLACE INTO settings (name, value) VALUES (?, ?)', name, value),
    )
  }

  unset(name: string): void {
    this.#sql.run('DELETE FROM settings WHERE name = ?', name)
  }

  booking(id: string): Booking | undefined {
    const rows = this.#sql.all<Row<'body'>>(
      `SELECT body FROM record WHERE kind = 'booking' AND subject = ? ORDER BY seq`,
      id,
    )
    return rows.length === 0
      ? undefined
      : replay(
          id,
          rows.map((row) => JSON.parse(row.body) as StoredEvent),
        )
  }

  attempts(visit: string): Attempt[] {
    return this.#attempts(visit).map(attemptIn)
  }

  untold(visit: string): Untold {
    const all = this.#attempts(visit)
    const earlier = all.filter(({ told }) => told !== '').at(-1)?.told
    return {
      attempts: all.filter(({ told }) => told === '').map(attemptIn),
      ...(earlier === undefined ? {} : { earlier }),
    }
  }

  #attempts(visit: string): AttemptRow[] {
    return this.#sql.all<AttemptRow>(
      'SELECT at, service, answers, outcome, told FROM attempts WHERE visit = ? ORDER BY at, rowid',
      visit,
    )
  }

  file(id: string): FileFacts | undefined {
    const row = this.#sql.get<Row<'id' | 'visit' | 'name' | 'type' | 'sha256' | 'booking', 'at' | 'size'>>(
      'SELECT id, visit, at, name, type, size, sha256, booking FROM files WHERE id = ?',
      id,
    )
    return row && { ...row, at: instant(row.at), type: row.type as FileKind }
  }

  half(course: string, station: string): Half | undefined {
    return this.#sql.get<Row<'sealed', 'n'>>(
      'SELECT n, sealed FROM halves WHERE course = ? AND station = ?',
      course,
      station,
    )
  }

  /** What is in a file. */
  bytes(id: string): Buffer | undefined {
    return this.#sql.get<{ data: Buffer }>('SELECT data FROM files WHERE id = ?', id)?.data
  }

  waitingBytes(visit?: string): number {
    const sum = `SELECT coalesce(sum(size), 0) AS bytes FROM files WHERE booking = ''`
    const row =
      visit === undefined
        ? this.#sql.get<Row<never, 'bytes'>>(sum)
        : this.#sql.get<Row<never, 'bytes'>>(`${sum} AND visit = ?`, visit)
    return row?.bytes ?? 0
  }

  quote(id: string): KeptQuote | undefined {
    const row = this.#sql.get<QuoteRow>('SELECT id, enquiry, booking, body FROM quotes WHERE id = ?', id)
    return row && quoteIn(row)
  }

  quotesOf(enquiry: string): KeptQuote[] {
    return this.#sql
      .all<QuoteRow>('SELECT id, enquiry, booking, body FROM quotes WHERE enquiry = ?', enquiry)
      .map(quoteIn)
  }

  link(hash: string): Link | undefined {
    const row = this.#sql.get<Row<'id' | 'kind' | 'subject', 'proves'>>(
      'SELECT id, kind, subject, proves FROM links WHERE hash = ?',
      hash,
    )
    return (
      row && {
        id: row.id,
        subject: subjectOf(row),
        proves: row.proves === 1,
        ...(row.proves === WORD_LINK ? { word: true } : {}),
        ...(row.proves === LINKS_AS.comes ? { as: 'comes' } : {}),
        ...(row.proves === LINKS_AS.pays ? { as: 'pays' } : {}),
      }
    )
  }

  enquiryLines(id: string): (Enquiry | EnquiryNews)[] {
    return this.#sql
      .all<Row<'body'>>(`SELECT body FROM record WHERE kind = 'enquiry' AND subject = ? ORDER BY seq`, id)
      .map((row) => JSON.parse(row.body) as Enquiry | EnquiryNews)
  }

  lines(kind: 'enquiry' | 'mail', { id }: Subject): number {
    const row = this.#sql.get<Row<never, 'n'>>(
      'SELECT coalesce(max(seq), 0) AS n FROM record WHERE kind = ? AND subject = ?',
      kind,
      id,
    )
    return row?.n ?? 0
  }

  done(key: string): boolean {
    return this.#sql.get('SELECT 1 AS yes FROM done WHERE key = ?', key) !== undefined
  }

  message(key: string): Message | undefined {
    const row = this.#sql.get<MessageRow>(
      'SELECT state, step, tries, due, anchor, channel FROM messages WHERE key = ?',
      key,
    )
    return row && messageIn(row)
  }

  /** The messages that were being handed over when the relay ended. */
  handed(): { key: string; subject: Subject; which: Which }[] {
    return this.#sql
      .all<MessageRow & Row<'key' | 'kind' | 'subject'>>(
        `SELECT key, kind, subject, state, step, tries, due, anchor, channel FROM messages
         WHERE state = 'handed' ORDER BY key`,
      )
      .map((row) => {
        const { step, anchor = 0, channel } = messageIn(row)
        return {
          key: row.key,
          subject: subjectOf(row),
          which: { step, anchor, ...(channel ? { channel } : {}) },
        }
      })
  }

  answered(key: string): Answered | undefined {
    const row = this.#sql.get<Row<'key' | 'print' | 'answer' | 'kind' | 'subject', 'at'>>(
      'SELECT key, print, answer, at, kind, subject FROM answered WHERE key = ?',
      key,
    )
    if (!row) return undefined
    const { print, answer, at, kind } = row
    const about = kind ? { subject: subjectOf(row) } : {}
    return { key, print, answer: JSON.parse(answer), at: instant(at), ...about }
  }

  subjectsOf(theirs: (email: string, at: number) => boolean): Subject[] {
    const found: Subject[] = []
    // Each record begins with whose it is. All are gone through: this is done rarely, and no address stands in a column.
    const rows = this.db
      .prepare(
        `SELECT kind, subject, body FROM record
         WHERE seq = 1 AND kind IN ('booking', 'enquiry', 'waiting', 'course')`,
      )
      .iterate() as Iterable<Row<'kind' | 'subject' | 'body'>>
    for (const row of rows) {
      const first = JSON.parse(row.body) as { at: number; email?: string; person?: { email: string } }
      const email = first.person?.email ?? first.email
      if (email === undefined || !theirs(email, first.at)) continue
      const subject = subjectOf(row)
      found.push(subject)
    }
    const quotes = found.flatMap(({ kind, id }) =>
      kind === 'enquiry' ? this.quotesOf(id).map((quote) => quoteSubject(quote.id)) : [],
    )
    return [...found, ...quotes].sort((a, b) => (nameOf(a) < nameOf(b) ? -1 : 1))
  }

  old(bookingsBefore: Instant, quotesBefore: Instant): Old {
    const ids = (sql: string, ...values: number[]): string[] =>
      this.#sql.all<Row<'id'>>(sql, ...values).map((row) => row.id)
    return {
      bookings: ids(
        `SELECT id FROM bookings WHERE start < ?1 AND NOT (status = 'requested' AND until >= ?1) ORDER BY id`,
        bookingsBefore,
      ),
      enquiries: ids(
        `SELECT subject AS id FROM record WHERE kind = 'enquiry' AND seq = 1 AND at < ? ORDER BY subject`,
        bookingsBefore,
      ),
      quotes: ids('SELECT id FROM quotes WHERE until < ? ORDER BY id', quotesBefore),
      lines: this.#endedBefore('waiting', bookingsBefore),
      freed: this.#endedBefore('freed', bookingsBefore),
      courses: this.#endedBefore('course', bookingsBefore),
    }
  }

  #endedBefore(kind: 'waiting' | 'freed' | 'course', before: number): string[] {
    return this.#sql
      .all<Row<'subject'>>(
        'SELECT subject FROM record WHERE kind = ? GROUP BY subject HAVING max(at) < ? ORDER BY subject',
        kind,
        before,
      )
      .map(({ subject }) => subject)
  }

  /** The whole records of a kind of subject. */
  #recordsOf<E>(kind: 'waiting' | 'freed' | 'course'): Map<string, E[]> {
    const records = new Map<string, E[]>()
    const rows = this.#sql.all<Row<'subject' | 'body'>>(
      'SELECT subject, body FROM record WHERE kind = ? ORDER BY subject, seq',
      kind,
    )
    for (const { subject, body } of rows) {
      const event = JSON.parse(body) as E
      const record = records.get(subject)
      if (record) record.push(event)
      else records.set(subject, [event])
    }
    return records
  }

  load(): Loaded {
    const { newest } = this.#sql.get<{ newest: number | null }>(
      'SELECT max(at) AS newest FROM record WHERE n > (SELECT max(n) - 1000 FROM record)',
    ) ?? { newest: 0 }
    const forgotten = instant(Number(this.setting('forgotten-at') ?? 0))
    const since = shift(instant(Math.max(newest ?? 0, forgotten)), -REMEMBERED)
    const open = 'SELECT id FROM bookings WHERE over >= ?'
    const pack = this.setting('package')
    return {
      pack: pack === undefined ? undefined : (JSON.parse(this.#secrets.open(pack)) as DoorPackage),
      bookings: this.#records(since, open),
      uses: new Map(
        this.#sql
          .all<Row<'code', 'n'>>(
            `SELECT code, count(*) AS n FROM bookings
             WHERE code <> '' AND status IN ('requested', 'booked', 'attended', 'missed') GROUP BY code`,
          )
          .map((row) => [row.code, row.n]),
      ),
      keeps: this.#keeps(),
      lines: this.#recordsOf<LineEvent>('waiting'),
      freed: this.#recordsOf<FreedEvent>('freed'),
      courses: this.#recordsOf<CourseEvent>('course'),
      calendars: this.#sql
        .all<Row<'state'>>('SELECT state FROM calendars ORDER BY id')
        .map((row) => JSON.parse(this.#secrets.open(row.state)) as CalendarState),
      chain: this.setting('chain-head') ?? '',
      numbered: Number(this.setting('numbered') ?? 0),
      dues: this.#sql
        .all<Row<'key' | 'kind' | 'subject' | 'doing', 'at'>>(
          'SELECT key, at, kind, subject, doing FROM agenda',
        )
        .map(
          (row): Due => ({
            key: row.key,
            at: instant(row.at),
            subject: subjectOf(row),
            doing: JSON.parse(row.doing) as Doing,
          }),
        ),
      done: this.#sql
        .all<Row<'key'>>(`SELECT key FROM done WHERE kind = 'booking' AND subject IN (${open})`, since)
        .map((row) => row.key),
      messages: new Map(
        this.#sql
          .all<MessageRow & Row<'key'>>(
            `SELECT key, state, step, tries, due, anchor, channel FROM messages WHERE kind = 'booking' AND subject IN (${open})`,
            since,
          )
          .map((row) => [row.key, messageIn(row)]),
      ),
      forgotten,
    }
  }

  #records(since: number, open: string): Booking[] {
    const records = new Map<string, StoredEvent[]>()
    const rows = this.#sql.all<Row<'subject' | 'body'>>(
      `SELECT subject, body FROM record WHERE kind = 'booking' AND subject IN (${open}) ORDER BY subject, seq`,
      since,
    )
    for (const { subject, body } of rows) {
      const record = records.get(subject)
      const event = JSON.parse(body) as StoredEvent
      if (record) record.push(event)
      else records.set(subject, [event])
    }
    return [...records].map(([id, record]) => replay(id, record))
  }

  #keeps(): Keep[] {
    return this.#sql
      .all<Row<'visit' | 'service' | 'place' | 'travel', 'start' | 'minutes' | 'until' | 'renewed'>>(
        'SELECT visit, service, place, travel, start, minutes, until, renewed FROM keeps ORDER BY visit',
      )
      .map(({ travel, start, until, renewed, ...rest }) => ({
        ...rest,
        ...(travel ? { travel } : {}),
        start: instant(start),
        until: instant(until),
        renewed: renewed === 1,
      }))
  }
}

type MessageRow = Row<'state' | 'step' | 'channel', 'tries' | 'due' | 'anchor'>
const messageIn = ({ state, step, tries, due, anchor, channel }: MessageRow): Message => ({
  state: state as Message['state'],
  step: step as Message['step'],
  tries,
  due: instant(due),
  ...(anchor === 0 ? {} : { anchor }),
  ...(channel === 'text' ? { channel } : {}),
})

type AttemptRow = Row<'service' | 'answers' | 'outcome' | 'told', 'at'>
const attemptIn = ({ at, service, answers, outcome }: AttemptRow): Attempt => ({
  at: instant(at),
  service,
  answers: JSON.parse(answers) as Attempt['answers'],
  outcome: outcome as Outcome,
})

type QuoteRow = Row<'id' | 'enquiry' | 'booking' | 'body'>
const quoteIn = ({ body, ...row }: QuoteRow): KeptQuote => ({
  ...(JSON.parse(body) as Omit<KeptQuote, 'id' | 'enquiry' | 'booking'>),
  ...row,
})
