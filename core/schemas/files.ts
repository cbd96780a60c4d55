import { type Booking, replay } from '../booking/index.ts'
import { invoiceParts } from '../booking/noted-events.ts'
import type { MailNews } from '../contract/desk-types.ts'
import type { EnquiryNews } from '../contract/types.ts'
import {
  type Backup,
  type DeskEnquiry,
  FILE_VERSION,
  type ForgottenPerson,
  type PracticeFile,
} from '../formats/files.ts'
import { checkPractice } from '../practice/check.ts'
import type { Practice, Service } from '../practice/index.ts'
import type { Answers, Condition, Effect, Question } from '../questions/index.ts'
import { fileKind } from '../questions/kinds/file.ts'
import { currency, epochMs, fingerprintShape, id, languageTag, madeName, tokenShape } from '../shape/plain.ts'
import {
  anyNumber,
  byHand,
  exactly,
  list,
  maybe,
  object,
  one,
  type Schema,
  text,
  unique,
  whole,
  yes,
} from '../shape/shape.ts'
import type { Instant } from '../time/index.ts'
import { replayLine, waitingOf } from '../waiting/line.ts'
import { waitingShape } from '../waiting/shape.ts'
import { BadData } from './bad-data.ts'
import { courseEvent } from './course.ts'
import { entry, person, personInFile, practice, reply, sealKeysShape } from './practice.ts'
import { letIn } from './read.ts'
import { answers, attempt, bookingEvent, quoteLine, sealedParts } from './record.ts'
import { freedEvent, lineEvent } from './waiting.ts'

const MANY = 200_000
const version = one(FILE_VERSION)

/** The practice file, as `docs/practice.schema.json` publishes it. */
export const practiceFile = exactly<PracticeFile, Condition | Effect | Question | Service>()(
  object({
    format: one('acolhida-practice'),
    version,
    practice,
    sessions: maybe(list(entry, MANY)),
    people: maybe(unique(personInFile, MANY)),
    waiting: maybe(unique(waitingShape, MANY)),
  }),
)

const enquiryNews = exactly<EnquiryNews>()(
  object({
    news: one('answered', 'quoted', 'booked'),
    at: epochMs,
    text: text(5_000),
    booking: maybe(madeName),
    id: maybe(tokenShape),
    by: maybe(one('text')),
    quote: maybe(
      object({
        service: id,
        minutes: whole(-1_000_000, 1_000_000),
        lines: list(quoteLine, 2_000),
        price: whole(-1_000_000_000_000, 1_000_000_000_000),
        currency,
        until: epochMs,
      }),
    ),
  }),
)

export const enquiryAsked = {
  id: madeName,
  at: epochMs,
  name: text(200),
  email: text(254),
  message: text(20_000),
  service: maybe(id),
  answers,
  attempts: list(attempt, 10_000),
  earlier: maybe(madeName),
  byHand: maybe(yes),
  language: maybe(languageTag),
  sealed: sealedParts,
}

const mailNews = {
  step: text(120),
  state: one('waiting', 'sent', 'failed', 'taken-back', 'unknown', 'skipped'),
  channel: maybe(one('text')),
  anchor: maybe(anyNumber),
  to: text(254),
  subject: text(500),
  due: epochMs,
  reason: maybe(text(1_000)),
  text: maybe(text(100_000)),
  print: maybe(fingerprintShape),
}

const printOrNone = byHand<string>(({ joi }) => joi.string().hex().length(64).allow(''))
const invoiceShape = object({ ...invoiceParts, at: epochMs })
const base64: Schema<string> = byHand(({ joi }) => joi.string().base64())
const recordOf = <E>(event: Schema<E>) => object({ id: madeName, events: list(event, 10_000, 1) })
export const bookingRecord = recordOf(bookingEvent)
export const lineRecord = recordOf(lineEvent)
export const freedRecord = recordOf(freedEvent)
export const courseRecord = recordOf(courseEvent)

const forgottenPerson = exactly<ForgottenPerson>()(
  object({
    id: madeName,
    hashes: list(fingerprintShape, 100),
    at: epochMs,
    agreements: list(object({ print: fingerprintShape, previous: printOrNone }), 10_000),
    invoices: list(invoiceShape, 10_000),
  }),
)

