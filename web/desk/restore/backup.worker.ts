import { exportBackup } from '../data/backup.ts'

export type BackupTold = { backup: Blob } | { problem: string }

/** Writes everything in this desk as the file of a backup, off the main thread: after years it is large. */
self.addEventListener('message', async () => {
  const tell = (told: BackupTold): void => self.postMessage(told)
  try {
    // Which database it is must be asked; what is said to this worker meanwhile must not be missed.
    const { db } = await import('../data/db.ts')
    tell({ backup: new Blob([await exportBackup(db)], { type: 'application/json' }) })
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
