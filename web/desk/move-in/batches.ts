import { normalMail } from '@acolhida/core/people'
import { type Instant, parseInstant } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'

/** People who were moved in together. */
export interface Batch {
  id: string
  at: Instant
  /** The file they came from. */
  file: string
  people: number
  /** How many of them have booked or asked for something since. */
  stay: number
}

/** Who was moved in together, the last first. */
export async function batchesIn(db: DeskDatabase): Promise<Batch[]> {
  const ids = (await db.people.orderBy('movedIn').uniqueKeys()) as string[]
  const batches = await Promise.all(
    ids.map(async (id): Promise<Batch> => {
      const all = db.people.where('movedIn').equals(id)
      const people = await all.count()
      const stay = await all.filter(({ count }) => count > 0).count()
      const [moment = '', ...file] = id.split(' ')
      return { id, at: parseInstant(moment), file: file.join(' '), people, stay }
    }),
  )
  return batches.sort((a, b) => b.at - a.at)
}

/**
 * Takes people out again who were moved in together; whoever has asked for something, waits or has written since stays, as
 * does whom the practitioner has written about (see `ownNow`). @returns how many went
 */
export const takeBatchOut = (db: DeskDatabase, batch: string): Promise<number> =>
  db.transaction('rw', db.people, db.lines, db.enquiries, async () => {
    const met = new Set((await db.lines.orderBy('mail').uniqueKeys()).map(String))
    await db.enquiries.each(({ email }) => met.add(normalMail(email)))
    return db.people
      .where('movedIn')
      .equals(batch)
      .filter(({ count, emails }) => count === 0 && !emails.some((email) => met.has(email)))
      .delete()
  })
