import { asksSomething } from './answers.ts'
import { holds, newcomer } from './conditions.ts'
import type { Atom, Truth } from './formula.ts'
import { kindOf } from './kinds/index.ts'
import { type Compared, MOST_OPTIONS, type Multiplier, TooMany } from './kinds/kind.ts'
import { type Amount, nearTo } from './limit.ts'
import { pointsFor } from './scoring.ts'
import type { AnswerValue, Question } from './types.ts'
import { quantityIn } from './values.ts'

export { type Multiplier, TooMany } from './kinds/kind.ts'

/** Names a multiplier among the quantities of a state. */
export const multiplierName = ({ times, of }: Multiplier): string =>
  of === undefined ? times : `${times}/${of}`

/** One way of answering a question, as far as any condition or effect can tell it from another. */
export interface AnswerOption {
  /** An answer of this way; nothing when it is left open. */
  value: AnswerValue | undefined
  /** How many answers it stands for; texts count as one. */
  weight: number
  /** What the atoms about this question come to. */
  truth: Truth
  /** Names the truth, for remembering what follows from it. */
  name: string
  /** How many, where an effect multiplies by it: by the question's name, or that of one of its items. */
  quantities: Record<string, Amount>
  /** What it is worth, where that is counted. */
  points: number
}

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
): AnswerOption[] {
  const merged = new Map<string, AnswerOption>()
  const add = (value: AnswerValue | undefined, weight = 1, many?: Amount): void => {
    const option = optionFor(question, atoms, counts, scored, value, many)
    const key = `${option.name} ${countsOf(option)}`
    const before = merged.get(key)
    // An answer given stands before one left open: it is the better example.
    if (before) merged.set(key, { ...before, weight: before.weight + weight, value: before.value ?? value })
    else merged.set(key, { ...option, weight })
  }
  const looked = { compared: compared(atoms), counts, scored }
  for (const way of kindOf(question).ways(question, looked)) add(...way)
  if (!question.required || !asksSomething(question)) add(undefined)
  if (merged.size > MOST_OPTIONS) throw new TooMany(question.id)
  return [...merged.values()]
}

/** What one answer comes to, as far as anything can tell. @param many how many it is, where it stands for a stretch */
export function optionFor(
  question: Question,
  atoms: ReadonlyMap<number, Atom>,
  counts: readonly Multiplier[],
  scored: boolean,
  value: AnswerValue | undefined,
  many?: Amount,
): AnswerOption {
  const truth = new Map(
    [...atoms].map(([number, { condition }]) => [
      number,
      'question' in condition &&
        holds(condition, value === undefined ? {} : { [question.id]: value }, newcomer),
    ]),
  )
  const quantities: AnswerOption['quantities'] = {}
  for (const count of counts) {
    const times = many ?? quantityIn(value, count.of)
    // Just above nothing is something.
    if (typeof times !== 'number' || nearTo(times) > 0) quantities[multiplierName(count)] = times
  }
  const name = `${question.id}:${[...truth.values()].map(Number).join('')}`
  return { value, weight: 1, truth, name, quantities, points: scored ? pointsFor(question, value) : 0 }
}

/** Names what an option counts and is worth, to tell options apart. */
export const countsOf = ({ quantities, points }: AnswerOption): string =>
  `${JSON.stringify(quantities)} ${points}`

const compared = (atoms: ReadonlyMap<number, Atom>): Compared[] =>
  [...atoms.values()].flatMap(({ condition }) => ('value' in condition ? [condition.value] : []))
