import { replay } from '@acolhida/core/booking'
import { type Backup, FILE_VERSION, writeBackup } from '@acolhida/core/formats'
import { normalMail } from '@acolhida/core/people'
import { connectionRow, type DeskDatabase } from './database.ts'
import { courseRow, freedRow, lineRow } from './lines-in.ts'
import { bookingRow, filesLacking, personRows, plainPerson, withCalendar } from './rows.ts'

const toBase64 = (bytes: Uint8Array): string => {
  let text = ''
  for (let at = 0; at < bytes.length; at += 8_192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8_192))
  return btoa(text)
}

const fromBase64 = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(text), (char) => char.charCodeAt(0))

/** Everything in this desk as the text of a backup file. @throws Error when there is no practice yet */
export async function exportBackup(db: DeskDatabase): Promise<string> {
  return db.transaction('r', db.tables, async () => {
    const row = await db.practice.get('practice')
    if (!row) throw new Error('There is nothing to keep yet.')
    const { cursor, revision } = await connectionRow(db)
    const files = await db.files.toArray()
    const replies = await db.replies.toArray()
    const lines = await db.lines.toArray()
    const freed = await db.freed.toArray()
    const courses = await db.courses.toArray()
    const forgotten = await db.forgotten.toArray()
    const bookings = new Map<string, Backup['bookings'][number]>()
    for (const { booking, event } of await db.events.orderBy('[booking+seq]').toArray()) {
      const record = bookings.get(booking)
      if (record) record.events.push(event)
      else bookings.set(booking, { id: booking, events: [event] })
    }
    return writeBackup({
      format: 'acolhida-backup',
      version: FILE_VERSION,
      practice: row.practice,
      salt: row.salt,
      ...(row.seal ? { seal: row.seal } : {}),
      people: (await db.people.toArray()).map(plainPerson),
      bookings: [...bookings.values()],
      enquiries: await db.enquiries.toArray(),
      mails: await db.mails.toArray(),
      sessions: await db.sessions.toArray(),
      ...(replies.length > 0 ? { replies } : {}),
      ...(lines.length > 0 ? { lines: lines.map(({ id, events }) => ({ id, events })) } : {}),
      ...(freed.length > 0 ? { freed: freed.map(({ id, events }) => ({ id, events })) } : {}),
      ...(forgotten.length > 0 ? { forgotten } : {}),
      ...(courses.length > 0 ? { courses: courses.map(({ id, events }) => ({ id, events })) } : {}),
      ...(files.length > 0
        ? { files: files.map(({ data, ...file }) => ({ ...file, data: toBase64(data) })) }
        : {}),
      revision,
      cursor,
    })
  })
}

/** What each table of a desk holds after a backup has been put into it. Pairing is not part of a backup. */
function rowsOf(backup: Backup): { [table: string]: readonly unknown[] } {
  const { practice, salt, seal, cursor, revision } = backup
  const bookings = backup.bookings.map(({ id, events }) => replay(id, events))
  const files = (backup.files ?? []).map(({ data, ...file }) => ({ ...file, data: fromBase64(data) }))
  const courses = (backup.courses ?? []).map(({ id, events }) => courseRow(id, events))
  const here = new Set(files.map(({ id }) => id))
  return {
    people: personRows(
      backup.people.map((person) => ({ ...person, emails: [...new Set(person.emails.map(normalMail))] })),
      bookings,
    ),
    events: backup.bookings.flatMap(({ id, events }) =>
      events.map((event, i) => ({ booking: id, seq: i + 1, event })),
    ),
    bookings: bookings.map(bookingRow),
    enquiries: backup.enquiries,
    mails: backup.mails,
    replies: backup.replies ?? [],
    lines: (backup.lines ?? []).map(({ id, events }) => lineRow(id, events)),
    freed: (backup.freed ?? []).map(({ id, events }) => freedRow(id, events)),
    courses,
    forgotten: backup.forgotten ?? [],
    sessions: withCalendar(backup.sessions, practice.calendars),
    files,
    wanted: filesLacking(
      bookings,
      courses.map(({ course }) => course),
      here,
    ),
    link: [{ id: 'link', cursor, revision, published: '' }],
    // Last: a desk with a practice is a whole one.
    practice: [{ id: 'practice', practice, salt, ...(seal ? { seal } : {}) }],
  }
}

/** How many rows are written at a time, where a backup is put into a database of its own. */
const AT_A_TIME = 2_000

/** Puts rows into a table past Dexie, which would note each of them for pages that look on. */
const put = (
  to: IDBDatabase,
  table: string,
  rows: readonly unknown[],
  durability: IDBTransactionDurability,
): Promise<void> =>
  new Promise((resolve, reject) => {
    const writing = to.transaction([table], 'readwrite', { durability })
    const store = writing.objectStore(table)
    for (const row of rows) store.put(row)
    writing.oncomplete = () => resolve()
    writing.onabort = () => reject(writing.error ?? new Error('There is no room for it in this browser.'))
  })

/**
 * Puts a backup into an empty database that nobody uses yet, some rows at a time.
 * @param onProgress told how many rows of how many are written
 * @throws Error when there is no room for it
 */
export async function fill(
  db: DeskDatabase,
  backup: Backup,
  onProgress: (done: number, of: number) => void,
): Promise<void> {
  await db.open()
  const to = db.backendDB()
  const tables = Object.entries(rowsOf(backup))
  const of = tables.reduce((sum, [, rows]) => sum + rows.length, 0)
  let done = 0
  for (const [name, rows] of tables) {
    for (let at = 0; at < rows.length; at += AT_A_TIME) {
      const some = rows.slice(at, at + AT_A_TIME)
      // The disk is waited for with the last rows: all that was written before lies there then, too.
      await put(to, name, some, done + some.length === of ? 'strict' : 'relaxed')
      done += some.length
      onProgress(done, of)
    }
  }
}

/**
 * Puts a small backup in place of all that is in this desk, in one transaction: a beginning, or the demo.
 * @param key to the relay, where this desk is paired with one that holds the same practice
 */
export async function importBackup(db: DeskDatabase, backup: Backup, key?: string): Promise<void> {
  await db.transaction('rw', db.tables, async () => {
    await Promise.all(db.tables.map((table) => table.clear()))
    for (const [name, rows] of Object.entries(rowsOf(backup))) await db.table(name).bulkPut(rows)
    if (key) await db.connection.put({ ...(await connectionRow(db)), key })
  })
}
