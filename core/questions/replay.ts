import type { Service } from '../practice/types.ts'
import { type Asking, newcomer } from './conditions.ts'
import type { Reading } from './outcome.ts'
import { type Choices, plainly, readAnswers } from './reading.ts'
import type { Answers, Questionnaire, Sheet } from './types.ts'
import { withSheet } from './versions.ts'

/** Answers given earlier, by whom, and with what else counted then. */
export interface GivenBefore {
  id: string
  service: Service
  answers: Answers
  asking?: Asking
  choices?: Choices
}

/** What a new version makes of answers given earlier, where that differs from the one in force. */
export interface Changed {
  id: string
  outcome?: { from: Reading['outcome']; to: Reading['outcome'] }
  minutes?: { from: number; to: number }
  /** In minor units. */
  price?: { from: number; to: number }
}

/** Reads earlier answers with the version in force and with another, and tells whose outcome, length or price differs. */
export function replayAnswers(
  questionnaire: Questionnaire,
  sheet: Sheet,
  given: readonly GivenBefore[],
): Changed[] {
  const next = withSheet(questionnaire, sheet)
  return given.flatMap(({ id, service, answers, asking = newcomer, choices = plainly }): Changed[] => {
    const [before, after] = [questionnaire, next].map((questionnaire) =>
      readAnswers(service, questionnaire, answers, asking, choices),
    ) as [Reading, Reading]
    const changed: Changed = { id }
    if (after.outcome !== before.outcome) changed.outcome = { from: before.outcome, to: after.outcome }
    if (after.quote.minutes !== before.quote.minutes)
      changed.minutes = { from: before.quote.minutes, to: after.quote.minutes }
    if (after.quote.price !== before.quote.price)
      changed.price = { from: before.quote.price, to: after.quote.price }
    return Object.keys(changed).length > 1 ? [changed] : []
  })
}
