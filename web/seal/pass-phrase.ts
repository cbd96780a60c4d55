import { compactDecrypt } from 'jose/jwe/compact/decrypt'
import { CompactEncrypt } from 'jose/jwe/compact/encrypt'

/** A key made from a pass phrase (RFC 7518, 4.8), and a seal that shows when anything was changed (5.3). */
const ALGORITHM = 'PBES2-HS512+A256KW'
const SEAL = 'A256GCM'
/** How often the phrase is stirred: as OWASP asks for PBKDF2 with SHA-512 (from memory: 210,000). */
const ROUNDS = 250_000

/** The least of a pass phrase, in characters. */
export const SHORTEST_PHRASE = 10

/** Seals a text with a pass phrase (JSON Web Encryption, RFC 7516). Nobody can open it without, and nothing else opens it. */
export const sealWith = (phrase: string, text: string): Promise<string> =>
  new CompactEncrypt(new TextEncoder().encode(text))
    .setProtectedHeader({ alg: ALGORITHM, enc: SEAL })
    .setKeyManagementParameters({ p2c: ROUNDS })
    .encrypt(new TextEncoder().encode(phrase))

/** What was sealed with a pass phrase. @throws Error with a sentence where it is another, or the seal is broken */
export async function openWith(phrase: string, sealed: string): Promise<string> {
  try {
    const { plaintext } = await compactDecrypt(sealed, new TextEncoder().encode(phrase), {
      keyManagementAlgorithms: [ALGORITHM],
      contentEncryptionAlgorithms: [SEAL],
      maxPBES2Count: ROUNDS,
    })
    return new TextDecoder().decode(plaintext)
  } catch {
    throw new Error('This pass phrase does not open it.')
  }
}
