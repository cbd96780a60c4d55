import { asksSomething } from './answers.ts'
import { holds, newcomer, quantityIn } from './conditions.ts'
import type { Atom, Truth } from './formula.ts'
import { pointsFor } from './scoring.ts'
import type { AnswerValue, Quantities, Question } from './types.ts'

/** What an effect multiplies by: an answer, or how many of one item in it. */
export interface Multiplier {
  times: string
  of?: string
}

/** Names a multiplier among the quantities of a state. */
export const multiplierName = ({ times, of }: Multiplier): string =>
  of === undefined ? times : `${times}/${of}`

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
  /** How many, where an effect multiplies by it: by the question's name, or that of one of its items. */
  quantities: Quantities
  /** What it is worth, where that is counted. */
  points: number
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
 * @param counts by what of its answer effects multiply
 * @param scored whether points matter to what follows
 * @throws TooMany
 */
export function optionsOf(
  question: Question,
  atoms: ReadonlyMap<number, Atom>,
  counts: readonly Multiplier[],
  scored: boolean,
): Option[] {
  const merged = new Map<string, Option>()
  const add = (value: AnswerValue | undefined, weight = 1): void => {
    const option = optionFor(question, atoms, counts, scored, value)
    const key = `${option.name} ${countsOf(option)}`
    const before = merged.get(key)
    // An answer given stands before one left open: it is the better example.
    if (before) merged.set(key, { ...before, weight: before.weight + weight, value: before.value ?? value })
    else merged.set(key, { ...option, weight })
  }
  for (const [value, weight] of answersOf(question, [...atoms.values()], counts, scored)) add(value, weight)
  if (!question.required || !asksSomething(question)) add(undefined)
  if (merged.size > MOST_OPTIONS) throw new TooMany(question.id)
  return [...merged.values()]
}

/** What one answer comes to, as far as anything can tell. */
export function optionFor(
  question: Question,
  atoms: ReadonlyMap<number, Atom>,
  counts: readonly Multiplier[],
  scored: boolean,
  value: AnswerValue | undefined,
): Option {
  const truth = new Map(
    [...atoms].map(([number, { condition }]) => [
      number,
      'question' in condition &&
        holds(condition, value === undefined ? {} : { [question.id]: value }, newcomer),
    ]),
  )
  const quantities: Quantities = {}
  for (const one of counts) {
    const many = quantityIn(value, one.of)
    if (many > 0) quantities[multiplierName(one)] = many
  }
  const name = `${question.id}:${[...truth.values()].map(Number).join('')}`
  return { value, weight: 1, truth, name, quantities, points: scored ? pointsFor(question, value) : 0 }
}

/** Names what an option counts and is worth, to tell options apart. */
export const countsOf = ({ quantities, points }: Option): string => `${JSON.stringify(quantities)} ${points}`

/** Answers of a question: all of them where they can be counted, else one of each kind that matters. */
function answersOf(
  question: Question,
  atoms: readonly Atom[],
  counts: readonly Multiplier[],
  scored: boolean,
): [AnswerValue, number][] {
  switch (question.kind) {
    case 'one':
      return question.choices.map((choice) => [choice.id, 1])
    case 'several':
      return subsets(
        question.choices.map((choice) => choice.id),
        [...compared(atoms), ...question.choices.filter((one) => scored && one.points).map((one) => one.id)],
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
    case 'items':
      return itemSets(question, compared(atoms), counts)
    case 'file':
      return [[{ file: 'file', name: 'a file', type: question.accepts[0] ?? 'picture', size: 1 }, 1]]
    case 'section':
    case 'passage':
      return []
    case 'date':
      return words(compared(atoms), '2026-06-15')
    case 'long':
      return words(compared(atoms), 'some words '.repeat(Math.max(1, (question.leastWords ?? 0) / 2)).trim())
    case 'short':
      return words(compared(atoms), 'some words')
    default:
      return words(compared(atoms), EXAMPLE[question.kind])
  }
}

/** An answer of each kind that is written in a form of its own. */
const EXAMPLE = {
  time: '12:00',
  email: 'name@example.org',
  phone: '+351 239 555 0100',
  url: 'https://example.org/page',
  address: 'Rua das Flores 1\n3000-123\nCoimbra',
} as const

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

/**
 * Sets of items: those told apart by themselves one by one, all others together by how many they are; each set with
 * the number of ways to come to it.
 */
function itemSets(
  question: Extract<Question, { kind: 'items' }>,
  looked: readonly unknown[],
  counts: readonly Multiplier[],
): [Quantities, number][] {
  const apart = new Set([...looked.map(String), ...counts.flatMap((one) => one.of ?? [])])
  const own = question.items.filter((item) => apart.has(item.id))
  const rest = question.items.filter((item) => !apart.has(item.id))
  const together = sumsOf(rest.map((item) => item.most))
  let sets: [Quantities, number][] =
    rest.length === 0 ? [[{}, 1]] : together.map((ways, many) => [spread(rest, many), ways])
  for (const item of own) {
    if (sets.length * (item.most + 1) > MOST_OPTIONS) throw new TooMany(question.id)
    sets = sets.flatMap(([set, ways]) =>
      range(0, item.most).map((many): [Quantities, number] => [
        many > 0 ? { ...set, [item.id]: many } : set,
        ways,
      ]),
    )
  }
  const least = Math.max(1, question.least ?? 0)
  const most = question.most ?? Number.POSITIVE_INFINITY
  return sets.filter(([set]) => quantityIn(set) >= least && quantityIn(set) <= most)
}

/** In how many ways numbers up to these bounds add up to each sum. */
function sumsOf(bounds: readonly number[]): number[] {
  let ways = [1]
  for (const bound of bounds) {
    const next = new Array<number>(ways.length + bound).fill(0)
    ways.forEach((count, sum) => {
      for (let more = 0; more <= bound; more++) next[sum + more]! += count
    })
    ways = next
  }
  return ways
}

/** So many items, the first ones first. */
function spread(items: readonly { id: string; most: number }[], many: number): Quantities {
  let left = many
  const set: Quantities = {}
  for (const { id, most } of items) {
    const taken = Math.min(left, most)
    if (taken > 0) set[id] = taken
    left -= taken
  }
  return set
}
