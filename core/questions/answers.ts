import { type Wrong, wrongWords } from '../words/index.ts'
import { type Asking, holds } from './conditions.ts'
import { kindOf } from './kinds/index.ts'
import type { Answers, AnswerValue, Question } from './types.ts'
import { isEmpty, isSealed } from './values.ts'

/**
 * The questions that are asked, in order, and the answers that count: a question not asked has no answer,
 * and an answer to a question that is no longer asked is dropped.
 */
export function asked(
  questions: readonly Question[],
  given: Answers,
  asking: Asking,
): { questions: Question[]; answers: Answers } {
  const shown: Question[] = []
  const answers: Answers = {}
  let inside = true
  for (const question of questions) {
    if (question.kind === 'section') inside = !question.when || holds(question.when, answers, asking)
    else if (question.when && !holds(question.when, answers, asking)) continue
    if (!inside) continue
    shown.push(question)
    const value = given[question.id]
    if (value !== undefined && !isEmpty(value)) answers[question.id] = value
  }
  return { questions: shown, answers }
}

/** Whether there is anything to answer: sections and passages are only read. */
export const asksSomething = (question: Question): boolean => kindOf(question).asks

/** Questions as the practitioner must fill them, when entering somebody by hand. */
export const atDesk = (questions: readonly Question[]): Question[] =>
  questions.map((question) => ({ ...question, required: question.requiredAtDesk ?? question.required }))

/** One part of the questions that are asked: those from one section to the next, with its heading. */
export interface Part {
  section?: Question
  questions: Question[]
}

/** The questions that are asked, in the parts in which they are shown; a section without questions shows nothing. */
export function partsOf(shown: readonly Question[]): Part[] {
  const parts: Part[] = [{ questions: [] }]
  for (const question of shown) {
    if (question.kind === 'section') parts.push({ section: question, questions: [] })
    else parts.at(-1)!.questions.push(question)
  }
  return parts.filter((part) => part.questions.length > 0)
}

/** What is wrong with an answer; nothing when it is right. */
export function problemWith(question: Question, value: AnswerValue | undefined): Wrong | undefined {
  if (!asksSomething(question)) return undefined
  if (value === undefined || isEmpty(value)) {
    return question.required ? { code: 'answer-this' } : undefined
  }
  // What is sealed has been looked at before it was; only private answers are.
  if (isSealed(value)) return question.private ? undefined : { code: 'answer-anew' }
  return kindOf(question).problem(question, value)
}

/** A question whose answer is missing or not valid: which sentence says why, and the sentence. */
export type AnswerProblem = { question: string; message: string } & Wrong

export const answerProblem = (question: string, wrong: Wrong): AnswerProblem => ({
  question,
  ...wrong,
  message: wrongWords(wrong),
})

/** An answer in words, as people read it. */
export function answerWords(question: Question, value: AnswerValue | undefined): string {
  if (value === undefined) return '—'
  if (isSealed(value)) return 'Sealed: this desk has not the key to open it.'
  return kindOf(question).words(question, value)
}
