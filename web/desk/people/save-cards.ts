import type { DeskDatabase } from '../data/database.ts'
import { plainPerson } from '../data/rows.ts'

/** How many cards are written before the page may answer. */
const AT_ONCE = 50

/** People as cards, one after another (vCard 4.0), in the order of their ids given. The page answers meanwhile. */
export async function cardsOf(db: DeskDatabase, ids: readonly string[]): Promise<string> {
  const { cardOf } = await import('@acolhida/core/move-in')
  const cards: string[] = []
  for (let i = 0; i < ids.length; i += AT_ONCE) {
    const rows = await db.people.bulkGet(ids.slice(i, i + AT_ONCE))
    for (const row of rows) if (row) cards.push(cardOf(plainPerson(row)))
    await new Promise((resolve) => setTimeout(resolve))
  }
  return cards.join('')
}
