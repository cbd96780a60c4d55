import type { Practice } from '@acolhida/core/practice'
import Dexie from 'dexie'
import type { DeskDatabase } from './database.ts'

/**
 * Changes the practice, as `changing.ts` says. What checks and lets in comes when something is changed for the first
 * time: the first page does without. Not inside a transaction, where nothing may be waited for but the database.
 */
export async function changePractice(
  db: DeskDatabase,
  what: string,
  change: (practice: Practice) => Practice,
): Promise<void> {
  if (Dexie.currentTransaction)
    throw new Error('Inside a transaction the practice is changed by changing.ts.')
  const { changeHere } = await import('./changing.ts')
  await changeHere(db, what, change)
}

/** Takes the last change of the practice back, as `changing.ts` says. */
export async function undoChange(db: DeskDatabase): Promise<string | undefined> {
  const { undoHere } = await import('./changing.ts')
  return undoHere(db)
}
