import { csvOf } from './csv.ts'

/** One line of the record in words. */
export interface RecordLine {
  /** ISO 8601, in UTC. */
  at: string
  booking: string
  name: string
  service: string
  /** The kind of event, as the record names it. */
  what: string
  words: string
}

const COLUMNS = ['at', 'booking', 'name', 'service', 'what', 'words'] as const satisfies (keyof RecordLine)[]

/**
 * The record as a table (RFC 4180), a row for each thing that happened. Fields that a spreadsheet would take for a
 * formula begin with an apostrophe.
 */
export const recordCsv = (lines: readonly RecordLine[]): string =>
  csvOf(
    COLUMNS,
    lines.map((line) => COLUMNS.map((column) => line[column])),
  )
