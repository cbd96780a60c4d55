import type { SealKey } from '@acolhida/core/contract'
import { type Answers, type AnswerValue, isSealed } from '@acolhida/core/questions'
import { compactDecrypt } from 'jose/jwe/compact/decrypt'
import { exportJWK } from 'jose/key/export'
import { generateKeyPair } from 'jose/key/generate/keypair'
import { importJWK } from 'jose/key/import'

/** A desk's key, both halves. */
export type SealKeys = SealKey & { d: string }

/** Makes a desk's key. */
export async function newSealKeys(): Promise<SealKeys> {
  const { privateKey } = await generateKeyPair('ECDH-ES', { crv: 'P-256', extractable: true })
  const { kty, crv, x, y, d } = (await exportJWK(privateKey)) as SealKeys
  return { kty, crv, x, y, d }
}

/** The half of a key that others may have. */
export const publicHalf = ({ kty, crv, x, y }: SealKeys): SealKey => ({ kty, crv, x, y })

/** Opens what has been sealed among answers; what another key was used for, or has been tampered with, stays sealed. */
export async function openAll(answers: Answers, keys: SealKeys): Promise<Answers> {
  const key = await importJWK(keys, 'ECDH-ES')
  const opened = await Promise.all(
    Object.entries(answers).map(async ([id, answer]): Promise<[string, AnswerValue]> => {
      if (!isSealed(answer)) return [id, answer]
      try {
        const { plaintext } = await compactDecrypt(answer.sealed, key, {
          keyManagementAlgorithms: ['ECDH-ES'],
          contentEncryptionAlgorithms: ['A256GCM'],
        })
        const { question, value } = JSON.parse(new TextDecoder().decode(plaintext)) as {
          question: string
          value: AnswerValue
        }
        return [id, question === id ? value : answer]
      } catch {
        return [id, answer]
      }
    }),
  )
  return Object.fromEntries(opened)
}
