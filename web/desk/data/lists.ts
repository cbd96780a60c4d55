import type { Collection } from 'dexie'
import type { DeskDatabase } from './database.ts'
import { type BookingRow, type PersonRow, wordsOf } from './rows.ts'

/**
 * Ids in the order of an index. They are asked for past Dexie, which would note each of thousands to know when it must
 * ask anew; that they have changed, it notices by counting.
 */
async function idsBy(
  db: DeskDatabase,
  table: 'people' | 'bookings',
  index: string,
  status?: string,
): Promise<string[]> {
  const [from, to] = [
    [status, 0],
    [status, Number.MAX_VALUE],
  ]
  const rows = db.table(table)
  await (status === undefined ? rows.orderBy(index) : rows.where(index).between(from, to)).count()
  const range = status === undefined ? null : IDBKeyRange.bound(from, to)
  const asked = db.backendDB().transaction(table).objectStore(table).index(index).getAllKeys(range)
  return new Promise((resolve, reject) => {
    asked.onsuccess = () => resolve(asked.result as string[])
    asked.onerror = () => reject(asked.error ?? new Error('The list could not be read.'))
  })
}

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
  /** How far one has come with them; any where it is empty. */
  stage?: string
  by: 'name' | 'latest'
  down: boolean
}

/** Their ids in the order asked for, from the indexes alone. */
export async function peopleIn(
  db: DeskDatabase,
  { search, show, stage = '', by, down }: PeopleWish,
  now: number,
): Promise<string[]> {
  const { people } = db
  const ordered = await idsBy(db, 'people', by === 'latest' ? 'latest' : 'sort')
  if (down) ordered.reverse()
  if (by === 'latest') {
    // Who has never come stands in no such order: at the end.
    const there = new Set(ordered)
    ordered.push(...(await idsBy(db, 'people', 'sort')).filter((id) => !there.has(id)))
  }
  const known = async () => new Set(await people.where('knownFrom').belowOrEqual(now).primaryKeys())
  const only =
    show === 'known'
      ? await known()
      : show === 'blocked'
        ? new Set(await people.where('blockedRow').equals(1).primaryKeys())
        : undefined
  const but = show === 'new' ? await known() : undefined
  const come = stage ? new Set(await people.where('stage').equals(stage).primaryKeys()) : undefined
  const found = await foundBy(search, (word) => people.where('words').startsWith(word))
  if (!only && !but && !come && !found) return ordered
  return ordered.filter(
    (id) => (only?.has(id) ?? true) && !but?.has(id) && (come?.has(id) ?? true) && (found?.has(id) ?? true),
  )
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
export async function arrivalsIn(
  db: DeskDatabase,
  { search, show, by, down }: ArrivalsWish,
): Promise<string[]> {
  const index = by === 'asked' ? 'at' : 'start'
  const ordered =
    show === 'all'
      ? await idsBy(db, 'bookings', index)
      : await idsBy(db, 'bookings', `[status+${index}]`, show)
  if (down) ordered.reverse()
  const found = await foundBy(search, (word) => db.bookings.where('words').startsWith(word))
  return found ? ordered.filter((id) => found.has(id)) : ordered
}

/** People whom a few letters of a name or an address find, in the order of their names. */
export async function peopleFound(db: DeskDatabase, search: string, most: number): Promise<PersonRow[]> {
  const ids = await peopleIn(db, { search, show: 'all', by: 'name', down: false }, 0)
  return (await db.people.bulkGet(ids.slice(0, most))).filter((row) => row !== undefined)
}
