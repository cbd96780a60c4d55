import type { Booking } from '../booking/index.ts'
import { type Practice, questionnaireOf, serviceOf } from '../practice/index.ts'
import { answerWords } from '../questions/index.ts'

/**
 * What may be told of the answers of a booking: in a message, those that its client may read again; on paper from the
 * desk, all; never what is private, nor files.
 */
export function answersTold(
  practice: Practice,
  { asked }: Booking,
  on: 'message' | 'paper' = 'message',
): { question: string; answer: string }[] {
  const service = serviceOf(practice, asked.service)
  const questionnaire = service && questionnaireOf(practice, service)
  if (questionnaire?.id !== asked.questionnaire?.id) return []
  return (questionnaire?.questions ?? []).flatMap((question) => {
    const answer = asked.answers[question.id]
    const shown = on === 'paper' || question.shownAgain
    return shown && !question.private && question.kind !== 'file' && answer !== undefined
      ? [{ question: question.text, answer: answerWords(question, answer) }]
      : []
  })
}
