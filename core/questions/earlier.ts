import { problemWith } from './answers.ts'
import type { Answers, Question } from './types.ts'

/**
 * Of answers given an earlier time, those that need not be asked again: still valid, neither private nor files, and not
 * of questions that are asked each time.
 */
export const stillHolding = (questions: readonly Question[], answers: Answers): Answers =>
  Object.fromEntries(
    questions.flatMap((question) => {
      const answer = answers[question.id]
      const keeps =
        answer !== undefined && !question.private && !question.eachTime && question.kind !== 'file'
      return keeps && !problemWith(question, answer) ? [[question.id, answer]] : []
    }),
  )
