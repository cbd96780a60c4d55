import { Worker } from 'node:worker_threads'
import { BadCalendar, type BusyTimes, busyTimes } from '@acolhida/core/formats/busy'
import type { Entry } from '@acolhida/core/openings'
import { type Instant, zone } from '@acolhida/core/time'
import { Unreadable } from './read-address.ts'

/** A calendar to be understood. */
export interface Wish {
  n: number
  text: string
  from: Instant
  to: Instant
  /** IANA name of the practice's zone. */
  home: string
  /** The practitioner's own addresses. */
  owners: string[]
}

/** What the other thread says: how far it is, or what came of it. */
export type Told =
  | { n: number; done: number; total: number }
  | { n: number; entries: Entry[]; skipped: string[] }
  | { n: number; problem: string; bad: boolean }

/** Below this many characters a calendar is understood on the spot: some ten milliseconds. */
const SMALL = 128 * 1024
/** How long a calendar may take without getting any further, in ms. */
const PATIENCE = 30_000

/**
 * Understands calendars without keeping clients waiting: large ones in a thread of their own, which is started when
 * it is first needed and ended when a calendar takes too long.
 */
export class Understanding {
  #worker: Worker | undefined
  #next = 1
  readonly #waiting = new Map<number, (told: Told | Error) => void>()

  /** @throws BadCalendar or Unreadable with a sentence */
  async busyTimes(wish: Omit<Wish, 'n'>): Promise<BusyTimes> {
    const { text, from, to, home, owners } = wish
    if (text.length < SMALL) return busyTimes(text, from, to, zone(home), { owners })
    const n = this.#next++
    const worker = this.#start()
    return new Promise((resolve, reject) => {
      let timer: NodeJS.Timeout
      const later = (): void => {
        clearTimeout(timer)
        timer = setTimeout(() => {
          this.close(new Unreadable('It is too large to be understood in time.'))
        }, PATIENCE)
      }
      later()
      this.#waiting.set(n, (told) => {
        if (!(told instanceof Error) && 'done' in told) {
          later()
          return
        }
        clearTimeout(timer)
        this.#waiting.delete(n)
        if (told instanceof Error) reject(told)
        else if ('entries' in told) resolve({ entries: told.entries, skipped: told.skipped })
        else if (told.bad) reject(new BadCalendar(...sentence(told.problem)))
        else reject(new Error(told.problem))
      })
      worker.postMessage({ ...wish, n } satisfies Wish)
    })
  }

  #start(): Worker {
    if (this.#worker) return this.#worker
    const worker = new Worker(new URL('./understand-start.mjs', import.meta.url), { execArgv: [] })
    worker.unref()
    worker.on('message', (told: Told) => this.#waiting.get(told.n)?.(told))
    worker.on('error', (error) => this.close(error))
    this.#worker = worker
    return worker
  }

  /** Ends the thread; whoever still waits is told why. */
  close(why: Error = new Unreadable('It was left unread.')): void {
    this.#worker?.terminate()
    this.#worker = undefined
    for (const tell of [...this.#waiting.values()]) tell(why)
  }
}

/** A message of BadCalendar in its two parts again. */
const sentence = (message: string): [string, string] => {
  const at = message.indexOf(': ')
  return [message.slice(0, at), message.slice(at + 2)]
}
