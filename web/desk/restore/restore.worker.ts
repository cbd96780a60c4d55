import { type Backup, withoutForgotten } from '@acolhida/core/formats'
import { readBackup } from '@acolhida/core/schemas'
import Dexie from 'dexie'
import { fill } from '../data/backup.ts'
import { DeskDatabase } from '../data/database.ts'
import { currentName, makeCurrent, otherName } from '../data/which.ts'
import type { RestoreTold, RestoreWish } from './restore.ts'

let read: Backup | undefined

/**
 * Reads a backup and, when told so, puts it into the database that is not in use; only when it is whole there, that
 * one becomes the desk. Ending the worker stops it, and nothing has happened.
 */
self.addEventListener('message', async ({ data }: MessageEvent<RestoreWish>) => {
  const tell = (told: RestoreTold): void => self.postMessage(told)
  try {
    if (data.do === 'read') {
      read = readBackup(await data.file.text(), `The file “${data.file.name}”`)
      const { people, bookings, practice } = read
      tell({ read: { name: practice.profile.name, people: people.length, bookings: bookings.length } })
    } else if (read) {
      const name = await otherName()
      await Dexie.delete(name)
      const second = new DeskDatabase(name)
      // Whoever was forgotten here since it was made does not come back with it.
      const here = new DeskDatabase(await currentName())
      const forgotten = await here.forgotten.toArray().finally(() => here.close())
      await fill(second, withoutForgotten(read, forgotten), (done, of) => tell({ done, of }))
      second.close()
      await makeCurrent(name)
      tell({ restored: true })
    }
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
