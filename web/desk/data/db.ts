import Dexie from 'dexie'
import { DeskDatabase } from './database.ts'
import { currentName } from './which.ts'

/** The desk's own database: after a restore it is another one than before. */
export const db = new DeskDatabase(await currentName())

/** Calls back when some of the desk's tables have been written to, in whichever window. */
export function onChangeOf(tables: readonly string[], back: () => void): void {
  const parts = tables.map((table) => `idb://${db.name}/${table}/`)
  Dexie.on('storagemutated', (touched) => {
    if (Object.keys(touched).some((key) => parts.some((part) => key.startsWith(part)))) back()
  })
}
