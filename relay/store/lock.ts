import Database from 'libsql'

/** Another relay has this file open. */
export class FileTaken extends Error {
  constructor(file: string) {
    super(
      `${file} is open in another relay. Two relays on one file would give one time to two people; end the other one first.`,
    )
    this.name = 'Taken'
  }
}

/**
 * Takes a file for this process alone, by an exclusive transaction on another one beside it: it ends with the process,
 * however that ends, and the file itself can still be copied while the relay runs.
 * @throws Taken when another process has it
 */
export function lock(file: string): () => void {
  if (file === ':memory:') return () => {}
  const db = new Database(`${file}-lock`)
  try {
    db.exec('PRAGMA busy_timeout = 0')
    db.exec('BEGIN EXCLUSIVE')
  } catch {
    db.close()
    throw new FileTaken(file)
  }
  return () => db.close()
}
