import type { PersonColumn, Sifted } from '@acolhida/core/move-in'
import type { Instant, LocalDate } from '@acolhida/core/time'

/** What is read of a file before anything is tried. */
export interface FileRead {
  name: string
  /** How many lines below the headings, or cards. */
  many: number
  /** Of a table: its headings, some of its lines, and what its columns seem to be. */
  table?: { headings: string[]; some: string[][]; guess: (PersonColumn | undefined)[] }
}

/** How people are to be taken in. */
export interface MoveInAs {
  columns: (PersonColumn | undefined)[]
  /** They have been worked with before. */
  worked: boolean
  today: LocalDate
  now: Instant
}

/** What a trial has found: the first of each kind, and how many there are. */
export interface Tried {
  come: number
  here: Sifted['here']
  twice: Sifted['twice']
  wrong: Sifted['wrong']
  counts: { here: number; twice: number; wrong: number }
}

/** What the worker is asked for. */
export type MoveInWish = { do: 'read'; file: File } | ({ do: 'try' } & MoveInAs) | ({ do: 'take' } & MoveInAs)

/** What the worker says. */
export type MoveInTold =
  | { read: FileRead }
  | { tried: Tried }
  | { done: number; of: number }
  | { taken: number }
  | { problem: string }
