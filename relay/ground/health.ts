import type { Trouble } from '@acolhida/core/contract'
import { log } from './log.ts'

type Part = 'mail' | 'file'

/** How the relay is: what hinders it now, and since when that is over. */
export class Health {
  readonly #troubles = new Map<Part, Trouble>()
  /** Called when something has become well, or is not any more. */
  onChange: () => void = () => {}

  /** @param error what it was known by; it is logged once, however often it is met */
  is(trouble: Trouble, error?: unknown): void {
    const part = trouble.split('.')[0] as Part
    if (this.#troubles.get(part) === trouble) return
    log.warn({ trouble, ...(part === 'file' ? { err: error } : {}) }, 'Something hinders the relay.')
    this.#troubles.set(part, trouble)
    this.onChange()
  }

  isWell(part: Part): void {
    if (!this.#troubles.delete(part)) return
    log.info({ part }, 'It hinders the relay no more.')
    this.onChange()
  }

  get troubles(): Trouble[] {
    return [...this.#troubles.values()]
  }
}

/** Why a file can't be written, from SQLite's own code. */
export function fileTrouble(error: unknown): Trouble | undefined {
  const { code, message } = error as { code?: string; message?: string }
  const said = `${code ?? ''} ${message ?? ''}`
  if (!/SQLITE|disk|database/i.test(said)) return undefined
  if (/SQLITE_FULL|disk is full/i.test(said)) return 'file.full'
  if (/SQLITE_BUSY|SQLITE_LOCKED|is locked/i.test(said)) return 'file.locked'
  if (/SQLITE_READONLY|SQLITE_CANTOPEN|readonly/i.test(said)) return 'file.read-only'
  if (/SQLITE_CORRUPT|SQLITE_NOTADB|malformed/i.test(said)) return 'file.broken'
  return 'file.other'
}
