import type { Answers, Condition, Question } from './types.ts'
import { isQuantities, isSealed, quantityIn } from './values.ts'

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

/**
 * Whether a condition holds. A comparison with a missing answer is false (HL7 FHIR R4 Questionnaire,
 * `enableWhen`), `≠` included; `answered` is how one asks for that.
 */
export function holds(condition: Condition, answers: Answers, asking: Asking): boolean {
  if ('all' in condition) return condition.all.every((condition) => holds(condition, answers, asking))
  if ('any' in condition) return condition.any.some((condition) => holds(condition, answers, asking))
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
