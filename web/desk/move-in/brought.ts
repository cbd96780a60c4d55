import type { BringInBody, BroughtIn } from '@acolhida/core/contract'
import { type Instant, parseInstant } from '@acolhida/core/time'
import { newKey } from '../../relay-client/client.ts'
import { connectionRow, type DeskDatabase } from '../data/database.ts'
import { keepPerson } from '../data/people.ts'
import { plainPerson } from '../data/rows.ts'
import { roundSoon } from '../sync/acts.ts'

/** Sessions and balances that were brought in together. */
export interface BroughtBatch {
  id: string
  at: Instant
  file: string
  bookings: string[]
  courses: string[]
}

/** What was brought in together and is still there as it came, the last first. */
export async function broughtIn(db: DeskDatabase, now: Instant): Promise<BroughtBatch[]> {
  const found = new Map<string, BroughtBatch>()
  const batchOf = (id: string): BroughtBatch => {
    const [moment = '', ...file] = id.split(' ')
    const batch = found.get(id) ?? {
      ...{ id, at: parseInstant(moment), file: file.join(' '), bookings: [], courses: [] },
    }
    found.set(id, batch)
    return batch
  }
  await db.bookings
    .where('start')
    .above(now)
    .each(({ id, asked, status, latest }) => {
      if (asked.broughtIn && status === 'booked' && latest === asked.at)
        batchOf(asked.broughtIn).bookings.push(id)
    })
  await db.courses.each(({ id, course: { given, ended, latest } }) => {
    if (given.broughtIn && !ended && latest === given.at) batchOf(given.broughtIn).courses.push(id)
  })
  return [...found.values()].sort((a, b) => b.at - a.at)
}

const keyOf = async (db: DeskDatabase): Promise<string> => {
  const { key } = await connectionRow(db)
  if (!key)
    throw new Error('This desk is not paired with a relay: sessions can only be brought in where one is.')
  return key
}
const relay = async () => (await import('../sync/relay.ts')).deskRelay

/** Brings all of it in, or nothing. @throws RelayError with a sentence */
export async function bringSessionsIn(db: DeskDatabase, body: BringInBody): Promise<BroughtIn> {
  const key = await keyOf(db)
  const done = await (await relay()).bringIn(body, newKey(), key)
  roundSoon()
  return done
}

/** Keeps who came as people who have been worked with before. */
export const knowThem = (db: DeskDatabase, { batch, sessions, standing }: BringInBody): Promise<void> =>
  db.transaction('rw', db.people, db.bookings, async () => {
    const come = new Map([...sessions, ...standing].map(({ person }) => [person.email, person]))
    for (const { name, email, phone } of come.values()) {
      const here = await db.people.where('emails').equals(email).first()
      const anew = {
        ...{ id: `person-${newKey()}`, name, emails: [email], invited: [], blocked: false, note: '' },
        ...(phone ? { phone } : {}),
        movedIn: batch,
      }
      await keepPerson(db, { ...(here ? plainPerson(here) : anew), known: true })
    }
  })

/** Takes what was brought in together out again. */
export async function takeBroughtOut(
  db: DeskDatabase,
  { id: batch, bookings, courses }: BroughtBatch,
): Promise<BroughtIn> {
  const key = await keyOf(db)
  const done = await (await relay()).bringOut({ batch, bookings, courses }, newKey(), key)
  roundSoon()
  return done
}
