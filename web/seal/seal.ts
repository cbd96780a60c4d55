import type { SealKey } from '@acolhida/core/contract'
import type { AnswerValue, Sealed } from '@acolhida/core/questions'
import { CompactEncrypt } from 'jose/jwe/compact/encrypt'
import { importJWK } from 'jose/key/import'

/** How answers are sealed: a key agreed on anew for each (RFC 7518 §4.6), and AES in Galois/Counter Mode (§5.3). */
const HEADER = { alg: 'ECDH-ES', enc: 'A256GCM' } as const

/** Whether this page can seal: browsers offer that on https and on the machine itself only. */
export const canSeal = (): boolean => globalThis.crypto?.subtle !== undefined

/**
 * Seals an answer so that only the desk can open it (JSON Web Encryption, RFC 7516). Two sealings of one answer differ.
 * @param question is sealed along, so that one answer can't be put in the place of another
 */
export async function seal(question: string, value: AnswerValue, key: SealKey): Promise<Sealed> {
  const plain = new TextEncoder().encode(JSON.stringify({ question, value }))
  const sealed = await new CompactEncrypt(plain)
    .setProtectedHeader(HEADER)
    .encrypt(await importJWK(key, HEADER.alg))
  return { sealed }
}
