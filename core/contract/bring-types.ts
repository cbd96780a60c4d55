import type { Contact } from '../booking/index.ts'
import type { Instant } from '../time/index.ts'

/** Sessions that are to come, and how people stand, from another place: all of it or nothing. */
export interface BringInBody {
  /** Names this bringing in, so that it can be taken out again as a whole. */
  batch: string
  sessions: BroughtSession[]
  standing: BroughtStanding[]
}

/** A session that was booked elsewhere. */
export interface BroughtSession {
  id: string
  service: string
  place: string
  start: Instant
  minutes: number
  person: Contact
  /** What it was booked at there, and what has come of that, in minor units; nothing where it costs what it does here. */
  price?: number
  paid?: number
  /** Its client is told that it is booked; else only what reminds of it goes. */
  tell?: boolean
}

/** How somebody stands: sessions that are paid and still to be had, and what is owed. */
export interface BroughtStanding {
  id: string
  person: Contact
  /** What it is called, also on their page. */
  name: string
  left?: { service: string; many: number }
  owes?: { amount: number; due: Instant }
}

/** What was brought in together is taken out again, but for what has gone on since. */
export interface BringOutBody {
  batch: string
  bookings: string[]
  courses: string[]
}

/** How much has come in, or gone out and stayed. */
export interface BroughtIn {
  sessions: number
  standing: number
}
