import type { QuestionnaireItem, QuestionnaireItemEnableWhen } from 'fhir/r4'
import { type Condition, kindOf, type Question } from '../../questions/index.ts'

type Comparison = Extract<Condition, { question: string }>
type Valued = Exclude<Comparison, { is: 'answered' }>

const OPERATORS = { '=': '=', '≠': '!=', includes: '=', '<': '<', '≤': '<=', '>': '>', '≥': '>=' } as const

/** Compared by the standard as by us: quantities of items are not, nor are files. */
const standard = (question: Question | undefined): question is Question =>
  question !== undefined && kindOf(question).asks && kindOf(question).fhir.element !== undefined

/** What an answer is compared with; the standard has no address to compare with, only text. */
function answerOf(question: Question, value: Valued['value']): Partial<QuestionnaireItemEnableWhen> {
  // Something may be compared with a value of another type than its own; its own type says nothing then.
  if (typeof value === 'boolean') return { answerBoolean: value }
  const element = kindOf(question).fhir.element?.(question, value)
  if (!element) return {}
  if (typeof value === 'number' && element.as !== 'Integer') return { answerDecimal: value }
  return { [`answer${element.as === 'Uri' ? 'String' : element.as}`]: element.value }
}

/**
 * What one part of a condition comes to. "!=" holds by the standard when no answer is equal, so also without any
 * answer: it is our `not =`, and our `≠` is that together with `exists`.
 */
function partsOf(
  condition: Condition,
  questions: readonly Question[],
): QuestionnaireItemEnableWhen[] | undefined {
  if ('not' in condition) {
    const inner = condition.not
    if (!('question' in inner)) return undefined
    if (inner.is === 'answered')
      return standard(questions.find((question) => question.id === inner.question))
        ? [{ question: inner.question, operator: 'exists', answerBoolean: false }]
        : undefined
    const said = inner.is === '=' || inner.is === 'includes' ? compared(inner, '!=', questions) : undefined
    return said && [said]
  }
  if (!('question' in condition)) return undefined
  const { question } = condition
  if (!standard(questions.find((other) => other.id === question))) return undefined
  const exists = { question, operator: 'exists' as const, answerBoolean: true }
  if (condition.is === 'answered') return [exists]
  const said = compared(condition, OPERATORS[condition.is], questions)
  if (!said) return undefined
  return condition.is === '≠' ? [exists, said] : [said]
}

function compared(
  { question: id, value }: Valued,
  operator: QuestionnaireItemEnableWhen['operator'],
  questions: readonly Question[],
): QuestionnaireItemEnableWhen | undefined {
  const question = questions.find((question) => question.id === id)
  if (!standard(question)) return undefined
  const answer = answerOf(question, value)
  // A whole number compared with a broken one has no `answerInteger`.
  if (answer.answerInteger !== undefined && !Number.isInteger(answer.answerInteger)) return undefined
  return { question: id, operator, ...answer }
}

/** A condition as `enableWhen` and `enableBehavior`, where the standard can say it; nothing otherwise. */
export function toEnableWhen(
  condition: Condition,
  questions: readonly Question[],
): Pick<QuestionnaireItem, 'enableWhen' | 'enableBehavior'> | undefined {
  const [behavior, parts] =
    'all' in condition
      ? (['all', condition.all] as const)
      : 'any' in condition
        ? (['any', condition.any] as const)
        : (['all', [condition]] as const)
  const said = parts.map((part) => partsOf(part, questions))
  // Two parts that belong together can't stand among alternatives.
  if (behavior === 'any' && said.length > 1 && said.some((other) => other && other.length > 1))
    return undefined
  const whens = said.flatMap((other) => other ?? [])
  if (whens.length === 0 || said.includes(undefined)) return undefined
  const joined = said.length > 1 ? behavior : 'all'
  return { enableWhen: whens, ...(whens.length > 1 ? { enableBehavior: joined } : {}) }
}

/**
 * The condition that `enableWhen` says. What can't be read is told through `unread`, and holds always, so that no
 * question is lost.
 * @param idOf our name of a question, by its link id
 */
export function fromEnableWhen(
  item: Pick<QuestionnaireItem, 'enableWhen' | 'enableBehavior'>,
  questionOf: (linkId: string) => Question | undefined,
  choiceOf: (linkId: string, code: string) => string | undefined,
  unread: (what: string) => void,
): Condition | undefined {
  const parts = (item.enableWhen ?? []).flatMap((when): Condition[] => {
    const question = questionOf(when.question)
    if (!question) {
      unread(`a condition on “${when.question}”, which is not asked before`)
      return []
    }
    if (when.operator === 'exists') {
      const answered: Condition = { question: question.id, is: 'answered' }
      return [when.answerBoolean === false ? { not: answered } : answered]
    }
    const value = valueIn(when, question, choiceOf)
    if (value === undefined) {
      unread(`a condition on “${when.question}” with an answer of a kind that is not read`)
      return []
    }
    return [comparison(question, when.operator, value)]
  })
  if (parts.length < 2) return parts[0]
  return item.enableBehavior === 'any' ? { any: parts } : { all: parts }
}

const COMPARED = { '=': '=', '<': '<', '<=': '≤', '>': '>', '>=': '≥' } as const

function comparison(
  question: Question,
  operator: keyof typeof COMPARED | '!=',
  value: Valued['value'],
): Condition {
  const equal: Condition = {
    question: question.id,
    // Where one of several is looked for, there is no other way to be equal.
    is: kindOf(question).compares.includes('=') ? '=' : 'includes',
    value,
  }
  if (operator === '!=') return { not: equal }
  return operator === '=' ? equal : { question: question.id, is: COMPARED[operator], value }
}

function valueIn(
  when: QuestionnaireItemEnableWhen,
  question: Question,
  choiceOf: (linkId: string, code: string) => string | undefined,
): Valued['value'] | undefined {
  if (when.answerBoolean !== undefined) return when.answerBoolean
  const number = when.answerInteger ?? when.answerDecimal ?? when.answerQuantity?.value
  if (number !== undefined) return number
  if (when.answerCoding?.code !== undefined) return choiceOf(when.question, when.answerCoding.code)
  if (when.answerDate !== undefined) return when.answerDate
  if (when.answerTime !== undefined) return when.answerTime.slice(0, 5)
  if (when.answerString === undefined) return undefined
  return 'choices' in question ? choiceOf(when.question, when.answerString) : when.answerString
}
