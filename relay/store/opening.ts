import { existsSync, statSync } from 'node:fs'
import Database from 'libsql'

/** The file can't be begun with as it was asked for: it is missing, empty, or a demo, or not one. */
export class WrongFile extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'WrongFile'
  }
}

/** What is in a file before a relay opens it. */
export type Found = 'missing' | 'empty' | 'demo' | 'practice'

/** The mark of a file in which the demo was put: a moment. */
export const DEMO_MARK = 'furnished-at'

/** Looks what is in a file, and changes nothing in it. */
export function foundIn(file: string): Found {
  if (!existsSync(file)) return 'missing'
  if (statSync(file).size === 0) return 'empty'
  const db = new Database(file)
  try {
    const tables = db.prepare(`SELECT 1 AS yes FROM sqlite_master WHERE name = 'settings'`).get()
    if (!tables) return 'empty'
    const demo = db.prepare('SELECT 1 AS yes FROM settings WHERE name = ?').get(DEMO_MARK)
    return demo ? 'demo' : 'practice'
  } finally {
    db.close()
  }
}

/** How a relay is asked to begin. */
export interface Begins {
  /** By the flag of the demo. */
  demo: boolean
  /** A new file is to be made. */
  fresh: boolean
}

/**
 * Whether the demo runs on a file. It runs where it is asked for, and on a file that is marked as its own; never on a
 * practice's, and a practice's relay makes no file unless it is told to.
 * @throws WrongFile
 */
export function isDemoFile(file: string, { demo, fresh }: Begins): boolean {
  const found = foundIn(file)
  if (demo && found === 'practice')
    throw new WrongFile(
      `${file} holds a practice, and the demo is kept away from it. Leave ACOLHIDA_FILE out to run the demo on a file of its own.`,
    )
  if (demo || (found === 'demo' && !fresh)) return true
  if (found === 'demo') throw new WrongFile(`${file} holds the demo. Name another file with ACOLHIDA_FILE.`)
  if (found === 'practice' && fresh)
    throw new WrongFile(
      `${file} is there already: --new would begin in it, and it holds a practice. Leave --new out.`,
    )
  if (found !== 'practice' && !fresh)
    throw new WrongFile(
      `${file} is ${found}. A relay that begins with nothing has lost everything it knew; if that is meant, start it with --new.`,
    )
  return false
}
