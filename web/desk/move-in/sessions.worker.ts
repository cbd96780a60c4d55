import { NoPeople, type PeopleTable, readPeopleTable } from '@acolhida/core/move-in'
import { MOST_SESSIONS } from '@acolhida/core/move-in/sessions'
import { type Instant, zone } from '@acolhida/core/time'
import { readFile } from './read-file.ts'

/** A file to be read, and by whose clock a calendar without zones is meant. */
export interface SessionsWish {
  file: File
  now: Instant
  home: string
}

/** A table of sessions, or why there is none. */
export type SessionsTold = { name: string; table: PeopleTable } | { problem: string }

async function read({ file, now, home }: SessionsWish): Promise<SessionsTold> {
  const found = await readFile(file)
  const { name } = found
  const table =
    'table' in found
      ? found.table
      : /^\uFEFF?\s*BEGIN:VCALENDAR/i.test(found.text)
        ? (await import('@acolhida/core/move-in/calendar')).readSessionsCalendar(found.text, now, zone(home))
        : readPeopleTable(found.text)
  if (table.rows.length > MOST_SESSIONS)
    throw new NoPeople(
      `There are ${table.rows.length.toLocaleString('en')} lines; ${MOST_SESSIONS.toLocaleString('en')} can be brought in at once. Split the file.`,
    )
  return { name, table }
}

self.addEventListener('message', async ({ data }: MessageEvent<SessionsWish>) => {
  let told: SessionsTold
  try {
    told = await read(data)
  } catch (error) {
    told = { problem: (error as Error).message }
  }
  self.postMessage(told)
})
