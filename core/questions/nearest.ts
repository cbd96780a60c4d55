import type { Service } from '../practice/types.ts'
import { asked } from './answers.ts'
import type { Asking } from './conditions.ts'
import { countsOf, TooMany } from './options.ts'
import { readAnswers } from './reading.ts'
import type { Answers, AnswerValue, Questionnaire } from './types.ts'
import { beginning, endOfWay, ready, walk } from './ways.ts'

/** One answer that would have to be another for the way to fit. */
export interface Difference {
  question: string
  /** What was answered; nothing when it was not asked, or left open. */
  from: AnswerValue | undefined
  to: AnswerValue | undefined
}

/**
 * The fewest answers that would have to differ for a set of answers to fit, with one example of how; nothing when
 * they fit already, when none would, or when there are too many ways to tell.
 */
export function nearestChange(
  service: Service,
  questionnaire: Questionnaire,
  given: Answers,
  asking: Asking,
): Difference[] | undefined {
  if (readAnswers(service, questionnaire, given, asking).outcome === 'fits') return undefined
  const { answers } = asked(questionnaire.questions, given, asking)
  try {
    return search(service, questionnaire, answers, asking)
  } catch (error) {
    if (error instanceof TooMany) return undefined
    throw error
  }
}

/** A walk wider than this is given up: it is asked for while somebody waits. */
const MOST_STATES = 20_000

function search(
  service: Service,
  questionnaire: Questionnaire,
  answers: Answers,
  asking: Asking,
): Difference[] | undefined {
  const r = ready(questionnaire, service)
  // What was answered is kept wherever nothing tells it from what is tried.
  const keeps = new Map(
    r.questions.map(({ question, options, optionFor }) => {
      const given = answers[question.id]
      // What must be answered and has not been is a difference, whatever the answer.
      if (given === undefined && question.required) return [question.id, undefined] as const
      const own = optionFor(given)
      const same = options.filter((option) => option.name === own.name)
      return [question.id, same.find((option) => countsOf(option) === countsOf(own)) ?? same[0]] as const
    }),
  )
  const ends = walk(r, [beginning(r, asking)], {
    cost: (question, option) => (keeps.get(question.id) === option ? 0 : 1),
    level: (_, states) => states <= MOST_STATES,
  })
  const fitting = (ends ?? []).filter((state) => {
    const end = endOfWay(r, state)
    return end.outcome === 'fits' && !end.enquiry
  })
  const [best] = fitting.sort((a, b) => a.cost - b.cost)
  if (!best) return undefined
  const differences: Difference[] = []
  for (let at = best.trail; at; at = at.before) {
    const kept = keeps.get(at.question)
    if (!at.asked || (kept && kept.value === at.value)) continue
    differences.unshift({ question: at.question, from: answers[at.question], to: at.value })
  }
  return differences
}
