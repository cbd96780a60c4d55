import type { Answers } from '@acolhida/core/questions'
import { decode } from 'jose/base64url'
import { compactDecrypt } from 'jose/jwe/compact/decrypt'
import { CompactEncrypt } from 'jose/jwe/compact/encrypt'

/** With a key that both know already (RFC 7518 §4.5), by AES in Galois/Counter Mode (§5.3). */
const HALF = { alg: 'dir', enc: 'A256GCM' } as const

/** Seals answers that are not sent yet with the key in the link's fragment, which no server is told. */
export async function sealHalf(answers: Answers, key: string): Promise<string> {
  const plain = new TextEncoder().encode(JSON.stringify(answers))
  return new CompactEncrypt(plain).setProtectedHeader(HALF).encrypt(decode(key))
}

/** Opens them; nothing where the key is another one, or they were tampered with. */
export async function openHalf(sealed: string, key: string): Promise<Answers | undefined> {
  try {
    const { plaintext } = await compactDecrypt(sealed, decode(key), {
      keyManagementAlgorithms: [HALF.alg],
      contentEncryptionAlgorithms: [HALF.enc],
    })
    return JSON.parse(new TextDecoder().decode(plaintext)) as Answers
  } catch {
    return undefined
  }
}
