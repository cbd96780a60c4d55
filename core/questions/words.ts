import type { Currency } from '../money/words.ts'
import { answerWords, asksSomething } from './answers.ts'
import { effectKind } from './effects.ts'
import { kindOf } from './kinds/index.ts'
import type { Condition, Effect, Question } from './types.ts'

/** The comparisons in words. */
export const COMPARED = {
  '=': 'is',
  '≠': 'is not',
  includes: 'includes',
  '<': 'is less than',
  '≤': 'is at most',
  '>': 'is more than',
  '≥': 'is at least',
} as const

const PERSON = { new: 'the person is new', known: 'you know the person', invited: 'the person is invited' }

/** A condition as a clause: “Age” is less than 16, and the person is new. */
export function conditionWords(condition: Condition, questions: readonly Question[], inner = false): string {
  if ('all' in condition || 'any' in condition) {
    const [parts, word] =
      'all' in condition ? ([condition.all, ' and '] as const) : ([condition.any, ' or '] as const)
    if (parts.length === 0) return 'all' in condition ? 'in any case' : 'never'
    const said = parts.map((part) => conditionWords(part, questions, parts.length > 1)).join(word)
    return inner && parts.length > 1 ? `(${said})` : said
  }
  if ('not' in condition) return `not: ${conditionWords(condition.not, questions, true)}`
  if ('person' in condition) return PERSON[condition.person]
  if ('tag' in condition) return `the person is tagged “${condition.tag}”`
  if ('attempts' in condition)
    return condition.attempts === 1
      ? 'they gave other answers before'
      : `they gave other answers at least ${condition.attempts} times before`
  const question = questions.find((question) => question.id === condition.question)
  const name = question ? `“${question.text}”` : 'a question that is gone'
  if (condition.is === 'answered') return `${name} has an answer`
  return `${name} ${COMPARED[condition.is]} ${valueWords(question, condition.value)}`
}

function valueWords(question: Question | undefined, value: string | number | boolean): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (!question) return String(value)
  const listed = kindOf(question).listed?.(question, 'includes')
  const named = listed?.find((listed) => listed.id === value)?.text
  if (named !== undefined) return 'choices' in question ? `“${named}”` : named
  return question.kind === 'number' ? answerWords(question, value) : String(value)
}

/** What is needed to say what an effect does. */
export interface RuleAround {
  questions: readonly Question[]
  services: readonly { id: string; name: string }[]
  currency: Currency
}

/** What a rule does, as a clause: close, look first, add 12 min for each “Pages”. */
export function effectWords(effect: Effect, { questions, services, currency }: RuleAround): string {
  const serviceName = (id: string): string => services.find((service) => service.id === id)?.name ?? id
  const each = ({ times, of }: { times?: string; of?: string }): string => {
    if (times === undefined) return ''
    const question = questions.find((question) => question.id === times)
    const item =
      question && 'items' in question ? question.items.find((item) => item.id === of)?.text : undefined
    return ` for each ${item ? `“${item}”` : `of “${question?.text ?? times}”`}`
  }
  return effectKind(effect).words(effect, {
    service: serviceName,
    currency,
    each: 'times' in effect ? each(effect) : '',
  })
}

/** How deep a question lies in the follow-ups: nought for one that is always asked. */
export function depthsOf(
  questions: readonly Question[],
  looksAt: (question: Question) => string[],
): number[] {
  const depths = new Map<string, number>()
  return questions.map((question) => {
    const above = looksAt(question).flatMap((id) => depths.get(id) ?? [])
    const depth = above.length > 0 ? Math.max(...above) + 1 : 0
    depths.set(question.id, depth)
    return depth
  })
}

/** How many questions there are to answer. */
export const questionCount = (questions: readonly Question[]): number =>
  questions.filter(asksSomething).length
