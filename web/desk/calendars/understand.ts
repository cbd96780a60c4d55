import type { BusyTimes } from '@acolhida/core/formats/busy'
import type { Instant } from '@acolhida/core/time'

/** A calendar to be understood. */
export interface UnderstandWish {
  text: string
  from: Instant
  to: Instant
  /** IANA name of the practice's zone. */
  home: string
  /** What it is called in messages. */
  what: string
  /** The practitioner's own addresses. */
  owners: string[]
}

/** What the worker says: how far it is, or what came of it. */
export type UnderstandTold = { done: number; total: number } | { said: BusyTimes } | { problem: string }

/**
 * Understands a calendar in a worker of its own, so that the page goes on answering.
 * @param onProgress told how many events of how many have been understood
 * @param signal stops it: the worker ends, and nothing of it remains
 * @throws Error with a sentence when it is no calendar, or was stopped
 */
export function understandCalendar(
  wish: UnderstandWish,
  onProgress: (done: number, total: number) => void,
  signal: AbortSignal,
): Promise<BusyTimes> {
  const worker = new Worker(new URL('./calendar.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<BusyTimes>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new Error('Stopped; nothing was changed.')), { once: true })
    worker.addEventListener('message', ({ data }: MessageEvent<UnderstandTold>) => {
      if ('done' in data) onProgress(data.done, data.total)
      else if ('said' in data) resolve(data.said)
      else reject(new Error(data.problem))
    })
    worker.addEventListener('error', () => reject(new Error('This file can’t be understood here.')))
    worker.postMessage(wish)
  }).finally(() => worker.terminate())
}
