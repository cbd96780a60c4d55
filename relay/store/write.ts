import type { Subject } from '@acolhida/core/agenda'
import type { Change } from '@acolhida/core/house'
import { sha256Hex } from '@acolhida/core/terms'
import type { Row, Statements } from './statements.ts'

/** What stands for a word link where other links say whether they prove an address. */
export const WORD_LINK = 2
/** What stands for a link that went to somebody else than who asked, there too. */
export const LINKS_AS = { comes: 3, pays: 4 } as const

/** A line of the record, with the running hash of all up to it: by that, a desk knows the record it was told from another. */
function line(
  sql: Statements,
  about: Subject['kind'],
  kind: string,
  { subject, seq, at, body }: { subject: string; seq: number; at: number; body: unknown },
): void {
  const text = JSON.stringify(body)
  const last = sql.get<Row<'print'>>('SELECT print FROM record ORDER BY n DESC LIMIT 1')?.print ?? ''
  const print = sha256Hex(`${last} ${kind} ${subject} ${seq} ${at} ${text}`)
  sql.run(
    'INSERT INTO record (at, kind, subject, seq, body, about, print) VALUES (?, ?, ?, ?, ?, ?, ?)',
    at,
    kind,
    subject,
    seq,
    text,
    about,
    print,
  )
}

/** What the file does not hold in clear. */
export interface Locks {
  /** The hash of a private link's secret, by the link's name. */
  hashOf(link: string): string
  /** What only this relay's key reads: keys of services, addresses of calendars. */
  seal(text: string): string
}

/**
 * Writes one change.
 * @param bytes of the file that is taken, if one is
 */
