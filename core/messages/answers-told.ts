import type { Booking } from '../booking/index.ts'
import { type Practice, questionnaireOf, serviceOf } from '../practice/index.ts'
import { type Answers, answerWords, openAnswers, type Question } from '../questions/index.ts'

/** The questions of a booking, where the questionnaire is still the one it answered. */
export function questionsOfBooking(practice: Practice, { asked }: Booking): Question[] {
  const service = serviceOf(practice, asked.service)
  const questionnaire = service && questionnaireOf(practice, service)
  return questionnaire?.id === asked.questionnaire?.id ? (questionnaire?.questions ?? []) : []
}

/** What was answered of a booking, with the questions: never what is private. */
export function plainAnswers(
  practice: Practice,
  booking: Booking,
): { question: Question; answer: Answers[string] }[] {
  const questions = questionsOfBooking(practice, booking)
  const open = openAnswers(questions, booking.asked.answers)
  return questions.flatMap((question) => {
    const answer = open[question.id]
    return answer === undefined ? [] : [{ question, answer }]
  })
}

/**
 * What may be told of the answers of a booking: in a message, those that its client may read again; on paper from the
 * desk, all; never what is private, nor files.
 */
export const answersTold = (
  practice: Practice,
  booking: Booking,
  on: 'message' | 'paper' = 'message',
): { question: string; answer: string }[] =>
  plainAnswers(practice, booking)
    .filter(({ question }) => (on === 'paper' || question.shownAgain) && question.kind !== 'file')
    .map(({ question, answer }) => ({ question: question.text, answer: answerWords(question, answer) }))
