import type { Service } from '../practice/types.ts'
import { asked, problemWith } from './answers.ts'
import type { Asking } from './conditions.ts'
import { type AnswerOption, countsOf, TooMany } from './options.ts'
import { readAnswers } from './reading.ts'
import type { Answers, AnswerValue, Questionnaire } from './types.ts'
import { answersOn, beginning, endOfWay, type Ready, ready, walk } from './ways.ts'

/** One answer that would have to be another for the way to fit. */
export interface Difference {
  question: string
  /** What was answered; nothing when it was not asked, or left open. */
  from: AnswerValue | undefined
  to: AnswerValue | undefined
  /** Of a number: any less, or more, would do as well. */
  beyond?: 'less' | 'more'
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
  // What was answered is a way of its own that costs nothing; another that nothing tells from it is none.
  const kept = new Map<string, AnswerOption>()
  for (const asks of r.questions) {
    const { question, options, optionFor } = asks
    const given = answers[question.id]
    // What must be answered and has not been is a difference, whatever the answer.
    if (given === undefined && question.required) continue
    const own = optionFor(given)
    kept.set(question.id, own)
    const same = (option: AnswerOption): boolean =>
      option.name === own.name && countsOf(option) === countsOf(own)
    asks.options = [own, ...options.filter((option) => !same(option))]
  }
  const ends = walk(r, [beginning(r, asking)], {
    cost: (question, option) => (kept.get(question.id) === option ? 0 : 1),
    level: (_, states) => states <= MOST_STATES,
  })
  const reads = (tried: Answers): boolean => {
    const { outcome, enquiryInstead } = readAnswers(service, questionnaire, tried, asking)
    return outcome === 'fits' && !enquiryInstead
  }
  const best = (ends ?? [])
    .filter((state) => {
      const end = endOfWay(r, state)
      return end.outcome === 'fits' && !end.enquiry
    })
    .sort((a, b) => a.cost - b.cost)
    // What stands for the end of a stretch may only come near to it.
    .find((state) => reads(answersOn(state.trail)))
  if (!best) return undefined
  const found = answersOn(best.trail)
  const differences: Difference[] = []
  for (let at = best.trail; at; at = at.before) {
    if (!at.asked || kept.get(at.question)?.value === at.value) continue
    differences.unshift({ question: at.question, from: answers[at.question], to: at.value })
  }
  return differences.map((difference) => {
    const asks = r.questions.find(({ question }) => question.id === difference.question)!
    const cuts = r.formulas.atoms.flatMap(({ question, condition }) =>
      question === difference.question && 'value' in condition && typeof condition.value === 'number'
        ? condition.value
        : [],
    )
    return nearer(asks, cuts, difference, (value) => reads({ ...found, [difference.question]: value }))
  })
}

/** Of numbers the one nearest to what was answered, and whether all beyond it would do as well. */
function nearer(
  { question, options }: Ready['questions'][number],
  cuts: readonly number[],
  difference: Difference,
  fits: (value: number) => boolean,
): Difference {
  const { from, to } = difference
  if (typeof from !== 'number' || typeof to !== 'number') return difference
  const whole = question.kind !== 'number' || question.whole === true
  const numbers = [...cuts, ...options.flatMap(({ value }) => (typeof value === 'number' ? value : []))]
  const step = to < from ? -1 : 1
  const tried = new Set([...numbers, ...(whole ? numbers.flatMap((n) => [n - 1, n + 1]) : [])])
  const towards = [...tried]
    .filter((n) => (n - from) * step > 0 && problemWith(question, n) === undefined)
    .sort((a, b) => (a - b) * step)
  const first = towards.findIndex(fits)
  if (first < 0) return difference
  const beyond = towards.slice(first)
  const open = beyond.length > 1 && beyond.every(fits)
  return { ...difference, to: beyond[0]!, ...(open ? { beyond: step < 0 ? 'less' : 'more' } : {}) }
}
