import type { Duration, Instant, LocalDate, WallTime, Weekday } from '../time/index.ts'

/** When somebody could come: all that is said must hold, what is not said does not limit. */
export interface WaitingWindow {
  /** From a date to a date, both included. */
  from?: LocalDate
  to?: LocalDate
  /** On these weekdays, Monday is 1. */
  weekdays?: Weekday[]
  /** Not before, and over by then, on the same date; over by `24:00` is by midnight. */
  after?: WallTime
  before?: WallTime
}

/** A place in line: somebody waits for a time. */
export interface Waiting {
  id: string
  /** Who waits, as people are known. */
  person: string
  service: string
  place: string
  /** What it came to when they got in line: how long it lasts, and its price in minor units. */
  minutes: number
  price: number
  since: Instant
  /** By the clock of a place one comes to, else by their own: an IANA name. */
  zone: string
  /** Any of them will do; nothing: any time. */
  windows: WaitingWindow[]
  /** At how short notice they could come. */
  notice?: Duration
  /** How far the practitioner travels to them, by id. */
  travel?: string
  /** They have a time already, and want one that begins before this moment. */
  earlier?: Instant
}
