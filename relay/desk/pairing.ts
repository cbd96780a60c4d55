import { randomInt } from 'node:crypto'
import type { PairBody } from '@acolhida/core/contract'
import type { Practice } from '@acolhida/core/practice'
import { Refused } from '@acolhida/core/request'
import { sha256Hex } from '@acolhida/core/terms'
import { atomically } from '../store/db.ts'
import { newSecret } from '../store/keys.ts'
import type { SqliteStore } from '../store/sqlite-store.ts'

/** Letters and digits that can't be taken for one another. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'

/** A code as it is compared: however it was spaced, hyphenated or written large. */
const plain = (typed: string): string => typed.replaceAll(/[\s\p{Pd}]/gu, '').toUpperCase()

/** For how long a code pairs, in ms, by the machine's own time: a demo's clock may be anywhere. */
const GOOD_FOR = 3_600_000

/** A new one-time code for pairing a desk, for an hour; the codes before it end. Only its hash is kept. */
export function newPairingCode(store: SqliteStore, now = Date.now()): string {
  const part = (): string => Array.from({ length: 4 }, () => ALPHABET[randomInt(ALPHABET.length)]).join('')
  const code = `${part()}-${part()}-${part()}`
  store.set('pairing-code', `${sha256Hex(plain(code))} ${now + GOOD_FOR}`)
  return code
}

/** Whether a code is the one that pairs now. */
function isCode(store: SqliteStore, code: string, now: number): boolean {
  const [hash, until] = (store.setting('pairing-code') ?? '').split(' ')
  return hash === sha256Hex(plain(code)) && now <= Number(until ?? 0)
}

/** Whether a key is the paired desk's. */
export const isDesk = (store: SqliteStore, key: string): boolean =>
  store.setting('desk-key') === sha256Hex(key)

/**
 * Gives the desk that knows the code its key. A desk paired before is cut off, and another practice taken out, after
 * saying so.
 * @param moveOut takes out what the relay holds of a practice
 */
export function pair(
  store: SqliteStore,
  held: Practice | undefined,
  { code, practice, replace, empty }: PairBody,
  moveOut: () => void,
  now = Date.now(),
): { key: string } {
  if (!isCode(store, code, now)) throw new Refused(403, 'wrong-code')
  if (store.setting('desk-key') && !replace) {
    throw new Refused(409, 'paired-already')
  }
  const another = held !== undefined && held.id !== practice
  if (another && !empty) throw new Refused(409, 'another-practice', { data: { name: held.profile.name } })
  if (another || empty === 'all') moveOut()
  const key = newSecret()
  atomically(store.db, () => {
    store.set('desk-key', sha256Hex(key))
    store.unset('pairing-code')
  })
  return { key }
}
