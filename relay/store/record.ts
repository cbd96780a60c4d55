import type { Holdings, RecordItem, RecordPage } from '@acolhida/core/contract'
import { type Instant, instant } from '@acolhida/core/time'
import type { Db } from './db.ts'

/** How many items a page of the record has at most. */
const PAGE = 500

/** How many bytes a page has at most; a single item may be larger. */
const PAGE_BYTES = 2 * 1024 * 1024

interface Line {
  n: number
  at: number
  kind: string
  subject: string
  seq: number
  body: string
  print: string
}

/** A page of what has happened since a cursor. */
export function recordPage(db: Db, after: number, now: Instant, most = PAGE): RecordPage {
  const rows = linesAfter(db, after, most)
  const items = rows.map(itemIn)
  const before = printAt(db, after)
  const last = rows.at(-1)
  return { items, before, print: last ? last.print : before, ...recordEnds(db), now }
}

const itemIn = ({ n, at, kind, subject, seq, body }: Line): RecordItem =>
  ({ n, at: instant(at), kind, subject, seq, body: JSON.parse(body) }) as RecordItem

/** The running hash of the record at a line; empty where that has been forgotten, or is older than such hashes. */
function printAt(db: Db, n: number): string {
  const row = db.prepare('SELECT print FROM record WHERE n = ?').get(n) as { print: string } | undefined
  return row?.print ?? ''
}

/** Of what there are records, and how many lines each has. */
export function holdingsOf(db: Db, chain: string): Holdings {
  const rows = db
    .prepare(`SELECT kind, subject, max(seq) AS n FROM record WHERE kind <> 'mail' GROUP BY kind, subject`)
    .all() as { kind: string; subject: string; n: number }[]
  const of = (kind: string): Record<string, number> =>
    Object.fromEntries(rows.filter((row) => row.kind === kind).map(({ subject, n }) => [subject, n]))
  return {
    bookings: of('booking'),
    lines: of('waiting'),
    freed: of('freed'),
    courses: of('course'),
    enquiries: of('enquiry'),
    chain,
  }
}

function linesAfter(db: Db, after: number, most: number): Line[] {
  const rows: Line[] = []
  let bytes = 0
  const found = db
    .prepare('SELECT n, at, kind, subject, seq, body, print FROM record WHERE n > ? ORDER BY n LIMIT ?')
    .iterate(after, most) as Iterable<Line>
  for (const row of found) {
    bytes += Buffer.byteLength(row.body)
    if (rows.length > 0 && bytes > PAGE_BYTES) break
    rows.push(row)
  }
  return rows
}

/** The newest number of the record, and the first below which nothing has been forgotten. */
export function recordEnds(db: Db): { first: number; last: number } {
  const { last } = db.prepare('SELECT max(n) AS last FROM record').get() as { last: number | null }
  const forgotten = db.prepare(`SELECT value FROM settings WHERE name = 'forgotten'`).get() as
    | { value: string }
    | undefined
  return { first: Number(forgotten?.value ?? 0) + 1, last: last ?? 0 }
}
