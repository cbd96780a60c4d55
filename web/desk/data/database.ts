import type { CalendarState } from '@acolhida/core/contract'
import type { DeskEnquiry, ForgottenPerson, SentMail } from '@acolhida/core/formats'
import type { Entry } from '@acolhida/core/openings'
import type { Reply } from '@acolhida/core/people'
import Dexie, { type EntityTable, type Table, type Transaction } from 'dexie'
import type { BookingRow, PersonRow } from './rows.ts'
import type {
  Connection,
  CourseRow,
  EventRow,
  FileRow,
  FreedRow,
  Intention,
  LineRow,
  NewsRow,
  PracticeChange,
  PracticeRow,
  WantedFile,
} from './tables.ts'

/** An upgrade whose program comes when it is needed; the transaction waits for it. */
const later =
  (upgrade: () => Promise<(changes: Transaction) => Promise<void>>) =>
  async (changes: Transaction): Promise<void> => {
    const run = await Dexie.waitFor(upgrade())
    await run(changes)
  }

/** The desk's own data: the truth of the practice lives here. */
export class DeskDatabase extends Dexie {
  declare practice: EntityTable<PracticeRow, 'id'>
  /** The table has the name it was released with. */
  declare connection: EntityTable<Connection, 'id'>
  declare events: Table<EventRow, [string, number]>
  declare bookings: EntityTable<BookingRow, 'id'>
  declare enquiries: EntityTable<DeskEnquiry, 'id'>
  declare people: EntityTable<PersonRow, 'id'>
  /** Times of the practitioner's own, and those of calendar files opened once. */
  declare sessions: EntityTable<Entry, 'id'>
  declare mails: EntityTable<SentMail, 'n'>
  declare intentions: EntityTable<Intention, 'order'>
  declare changes: EntityTable<PracticeChange, 'order'>
  /** What the relay has read of other calendars; not the desk's own, and in no backup. */
  declare calendars: EntityTable<CalendarState, 'id'>
  /** Mails that came back, each beside whoever has its address. */
  declare replies: EntityTable<Reply, 'id'>
  /** Everybody's place in line, and times that came free. */
  declare lines: EntityTable<LineRow, 'id'>
  declare freed: EntityTable<FreedRow, 'id'>
  /** What people were given to do. */
  declare courses: EntityTable<CourseRow, 'id'>
  /** Who was forgotten, by hashes alone. */
  declare forgotten: EntityTable<ForgottenPerson, 'id'>
  declare files: EntityTable<FileRow, 'id'>
  /** Files given as answers that the relay still has to hand over. */
  declare wanted: EntityTable<WantedFile, 'id'>
  /** What has happened since somebody last looked; not kept in backups. */
  declare news: EntityTable<NewsRow, 'id'>

  constructor(name: string) {
    // What is decided here is nowhere else until the relay has it: it is on the disk before it is called done.
    super(name, { chromeTransactionDurability: 'strict' })
    // A released version never changes; the next one is added below, with its upgrade and its test.
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
      .upgrade(later(async () => (await import('./version-4.ts')).deskToVersion4))
    // What pages look for is in the rows, and found by an index.
    this.version(5)
      .stores({
        bookings:
          'id, at, start, mail, code, questionnaire, *keeps, undo, *words, [status+at], [status+start]',
        people: 'id, *emails, sort, latest, knownFrom, *allTags, blockedRow, *words',
        sessions: 'id, start, calendar',
        wanted: 'id',
      })
      .upgrade(later(async () => (await import('./version-5.ts')).deskToVersion5))
    this.version(6).stores({ news: 'id, at' })
    // What people have agreed to, and what counts against them, is in their rows.
    this.version(7)
      .stores({
        events: '[booking+seq], event.at',
        bookings:
          'id, at, start, mail, code, questionnaire, *keeps, undo, owing, *words, [status+at], [status+start]',
      })
      .upgrade(later(async () => (await import('./version-7.ts')).deskToVersion7))
    this.version(8).stores({ replies: 'id, mail' })
    this.version(9).stores({ lines: 'id, mail, service, open', freed: 'id, at, open' })
    // An address counts as what it is, however it was written.
    this.version(10)
      .stores({})
      .upgrade(later(async () => (await import('./version-10.ts')).deskToVersion10))
    // Whom there is something to come back to about, by date; and with whom others were moved in.
    this.version(11).stores({
      people: 'id, *emails, sort, latest, knownFrom, *allTags, blockedRow, *words, follow, movedIn, stage',
    })
    // What people were given to do; and who was forgotten.
    this.version(12).stores({ courses: 'id, mail, booking, open, undo', forgotten: 'id' })
    this.connection = this.table('link')
  }
}

/** How this desk stands to the relay. */
export const connectionRow = async (from: DeskDatabase): Promise<Connection> =>
  (await from.connection.get('link')) ?? { id: 'link', cursor: 0, revision: 0, published: '' }