export function write(
  sql: Statements,
  change: Change,
  { hashOf, seal }: Locks,
  bytes: Uint8Array | undefined,
): void {
  switch (change.type) {
    case 'emptied':
      empty(sql)
      return
    case 'package':
      sql.run(
        `INSERT OR REPLACE INTO settings (name, value) VALUES ('package', ?)`,
        seal(JSON.stringify(change.pack)),
      )
      return
    case 'event': {
      const { booking, seq, event, row } = change
      line(sql, 'booking', 'booking', { subject: booking, seq, at: event.at, body: event })
      sql.run(
        `INSERT OR REPLACE INTO bookings (id, service, place, start, minutes, status, until, over, code)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        booking,
        row.service,
        row.place,
        row.start,
        row.minutes,
        row.status,
        row.until,
        row.over,
        row.code,
      )
      return
    }
    case 'enquiry':
      line(sql, 'enquiry', 'enquiry', {
        subject: change.id,
        seq: change.seq,
        at: change.at,
        body: change.body,
      })
      return
    case 'waiting':
    case 'freed':
    case 'course': {
      const { id, seq, event } = change
      line(sql, change.type, change.type, { subject: id, seq, at: event.at, body: event })
      return
    }
    case 'half': {
      const { course, station, half } = change
      sql.run(
        'INSERT OR REPLACE INTO halves (course, station, n, sealed) VALUES (?, ?, ?, ?)',
        course,
        station,
        half.n,
        half.sealed,
      )
      return
    }
    case 'half-gone':
      sql.run('DELETE FROM halves WHERE course = ? AND station = ?', change.course, change.station)
      return
    case 'sealed': {
      const { kind, id, body } = change
      sql.run(
        'UPDATE record SET body = ? WHERE kind = ? AND subject = ? AND seq = 1',
        JSON.stringify(body),
        kind,
        id,
      )
      if (kind === 'booking') sql.run('DELETE FROM attempts WHERE request = ?', id)
      if (kind === 'enquiry') {
        sql.run('DELETE FROM attempts WHERE told = ?', id)
        sql.run(`UPDATE quotes SET body = json_set(body, '$.answers', json('{}')) WHERE enquiry = ?`, id)
      }
      return
    }
    case 'mail': {
      const { subject, seq, at, body } = change
      line(sql, subject.kind, 'mail', { subject: subject.id, seq, at, body })
      return
    }
    case 'keep': {
      const { visit, service, place, start, minutes, travel = '', until, renewed } = change.keep
      sql.run(
        `INSERT OR REPLACE INTO keeps (visit, service, place, start, minutes, travel, until, renewed)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
        visit,
        service,
        place,
        start,
        minutes,
        travel,
        until,
        renewed ? 1 : 0,
      )
      return
    }
    case 'unkeep':
      sql.run('DELETE FROM keeps WHERE visit = ?', change.visit)
      return
    case 'attempt': {
      const { at, service, answers, outcome } = change.attempt
      for (const old of change.gone ?? [])
        sql.run(
          'DELETE FROM attempts WHERE visit = ? AND service = ? AND answers = ?',
          change.visit,
          old.service,
          JSON.stringify(old.answers),
        )
      sql.run(
        // Replaced, it is the last again, also within one millisecond.
        'INSERT OR REPLACE INTO attempts (visit, at, service, answers, outcome) VALUES (?, ?, ?, ?, ?)',
        change.visit,
        at,
        service,
        JSON.stringify(answers),
        outcome,
      )
      return
    }
    case 'attempts-told':
      sql.run(`UPDATE attempts SET told = ? WHERE visit = ? AND told = ''`, change.enquiry, change.visit)
      return
    case 'attempts-sent':
      sql.run(
        `UPDATE attempts SET request = ? WHERE visit = ? AND request = ''`,
        change.booking,
        change.visit,
      )
      return
    case 'file': {
      const { id, visit, at, name, type, size, sha256, booking } = change.file
      sql.run(
        `INSERT INTO files (id, visit, at, name, type, size, sha256, booking, data)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        id,
        visit,
        at,
        name,
        type,
        size,
        sha256,
        booking,
        Buffer.from(bytes ?? []),
      )
      return
    }
    case 'claim':
      sql.run('UPDATE files SET booking = ? WHERE id = ?', change.booking, change.file)
      return
    case 'quote': {
      const { id, enquiry, booking, ...body } = change.quote
      sql.run(
        'INSERT INTO quotes (id, enquiry, until, booking, body) VALUES (?, ?, ?, ?, ?)',
        id,
        enquiry,
        body.until,
        booking,
        JSON.stringify(body),
      )
      return
    }
    case 'quote-used':
      sql.run('UPDATE quotes SET booking = ? WHERE id = ?', change.booking, change.id)
      return
    case 'link': {
      const { id, subject, proves, word, as } = change.link
      sql.run(
        'INSERT INTO links (hash, id, kind, subject, proves) VALUES (?, ?, ?, ?, ?)',
        hashOf(id),
        id,
        subject.kind,
        subject.id,
        word ? WORD_LINK : as ? LINKS_AS[as] : proves ? 1 : 0,
      )
      return
    }
    case 'words-ended':
      sql.run('DELETE FROM links WHERE proves = ?', WORD_LINK)
      return
    case 'chain':
      sql.run(`INSERT OR REPLACE INTO settings (name, value) VALUES ('chain-head', ?)`, change.head)
      return
    case 'numbered':
      sql.run(`INSERT OR REPLACE INTO settings (name, value) VALUES ('numbered', ?)`, String(change.n))
      return
    case 'calendar':
      sql.run(
        'INSERT OR REPLACE INTO calendars (id, state) VALUES (?, ?)',
        change.state.id,
        seal(JSON.stringify(change.state)),
      )
      return
    case 'calendar-gone':
      sql.run('DELETE FROM calendars WHERE id = ?', change.id)
      return
    case 'due': {
      const { key, at, subject, doing } = change.due
      sql.run(
        'INSERT OR REPLACE INTO agenda (key, at, kind, subject, doing) VALUES (?, ?, ?, ?, ?)',
        key,
        at,
        subject.kind,
        subject.id,
        JSON.stringify(doing),
      )
      return
    }
    case 'undue':
      sql.run('DELETE FROM agenda WHERE key = ?', change.key)
      return
    case 'done':
      sql.run(
        'INSERT OR REPLACE INTO done (key, kind, subject, at) VALUES (?, ?, ?, ?)',
        change.key,
        change.subject.kind,
        change.subject.id,
        change.at,
      )
      return
    case 'message': {
      const { key, subject, message } = change
      sql.run(
        `INSERT OR REPLACE INTO messages (key, kind, subject, state, step, tries, due, anchor, channel)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        key,
        subject.kind,
        subject.id,
        message.state,
        message.step,
        message.tries,
        message.due,
        message.anchor ?? 0,
        message.channel ?? '',
      )
      return
    }
    case 'answered': {
      const { key, print, answer, at, subject } = change.answered
      sql.run(
        'INSERT INTO answered (key, print, answer, at, kind, subject) VALUES (?, ?, ?, ?, ?, ?)',
        key,
        print,
        JSON.stringify(answer),
        at,
        subject?.kind ?? '',
        subject?.id ?? '',
      )
      return
    }
    case 'forget':
      forget(sql, change.subject)
      return
    case 'forget-old':
      sql.run('DELETE FROM attempts WHERE at < ?', change.short)
      sql.run('DELETE FROM answered WHERE at < ?', change.short)
      sql.run(`DELETE FROM files WHERE booking = '' AND at < ?`, change.files)
      return
    case 'forgotten':
      sql.run(`INSERT OR REPLACE INTO settings (name, value) VALUES ('forgotten-at', ?)`, String(change.at))
      return
  }
}

