import { questionsIn } from './conditions.ts'
import type { Question, Questionnaire, Rule, Sheet } from './types.ts'

/** The ids of the questions that are read at the desk alone. */
export const privateIn = (questions: readonly Question[]): Set<string> =>
  new Set(questions.filter((question) => question.private).map((question) => question.id))

/** The questions a rule depends on: those it looks at, and the one it multiplies by. */
export const ruleLooksAt = ({ when, effect }: Rule): string[] => [
  ...questionsIn(when),
  ...('times' in effect && effect.times ? [effect.times] : []),
]

/** Whether anything is decided from private answers; then nobody can be let straight in. */
export function readsPrivately({ questions, rules }: Sheet): boolean {
  const own = privateIn(questions)
  return (
    rules.some((rule) => ruleLooksAt(rule).some((id) => own.has(id))) ||
    questions.some(
      (question) =>
        own.has(question.id) && 'choices' in question && question.choices.some((choice) => choice.points),
    )
  )
}

/**
 * What the relay is told of a questionnaire: everything but the rules on private answers and the points they give,
 * which the desk reads by itself, and without the drafts and versions of the past.
 */
export function forRelay(questionnaire: Questionnaire): Questionnaire {
  const { draft: _, past: __, ...rest } = questionnaire
  const own = privateIn(rest.questions)
  return {
    ...rest,
    questions: rest.questions.map((question) => (own.has(question.id) ? withoutPoints(question) : question)),
    rules: rest.rules.filter((rule) => !ruleLooksAt(rule).some((id) => own.has(id))),
  }
}

/** A question without what its choices are worth, as a client's browser gets it. */
export function withoutPoints(question: Question): Question {
  if (!('choices' in question)) return question
  return { ...question, choices: question.choices.map(({ points: _, ...choice }) => choice) }
}

/** Answers without those to private questions. */
export const openAnswers = <T>(
  questions: readonly Question[],
  answers: Readonly<Record<string, T>>,
): Record<string, T> => {
  const own = privateIn(questions)
  return Object.fromEntries(Object.entries(answers).filter(([id]) => !own.has(id)))
}
