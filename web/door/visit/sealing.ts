import type { DoorService, SealKey } from '@acolhida/core/contract'
import { type Answers, type Asking, asked, type Sealed } from '@acolhida/core/questions'
import { say } from '../parts/say.ts'
import type { Filling } from './filling.ts'
import { fillIn } from './visit.ts'

/**
 * The answers as they are sent: private ones sealed for the desk. What has been sealed is kept with the filling, so that
 * sending once more says the same.
 * @throws Error with a sentence where this page can't seal
 */
export async function answersToSend(
  service: DoorService,
  filling: Filling,
  asking: Asking,
  key: SealKey | undefined,
): Promise<Answers> {
  const { questions, answers } = asked(service.questionnaire?.questions ?? [], filling.answers, asking)
  const own = questions.filter((question) => question.private && answers[question.id] !== undefined)
  if (own.length === 0 || !key) return answers
  const { canSeal, seal } = await import('../../seal/seal.ts')
  if (!canSeal()) throw new Error(say('yours.no-seal'))
  const sealed: NonNullable<Filling['sealed']> = {}
  for (const { id } of own) {
    const print = JSON.stringify([answers[id], key.x])
    const before = filling.sealed?.[id]
    sealed[id] = before?.print === print ? before : { print, value: await seal(id, answers[id]!, key) }
  }
  fillIn(service.id, { is: 'sealed', sealed })
  const values = Object.entries(sealed).map(([id, { value }]): [string, Sealed] => [id, value])
  return { ...answers, ...Object.fromEntries(values) }
}
