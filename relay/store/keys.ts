import { createHmac, createSecretKey, type KeyObject, randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

const TOKEN = 16
let pool = Buffer.alloc(0)

/** A name that nobody can guess. Random bytes are fetched for many at once; each is used for one. */
export function token(): string {
  if (pool.length < TOKEN) pool = randomBytes(64 * TOKEN)
  const own = pool.toString('base64url', 0, TOKEN)
  pool.fill(0, 0, TOKEN)
  pool = pool.subarray(TOKEN)
  return own
}

/** A key of 32 bytes, as it is handed out. */
export const newSecret = (): string => randomBytes(32).toString('base64url')

/**
 * Makes the secrets of private links from their names. Only hashes of them are stored; who has the key, in a file of its
 * own beside the database, can make each again for a repeated answer or a mail.
 */
export class Secrets {
  readonly #key: KeyObject

  constructor(key: Buffer = randomBytes(32)) {
    this.#key = createSecretKey(key)
  }

  /** Reads the key of a database, or makes one where there is none yet. */
  static beside(file: string): Secrets {
    const path = `${file}.key`
    if (!existsSync(path)) writeFileSync(path, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' })
    const key = Buffer.from(readFileSync(path, 'utf8').trim(), 'hex')
    if (key.length !== 32) throw new Error(`${path} is not a key of 32 bytes.`)
    return new Secrets(key)
  }

  of(link: string): string {
    return createHmac('sha256', this.#key).update(link).digest('base64url')
  }
}
