import { SEALING, type SealKey } from '@acolhida/core/contract'
import { type Answers, type AnswerValue, isSealed, type Sealed } from '@acolhida/core/questions'
import { CompactEncrypt } from 'jose/jwe/compact/encrypt'
import { importJWK } from 'jose/key/import'

/** Whether this page can seal: browsers offer that on https and on the machine itself only. */
export const canSeal = (): boolean => globalThis.crypto?.subtle !== undefined

/**
 * Seals an answer so that only the desk can open it (JSON Web Encryption, RFC 7516). Two sealings of one answer differ.
 * @param question is sealed along, so that one answer can't be put in the place of another
 */
export async function seal(question: string, value: AnswerValue, key: SealKey): Promise<Sealed> {
  const plain = new TextEncoder().encode(JSON.stringify({ question, value }))
  const sealed = await new CompactEncrypt(plain)
    .setProtectedHeader(SEALING)
    .encrypt(await importJWK(key, SEALING.alg))
  return { sealed }
}

/** Answers of which some are sealed, each by itself; what is sealed already stays as it is. */
export async function sealAnswers(
  answers: Answers,
  which: (id: string) => boolean,
  key: SealKey,
): Promise<Answers> {
  const all = Object.entries(answers).map(
    async ([id, answer]): Promise<[string, AnswerValue]> => [
      id,
      which(id) && !isSealed(answer) ? await seal(id, answer, key) : answer,
    ],
  )
  return Object.fromEntries(await Promise.all(all))
}
