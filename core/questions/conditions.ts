import type { Answers, Condition } from './types.ts'

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
  if ('all' in condition) return condition.all.every((one) => holds(one, answers, asking))
  if ('any' in condition) return condition.any.some((one) => holds(one, answers, asking))
  if ('not' in condition) return !holds(condition.not, answers, asking)
  if ('person' in condition) {
    return condition.person === 'invited' ? asking.invited : asking.standing === condition.person
  }
  if ('tag' in condition) return asking.tags.includes(condition.tag)
  if ('attempts' in condition) return asking.attempts >= condition.attempts
  const answer = answers[condition.question]
  if (answer === undefined) return false
  switch (condition.is) {
    case 'answered':
      return true
    case '=':
      return answer === condition.value
    case '≠':
      return answer !== condition.value
    case 'includes':
      return Array.isArray(answer) && answer.includes(String(condition.value))
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
