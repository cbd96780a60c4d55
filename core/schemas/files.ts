import Joi from 'joi'
import { replay } from '../booking/index.ts'
import { type Backup, FILE_VERSION, type PracticeFile } from '../formats/files.ts'
import { checkPractice } from '../practice/check.ts'
import { epochMs, text } from './plain.ts'
import { entry, persons, practice } from './practice.ts'
import { BadData, letIn } from './read.ts'

const version = Joi.number().valid(FILE_VERSION).required()

/** The practice file, as `docs/practice.schema.json` publishes it. */
export const practiceFile = Joi.object({
  format: Joi.string().valid('acolhida-practice').required(),
  version,
  practice: practice.required(),
  sessions: Joi.array().items(entry).default([]),
  people: persons.default([]),
})

const happened = Joi.object({ type: Joi.string().required(), at: epochMs.required() }).unknown(true)

export const backupFile = Joi.object({
  format: Joi.string().valid('acolhida-backup').required(),
  version,
  practice: practice.required(),
  people: persons.required(),
  bookings: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(80).required(),
        events: Joi.array().items(happened).min(1).required(),
      }),
    )
    .unique('id')
    .required(),
  enquiries: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(80).required(),
        at: epochMs.required(),
        state: Joi.string().valid('open', 'answered', 'booked', 'ended').required(),
        message: text().required(),
      }).unknown(true),
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

function refuseBroken(file: PracticeFile | Backup, what: string): void {
  const errors = checkPractice(file.practice).filter((fault) => fault.grade === 'error')
  if (errors.length > 0) {
    throw new BadData(
      what,
      errors.map(({ path, message }) => ({ path: `practice.${path}`, message })),
    )
  }
}

/**
 * Reads a practice file, or the practice out of a backup.
 * @throws BadData naming each place that is wrong
 */
export function readPracticeFile(source: string, what = 'The practice file'): PracticeFile {
  const value = upToDate(parse(source, what), what)
  if ((value as { format?: unknown }).format === 'acolhida-backup') {
    const { practice, sessions, people } = readBackup(source, what)
    return { format: 'acolhida-practice', version: FILE_VERSION, practice, sessions, people }
  }
  const file = letIn<PracticeFile>(practiceFile, value, what)
  refuseBroken(file, what)
  return file
}

/** Reads a full backup. @throws BadData naming each place that is wrong */
export function readBackup(source: string, what = 'The backup file'): Backup {
  const file = letIn<Backup>(backupFile, upToDate(parse(source, what), what), what)
  refuseBroken(file, what)
  for (const [i, { id, events }] of file.bookings.entries()) {
    try {
      replay(id, events)
    } catch (error) {
      throw new BadData(what, [{ path: `bookings[${i}]`, message: (error as Error).message }])
    }
  }
  return file
}
