import {
  type Practice,
  placeOf,
  questionnaireOf,
  serviceOf,
  taxLine,
  travelZoneOf,
} from '../practice/index.ts'
import {
  type Asking,
  type Choices,
  type Outcome,
  type Question,
  type Questionnaire,
  questionsOf,
  type Reading,
  readAnswers,
  readsPrivately,
  worseOf,
} from '../questions/index.ts'
import { type Difference, nearestChange } from '../questions/nearest.ts'
import type { Booking } from './record.ts'

/** Who asked, as the rules looked at them then. */
export const askingIn = ({ asked }: Booking): Asking => asked.asking

/** What else counted in a request's quote: what was added, how far to travel, a code. */
export const choicesIn = (practice: Practice, { asked }: Booking): Choices => ({
  extras: asked.extras ?? [],
  travel: travelZoneOf(placeOf(practice, asked.place), asked.travel),
  code: practice.codes?.find((code) => code.id === asked.code),
  whole: false,
  tax: taxLine(asked.tax),
})

const questionnaireIn = (practice: Practice, { asked }: Booking): Questionnaire | undefined =>
  practice.questionnaires.find((questionnaire) => questionnaire.id === asked.questionnaire?.id)

/** What a booking was asked: the questions of the version it answered; of the one in force where that is not known. */
export function questionsAsked(practice: Practice, booking: Booking): Question[] {
  const service = serviceOf(practice, booking.asked.service)
  const questionnaire = questionnaireIn(practice, booking) ?? (service && questionnaireOf(practice, service))
  const version = booking.asked.questionnaire?.version
  if (!questionnaire || !booking.asked.questionnaire) return []
  return (version === undefined ? undefined : questionsOf(questionnaire, version)) ?? questionnaire.questions
}

/**
 * What the rules make of a request at the desk: what the relay said, and what follows from private answers, which
 * only the desk reads.
 */
export function deskReading(practice: Practice, booking: Booking): Reading {
  const { reading, service: id, answers } = booking.asked
  const questionnaire = questionnaireIn(practice, booking)
  const service = serviceOf(practice, id)
  if (!questionnaire || !service || !readsPrivately(questionnaire)) return reading
  const here = readAnswers(service, questionnaire, answers, askingIn(booking), choicesIn(practice, booking))
  const known = new Set(reading.reasons.map((reason) => reason.rule))
  const byRules = [
    ...reading.reasons.filter((reason) => reason.rule !== undefined),
    ...here.reasons.filter((reason) => reason.rule !== undefined && !known.has(reason.rule)),
  ]
  // What points and value come to is told once: as the desk has it, which knows more of them.
  const other = [here, reading].map(({ reasons }) => reasons.filter((reason) => reason.rule === undefined))
  return {
    ...reading,
    outcome: worseOf(reading.outcome, here.outcome),
    points: here.points,
    tags: [...new Set([...reading.tags, ...here.tags])],
    reasons: [...byRules, ...(other.find((some) => some.length > 0) ?? [])],
  }
}

/** The outcome that counts: the practitioner's own judgement, or what the rules say here, private answers included. */
export const judged = (practice: Practice, booking: Booking): Outcome =>
  booking.overruled?.outcome ?? deskReading(practice, booking).outcome

/** The fewest answers that would have to differ for a request to fit; nothing when it fits, or none would do. */
export function nearestFor(practice: Practice, booking: Booking): Difference[] | undefined {
  const questionnaire = questionnaireIn(practice, booking)
  const service = serviceOf(practice, booking.asked.service)
  if (!questionnaire || !service || questionnaire.version !== booking.asked.questionnaire?.version)
    return undefined
  return nearestChange(service, questionnaire, booking.asked.answers, askingIn(booking))
}
