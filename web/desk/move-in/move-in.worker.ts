import {
  type Arrival,
  guessColumns,
  type PeopleTable,
  peopleOfTable,
  readCards,
  readPeopleTable,
  type Sifted,
  sift,
  type Unread,
} from '@acolhida/core/move-in'
import { letIn, peopleMovedIn } from '@acolhida/core/schemas'
import { formatInstant } from '@acolhida/core/time'
import { newKey } from '../../relay-client/client.ts'
import type { DeskDatabase } from '../data/database.ts'
import { personRow } from '../data/rows.ts'
import { readFile } from './read-file.ts'
import type { FileRead, MoveInAs, MoveInTold, MoveInWish, Tried } from './told.ts'

/** How many of each kind a trial lists, and how many people are written at once. */
const LISTED = 500
const CHUNK = 500

let name = ''
let table: PeopleTable | undefined
let cards: { arrivals: Arrival[]; unread: Unread[] } | undefined

// Which database it is must be asked; what is said to this worker meanwhile must not be missed.
const desk = () => import('../data/db.ts')
const tell = (told: MoveInTold): void => self.postMessage(told)

/** Reads the file: cards where it holds some, else a table. */
async function read(file: File): Promise<FileRead> {
  const found = await readFile(file)
  name = found.name
  table = undefined
  cards = undefined
  if ('table' in found) return columned(found.table)
  if (/^\uFEFF?\s*BEGIN:VCARD/i.test(found.text)) {
    cards = readCards(found.text)
    return { name, many: cards.arrivals.length + cards.unread.length }
  }
  return columned(readPeopleTable(found.text))
}

function columned(read: PeopleTable): FileRead {
  const { headings, rows } = read
  table = read
  return {
    name,
    many: rows.length,
    table: { headings, some: rows.slice(0, 3), guess: guessColumns(headings) },
  }
}

/** Sifts what was read, beside whoever is here. */
async function sifted(db: DeskDatabase, { columns, worked, today, now }: MoveInAs): Promise<Sifted> {
  const known = new Map<string, string>()
  await db.people.each(({ emails, name }) => {
    for (const email of emails) known.set(email, name)
  })
  const arrivals = cards ? cards.arrivals : table ? peopleOfTable(table, columns) : []
  const found = sift(arrivals, {
    known: (email) => known.get(email),
    ...{ today, worked, ids: newKey, batch: `${formatInstant(now)} ${name}`.trim() },
  })
  return cards ? { ...found, wrong: [...cards.unread, ...found.wrong].sort((a, b) => a.row - b.row) } : found
}

const triedOf = ({ come, here, twice, wrong }: Sifted): Tried => ({
  come: come.length,
  here: here.slice(0, LISTED),
  twice: twice.slice(0, LISTED),
  wrong: wrong.slice(0, LISTED),
  counts: { here: here.length, twice: twice.length, wrong: wrong.length },
})

/** Takes in whoever can be: all in one transaction, or nobody. */
async function take(as: MoveInAs): Promise<number> {
  const { db } = await desk()
  return db.transaction('rw', db.people, async () => {
    // Looked at anew where it is written: somebody may have asked meanwhile.
    const come = letIn(peopleMovedIn, (await sifted(db, as)).come, 'The people')
    for (let i = 0; i < come.length; i += CHUNK) {
      await db.people.bulkAdd(come.slice(i, i + CHUNK).map((person) => personRow(person, [])))
      tell({ done: Math.min(come.length, i + CHUNK), of: come.length })
    }
    return come.length
  })
}

self.addEventListener('message', async ({ data }: MessageEvent<MoveInWish>) => {
  try {
    if (data.do === 'read') tell({ read: await read(data.file) })
    else if (data.do === 'try') tell({ tried: triedOf(await sifted((await desk()).db, data)) })
    else tell({ taken: await take(data) })
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
