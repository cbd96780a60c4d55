import type { Practice } from '@acolhida/core/practice'
import {
  draftOf,
  KINDS,
  type Question,
  type Questionnaire,
  type Rule,
  type Sheet,
} from '@acolhida/core/questions'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'

/** The practice with one of its questionnaires changed. */
export const withQuestionnaire = (
  practice: Practice,
  id: string,
  change: (questionnaire: Questionnaire) => Questionnaire,
): Practice => ({
  ...practice,
  questionnaires: practice.questionnaires.map((questionnaire) =>
    questionnaire.id === id ? change(questionnaire) : questionnaire,
  ),
})

/** The practice with the version being written changed; what is published stays as it is. */
export const withDraft = (practice: Practice, id: string, change: (sheet: Sheet) => Sheet): Practice =>
  withQuestionnaire(practice, id, (questionnaire) => ({
    ...questionnaire,
    draft: change(draftOf(questionnaire)),
  }))

/** Changes the version being written. */
export const changeDraft = (id: string, what: string, change: (sheet: Sheet) => Sheet): Promise<void> =>
  changePractice(db, what, (p) => withDraft(p, id, change))

export const withQuestion =
  (id: string, change: (question: Question) => Question) =>
  (sheet: Sheet): Sheet => ({
    ...sheet,
    questions: sheet.questions.map((question) => (question.id === id ? change(question) : question)),
  })

export const withRule =
  (id: string, change: (rule: Rule) => Rule) =>
  (sheet: Sheet): Sheet => ({
    ...sheet,
    rules: sheet.rules.map((rule) => (rule.id === id ? change(rule) : rule)),
  })

/** A list with one of its members at another place. */
export function movedItem<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list]
  const [item] = next.splice(from, 1)
  if (item !== undefined) next.splice(to, 0, item)
  return next
}

/** Questions in another order: a section takes along all that stands in it. */
export function movedQuestion(questions: readonly Question[], from: number, to: number): Question[] {
  if (questions[from]?.kind !== 'section') return movedItem(questions, from, to)
  const next = questions.findIndex((question, i) => i > from && question.kind === 'section')
  const end = next < 0 ? questions.length : next
  const target = questions[to]
  // Over something of its own it stays where it is.
  if (!target || (to >= from && to < end)) return [...questions]
  const rest = questions.toSpliced(from, end - from)
  return rest.toSpliced(rest.indexOf(target) + (to > from ? 1 : 0), 0, ...questions.slice(from, end))
}

/** What only its kind has. */
const ownOf = (question: Question): object =>
  Object.fromEntries(
    Object.entries(question).filter(([key]) => Object.hasOwn(KINDS[question.kind].shape, key)),
  )

/**
 * A question of another kind, with what both kinds have kept.
 * @param before what it was when it was of that kind the last time
 */
export function asKind(question: Question, kind: Question['kind'], before?: Question): Question {
  const { id, text, help, required, when, private: own } = question
  const listed = 'choices' in question ? question.choices : 'items' in question ? question.items : []
  return {
    id,
    text,
    required: required && KINDS[kind].asks,
    ...(help === undefined ? {} : { help }),
    ...(when === undefined ? {} : { when }),
    ...(own === undefined ? {} : { private: own }),
    kind,
    ...(before?.kind === kind ? ownOf(before) : KINDS[kind].begin(listed)),
  } as Question
}
