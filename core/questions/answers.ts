import { MAIL_SHAPE } from '../people/mail.ts'
import { date, time } from '../time/index.ts'
import { addressOf } from './address.ts'
import { type Asking, holds, isAttached, isQuantities, isSealed, quantityIn } from './conditions.ts'
import { FILE_KINDS, sizeInWords } from './file-kinds.ts'
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

/** Whether an answer says nothing: blank text, no choice, no item. */
export const isEmpty = (value: AnswerValue): boolean => {
  if (typeof value === 'string') return value.trim() === ''
  if (Array.isArray(value)) return value.length === 0
  return isQuantities(value) && quantityIn(value) === 0
}

/** Whether there is anything to answer: sections and passages are only read. */
export const asksSomething = ({ kind }: Question): boolean => kind !== 'section' && kind !== 'passage'

/** Questions as the practitioner must fill them, when entering somebody by hand. */
export const atDesk = (questions: readonly Question[]): Question[] =>
  questions.map((one) => ({ ...one, required: one.requiredAtDesk ?? one.required }))

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

/** The number of words in a text. */
export const wordsIn = (text: string): number => text.trim().split(/\s+/).filter(Boolean).length

/** The number of sentences in a text; what is written without a full stop is one. */
export function sentencesIn(text: string): number {
  let sentences = 0
  let from = 0
  const part = (to: number): void => {
    if (/[\p{L}\p{N}]/u.test(text.slice(from, to))) sentences++
  }
  for (const { 0: mark, index } of text.matchAll(/[.!?…。！？؟।]+|\n+/gu)) {
    const end = index + mark.length
    // "3.5" and "e.g.this" go on; a line that ends is an end.
    if (mark[0] !== '\n' && end < text.length && !/[\s”’»"')]/.test(text[end] ?? '')) continue
    part(index)
    from = end
  }
  part(text.length)
  return sentences
}

const LONGEST = 20_000

/** Whether a text holds HTML: a tag, not merely a "<" as in "less than". */
export function holdsHtml(text: string): boolean {
  // The first beginning of a tag is enough: what ends a later one ends it, too. So the text is read once.
  const begins = text.search(/<\/?[a-z]/i)
  return text.includes('<!--') || (begins >= 0 && text.includes('>', begins))
}

const PLAIN = 'Please write in plain words, without HTML.'

/** What is wrong with an answer, in words for the person who gave it; nothing when it is right. */
export function problemWith(question: Question, value: AnswerValue | undefined): string | undefined {
  if (!asksSomething(question)) return undefined
  if (value === undefined || isEmpty(value)) {
    return question.required ? 'Please answer this one.' : undefined
  }
  // What is sealed has been looked at before it was; only private answers are.
  if (isSealed(value)) return question.private ? undefined : 'Please answer this one anew.'
  switch (question.kind) {
    case 'short':
      if (typeof value !== 'string') return 'Please answer in words.'
      if (value.length > 500) return 'Please keep it under 500 characters.'
      return holdsHtml(value) ? PLAIN : undefined
    case 'long': {
      if (typeof value !== 'string') return 'Please answer in words.'
      if (value.length > LONGEST) return 'Please keep it under 20,000 characters.'
      if (holdsHtml(value)) return PLAIN
      const words = wordsIn(value)
      if (question.leastWords && words < question.leastWords) {
        return `A little more, please: at least ${question.leastWords} words (${words} so far).`
      }
      if (question.mostWords && words > question.mostWords) {
        return `A little shorter, please: at most ${question.mostWords} words (${words} now).`
      }
      return problemWithSentences(question, sentencesIn(value))
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
    case 'time':
      try {
        time(String(value))
        return undefined
      } catch {
        return 'Please give a time of day, as 14:30.'
      }
    case 'email':
      return typeof value === 'string' && value.length <= 254 && MAIL_SHAPE.test(value.trim())
        ? undefined
        : 'Please give a mail address, as name@example.org.'
    case 'phone':
      // How long numbers are in each country is looked at in the form; here only that it can be one (ITU-T E.164).
      return typeof value === 'string' &&
        /^\+?[0-9()\-.\s/]{5,40}$/.test(value) &&
        /^\d{5,15}$/.test(value.replaceAll(/\D/g, ''))
        ? undefined
        : 'Please give a phone number with its country, as +351 239 555 0100.'
    case 'address': {
      if (typeof value !== 'string' || value.length > 500) return 'Please write an address.'
      if (holdsHtml(value)) return PLAIN
      const { street, postalCode, town } = addressOf(value)
      const missing = [
        street ? '' : 'the street',
        postalCode ? '' : 'the postal code',
        town ? '' : 'the town',
      ]
      const left = missing.filter(Boolean)
      return left.length > 0 ? `Please write ${left.join(' and ')}, too.` : undefined
    }
    case 'items':
      return problemWithItems(question, value)
    case 'file':
      if (!isAttached(value)) return 'Please choose a file.'
      if (!question.accepts.includes(value.type))
        return `“${value.name}” is ${FILE_KINDS[value.type]}; asked for is ${question.accepts.map((one) => FILE_KINDS[one]).join(' or ')}.`
      return value.size > question.mostBytes
        ? `“${value.name}” has ${sizeInWords(value.size)}; at most ${sizeInWords(question.mostBytes)} can be sent.`
        : undefined
    default:
      return undefined
  }
}

function problemWithSentences(
  { leastSentences, mostSentences }: { leastSentences?: number; mostSentences?: number },
  sentences: number,
): string | undefined {
  const many = (n: number): string => (n === 1 ? 'one sentence' : `${n} sentences`)
  if (leastSentences && sentences < leastSentences)
    return `A little more, please: at least ${many(leastSentences)} (${sentences} so far).`
  if (mostSentences && sentences > mostSentences)
    return `A little shorter, please: at most ${many(mostSentences)} (${sentences} now).`
  return undefined
}

function problemWithItems(
  question: Extract<Question, { kind: 'items' }>,
  value: AnswerValue,
): string | undefined {
  if (!isQuantities(value)) return 'Please say how many.'
  for (const [id, many] of Object.entries(value)) {
    const item = question.items.find((one) => one.id === id)
    if (!item || !Number.isInteger(many) || many < 0) return 'Please say how many, in whole numbers.'
    if (many > item.most) return `At most ${item.most} of “${item.text}”, please.`
  }
  const all = quantityIn(value)
  if (question.least !== undefined && all < question.least)
    return `At least ${question.least} together, please (${all} so far).`
  if (question.most !== undefined && all > question.most)
    return `At most ${question.most} together, please (${all} now).`
  return undefined
}

/** An answer in words, as people read it. */
export function answerWords(question: Question, value: AnswerValue | undefined): string {
  if (value === undefined) return '—'
  const named = (id: unknown): string =>
    'choices' in question
      ? (question.choices.find((choice) => choice.id === id)?.text ?? String(id))
      : String(id)
  if (Array.isArray(value)) return value.map(named).join(', ')
  if (isSealed(value)) return 'Sealed: this desk has not the key to open it.'
  if (isAttached(value)) return `${value.name} (${sizeInWords(value.size)})`
  if (isQuantities(value)) {
    const items = question.kind === 'items' ? question.items : []
    return Object.entries(value)
      .filter(([, many]) => many > 0)
      .map(([id, many]) => `${many} × ${items.find((one) => one.id === id)?.text ?? id}`)
      .join(', ')
  }
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  if (question.kind === 'number' && question.unit) return `${value} ${question.unit}`
  if (question.kind === 'scale') return `${value} of ${question.most}`
  return named(value)
}
