import { sum } from '../money/index.ts'
import type { AnswerValue, Band, Question } from './types.ts'

/** What one answer is worth by the points of its choices. */
export function pointsFor(question: Question, value: AnswerValue | undefined): number {
  if (!('choices' in question) || value === undefined) return 0
  return question.choices
    .filter((choice) => (Array.isArray(value) ? value.includes(choice.id) : value === choice.id))
    .reduce((points, choice) => sum(points, choice.points ?? 0), 0)
}

/** The band that a number of points lies in: the highest that it reaches; nothing below the lowest. */
export function bandOf(bands: readonly Band[], points: number): Band | undefined {
  return bands
    .filter((band) => points >= band.from)
    .reduce<Band | undefined>((best, band) => (best && best.from > band.from ? best : band), undefined)
}
