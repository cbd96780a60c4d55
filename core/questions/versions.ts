import { leavesOf, wrongComparison } from './comparisons.ts'
import { questionsIn } from './conditions.ts'
import { effectKind } from './effects.ts'
import { kindOf } from './kinds/index.ts'
import { privateIn, readsPrivately, ruleLooksAt } from './privacy.ts'
import type { Condition, Question, Questionnaire, Rule, Sheet } from './types.ts'

/** What is asked and follows, without what names the questionnaire and its versions. */
export const sheetOf = ({ questions, rules, bands, lookAbove, enquiryAbove }: Sheet): Sheet => ({
  questions,
  rules,
  bands,
  ...(lookAbove === undefined ? {} : { lookAbove }),
  ...(enquiryAbove === undefined ? {} : { enquiryAbove }),
})

/** The version being written, or the published one where none is. */
export const draftOf = (questionnaire: Questionnaire): Sheet => questionnaire.draft ?? sheetOf(questionnaire)

/** A questionnaire with another sheet in place of its own: nothing that only the old one said stays behind. */
export const withSheet = (
  { id, name, version, draft, past }: Questionnaire,
  sheet: Sheet,
): Questionnaire => ({
  id,
  name,
  version,
  ...sheetOf(sheet),
  ...(draft ? { draft } : {}),
  ...(past ? { past } : {}),
})

/** A questionnaire with its draft published as the next version; what was asked until then is kept. */
export function publishDraft(questionnaire: Questionnaire): Questionnaire {
  const { draft, past = [], ...published } = questionnaire
  if (!draft) return questionnaire
  const { id, name, version, questions } = published
  return { id, name, version: version + 1, ...draft, past: [...past, { version, questions }] }
}

/** The questions a version asked; nothing when it is no longer known. */
export function questionsOf(questionnaire: Questionnaire, version: number): Question[] | undefined {
  if (questionnaire.version === version) return questionnaire.questions
  return questionnaire.past?.find((past) => past.version === version)?.questions
}

/** What stands in the way of publishing a draft, with its place in it. */
export interface DraftFault {
  question?: string
  rule?: string
  message: string
}

/**
 * Conditions that look at questions which do not exist or come later, bounds that exclude everything, choices that are
 * missing: each beside its place.
 */
export function draftFaults(sheet: Sheet): DraftFault[] {
  const { questions, rules } = sheet
  const ids = questions.map((question) => question.id)
  const faults: DraftFault[] = []
  questions.forEach((question, at) => {
    for (const id of question.when ? questionsIn(question.when) : []) {
      const there = ids.indexOf(id)
      if (there < 0)
        faults.push({ question: question.id, message: 'Its condition looks at a question that is gone.' })
      else if (there === at) faults.push({ question: question.id, message: 'Its condition looks at itself.' })
      else if (there > at) {
        const later = questions[there]!.text
        faults.push({
          question: question.id,
          message: `Its condition looks at “${later}”, which is asked later.`,
        })
      }
    }
    if (question.when && looksBeyond(question.when))
      faults.push({
        question: question.id,
        message: 'Whether it is asked can’t depend on tags or earlier attempts: only rules can look at them.',
      })
    faults.push(
      ...comparisonFaults(questions, question.when).map((message) => ({ question: question.id, message })),
    )
    const wrong = kindOf(question).impossible?.(question)
    if (wrong) faults.push({ question: question.id, message: wrong })
  })
  for (const rule of rules) {
    if (isUnfinished(rule)) faults.push({ rule: rule.id, message: 'It does nothing yet: say when it acts.' })
    if (ruleLooksAt(rule).some((id) => !ids.includes(id)))
      faults.push({ rule: rule.id, message: 'It looks at a question that is gone.' })
    faults.push(...comparisonFaults(questions, rule.when).map((message) => ({ rule: rule.id, message })))
    const wrong = effectFault(rule, questions)
    if (wrong) faults.push({ rule: rule.id, message: wrong })
  }
  return [...faults, ...privacyFaults(sheet)]
}

/** Comparisons that can't be: of an answer with what is of another kind, or gone. */
const comparisonFaults = (questions: readonly Question[], condition: Condition | undefined): string[] =>
  (condition ? leavesOf(condition) : []).flatMap((leaf) => {
    const question = 'question' in leaf && questions.find(({ id }) => id === leaf.question)
    return (question && wrongComparison(question, leaf)) || []
  })

/** Whether a condition looks at what the door does not know. */
function looksBeyond(condition: Condition): boolean {
  return leavesOf(condition).some((leaf) => 'tag' in leaf || 'attempts' in leaf)
}

function effectFault({ effect }: Rule, questions: readonly Question[]): string | undefined {
  const wrong = effectKind(effect).fault?.(effect)
  if (wrong) return wrong
  if (!('times' in effect) || effect.times === undefined || effect.of === undefined) return undefined
  const question = questions.find((question) => question.id === effect.times)
  const known = question && 'items' in question && question.items.some((item) => item.id === effect.of)
  return known ? undefined : 'It multiplies by an item that is gone.'
}

/** Private answers may decide to look, give points or a tag; nothing a client could notice may depend on them. */
function privacyFaults(sheet: Sheet): DraftFault[] {
  const { questions, rules, bands } = sheet
  const own = privateIn(questions)
  const faults: DraftFault[] = []
  for (const question of questions) {
    if (question.private && question.kind === 'file')
      faults.push({
        question: question.id,
        message: 'A file can’t be private: it waits at the relay as it is.',
      })
    if (question.when && questionsIn(question.when).some((id) => own.has(id)))
      faults.push({
        question: question.id,
        message: 'Whether it is asked would tell of a private answer. Please look at another one.',
      })
  }
  for (const rule of rules) {
    if (!ruleLooksAt(rule).some((id) => own.has(id))) continue
    if (!effectKind(rule.effect).unnoticed)
      faults.push({
        rule: rule.id,
        message:
          'A rule on a private answer can say look, points or tag only: clients would notice the rest.',
      })
  }
  if (readsPrivately(sheet) && bands.some((band) => band.outcome === 'closed'))
    faults.push({
      message:
        'Points from private answers can make you look, and no more: please take “not a match” out of the bands.',
    })
  return faults
}

/**
 * A draft without one of its questions. What looked at it is left as it is and counts as unfinished: taking a part out
 * of a condition would let a rule act for more people than before.
 */
export const removeQuestion = (sheet: Sheet, id: string): Sheet => ({
  ...sheet,
  questions: sheet.questions.filter((question) => question.id !== id),
})

/** What looks at a question: other questions, by their conditions, and rules. */
export const lookingAt = (
  { questions, rules }: Sheet,
  id: string,
): { questions: Question[]; rules: Rule[] } => ({
  questions: questions.filter((question) => question.when && questionsIn(question.when).includes(id)),
  rules: rules.filter((rule) => ruleLooksAt(rule).includes(id)),
})

/** Whether a rule says nothing yet of when it acts: it does nothing until it does. */
export const isUnfinished = ({ when }: Rule): boolean => 'any' in when && when.any.length === 0

/** An id that is not taken yet, made from one that may be. */
export function freeId(taken: Iterable<string>, base: string): string {
  const all = new Set(taken)
  let n = 1
  let id = base
  while (all.has(id)) id = `${base}-${++n}`
  return id
}
