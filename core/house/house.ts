import type { Due, Planner, Subject } from '../agenda/index.ts'
import type { Attempt, Booking } from '../booking/index.ts'
import type { DoorPackage } from '../contract/types.ts'
import type { Diary, Entry } from '../openings/index.ts'
import type { KnownPerson } from '../people/index.ts'
import type { Course, CourseEvent } from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import type { Instant } from '../time/index.ts'
import type { Freed, FreedEvent, LineEvent, PlaceInLine } from '../waiting/index.ts'
import type { Answered, Change, FileFacts, Half, Keep, KeptQuote, Link } from './changes.ts'

/** Whose own times are left out of a diary. */
export interface But {
  visit?: string
  booking?: string
  /** What is held out of this freed time. */
  freed?: string
  /** What these owners take, by their names. */
  owners?: readonly string[]
}

/** What the enquiries of a visit have not told of its attempts. */
export interface Untold {
  attempts: Attempt[]
  /** The last enquiry in which earlier ones stand. */
  earlier?: string
}

/** What is old enough to be forgotten. */
export interface Old {
  bookings: string[]
  enquiries: string[]
  quotes: string[]
  lines: string[]
  freed: string[]
  courses: string[]
}

/** The doorkeeper's memory, to be looked things up in. Nothing in it can be changed but by following a change. */
export interface House extends Planner {
  readonly pack: DoorPackage | undefined
  /** In a trial of the door nobody is written to, and whoever comes is this person, or a newcomer. */
  readonly trial: { visitor: KnownPerson | undefined } | undefined
  /** The bookings that are not long over. */
  openBookings(): Iterable<Booking>
  /** Those of them that this address asked for, however it is written. */
  bookingsOf(email: string): Booking[]
  /** Those whose address leads to the same box: what stands behind a plus sign does not count. */
  countedOf(email: string): Booking[]
  /** How often a price code is in use. */
  used(code: string): number
  /** What is taken around a span, whole weeks of it, so that limits can be counted. */
  diary(from: Instant, to: Instant, but?: But, also?: readonly Entry[]): Diary
  /** What an owner takes of the diary. */
  taken(owner: string): readonly Entry[]
  /** Everybody's place in line, also those that have ended, as far back as the record goes; and times that came free. */
  inLine(): Iterable<PlaceInLine>
  freedTimes(): Iterable<Freed>
  /** What was given to people, as far back as the record goes. */
  courses(): Iterable<Course>
  /** Answers that are not sent yet. */
  half(course: string, station: string): Half | undefined
  keep(visit: string): Keep | undefined
  attempts(visit: string): readonly Attempt[]
  /** Those of a visit that no enquiry has told of yet, and the last enquiry that told of others. */
  untold(visit: string): Untold
  /** Everything that is kept for a visit. */
  keeps(): Iterable<Keep>
  file(id: string): FileFacts | undefined
  /** How many bytes wait for a request they belong to: of one visit, or of all. */
  waitingBytes(visit?: string): number
  quote(id: string): KeptQuote | undefined
  quotesOf(enquiry: string): KeptQuote[]
  /** The private link whose secret has this SHA-256. */
  link(hash: string): Link | undefined
  /** How many lines the record has of a kind about a subject. */
  lines(kind: 'enquiry' | 'mail', subject: Subject): number
  /** The head of the chain of agreements; empty before the first. */
  readonly chain: string
  /** The last running number given to an invoice; nought before the first. */
  readonly numbered: number
  /** What is planned for a subject, and what comes first of everything. */
  dues(subject: Subject): readonly Due[]
  due(key: string): Due | undefined
  agenda(): Iterable<Due>
  /** How many messages about what is open could not be sent since then, or may not have been. */
  failing(since: Instant): number
  answered(key: string): Answered | undefined
  /** Everything that began with an address of which this holds: bookings, enquiries with their quotes, places in line, courses. */
  subjectsOf(theirs: (email: string, at: number) => boolean): Subject[]
  old(bookingsBefore: Instant, quotesBefore: Instant): Old
}

/** Where the house is written, and from where what it does not hold in memory is read. */
export interface Store {
  /** Writes changes, all or none; `bytes` are those of a file among them. */
  write(changes: readonly Change[], bytes?: Uint8Array): void
  booking(id: string): Booking | undefined
  attempts(visit: string): Attempt[]
  untold(visit: string): Untold
  file(id: string): FileFacts | undefined
  half(course: string, station: string): Half | undefined
  waitingBytes(visit?: string): number
  quote(id: string): KeptQuote | undefined
  quotesOf(enquiry: string): KeptQuote[]
  link(hash: string): Link | undefined
  enquiryLines(id: string): Extract<Change, { type: 'enquiry' }>['body'][]
  lines(kind: 'enquiry' | 'mail', subject: Subject): number
  done(key: string): boolean
  message(key: string): ReturnType<Planner['message']>
  answered(key: string): Answered | undefined
  /** Everything that began with an address of which this holds: bookings, enquiries with their quotes, places in line, courses. */
  subjectsOf(theirs: (email: string, at: number) => boolean): Subject[]
  old(bookingsBefore: Instant, quotesBefore: Instant): Old
  /** Everything that the memory begins with. */
  load(): Loaded
}

export interface Loaded {
  pack: DoorPackage | undefined
  /** Not long over at the newest moment. */
  bookings: Booking[]
  uses: Map<string, number>
  keeps: Keep[]
  /** The records of those who wait and of freed times. */
  lines: ReadonlyMap<string, readonly LineEvent[]>
  freed: ReadonlyMap<string, readonly FreedEvent[]>
  courses: ReadonlyMap<string, readonly CourseEvent[]>
  calendars: ReturnType<Planner['calendars']>
  chain: string
  numbered: number
  dues: Due[]
  /** Names of what is done, and the messages, of open bookings. */
  done: string[]
  messages: Map<string, NonNullable<ReturnType<Planner['message']>>>
  forgotten: Instant
}

/** The published practice. @throws Refused before the desk has published anything */
export function published(house: House): DoorPackage {
  if (!house.pack) throw new Refused(404, 'no-door')
  return house.pack
}
