import type { SealedPart } from '@acolhida/core/booking'
import { SEALING, type SealKey } from '@acolhida/core/contract'
import { type Answers, type AnswerValue, isSealed } from '@acolhida/core/questions'
import { compactDecrypt } from 'jose/jwe/compact/decrypt'
import { exportJWK } from 'jose/key/export'
import { generateKeyPair } from 'jose/key/generate/keypair'
import { importJWK } from 'jose/key/import'

/** A desk's key, both halves. */
export type SealKeys = SealKey & { d: string }

/** Makes a desk's key. */
export async function newSealKeys(): Promise<SealKeys> {
  const { privateKey } = await generateKeyPair(SEALING.alg, { crv: 'P-256', extractable: true })
  const { kty, crv, x, y, d } = (await exportJWK(privateKey)) as SealKeys
  return { kty, crv, x, y, d }
}

/** The half of a key that others may have. */
export const publicHalf = ({ kty, crv, x, y }: SealKeys): SealKey => ({ kty, crv, x, y })

const privateKey = (keys: SealKeys) => importJWK(keys, SEALING.alg)
type Key = Awaited<ReturnType<typeof privateKey>>

/** What was sealed. @throws where another key was used, or it was tampered with */
async function opened<T>(sealed: string, key: Key): Promise<T> {
  const { plaintext } = await compactDecrypt(sealed, key, {
    keyManagementAlgorithms: [SEALING.alg],
    contentEncryptionAlgorithms: [SEALING.enc],
  })
  return JSON.parse(new TextDecoder().decode(plaintext)) as T
}

/** Opens the parts that the relay has sealed; what can't be opened stays as it is. */
export async function openParts(sealed: readonly string[], keys: SealKeys): Promise<(SealedPart | string)[]> {
  const key = await privateKey(keys)
  return Promise.all(sealed.map((one) => opened<SealedPart>(one, key).catch(() => one)))
}

/** Opens what has been sealed among answers; what another key was used for, or has been tampered with, stays sealed. */
export async function openAll(answers: Answers, keys: SealKeys): Promise<Answers> {
  const key = await privateKey(keys)
  const all = await Promise.all(
    Object.entries(answers).map(async ([id, answer]): Promise<[string, AnswerValue]> => {
      if (!isSealed(answer)) return [id, answer]
      try {
        const { question, value } = await opened<{ question: string; value: AnswerValue }>(answer.sealed, key)
        return [id, question === id ? value : answer]
      } catch {
        return [id, answer]
      }
    }),
  )
  return Object.fromEntries(all)
}
