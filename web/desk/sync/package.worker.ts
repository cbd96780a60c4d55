import type { Instant } from '@acolhida/core/time'
import { type Packed, pack } from './package.ts'

export interface PackWish {
  published: string
  now: Instant
}
export type PackTold = { packed: Packed | undefined } | { problem: string }

/** Makes the door's package off the main thread: thousands of people stand in it. */
self.addEventListener('message', async ({ data }: MessageEvent<PackWish>) => {
  const tell = (told: PackTold): void => self.postMessage(told)
  try {
    // Which database it is must be asked; what is said to this worker meanwhile must not be missed.
    const { db } = await import('../data/db.ts')
    tell({ packed: await pack(db, data.published, data.now) })
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