/** What is kept of a practice in tables of its own. */
const OF_A_PRACTICE = [
  ...['record', 'bookings', 'links', 'answered', 'done', 'messages', 'agenda', 'attempts', 'keeps'],
  ...['calendars', 'files', 'quotes', 'halves'],
]

/** All of a practice goes, and the address of its feed with it; what is the relay's own stays. */
function empty(sql: Statements): void {
  for (const table of OF_A_PRACTICE) sql.run(`DELETE FROM ${table}`)
  sql.run(
    `DELETE FROM settings
     WHERE name IN ('package', 'chain-head', 'numbered', 'forgotten', 'forgotten-at', 'feed', 'waiting-before-5')`,
  )
}

/** Everything that belongs to a subject goes; how far back the record is whole is remembered. */
function forget(sql: Statements, { kind, id }: Subject): void {
  const { n } = sql.get<{ n: number | null }>(
    `SELECT max(n) AS n FROM record WHERE kind IN (?1, 'mail') AND subject = ?2 AND about = ?1`,
    kind,
    id,
  ) ?? { n: null }
  if (n !== null) {
    const before = sql.get<Row<'value'>>(`SELECT value FROM settings WHERE name = 'forgotten'`)
    if (n > Number(before?.value ?? 0))
      sql.run(`INSERT OR REPLACE INTO settings (name, value) VALUES ('forgotten', ?)`, String(n))
    sql.run(`DELETE FROM record WHERE kind IN (?1, 'mail') AND subject = ?2 AND about = ?1`, kind, id)
  }
  for (const table of ['links', 'done', 'messages', 'answered', 'agenda'])
    sql.run(`DELETE FROM ${table} WHERE kind = ? AND subject = ?`, kind, id)
  if (kind === 'booking') sql.run('DELETE FROM bookings WHERE id = ?', id)
  if (kind === 'booking' || kind === 'course') sql.run('DELETE FROM files WHERE booking = ?', id)
  if (kind === 'course') sql.run('DELETE FROM halves WHERE course = ?', id)
  if (kind === 'quote') sql.run('DELETE FROM quotes WHERE id = ?', id)
}
