import type { Question } from '@acolhida/core/questions'

/** A question with one of its own values set, or without it. */
export const valued = (question: Question, key: string, value: unknown): Question => {
  const next = Object.assign({ ...question }, { [key]: value })
  if (value === undefined || value === false) Reflect.deleteProperty(next, key)
  return next
}

/** One of a question's own values, if it has it. */
export const ownValue = (question: Question, key: string): unknown => Reflect.get(question, key)
