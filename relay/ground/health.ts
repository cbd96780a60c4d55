import type { Trouble } from '@acolhida/core/contract'

type Part = 'mail' | 'file'

/** How the relay is: what hinders it now, and since when that is over. */
export class Health {
  readonly #troubles = new Map<Part, Trouble>()
  /** Called when something has become well, or is not any more. */
  onChange: () => void = () => {}

  is(trouble: Trouble): void {
    this.#set(trouble.split('.')[0] as Part, trouble)
  }

  isWell(part: Part): void {
    this.#set(part, undefined)
  }

  #set(part: Part, trouble: Trouble | undefined): void {
    if (this.#troubles.get(part) === trouble) return
    if (trouble) this.#troubles.set(part, trouble)
    else this.#troubles.delete(part)
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
