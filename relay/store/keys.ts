import {
  createCipheriv,
  createDecipheriv,
  createHmac,
  createSecretKey,
  hkdfSync,
  type KeyObject,
  randomBytes,
} from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

/** What is sealed in a file can't be opened: the key beside it is another one, or a new one. */
export class WrongKey extends Error {
  constructor() {
    super(
      'The key beside the relay’s file is not the one it was sealed with. Bring FILE.key back from where you keep it: without it no mailed link leads anywhere.',
    )
    this.name = 'WrongKey'
  }
}

/** How what is sealed begins. */
const SEALED = 'sealed:'

const TOKEN = 16
let pool = Buffer.alloc(0)

/**
 * A name that nobody can guess: it begins with a letter, as our own names do. Random bytes are fetched for many at once;
 * each is used for one.
 */
export function token(): string {
  if (pool.length < TOKEN) pool = randomBytes(64 * TOKEN)
  pool[0]! &= 0x7f
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
  /** Seals what stands in the file, and nothing else (RFC 5869, with a name of its own). */
  readonly #sealing: Buffer

  constructor(key: Buffer = randomBytes(32)) {
    this.#key = createSecretKey(key)
    this.#sealing = Buffer.from(hkdfSync('sha256', key, '', 'acolhida sealed in the file', 32))
  }

  /** Seals a text by AES-256-GCM (NIST SP 800-38D), with a nonce of its own. */
  seal(text: string): string {
    const nonce = randomBytes(12)
    const cipher = createCipheriv('aes-256-gcm', this.#sealing, nonce)
    const sealed = [cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]
    return SEALED + Buffer.concat([nonce, ...sealed]).toString('base64')
  }

  isSealed(text: string): boolean {
    return text.startsWith(SEALED)
  }

  /** Opens what was sealed; what was written before anything was stands as it is. @throws WrongKey */
  open(text: string): string {
    if (!this.isSealed(text)) return text
    const all = Buffer.from(text.slice(SEALED.length), 'base64')
    const cipher = createDecipheriv('aes-256-gcm', this.#sealing, all.subarray(0, 12))
    cipher.setAuthTag(all.subarray(-16))
    const opened = cipher.update(all.subarray(12, -16))
    try {
      return Buffer.concat([opened, cipher.final()]).toString('utf8')
    } catch {
      throw new WrongKey()
    }
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
