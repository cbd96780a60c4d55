import Dexie from 'dexie'
import { otherName } from '../data/which.ts'

/** What the worker is asked for. */
export type RestoreWish = { do: 'read'; file: File } | { do: 'replace' }

/** What is in a backup, in a line. */
export interface BackupRead {
  name: string
  people: number
  bookings: number
}

/** What the worker says. */
export type RestoreTold =
  | { read: BackupRead }
  | { done: number; of: number }
  | { restored: true }
  | { problem: string }

/** How far a restore has come. */
export type RestoreStage =
  | { is: 'reading'; name: string }
  | ({ is: 'read'; file: string } & BackupRead)
  | { is: 'writing'; done: number; of: number }
  | { is: 'restored' }
  | { is: 'failed'; problem: string }

const LOCK = 'acolhida-restore'
const ELSEWHERE = 'acolhida-desk-restored'

/**
 * Reads a backup in a worker, and puts it in place of the desk when told so. The desk stays as it is until the very
 * end, whatever happens.
 */
export class Restore {
  readonly #worker = new Worker(new URL('./restore.worker.ts', import.meta.url), { type: 'module' })
  #letGo: () => void = () => undefined

  constructor(file: File, onStage: (stage: RestoreStage) => void) {
    onStage({ is: 'reading', name: file.name })
    const end = (stage: RestoreStage): void => {
      this.stop()
      onStage(stage)
    }
    this.#worker.addEventListener('message', ({ data }: MessageEvent<RestoreTold>) => {
      if ('read' in data) onStage({ is: 'read', file: file.name, ...data.read })
      else if ('done' in data) onStage({ is: 'writing', ...data })
      else if ('restored' in data) {
        end({ is: 'restored' })
        new BroadcastChannel(ELSEWHERE).postMessage('restored')
      } else end({ is: 'failed', problem: data.problem })
    })
    this.#worker.addEventListener('error', () =>
      end({ is: 'failed', problem: 'This file can’t be read here: there is too little memory for it.' }),
    )
    this.#send({ do: 'read', file })
  }

  #send(wish: RestoreWish): void {
    this.#worker.postMessage(wish)
  }

  /** Puts what was read in place of everything here. One restore at a time, in whichever window. */
  replace(): void {
    if (!('locks' in navigator)) {
      this.#send({ do: 'replace' })
      return
    }
    const held = new Promise<void>((resolve) => {
      this.#letGo = resolve
    })
    navigator.locks
      .request(LOCK, () => {
        this.#send({ do: 'replace' })
        return held
      })
      .catch(console.error)
  }

  /** Ends it; what is in the desk stays. */
  stop(): void {
    this.#worker.terminate()
    this.#letGo()
  }
}

/** Loads this page anew when the desk has been replaced in another window: it is in another database now. */
export function followRestores(): void {
  new BroadcastChannel(ELSEWHERE).addEventListener('message', () => location.reload())
}

/** Takes away what a restore has replaced, or has left half done; not while one is at work. */
export async function sweepOther(): Promise<void> {
  if (!('locks' in navigator)) return
  await navigator.locks.request(LOCK, { ifAvailable: true }, async (lock) => {
    if (lock) await Dexie.delete(await otherName())
  })
}
