import { parentPort } from 'node:worker_threads'
import { BadCalendar, busyTimes } from '@acolhida/core/formats/busy'
import { zone } from '@acolhida/core/time'
import type { Told, Wish } from './understand.ts'

/** The other thread: understands one calendar after another, and tells how far it is. */
parentPort?.on('message', ({ n, text, from, to, home }: Wish) => {
  const tell = (told: Told): void => parentPort?.postMessage(told)
  try {
    const { entries, skipped } = busyTimes(text, from, to, zone(home), 'The calendar', (done, total) =>
      tell({ n, done, total }),
    )
    tell({ n, entries, skipped })
  } catch (error) {
    tell({ n, problem: (error as Error).message, bad: error instanceof BadCalendar })
  }
})
