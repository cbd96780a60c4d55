import { kindOf } from './kinds/index.ts'
import type { Condition, Question } from './types.ts'

/** The parts of a condition that look at something by themselves. */
export function leavesOf(condition: Condition): Condition[] {
  if ('all' in condition) return condition.all.flatMap(leavesOf)
  if ('any' in condition) return condition.any.flatMap(leavesOf)
  return 'not' in condition ? leavesOf(condition.not) : [condition]
}

/** What is wrong with a comparison: the answer can't be compared so, or not with this. */
export function wrongComparison(question: Question, leaf: Condition): string | undefined {
  if (!('question' in leaf)) return undefined
  const kind = kindOf(question)
  const { is } = leaf
  // Whether something is another is as plain as whether it is the same.
  const allowed = kind.compares.includes(is === '≠' ? '=' : is) || kind.compares.includes(is)
  if (!allowed) return `“${question.text}” can't be compared by “${is}”.`
  if (!('value' in leaf)) return undefined
  const { value } = leaf
  const listed = kind.listed?.(question, is)
  if (listed)
    return listed.some(({ id }) => id === value)
      ? undefined
      : `It looks for an answer that “${question.text}” no longer has.`
  const type = kind.typed === 'number' ? 'number' : kind.typed === 'yesno' ? 'boolean' : 'string'
  const right =
    typeof value === type &&
    // A day and a time that exist: whatever can be answered can be compared with.
    ((kind.typed !== 'date' && kind.typed !== 'time') || kind.problem(question, value) === undefined)
  return right ? undefined : `“${question.text}” is compared with ${NOT[kind.typed]}.`
}

/** What is said of a value that is of another kind. */
const NOT: Record<ReturnType<typeof kindOf>['typed'], string> = {
  text: 'something that is no text',
  number: 'something that is no number',
  date: 'something that is no date',
  time: 'something that is no time of day',
  yesno: 'something other than yes or no',
}
