import type { Service } from '../practice/types.ts'
import { type Asking, newcomer } from './conditions.ts'
import { type Reading, readAnswers } from './reading.ts'
import type { Answers, Questionnaire, Sheet } from './types.ts'

/** Answers given earlier, as they were read then. */
export interface Given {
  id: string
  service: Service
  answers: Answers
  asking?: Asking
  read: Pick<Reading, 'outcome' | 'quote'>
}

/** What a new version would have made of answers given earlier, where that differs. */
export interface Changed {
  id: string
  outcome?: { from: Reading['outcome']; to: Reading['outcome'] }
  minutes?: { from: number; to: number }
  /** In minor units. */
  price?: { from: number; to: number }
}

/** Reads earlier answers with another version, and tells whose outcome, length or price would change. */
export function replayAnswers(
  questionnaire: Questionnaire,
  sheet: Sheet,
  given: readonly Given[],
): Changed[] {
  const next = { ...questionnaire, ...sheet }
  return given.flatMap(({ id, service, answers, asking = newcomer, read }): Changed[] => {
    const { outcome, quote } = readAnswers(service, next, answers, asking)
    const changed: Changed = { id }
    if (outcome !== read.outcome) changed.outcome = { from: read.outcome, to: outcome }
    if (quote.minutes !== read.quote.minutes)
      changed.minutes = { from: read.quote.minutes, to: quote.minutes }
    if (quote.price !== read.quote.price) changed.price = { from: read.quote.price, to: quote.price }
    return Object.keys(changed).length > 1 ? [changed] : []
  })
}
