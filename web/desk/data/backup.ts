import { replay } from '@acolhida/core/booking'
import { type Backup, FILE_VERSION, writeBackup } from '@acolhida/core/formats'
import { type DeskDatabase, linkRow } from './database.ts'

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
    const { cursor, revision } = await linkRow(db)
    const files = await db.files.toArray()
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
      people: await db.people.toArray(),
      bookings: [...bookings.values()],
      enquiries: await db.enquiries.toArray(),
      mails: await db.mails.toArray(),
      sessions: await db.sessions.toArray(),
      ...(files.length > 0
        ? { files: files.map(({ data, ...file }) => ({ ...file, data: toBase64(data) })) }
        : {}),
      revision,
      cursor,
    })
  })
}

/** Puts a backup in place of all that is in this desk, in one transaction. Pairing is not part of a backup. */
export async function importBackup(db: DeskDatabase, backup: Backup): Promise<void> {
  await db.transaction('rw', db.tables, async () => {
    await Promise.all(db.tables.map((table) => table.clear()))
    const { practice, salt, seal } = backup
    await db.practice.put({ id: 'practice', practice, salt, ...(seal ? { seal } : {}) })
    await db.link.put({ id: 'link', cursor: backup.cursor, revision: backup.revision, published: '' })
    await db.people.bulkPut(backup.people)
    await db.events.bulkPut(
      backup.bookings.flatMap(({ id, events }) =>
        events.map((event, i) => ({ booking: id, seq: i + 1, event })),
      ),
    )
    await db.bookings.bulkPut(backup.bookings.map(({ id, events }) => replay(id, events)))
    await db.enquiries.bulkPut(backup.enquiries)
    await db.mails.bulkPut(backup.mails)
    await db.sessions.bulkPut(backup.sessions)
    await db.files.bulkPut(
      (backup.files ?? []).map(({ data, ...file }) => ({ ...file, data: fromBase64(data) })),
    )
  })
}
