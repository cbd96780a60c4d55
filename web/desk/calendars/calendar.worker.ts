import { busyTimes } from '@acolhida/core/formats/busy'
import { zone } from '@acolhida/core/time'
import type { UnderstandTold, UnderstandWish } from './understand.ts'

/** Understands one calendar off the main thread, and tells how far it is. */
self.addEventListener('message', ({ data }: MessageEvent<UnderstandWish>) => {
  const tell = (told: UnderstandTold): void => self.postMessage(told)
  try {
    const { text, from, to, home, what, owners } = data
    const onProgress = (done: number, total: number): void => tell({ done, total })
    tell({ said: busyTimes(text, from, to, zone(home), { what, owners, onProgress }) })
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
