import { date } from '../time/index.ts'
import { type Asking, holds } from './conditions.ts'
import type { Answers, AnswerValue, Question } from './types.ts'

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
  for (const question of questions) {
    if (question.when && !holds(question.when, answers, asking)) continue
    shown.push(question)
    const value = given[question.id]
    if (value !== undefined && !isEmpty(value)) answers[question.id] = value
  }
  return { questions: shown, answers }
}

const isEmpty = (value: AnswerValue): boolean =>
  (typeof value === 'string' && value.trim() === '') || (Array.isArray(value) && value.length === 0)

/** The number of words in a text. */
export const wordsIn = (text: string): number => text.trim().split(/\s+/).filter(Boolean).length

const LONGEST = 20_000

/** Whether a text holds HTML: a tag, not merely a "<" as in "less than". */
export const holdsHtml = (text: string): boolean => /<\/?[a-z][^>]*>|<!--/i.test(text)

const PLAIN = 'Please write in plain words, without HTML.'

/** What is wrong with an answer, in words for the person who gave it; nothing when it is right. */
export function problemWith(question: Question, value: AnswerValue | undefined): string | undefined {
  if (value === undefined || isEmpty(value)) {
    return question.required ? 'Please answer this one.' : undefined
  }
  switch (question.kind) {
    case 'short':
      if (typeof value !== 'string') return 'Please answer in words.'
      if (holdsHtml(value)) return PLAIN
      return value.length > 500 ? 'Please keep it under 500 characters.' : undefined
    case 'long': {
      if (typeof value !== 'string') return 'Please answer in words.'
      if (holdsHtml(value)) return PLAIN
      if (value.length > LONGEST) return 'Please keep it under 20,000 characters.'
      const words = wordsIn(value)
      if (question.leastWords && words < question.leastWords) {
        return `A little more, please: at least ${question.leastWords} words (${words} so far).`
      }
      if (question.mostWords && words > question.mostWords) {
        return `A little shorter, please: at most ${question.mostWords} words (${words} now).`
      }
      return undefined
    }
    case 'one':
      return question.choices.some((choice) => choice.id === value)
        ? undefined
        : 'Please choose one of these.'
    case 'several': {
      const known = Array.isArray(value) && value.every((id) => question.choices.some((c) => c.id === id))
      if (!known || new Set(value).size !== value.length) return 'Please choose among these.'
      if (question.least && value.length < question.least) return `Please choose at least ${question.least}.`
      if (question.most && value.length > question.most) return `Please choose at most ${question.most}.`
      return undefined
    }
    case 'yesno':
      return typeof value === 'boolean' ? undefined : 'Please answer yes or no.'
    case 'number':
    case 'scale':
      if (typeof value !== 'number' || !Number.isFinite(value)) return 'Please answer with a number.'
      if (question.kind === 'scale' || question.whole) {
        if (!Number.isInteger(value)) return 'Please answer with a whole number.'
      }
      if (question.least !== undefined && value < question.least)
        return `It can't be less than ${question.least}.`
      if (question.most !== undefined && value > question.most)
        return `It can't be more than ${question.most}.`
      return undefined
    case 'date':
      try {
        date(String(value))
        return undefined
      } catch {
        return 'Please give a date, as 2026-11-24.'
      }
    case 'url':
      return typeof value === 'string' && /^https?:\/\/[^\s/.]+(\.[^\s/.]+)+(\/\S*)?$/i.test(value)
        ? undefined
        : 'Please give a web address that begins with https://'
  }
}

/** An answer in words, as people read it. */
export function answerWords(question: Question, value: AnswerValue | undefined): string {
  if (value === undefined) return '—'
  const named = (id: unknown): string =>
    'choices' in question
      ? (question.choices.find((choice) => choice.id === id)?.text ?? String(id))
      : String(id)
  if (Array.isArray(value)) return value.map(named).join(', ')
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  if (question.kind === 'number' && question.unit) return `${value} ${question.unit}`
  if (question.kind === 'scale') return `${value} of ${question.most}`
  return named(value)
}
