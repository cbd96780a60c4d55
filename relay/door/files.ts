import { questionnaireOf } from '@acolhida/core/practice'
import { type Attached, kindOfFile, problemWith } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import { Refused } from '../refused.ts'
import type { Store } from '../store/store.ts'
import { published } from './circumstances.ts'
import { wantedService } from './understand.ts'

/** All files of one visit together are no larger than this, in bytes. */
const MOST_OF_A_VISIT = 20 * 1024 * 1024

/** And all that wait for their requests, of everybody. */
const MOST_WAITING = 500 * 1024 * 1024

/**
 * Takes a file that answers a question, if it is of a kind and size that is asked for. What kind it is, its bytes
 * say, not its name. It waits for the request it belongs to, and is forgotten by age.
 * @throws Refused beside the question when it can't be taken
 */
export function takeFile(
  store: Store,
  about: { visit: string; service: string; question: string; name: string; with?: string },
  bytes: Uint8Array,
  now: Instant,
): Attached {
  const service = wantedService(store, { ...about, answers: {} }, now)
  const questionnaire = questionnaireOf(published(store).practice, service)
  const question = questionnaire?.questions.find((one) => one.id === about.question)
  const refuse = (message: string): never => {
    throw new Refused(422, 'file', message, { where: about.question })
  }
  if (question?.kind !== 'file') return refuse('No file is asked for here.')
  if (bytes.length === 0) return refuse(`“${about.name}” is empty.`)
  const type = kindOfFile(bytes)
  if (!type) return refuse(`“${about.name}” is of a kind that can not be sent here.`)
  const attached = { file: '', name: about.name, type, size: bytes.length }
  const problem = problemWith(question, attached)
  if (problem) return refuse(problem)
  return store.act(() => {
    if (store.files.waitingBytes(about.visit) + bytes.length > MOST_OF_A_VISIT)
      return refuse('That is more than can be sent with one request.')
    if (store.files.waitingBytes() + bytes.length > MOST_WAITING)
      return refuse(
        'No more files can be taken at the moment. Please go on without it, or try again tomorrow.',
      )
    return {
      ...attached,
      file: store.files.add({ visit: about.visit, at: now, name: about.name, type, data: bytes }),
    }
  })
}
