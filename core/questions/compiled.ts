import { type Asking, questionsIn } from './conditions.ts'
import type { Answers, AnswerValue, Condition, Question, Rule } from './types.ts'
import { isEmpty, isQuantities, isSealed, quantityIn } from './values.ts'

/** What was answered to each question, by its place; nothing where it was not asked or left open. */
export type AnswerValues = readonly (AnswerValue | undefined)[]

/** A condition made ready to be looked at often. It means what `holds` says. */
export type Test = (values: AnswerValues, asking: Asking) => boolean

/** Questions and rules made ready: what they look at is a place and no longer a name. */
export interface Compiled {
  questions: readonly Question[]
  ids: string[]
  /** For each question whether it begins a part. */
  begins: boolean[]
  /** For each question whether it is asked, as far as its own condition says. */
  asks: (Test | undefined)[]
  rules: {
    rule: Rule
    test: Test
    /** The places of the questions it looks at. */
    looks: number[]
    /** The place of the question it multiplies by; -1 where it acts once, or that is gone. */
    times: number
  }[]
  /** The places of the questions whose choices are worth points. */
  scored: number[]
}

const known = new WeakMap<object, Compiled>()

/** A sheet made ready; the same one is made ready once. */
export function compiled(sheet: { questions: readonly Question[]; rules: readonly Rule[] }): Compiled {
  let found = known.get(sheet)
  if (!found) {
    found = compile(sheet.questions, sheet.rules)
    known.set(sheet, found)
  }
  return found
}

function compile(questions: readonly Question[], rules: readonly Rule[]): Compiled {
  const places = new Map(questions.map((question, i) => [question.id, i]))
  const at = (id: string): number => places.get(id) ?? -1
  return {
    questions,
    ids: questions.map((question) => question.id),
    begins: questions.map((question) => question.kind === 'section'),
    asks: questions.map(({ when }) => when && testOf(when, at)),
    rules: rules.map((rule) => ({
      rule,
      test: testOf(rule.when, at),
      looks: [...new Set(questionsIn(rule.when))].map(at).filter((place) => place >= 0),
      times: 'times' in rule.effect && rule.effect.times !== undefined ? at(rule.effect.times) : -1,
    })),
    scored: questions.flatMap((question, i) =>
      'choices' in question && question.choices.some((choice) => choice.points) ? [i] : [],
    ),
  }
}

function testOf(condition: Condition, at: (id: string) => number): Test {
  if ('all' in condition) {
    const parts = condition.all.map((condition) => testOf(condition, at))
    return (values, asking) => {
      for (const part of parts) if (!part(values, asking)) return false
      return true
    }
  }
  if ('any' in condition) {
    const parts = condition.any.map((condition) => testOf(condition, at))
    return (values, asking) => {
      for (const part of parts) if (part(values, asking)) return true
      return false
    }
  }
  if ('not' in condition) {
    const inner = testOf(condition.not, at)
    return (values, asking) => !inner(values, asking)
  }
  if ('person' in condition) {
    const { person } = condition
    return person === 'invited' ? (_, asking) => asking.invited : (_, asking) => asking.standing === person
  }
  if ('tag' in condition) return (_, asking) => asking.tags.includes(condition.tag)
  if ('attempts' in condition) return (_, asking) => asking.attempts >= condition.attempts
  const place = at(condition.question)
  if (place < 0) return () => false
  return comparison(condition, place)
}

function comparison(condition: Extract<Condition, { question: string }>, place: number): Test {
  if (condition.is === 'answered') return (values) => values[place] !== undefined
  const { value } = condition
  const compare = (by: (answer: AnswerValue) => boolean): Test => {
    return (values) => {
      const answer = values[place]
      if (answer === undefined) return false
      if (typeof answer !== 'object') return by(answer)
      // Items are compared by how many there are of them together; what is sealed can't be compared.
      return !isSealed(answer) && by(isQuantities(answer) ? quantityIn(answer) : answer)
    }
  }
  switch (condition.is) {
    case '=':
      return compare((answer) => answer === value)
    case '≠':
      return compare((answer) => answer !== value)
    case '<':
      return compare((answer) => answer < value)
    case '≤':
      return compare((answer) => answer <= value)
    case '>':
      return compare((answer) => answer > value)
    case '≥':
      return compare((answer) => answer >= value)
    case 'includes': {
      const name = String(value)
      return (values) => {
        const answer = values[place]
        if (Array.isArray(answer)) return answer.includes(name)
        return isQuantities(answer) && quantityIn(answer, name) > 0
      }
    }
  }
}

/** The answers that count, by the places of their questions: what `asked` gives, without the names. */
export function valuesOf({ ids, begins, asks }: Compiled, given: Answers, asking: Asking): AnswerValues {
  const values: (AnswerValue | undefined)[] = []
  let inside = true
  for (let i = 0; i < ids.length; i++) {
    const ask = asks[i]
    const holds = ask === undefined || ask(values, asking)
    if (begins[i]) inside = holds
    const value = inside && holds ? given[ids[i]!] : undefined
    // Yes and no, and numbers, are never empty.
    const empty = (typeof value === 'string' || typeof value === 'object') && isEmpty(value)
    values.push(empty ? undefined : value)
  }
  return values
}
