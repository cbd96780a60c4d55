import { parentPort } from 'node:worker_threads'
import { BadCalendar, busyTimes } from '@acolhida/core/formats/busy'
import { zone } from '@acolhida/core/time'
import type { ThreadTold, ThreadWish } from './understand.ts'

/** The other thread: understands one calendar after another, and tells how far it is. */
parentPort?.on('message', ({ text, from, to, home, owners }: ThreadWish) => {
  const tell = (told: ThreadTold): void => parentPort?.postMessage(told)
  try {
    const onProgress = (done: number, total: number): void => tell({ done, total })
    const { entries, skipped } = busyTimes(text, from, to, zone(home), { owners, onProgress })
    tell({ entries, skipped })
  } catch (error) {
    tell({ problem: (error as Error).message, bad: error instanceof BadCalendar })
  }
})
