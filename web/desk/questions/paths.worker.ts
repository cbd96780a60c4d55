import type { Currency } from '@acolhida/core/money'
import type { Service } from '@acolhida/core/practice'
import type { Questionnaire } from '@acolhida/core/questions'
import { checkPaths, type PathCheck } from '@acolhida/core/questions/paths'

/** What the check is asked for. */
export interface PathWish {
  questionnaire: Questionnaire
  service: Service
  currency: Currency
}
/** How far it is, or what it found. */
export type PathTold = { done: number; of: number; states: number } | { check: PathCheck }

/** Proves a questionnaire off the main thread. It is stopped by ending the worker. */
self.addEventListener('message', ({ data }: MessageEvent<PathWish>) => {
  const tell = (told: PathTold): void => self.postMessage(told)
  const onProgress = (done: number, of: number, states: number): boolean => {
    tell({ done, of, states })
    return true
  }
  const check = checkPaths(data.questionnaire, data.service, onProgress, data.currency)
  if (check) tell({ check })
})
