import type { Practice } from '@acolhida/core/practice'
import { draftOf, type Question, type Questionnaire, type Rule, type Sheet } from '@acolhida/core/questions'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'

/** The practice with one of its questionnaires changed. */
export const withQuestionnaire = (
  practice: Practice,
  id: string,
  change: (questionnaire: Questionnaire) => Questionnaire,
): Practice => ({
  ...practice,
  questionnaires: practice.questionnaires.map((one) => (one.id === id ? change(one) : one)),
})

/** The practice with the version being written changed; what is published stays as it is. */
export const withDraft = (practice: Practice, id: string, change: (sheet: Sheet) => Sheet): Practice =>
  withQuestionnaire(practice, id, (one) => ({ ...one, draft: change(draftOf(one)) }))

/** Changes the version being written. */
export const changeDraft = (id: string, what: string, change: (sheet: Sheet) => Sheet): Promise<void> =>
  changePractice(db, what, (p) => withDraft(p, id, change))

export const withQuestion =
  (id: string, change: (question: Question) => Question) =>
  (sheet: Sheet): Sheet => ({
    ...sheet,
    questions: sheet.questions.map((one) => (one.id === id ? change(one) : one)),
  })

export const withRule =
  (id: string, change: (rule: Rule) => Rule) =>
  (sheet: Sheet): Sheet => ({
    ...sheet,
    rules: sheet.rules.map((one) => (one.id === id ? change(one) : one)),
  })

/** A list with one of its members at another place. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list]
  const [one] = next.splice(from, 1)
  if (one !== undefined) next.splice(to, 0, one)
  return next
}

export const KINDS: Record<Question['kind'], string> = {
  short: 'A few words',
  long: 'In their own words',
  one: 'One of several',
  several: 'Several of several',
  yesno: 'Yes or no',
  number: 'A number',
  scale: 'A scale',
  date: 'A date',
  url: 'A web address',
}

/** A question of another kind, with what both kinds have kept. */
export function asKind(question: Question, kind: Question['kind']): Question {
  const { id, text, help, required, when } = question
  const base = {
    id,
    text,
    required,
    ...(help === undefined ? {} : { help }),
    ...(when === undefined ? {} : { when }),
  }
  const choices =
    'choices' in question
      ? question.choices
      : [
          { id: 'first', text: 'First' },
          { id: 'second', text: 'Second' },
        ]
  if (kind === 'one' || kind === 'several') return { ...base, kind, choices }
  if (kind === 'scale')
    return { ...base, kind, least: 1, most: 7, leastName: 'not at all', mostName: 'very much' }
  return { ...base, kind }
}

/** Choices as they are typed, a line each; a choice that stays keeps its name in conditions. */
export function choicesFrom(
  typed: string,
  before: readonly { id: string; text: string }[],
): { id: string; text: string }[] {
  const lines = typed
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
  if (new Set(lines).size < lines.length)
    throw new Error('Two choices are the same; each needs words of its own.')
  if (lines.length === 0) throw new Error('Please write at least one choice, a line each.')
  const taken = new Set<string>()
  const found = lines.map((text) => {
    const same = before.find((one) => one.text === text)
    if (same) taken.add(same.id)
    return { id: same?.id, text }
  })
  return found.map(({ id, text }, i) => {
    if (id) return { id, text }
    // A line that was only reworded is the choice that stood there.
    const there = lines.length === before.length ? before[i]?.id : undefined
    let next = there !== undefined && !taken.has(there) ? there : undefined
    for (let n = 1; next === undefined || taken.has(next); n++) next = `c${before.length + n}`
    taken.add(next)
    return { id: next, text }
  })
}
