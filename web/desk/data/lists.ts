import type { Collection } from 'dexie'
import type { DeskDatabase } from './database.ts'
import { type BookingRow, type PersonRow, wordsOf } from './rows.ts'

/** Ids that every word of a search finds; nothing when there are no words. */
async function foundBy(
  words: string,
  startingWith: (word: string) => Collection<unknown, string>,
): Promise<Set<string> | undefined> {
  let found: Set<string> | undefined
  for (const word of wordsOf(words)) {
    const ids = await startingWith(word).primaryKeys()
    found = new Set(found ? ids.filter((id) => found?.has(id)) : ids)
  }
  return found
}

/** Which people a list shows. */
export interface PeopleWish {
  search: string
  show: 'all' | 'known' | 'new' | 'blocked'
  by: 'name' | 'latest'
  down: boolean
}

/** Their ids in the order asked for, from the indexes alone. */
export function peopleIn(
  db: DeskDatabase,
  { search, show, by, down }: PeopleWish,
  now: number,
): Promise<string[]> {
  const { people } = db
  return db.transaction('r', people, async () => {
    const known = () => people.where('knownFrom').belowOrEqual(now).primaryKeys()
    const kept =
      show === 'known'
        ? new Set(await known())
        : show === 'blocked'
          ? new Set(await people.where('blockedRow').equals(1).primaryKeys())
          : undefined
    const but = show === 'new' ? new Set(await known()) : undefined
    const found = await foundBy(search, (word) => people.where('words').startsWith(word))
    const index = by === 'latest' ? 'latest' : 'sort'
    const ordered = await people.orderBy(index).primaryKeys()
    if (down) ordered.reverse()
    if (by === 'latest') {
      // Who has never come stands in no such order: at the end.
      const there = new Set(ordered)
      ordered.push(...(await people.orderBy('sort').primaryKeys()).filter((id) => !there.has(id)))
    }
    return ordered.filter((id) => (!kept || kept.has(id)) && !but?.has(id) && (!found || found.has(id)))
  })
}

/** Which requests a list shows. */
export interface ArrivalsWish {
  search: string
  /** A status of the record, or all. */
  show: 'all' | BookingRow['status']
  by: 'asked' | 'start'
  down: boolean
}

/** Their ids in the order asked for, from the indexes alone. */
export function arrivalsIn(db: DeskDatabase, { search, show, by, down }: ArrivalsWish): Promise<string[]> {
  const { bookings } = db
  return db.transaction('r', bookings, async () => {
    const index = by === 'asked' ? 'at' : 'start'
    const collection =
      show === 'all'
        ? bookings.orderBy(index)
        : bookings.where(`[status+${index}]`).between([show, 0], [show, Number.MAX_VALUE])
    const ordered = await collection.primaryKeys()
    if (down) ordered.reverse()
    const found = await foundBy(search, (word) => bookings.where('words').startsWith(word))
    return found ? ordered.filter((id) => found.has(id)) : ordered
  })
}

/** People whom a few letters of a name or an address find, in the order of their names. */
export async function peopleFound(db: DeskDatabase, search: string, most: number): Promise<PersonRow[]> {
  const ids = await peopleIn(db, { search, show: 'all', by: 'name', down: false }, 0)
  return (await db.people.bulkGet(ids.slice(0, most))).filter((row) => row !== undefined)
}
