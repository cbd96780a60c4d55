import { Worker } from 'node:worker_threads'
import { BadCalendar, type BusyTimes } from '@acolhida/core/formats/busy'
import type { Entry } from '@acolhida/core/openings'
import type { Instant } from '@acolhida/core/time'
import { Unreadable } from './read-address.ts'

/** A calendar to be understood. */
export interface ThreadWish {
  text: string
  from: Instant
  to: Instant
  /** IANA name of the practice's zone. */
  home: string
  /** The practitioner's own addresses. */
  owners: string[]
}

/** What the other thread says: how far it is, or what came of it. */
export type ThreadTold =
  | { done: number; total: number }
  | { entries: Entry[]; skipped: string[] }
  | { problem: string; bad: boolean }

/** How long a calendar may take without getting any further, and in all, in ms. */
const PATIENCE = { step: 5_000, whole: 30_000 }

/**
 * Understands calendars without keeping clients waiting: always in a thread of its own, one calendar after another, and
 * the thread is ended when one takes too long. Whatever stands in a calendar costs only that calendar.
 */
export class Understanding {
  #worker: Worker | undefined
  #tail: Promise<unknown> = Promise.resolve()
  #end: ((why: Error) => void) | undefined
  readonly #patience: typeof PATIENCE

  constructor(patience = PATIENCE) {
    this.#patience = patience
  }

  /** @throws BadCalendar or Unreadable with a sentence */
  busyTimes(wish: ThreadWish): Promise<BusyTimes> {
    const own = this.#tail.then(() => this.#understand(wish))
    this.#tail = own.catch(() => undefined)
    return own
  }

  #understand(wish: ThreadWish): Promise<BusyTimes> {
    return new Promise((resolve, reject) => {
      const worker = this.#start()
      const late = (): void => this.close(new Unreadable('It could not be understood in time.'))
      const whole = setTimeout(late, this.#patience.whole)
      let step = setTimeout(late, this.#patience.step)
      const over = (): void => {
        clearTimeout(whole)
        clearTimeout(step)
        worker.off('message', hear)
        this.#end = undefined
      }
      const hear = (told: ThreadTold): void => {
        clearTimeout(step)
        if ('done' in told) {
          step = setTimeout(late, this.#patience.step)
          return
        }
        over()
        if ('entries' in told) resolve({ entries: told.entries, skipped: told.skipped })
        else if (told.bad) reject(new BadCalendar(...sentence(told.problem)))
        else reject(new Unreadable(`It could not be understood: ${told.problem}`))
      }
      this.#end = (why) => {
        over()
        reject(why)
      }
      worker.on('message', hear)
      worker.postMessage(wish)
    })
  }

  #start(): Worker {
    if (this.#worker) return this.#worker
    const worker = new Worker(new URL('./understand-start.mjs', import.meta.url), {
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: 512 },
    })
    worker.unref()
    worker.on('error', (error) => this.close(new Unreadable(`It could not be understood: ${error.message}`)))
    this.#worker = worker
    return worker
  }

  /** Ends the thread; whoever waits for it is told why. */
  close(why: Error = new Unreadable('It was left unread.')): void {
    const worker = this.#worker
    this.#worker = undefined
    worker?.terminate()
    this.#end?.(why)
  }
}

/** A message of BadCalendar in its two parts again. */
const sentence = (message: string): [string, string] => {
  const at = message.indexOf(': ')
  return [message.slice(0, at), message.slice(at + 2)]
}
