import Joi from 'joi'
import { type Booking, replay } from '../booking/index.ts'
import { type Backup, FILE_VERSION, type PracticeFile } from '../formats/files.ts'
import { checkPractice } from '../practice/check.ts'
import type { Practice } from '../practice/index.ts'
import { epochMs, text } from './plain.ts'
import { entry, persons, practice, sealKeys } from './practice.ts'
import { BadData, letIn } from './read.ts'
import { answers, attempt, bookingEvent, quoteLine } from './record.ts'

const version = Joi.number().valid(FILE_VERSION).required()

/** The practice file, as `docs/practice.schema.json` publishes it. */
export const practiceFile = Joi.object({
  format: Joi.string().valid('acolhida-practice').required(),
  version,
  practice: practice.required(),
  sessions: Joi.array().items(entry).default([]),
  people: persons.default([]),
})

const enquiryNews = Joi.object({
  news: Joi.string().valid('answered', 'quoted', 'booked').required(),
  at: epochMs.required(),
  text: text(5_000).required(),
  booking: Joi.string().max(80),
  quote: Joi.object({
    service: text(80).required(),
    minutes: Joi.number().integer().required(),
    lines: Joi.array().items(quoteLine).required(),
    price: Joi.number().integer().required(),
    currency: text(3).required(),
    until: epochMs.required(),
  }),
})

export const backupFile = Joi.object({
  format: Joi.string().valid('acolhida-backup').required(),
  version,
  practice: practice.required(),
  people: persons.required(),
  bookings: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(80).required(),
        events: Joi.array().items(bookingEvent).min(1).required(),
      }),
    )
    .unique('id')
    .required(),
  enquiries: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(80).required(),
        at: epochMs.required(),
        name: text(200).required(),
        email: text(254).required(),
        service: text(80),
        message: text().required(),
        answers: answers.required(),
        attempts: Joi.array().items(attempt).required(),
        state: Joi.string().valid('open', 'answered', 'booked', 'ended').required(),
        byHand: Joi.boolean(),
        history: Joi.array().items(enquiryNews),
      }),
    )
    .unique('id')
    .required(),
  mails: Joi.array()
    .items(
      Joi.object({
        n: Joi.number().integer().required(),
        at: epochMs.required(),
        due: epochMs.required(),
        booking: Joi.string().max(80).required(),
        step: Joi.string().max(40).required(),
        state: Joi.string().valid('waiting', 'sent', 'failed', 'taken-back').required(),
        to: Joi.string().max(254).required(),
        subject: text(500).required(),
        reason: text(1_000),
      }),
    )
    .required(),
  sessions: Joi.array().items(entry).required(),
  files: Joi.array()
    .items(
      Joi.object({
        id: Joi.string()
          .pattern(/^[A-Za-z0-9_-]{16,64}$/)
          .required(),
        name: Joi.string().max(200).required(),
        type: Joi.string().valid('picture', 'pdf', 'sound', 'text').required(),
        data: Joi.string().base64().required(),
      }),
    )
    .unique('id'),
  seal: sealKeys,
  salt: Joi.string().required(),
  revision: Joi.number().integer().min(0).required(),
  cursor: Joi.number().integer().min(0).required(),
})

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
export interface ReadFile extends Omit<PracticeFile, 'format' | 'version'> {
  /** From a backup, the bookings as their records tell them. */
  bookings: Booking[]
}

/**
 * Reads a practice file, or what a backup holds of one.
 * @throws BadData naming each place that is wrong
 */
export function readPracticeFile(source: string, what = 'The practice file'): ReadFile {
  const value = upToDate(parse(source, what), what)
  if ((value as { format?: unknown }).format === 'acolhida-backup') {
    const { practice, sessions, people, bookings } = readBackup(source, what)
    return { practice, sessions, people, bookings: bookings.map(({ id, events }) => replay(id, events)) }
  }
  const { practice, sessions, people } = letIn<PracticeFile>(practiceFile, value, what)
  refuseBroken(practice, what)
  return { practice, sessions, people, bookings: [] }
}

/** Reads a full backup. @throws BadData naming each place that is wrong */
export function readBackup(source: string, what = 'The backup file'): Backup {
  const file = letIn<Backup>(backupFile, upToDate(parse(source, what), what), what)
  refuseBroken(file.practice, what)
  for (const [i, { id, events }] of file.bookings.entries()) {
    try {
      replay(id, events)
    } catch (error) {
      throw new BadData(what, [{ path: `bookings[${i}]`, message: (error as Error).message }])
    }
  }
  return file
}
