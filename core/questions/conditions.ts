import type { Answers, AnswerValue, Attached, Condition, Quantities, Question, Sealed } from './types.ts'

/** What a condition may look at besides the answers. */
export interface Asking {
  standing: 'new' | 'known'
  invited: boolean
  tags: readonly string[]
  /** Earlier attempts with other answers. */
  attempts: number
}

/** Somebody of whom nothing is known yet. */
export const newcomer: Asking = { standing: 'new', invited: false, tags: [], attempts: 0 }

/** Whether an answer is a file. */
export const isAttached = (value: AnswerValue | undefined): value is Attached =>
  typeof value === 'object' && !Array.isArray(value) && 'file' in value && typeof value.file === 'string'

/** Whether an answer is sealed for the desk. */
export const isSealed = (value: AnswerValue | undefined): value is Sealed =>
  typeof value === 'object' && !Array.isArray(value) && 'sealed' in value && typeof value.sealed === 'string'

/** Whether an answer is how many of each item. */
export const isQuantities = (value: AnswerValue | undefined): value is Quantities =>
  typeof value === 'object' && !Array.isArray(value) && !isAttached(value) && !isSealed(value)

/** How many an answer comes to: a number itself, of items one or all together; nothing else counts. */
export function quantityIn(value: AnswerValue | undefined, item?: string): number {
  if (typeof value === 'number') return Math.max(0, value)
  if (!isQuantities(value)) return 0
  if (item !== undefined) return Math.max(0, value[item] ?? 0)
  return Object.values(value).reduce((sum, many) => sum + Math.max(0, many), 0)
}

/**
 * Whether a condition holds. A comparison with a missing answer is false (HL7 FHIR R4 Questionnaire,
 * `enableWhen`), `≠` included; `answered` is how one asks for that.
 */
export function holds(condition: Condition, answers: Answers, asking: Asking): boolean {
  if ('all' in condition) return condition.all.every((one) => holds(one, answers, asking))
  if ('any' in condition) return condition.any.some((one) => holds(one, answers, asking))
  if ('not' in condition) return !holds(condition.not, answers, asking)
  if ('person' in condition) {
    return condition.person === 'invited' ? asking.invited : asking.standing === condition.person
  }
  if ('tag' in condition) return asking.tags.includes(condition.tag)
  if ('attempts' in condition) return asking.attempts >= condition.attempts
  const given = answers[condition.question]
  // What is sealed can't be looked at, only that something has been answered.
  if (given === undefined || (isSealed(given) && condition.is !== 'answered')) return false
  // Items are compared by how many there are of them together.
  const answer = isQuantities(given) && condition.is !== 'includes' ? quantityIn(given) : given
  switch (condition.is) {
    case 'answered':
      return true
    case '=':
      return answer === condition.value
    case '≠':
      return answer !== condition.value
    case 'includes':
      return Array.isArray(answer)
        ? answer.includes(String(condition.value))
        : isQuantities(answer) && quantityIn(answer, String(condition.value)) > 0
    case '<':
      return answer < condition.value
    case '≤':
      return answer <= condition.value
    case '>':
      return answer > condition.value
    case '≥':
      return answer >= condition.value
  }
}

/** The ids of the questions that a condition looks at. */
export function questionsIn(condition: Condition): string[] {
  if ('all' in condition) return condition.all.flatMap(questionsIn)
  if ('any' in condition) return condition.any.flatMap(questionsIn)
  if ('not' in condition) return questionsIn(condition.not)
  return 'question' in condition ? [condition.question] : []
}

/**
 * For each question the condition under which it is asked: its own, and that of the part it stands in. Nothing
 * where it is asked always.
 */
export function conditionsOf(questions: readonly Question[]): (Condition | undefined)[] {
  let part: Condition | undefined
  return questions.map((question) => {
    if (question.kind === 'section') {
      part = question.when
      return part
    }
    return part && question.when ? { all: [part, question.when] } : (question.when ?? part)
  })
}
