import type { Practice } from '@acolhida/core/practice'
import {
  asksSomething,
  type Band,
  type Choice,
  draftOf,
  type Item,
  type Question,
  type Questionnaire,
  type Rule,
  type Sheet,
} from '@acolhida/core/questions'
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

/** Questions in another order: a section takes along all that stands in it. */
export function movedQuestion(questions: readonly Question[], from: number, to: number): Question[] {
  if (questions[from]?.kind !== 'section') return moved(questions, from, to)
  const next = questions.findIndex((one, i) => i > from && one.kind === 'section')
  const end = next < 0 ? questions.length : next
  const target = questions[to]
  // Over something of its own it stays where it is.
  if (!target || (to >= from && to < end)) return [...questions]
  const rest = questions.toSpliced(from, end - from)
  return rest.toSpliced(rest.indexOf(target) + (to > from ? 1 : 0), 0, ...questions.slice(from, end))
}

/** The kinds of questions, in the order in which they are offered. */
export const KINDS: Record<Question['kind'], string> = {
  short: 'A few words',
  long: 'In their own words',
  one: 'One of several',
  several: 'Several of several',
  yesno: 'Yes or no',
  number: 'A number',
  scale: 'A scale',
  items: 'Items, and how many',
  date: 'A date',
  time: 'A time of day',
  email: 'A mail address',
  phone: 'A phone number',
  url: 'A web address',
  address: 'A postal address',
  file: 'A file',
  passage: 'Something to read',
  section: 'A new part',
}

/** A question of another kind, with what both kinds have kept. */
export function asKind(question: Question, kind: Question['kind']): Question {
  const { id, text, help, required, when, private: own } = question
  const base = {
    id,
    text,
    required: required && asksSomething({ ...question, kind } as Question),
    ...(help === undefined ? {} : { help }),
    ...(when === undefined ? {} : { when }),
    ...(own === undefined ? {} : { private: own }),
  }
  const listed = 'choices' in question ? question.choices : 'items' in question ? question.items : FIRST
  switch (kind) {
    case 'one':
    case 'several':
      return { ...base, kind, choices: listed.map(({ id, text }) => ({ id, text })) }
    case 'items':
      return { ...base, kind, items: listed.map(({ id, text }) => ({ id, text, most: 10 })) }
    case 'scale':
      return { ...base, kind, least: 1, most: 7, leastName: 'not at all', mostName: 'very much' }
    case 'file':
      return { ...base, kind, accepts: ['picture', 'pdf'], mostBytes: 2 * 1024 * 1024 }
    default:
      return { ...base, kind }
  }
}

const FIRST = [
  { id: 'first', text: 'First' },
  { id: 'second', text: 'Second' },
]

/** A choice or an item as it is typed on a line: its words, and after a bar what it is worth or how many at most. */
const typedLine = (line: string): { text: string; number?: number } => {
  const match = /^(.*\S)\s*\|\s*(-?\d+)$/.exec(line)
  return match ? { text: match[1]!, number: Number(match[2]) } : { text: line }
}

/** Choices as lines to be typed: with what they are worth, where they are scored. */
export const choiceLines = (choices: readonly Choice[]): string =>
  choices.map(({ text, points }) => (points === undefined ? text : `${text} | ${points}`)).join('\n')

export const itemLines = (items: readonly Item[]): string =>
  items.map(({ text, most }) => `${text} | ${most}`).join('\n')

/** Items as they are typed, a line each with how many at most. */
export const itemsFrom = (typed: string, before: readonly Item[]): Item[] =>
  namedLines(typed, before, 'item').map(({ id, text, number }) => {
    const most = number ?? before.find((one) => one.id === id)?.most ?? 10
    if (most < 1) throw new Error(`“${text}” can be asked for at least once.`)
    return { id, text, most }
  })

/** Choices as they are typed, a line each; a choice that stays keeps its name in conditions. */
export const choicesFrom = (typed: string, before: readonly Choice[]): Choice[] =>
  namedLines(typed, before, 'choice').map(({ id, text, number }) => ({
    id,
    text,
    ...(number === undefined ? {} : { points: number }),
  }))

function namedLines(
  typed: string,
  before: readonly { id: string; text: string }[],
  what: string,
): { id: string; text: string; number?: number }[] {
  const lines = typed
    .split('\n')
    .map((line) => typedLine(line.trim()))
    .filter((line) => line.text)
  if (new Set(lines.map((line) => line.text)).size < lines.length)
    throw new Error(`Two lines are the same; each ${what} needs words of its own.`)
  if (lines.length === 0) throw new Error(`Please write at least one ${what}, a line each.`)
  const taken = new Set<string>()
  const found = lines.map((line) => {
    const same = before.find((one) => one.text === line.text)
    if (same) taken.add(same.id)
    return { ...line, id: same?.id }
  })
  return found.map(({ id, ...line }, i) => {
    if (id) return { ...line, id }
    // A line that was only reworded is the one that stood there.
    const there = lines.length === before.length ? before[i]?.id : undefined
    let next = there !== undefined && !taken.has(there) ? there : undefined
    for (let n = 1; next === undefined || taken.has(next); n++) next = `c${before.length + n}`
    taken.add(next)
    return { ...line, id: next }
  })
}

/** Bands as they are typed: "10 look moderate", a line each. */
export function bandsFrom(typed: string): Band[] {
  const bands = typed
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line): Band => {
      const match = /^(?:from\s+)?(-?\d+)\s+(fits|look first|look|not a match|closed)(?:\s+(.+))?$/i.exec(
        line,
      )
      if (!match)
        throw new Error(
          `“${line}” is not read. Write from how many points on, and what follows: “10 look first moderate”.`,
        )
      const word = match[2]!.toLowerCase()
      const outcome = word.startsWith('look') ? 'look' : word === 'fits' ? 'fits' : 'closed'
      return { from: Number(match[1]), outcome, ...(match[3] ? { name: match[3].trim() } : {}) }
    })
  if (new Set(bands.map((band) => band.from)).size < bands.length)
    throw new Error('Two bands begin at the same number of points.')
  return bands.sort((a, b) => a.from - b.from)
}

const BAND_WORDS = { fits: 'fits', look: 'look first', closed: 'not a match' } as const

export const bandLines = (bands: readonly Band[]): string =>
  bands.map(({ from, outcome, name }) => `${from} ${BAND_WORDS[outcome]}${name ? ` ${name}` : ''}`).join('\n')
