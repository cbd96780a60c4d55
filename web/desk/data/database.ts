import { type Booking, type DeskDoes, replay, type StoredEvent } from '@acolhida/core/booking'
import type { AnswerBody, CalendarState, EnterBody, QuoteBody } from '@acolhida/core/contract'
import type { DeskEnquiry, SentMail } from '@acolhida/core/formats'
import type { Entry } from '@acolhida/core/openings'
import type { Practice } from '@acolhida/core/practice'
import type { FileKind } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import Dexie, { type EntityTable, type Table } from 'dexie'
import type { SealKeys } from '../../seal/open.ts'
import type { BookingRow, PersonRow } from './rows.ts'
import { toVersion5 } from './version-5.ts'

/** The practice, and what belongs to it as a whole. There is one row. */
export interface PracticeRow {
  id: 'practice'
  practice: Practice
  salt: string
  /** With it private answers are opened; made when it is first needed. */
  seal?: SealKeys
}

/** How this desk and the relay stand to each other. There is one row. */
export interface Connection {
  id: 'link'
  /** The desk's key; absent while it is not paired. */
  key?: string
  /** How far the relay's record has been fetched. */
  cursor: number
  /** The revision last published. */
  revision: number
  /** The fingerprint of what was last published. */
  published: string
  /** The address of the private feed of bookings, if one has been asked for. */
  feed?: string
  /** The relay no longer has, or never had, what this desk knew of it. */
  gap?: boolean
}

export interface EventRow {
  booking: string
  seq: number
  event: StoredEvent
}

/** Something the practitioner has decided that has not reached the relay, or was refused there. */
export interface Intention {
  order: number
  /** Says the same thing to the relay once. */
  key: string
  booking: string
  command:
    | DeskDoes
    | { do: 'enter'; body: EnterBody }
    | { do: 'answer'; body: AnswerBody }
    | { do: 'quote'; body: QuoteBody }
  at: Instant
  /** The fingerprint of what it was decided on. */
  seen?: string
  refused?: { code: string; message: string }
}

/** A file given as an answer, with what is in it. */
export interface FileRow {
  id: string
  name: string
  type: FileKind
  data: Uint8Array<ArrayBuffer>
}

/** A file given as an answer that is not here yet. */
export type Wanted = Omit<FileRow, 'data'>

/** The practice as it was before a change, to go back to. */
export interface Change {
  order: number
  /** What was changed, in words. */
  what: string
  at: Instant
  before: Practice
}

/** The desk's own data: the truth of the practice lives here. */
export class DeskDatabase extends Dexie {
  declare practice: EntityTable<PracticeRow, 'id'>
  declare link: EntityTable<Connection, 'id'>
  declare events: Table<EventRow, [string, number]>
  declare bookings: EntityTable<BookingRow, 'id'>
  declare enquiries: EntityTable<DeskEnquiry, 'id'>
  declare people: EntityTable<PersonRow, 'id'>
  /** Times of the practitioner's own, and those of calendar files opened once. */
  declare sessions: EntityTable<Entry, 'id'>
  declare mails: EntityTable<SentMail, 'n'>
  declare intentions: EntityTable<Intention, 'order'>
  declare changes: EntityTable<Change, 'order'>
  /** What the relay has read of other calendars; not the desk's own, and in no backup. */
  declare calendars: EntityTable<CalendarState, 'id'>
  declare files: EntityTable<FileRow, 'id'>
  /** Files given as answers that the relay still has to hand over. */
  declare wanted: EntityTable<Wanted, 'id'>

  constructor(name: string) {
    // What is decided here is nowhere else until the relay has it: it is on the disk before it is called done.
    super(name, { chromeTransactionDurability: 'strict' })
    // A released version never changes; the next one adds `this.version(2)` with its upgrade and its test.
    this.version(1).stores({
      practice: 'id',
      link: 'id',
      events: '[booking+seq]',
      bookings: 'id, status, start',
      enquiries: 'id, state, at',
      people: 'id, *emails',
      sessions: 'id, start',
      mails: 'n, booking',
      intentions: '++order, booking',
      changes: '++order',
    })
    this.version(2).stores({ calendars: 'id' })
    this.version(3).stores({ files: 'id' })
    // What is in force stands beside what was asked: the bookings are told anew from their records.
    this.version(4)
      .stores({})
      .upgrade(async (changes) => {
        const rows = await changes
          .table<EventRow, [string, number]>('events')
          .orderBy('[booking+seq]')
          .toArray()
        const records = new Map<string, StoredEvent[]>()
        for (const { booking, event } of rows) {
          const record = records.get(booking)
          if (record) record.push(event)
          else records.set(booking, [event])
        }
        const bookings = [...records].map(([id, record]) => replay(id, record))
        await changes.table<Booking, string>('bookings').bulkPut(bookings)
      })
    // What pages look for is in the rows, and found by an index.
    this.version(5)
      .stores({
        bookings:
          'id, at, start, mail, code, questionnaire, *keeps, undo, *words, [status+at], [status+start]',
        people: 'id, *emails, sort, latest, knownFrom, *allTags, blockedRow, *words',
        sessions: 'id, start, calendar',
        wanted: 'id',
      })
      .upgrade(toVersion5)
  }
}

/** How this desk stands to the relay. */
export const connectionRow = async (from: DeskDatabase): Promise<Connection> =>
  (await from.link.get('link')) ?? { id: 'link', cursor: 0, revision: 0, published: '' }
