import { holds, newcomer } from './conditions.ts'
import type { Atom, Truth } from './formula.ts'
import type { AnswerValue, Question } from './types.ts'

/** One way of answering a question, as far as any condition or effect can tell it from another. */
export interface Option {
  /** An answer of this way; nothing when it is left open. */
  value: AnswerValue | undefined
  /** How many answers it stands for; texts count as one. */
  weight: number
  /** What the atoms about this question come to. */
  truth: Truth
  /** Names the truth, for remembering what follows from it. */
  name: string
  /** The number answered, where an effect multiplies by it. */
  quantity: number
}

/** More ways of answering one question than are looked at one by one. */
export const MOST_OPTIONS = 4_096
/** Whole numbers are looked at one by one in a range of at most so many. */
const MOST_NUMBERS = 200

/** A question with more ways of answering than can be told apart. */
export class TooMany extends Error {}

/**
 * The ways of answering a question, those merged that no atom and no effect tells apart.
 * @param atoms about this question, by their number
 * @param counts whether an effect multiplies by its answer
 * @throws TooMany
 */
export function optionsOf(question: Question, atoms: ReadonlyMap<number, Atom>, counts: boolean): Option[] {
  const merged = new Map<string, Option>()
  const add = (value: AnswerValue | undefined, weight = 1): void => {
    const option = optionFor(question, atoms, counts, value)
    const key = `${option.name} ${option.quantity}`
    const before = merged.get(key)
    // An answer given stands before one left open: it is the better example.
    if (before) merged.set(key, { ...before, weight: before.weight + weight, value: before.value ?? value })
    else merged.set(key, { ...option, weight })
  }
  for (const [value, weight] of answersOf(question, [...atoms.values()])) add(value, weight)
  if (!question.required) add(undefined)
  if (merged.size > MOST_OPTIONS) throw new TooMany(question.id)
  return [...merged.values()]
}

/** What one answer comes to, as far as anything can tell. */
export function optionFor(
  question: Question,
  atoms: ReadonlyMap<number, Atom>,
  counts: boolean,
  value: AnswerValue | undefined,
): Option {
  const truth = new Map(
    [...atoms].map(([number, { condition }]) => [
      number,
      'question' in condition &&
        holds(condition, value === undefined ? {} : { [question.id]: value }, newcomer),
    ]),
  )
  const quantity = counts && typeof value === 'number' ? Math.max(0, value) : 0
  const name = `${question.id}:${[...truth.values()].map(Number).join('')}`
  return { value, weight: 1, truth, name, quantity }
}

/** Answers of a question: all of them where they can be counted, else one of each kind that matters. */
function answersOf(question: Question, atoms: readonly Atom[]): [AnswerValue, number][] {
  switch (question.kind) {
    case 'one':
      return question.choices.map((choice) => [choice.id, 1])
    case 'several':
      return subsets(
        question.choices.map((choice) => choice.id),
        compared(atoms),
        question.least ?? (question.required ? 1 : 0),
        question.most ?? question.choices.length,
      )
    case 'yesno':
      return [
        [true, 1],
        [false, 1],
      ]
    case 'scale':
      return range(question.least, question.most).map((value) => [value, 1])
    case 'number':
      return numbers(question, compared(atoms))
    case 'date':
      return words(compared(atoms), '2026-06-15')
    default:
      return words(compared(atoms), 'some words')
  }
}

const compared = (atoms: readonly Atom[]): (string | number | boolean)[] =>
  atoms.flatMap(({ condition }) => ('value' in condition ? [condition.value] : []))

const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i)

/** The sets of choices, with those that no condition looks at counted together. */
function subsets(
  choices: readonly string[],
  looked: readonly unknown[],
  least: number,
  most: number,
): [string[], number][] {
  const seen = choices.filter((id) => looked.includes(id))
  const rest = choices.filter((id) => !looked.includes(id))
  if (seen.length > 12) throw new TooMany('choices')
  const found: [string[], number][] = []
  for (let mask = 0; mask < 1 << seen.length; mask++) {
    const chosen = seen.filter((_, i) => mask & (1 << i))
    for (let more = 0; more <= rest.length; more++) {
      const count = chosen.length + more
      // Nothing chosen is no answer.
      if (count === 0 || count < least || count > most) continue
      found.push([[...chosen, ...rest.slice(0, more)], choose(rest.length, more)])
    }
  }
  return found
}

function choose(n: number, k: number): number {
  let result = 1
  for (let i = 1; i <= k; i++) result = (result * (n - k + i)) / i
  return Math.round(result)
}

/** Numbers: each whole one in a small range, else the bounds, what is compared, and a little beside it. */
function numbers(
  question: Extract<Question, { kind: 'number' }>,
  looked: readonly unknown[],
): [number, number][] {
  const { least, most, whole } = question
  if (whole && least !== undefined && most !== undefined && most - least <= MOST_NUMBERS) {
    return range(Math.ceil(least), Math.floor(most)).map((value) => [value, 1])
  }
  const beside = whole ? 1 : 0.5
  const cuts = looked.filter((one): one is number => typeof one === 'number')
  const tried = new Set([
    ...cuts.flatMap((cut) => [cut - beside, cut, cut + beside]),
    least ?? Math.min(0, ...cuts) - 1,
    most ?? Math.max(0, ...cuts) + 1,
  ])
  return [...tried]
    .filter((one) => (least === undefined || one >= least) && (most === undefined || one <= most))
    .filter((one) => !whole || Number.isInteger(one))
    .sort((a, b) => a - b)
    .map((value) => [value, 1])
}

/** Texts: each that is compared, with what comes before and after it, and some other. */
function words(looked: readonly unknown[], other: string): [string, number][] {
  const cuts = looked.map(String)
  return [...new Set([...cuts.flatMap((cut) => [cut, `${cut}~`, cut.slice(0, -1)]), other])]
    .filter((text) => text.trim() !== '')
    .map((text) => [text, 1])
}