export const backupFile = exactly<Backup, Condition | Effect | Question | Service | Answers>()(
  object({
    format: one('acolhida-backup'),
    version,
    practice,
    people: unique(person, MANY),
    bookings: unique(bookingRecord, MANY),
    enquiries: unique(
      exactly<DeskEnquiry, Answers>()(
        object({
          ...enquiryAsked,
          state: one('open', 'answered', 'booked', 'ended'),
          history: maybe(list(enquiryNews, 10_000)),
        }),
      ),
      MANY,
    ),
    mails: list(
      exactly<MailNews & { n: number; at: Instant; booking: string }>()(
        object({ ...mailNews, n: whole(0, 1_000_000_000), at: epochMs, booking: madeName }),
      ),
      MANY * 10,
    ),
    sessions: list(entry, MANY),
    replies: maybe(unique(reply, MANY)),
    lines: maybe(unique(lineRecord, MANY)),
    freed: maybe(unique(freedRecord, MANY)),
    courses: maybe(unique(courseRecord, MANY)),
    forgotten: maybe(unique(forgottenPerson, MANY)),
    files: maybe(unique(object({ id: tokenShape, name: text(200), type: fileKind, data: base64 }), MANY)),
    seal: sealKeysShape,
    salt: text(100),
    revision: whole(0, 1_000_000_000),
    cursor: whole(0, 1_000_000_000),
  }),
)

/** Brings a file of an earlier version up to this one; `migrations[0]` takes version 1 to 2, and so on. */
export const migrations: ((file: Record<string, unknown>) => Record<string, unknown>)[] = []

function upToDate(value: unknown, what: string): unknown {
  if (!value || typeof value !== 'object' || Array.isArray(value)) {
    throw new BadData(what, [{ path: '', message: 'is not an Acolhida file: it holds no JSON object' }])
  }
  const file = value as Record<string, unknown>
  const from = file.version
  if (typeof from === 'number' && from > FILE_VERSION) {
    throw new BadData(what, [
      {
        path: 'version',
        message: `is ${from}; this program reads up to ${FILE_VERSION}. Use a newer Acolhida to open it`,
      },
    ])
  }
  return typeof from === 'number' && Number.isInteger(from) && from >= 1
    ? migrations.slice(from - 1).reduce((old, migrate) => migrate(old), file)
    : file
}

function parse(source: string, what: string): unknown {
  try {
    return JSON.parse(source)
  } catch (error) {
    throw new BadData(what, [{ path: '', message: `is not JSON: ${(error as Error).message}` }])
  }
}

function refuseBroken(practice: Practice, what: string): void {
  const errors = checkPractice(practice).filter((fault) => fault.grade === 'error')
  if (errors.length > 0) {
    throw new BadData(
      what,
      errors.map(({ path, message }) => ({ path: `practice.${path}`, message })),
    )
  }
}

/** What a practice file or a backup tells the computation. */
export interface ReadFile extends Required<Omit<PracticeFile, 'format' | 'version'>> {
  /** From a backup, the bookings as their records tell them. */
  bookings: Booking[]
  /** And the places in line, as their records. */
  lines: NonNullable<Backup['lines']>
  /** And what people were given to do. */
  courses: NonNullable<Backup['courses']>
  /** And who was forgotten. */
  forgotten: NonNullable<Backup['forgotten']>
}

/**
 * Reads a practice file, or what a backup holds of one.
 * @throws BadData naming each place that is wrong
 */
export function readPracticeFile(source: string, what = 'The practice file'): ReadFile {
  const value = upToDate(parse(source, what), what)
  if ((value as { format?: unknown }).format === 'acolhida-backup') {
    const {
      practice,
      sessions,
      people,
      bookings,
      lines = [],
      courses = [],
      forgotten = [],
    } = readBackup(source, what)
    const waiting = lines.flatMap(({ id, events }) => {
      const line = replayLine(id, events)
      return line.status === 'waiting' ? [waitingOf(practice, line)] : []
    })
    return {
      ...{ practice, sessions, people, waiting, lines, courses, forgotten },
      bookings: bookings.map(({ id, events }) => replay(id, events)),
    }
  }
  const { practice, sessions = [], people = [], waiting = [] } = letIn(practiceFile, value, what)
  refuseBroken(practice, what)
  return { practice, sessions, people, waiting, bookings: [], lines: [], courses: [], forgotten: [] }
}

/** Reads a full backup. @throws BadData naming each place that is wrong */
export function readBackup(source: string, what = 'The backup file'): Backup {
  const file = letIn(backupFile, upToDate(parse(source, what), what), what)
  refuseBroken(file.practice, what)
  for (const [i, { id, events }] of file.bookings.entries()) {
    try {
      replay(id, events)
    } catch (error) {
      throw new BadData(what, [{ path: `bookings[${i}]`, message: (error as Error).message }])
    }
  }
  for (const [i, { id, events }] of (file.lines ?? []).entries())
    if (events[0]?.type !== 'joined')
      throw new BadData(what, [{ path: `lines[${i}]`, message: `The record of ${id} has no beginning.` }])
  for (const [i, { id, events }] of (file.freed ?? []).entries())
    if (events[0]?.type !== 'freed')
      throw new BadData(what, [{ path: `freed[${i}]`, message: `The record of ${id} has no beginning.` }])
  for (const [i, { id, events }] of (file.courses ?? []).entries())
    if (events[0]?.type !== 'given')
      throw new BadData(what, [{ path: `courses[${i}]`, message: `The record of ${id} has no beginning.` }])
  return file
}
