import type { BusyTimes } from '@acolhida/core/formats/busy'
import type { Entry } from '@acolhida/core/openings'
import { DAY, type Instant, instant, shift } from '@acolhida/core/time'
import { changeHere } from '../data/changing.ts'
import type { DeskDatabase } from '../data/database.ts'
import type { UnderstandWish } from './understand.ts'

/** How far ahead the busy times of a file are kept. */
const AHEAD = 400 * DAY

/** What the keys of a file's busy times begin with. */
const idsOf = (calendar: string): string => `calendar-${calendar}-`

/**
 * Opens a calendar file once: its busy times from `now` on become part of the diary, without what they are about.
 * One transaction.
 * @param understand makes busy times of the text; in the page, a worker does
 * @throws Error with a sentence when the text is not iCalendar; nothing is changed then
 * @returns how many busy times there are, and what could not be understood
 */
export async function openCalendarFile(
  db: DeskDatabase,
  calendar: { id: string; name: string },
  text: string,
  now: Instant,
  understand: (wish: UnderstandWish) => Promise<BusyTimes> | BusyTimes,
): Promise<{ busy: number; skipped: string[] }> {
  const row = await db.practice.get('practice')
  if (!row) throw new Error('There is no practice yet.')
  const { entries, skipped } = await understand({
    text,
    from: instant(now - DAY),
    to: shift(now, AHEAD),
    home: row.practice.profile.zone,
    owners: [row.practice.profile.email],
    what: `The file “${calendar.name}”`,
  })
  const named = entries.map(
    (entry, i): Entry => ({
      ...entry,
      id: `${idsOf(calendar.id)}${i}`,
      calendar: calendar.id,
    }),
  )
  await db.transaction('rw', [db.practice, db.changes, db.sessions, db.bookings], async () => {
    await changeHere(db, 'a calendar opened', (p) => ({
      ...p,
      calendars: [...(p.calendars ?? []), { ...calendar }],
    }))
    await db.sessions.bulkPut(named)
  })
  return { busy: named.length, skipped }
}

/** Takes a calendar away, with the busy times that came from its file. One transaction. */
export async function dropCalendar(db: DeskDatabase, id: string, name: string): Promise<void> {
  await db.transaction('rw', [db.practice, db.changes, db.sessions, db.bookings], async () => {
    await changeHere(db, `${name} removed`, (p) => ({
      ...p,
      calendars: (p.calendars ?? []).filter((calendar) => calendar.id !== id),
    }))
    // As a range of keys they go in one step: the ten thousands of a large file, key by key, hold everything up.
    await db.sessions
      .where('id')
      .between(`${idsOf(id)}0`, `${idsOf(id)}:`)
      .delete()
    await db.sessions.where('calendar').equals(id).delete()
  })
}
