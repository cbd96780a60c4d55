import type { Practice, Preparation, PreparationDue, PreparationKind } from '@acolhida/core/practice'
import type { StationState } from '@acolhida/core/preparing'
import { type AnswerValue, asksSomething, type Question, questionsOf } from '@acolhida/core/questions'
import { duration, durationWords } from '@acolhida/core/time'
import { when } from '../parts/words.ts'

/** What a client does with each kind, and what it is called. */
export const PREPARES: Record<PreparationKind, { does: string; name: string }> = {
  read: { does: 'to read', name: 'A letter' },
  sign: { does: 'to sign', name: 'Something to sign' },
  answer: { does: 'to answer', name: 'A questionnaire' },
  bring: { does: 'to send', name: 'A file to bring' },
  tick: { does: 'to do', name: 'Something to do' },
}

/** By when, in words: "2 days before the session". */
export function dueWords({ from, by }: PreparationDue): string {
  const long = durationWords(by)
  if (from === 'given') return `${long} after they are given it`
  if (from === 'end') return `${long} after the session`
  return by === duration('PT0S') ? 'before the session' : `${long} before the session`
}

/** What goes out of the practice where something is to be done: "to read, 2 days before the session, about 3 min". */
export const preparationLine = ({ is, due, minutes, once }: Preparation): string =>
  [
    PREPARES[is].does,
    dueWords(due),
    minutes ? `about ${minutes} min` : '',
    once ? 'once for each person' : '',
  ]
    .filter(Boolean)
    .join(', ')

/** What was answered of one thing, question by question, in the version in which it was given. */
export function answeredIn(
  practice: Practice,
  { station: { questionnaire }, progress: { answers = {} } }: Pick<StationState, 'station' | 'progress'>,
): { question: Question; answer: AnswerValue }[] {
  const asked = practice.questionnaires.find(({ id }) => id === questionnaire?.id)
  const questions = (asked && questionsOf(asked, questionnaire?.version ?? 0)) ?? []
  return questions.flatMap((question) => {
    const answer = answers[question.id]
    return asksSomething(question) && answer !== undefined ? [{ question, answer }] : []
  })
}

/** How far one thing is, in words. */
export function stationWords(practice: Practice, { is, due, progress }: StationState): string {
  const { done, filled } = progress
  if (is === 'gone') return 'no longer in the practice'
  if (done) return `done ${when(practice, done.at)}${done.by === 'practitioner' ? ', as you said' : ''}`
  const begun = filled && filled.answered > 0 ? `${filled.answered} of ${filled.of} answered` : 'not begun'
  const late = is === 'overdue' && due !== undefined ? `, was due ${when(practice, due)}` : ''
  return `${begun}${late || (due === undefined ? '' : `, due ${when(practice, due)}`)}`
}
