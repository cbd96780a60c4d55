import { type Asking, holds, questionsIn } from './conditions.ts'
import { Formulas, type Truth } from './formula.ts'
import type { Answers, Condition, Effect, Question, Questionnaire } from './types.ts'

/** A rule that acts whatever is answered from here on, and the last question it looks at. */
export interface Decided {
  rule: string
  effect: Effect
  question?: string
}

/**
 * The rules that are decided by the questions up to one: whatever is answered later, they act. What tells so are the
 * conditions alone; a rule that could still be undone by a later answer is not among them.
 * @param upTo the id of the last question that has been answered, or left open
 */
export function decidedRules(
  { questions, rules }: Pick<Questionnaire, 'questions' | 'rules'>,
  upTo: string,
  answers: Answers,
  asking: Asking,
): Decided[] {
  const last = questions.findIndex(({ id }) => id === upTo)
  const over = new Set(questions.slice(0, last + 1).map(({ id }) => id))
  const so = Object.fromEntries(Object.entries(answers).filter(([id]) => over.has(id)))
  const formulas = new Formulas()
  const whens = rules.map((rule) => ({ rule, when: formulas.of(rule.when) }))
  const truth: Truth = new Map(
    formulas.atoms.flatMap(({ question, condition }, number): [number, boolean][] => {
      if (question === undefined)
        return 'attempts' in condition ? [] : [[number, holdsNow(condition, asking)]]
      return over.has(question) && 'question' in condition ? [[number, holds(condition, so, asking)]] : []
    }),
  )
  return whens.flatMap(({ rule, when }) =>
    formulas.settle(when, truth, 'so far') === Formulas.TRUE
      ? [{ rule: rule.id, effect: rule.effect, ...lastOf(rule.when, questions.slice(0, last + 1)) }]
      : [],
  )
}

const holdsNow = (condition: { person: string } | { tag: string } | object, asking: Asking): boolean => {
  if ('person' in condition)
    return condition.person === 'invited' ? asking.invited : asking.standing === condition.person
  return 'tag' in condition && asking.tags.includes(String(condition.tag))
}

/** The last of some questions that a condition looks at. */
function lastOf(condition: Condition, questions: readonly Question[]): { question?: string } {
  const looked = new Set(questionsIn(condition))
  const found = questions.findLast(({ id }) => looked.has(id))
  return found ? { question: found.id } : {}
}
