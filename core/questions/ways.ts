import { sum } from '../money/index.ts'
import type { Service } from '../practice/types.ts'
import { asksSomething } from './answers.ts'
import { type Asking, conditionsOf } from './conditions.ts'
import { effectKind } from './effects.ts'
import { type Formula, Formulas, type Truth } from './formula.ts'
import type { Amount } from './limit.ts'
import { type AnswerOption, type Multiplier, multiplierName, optionFor, optionsOf } from './options.ts'
import { worseOf } from './outcome.ts'
import { priceOf } from './reading.ts'
import type { AnswerValue, Effect, Outcome, Question, Questionnaire, Rule } from './types.ts'

/** A questionnaire made ready to be walked: every condition a formula, every question with its ways of answering. */
export interface Ready {
  formulas: Formulas
  questions: {
    question: Question
    when: Formula
    options: AnswerOption[]
    unasked: AnswerOption
    /** What an answer of one's own comes to. */
    optionFor: (value: AnswerValue | undefined) => AnswerOption
  }[]
  rules: { rule: Rule; when: Formula }[]
  questionnaire: Questionnaire
  service: Service
}

/** By what an effect multiplies; nothing when it acts once. */
const multiplierOf = (effect: Effect): Multiplier | undefined =>
  'times' in effect && effect.times
    ? { times: effect.times, ...(effect.of === undefined ? {} : { of: effect.of }) }
    : undefined

/** @throws TooMany when a question has more ways of answering than can be told apart */
export function ready(questionnaire: Questionnaire, service: Service): Ready {
  const formulas = new Formulas()
  const whens = conditionsOf(questionnaire.questions).map((when) => formulas.of(when))
  const rules = questionnaire.rules.map((rule) => ({ rule, when: formulas.of(rule.when) }))
  const counted = questionnaire.rules.flatMap(({ effect }) => multiplierOf(effect) ?? [])
  const scored = questionnaire.bands.length > 0
  const questions = questionnaire.questions.map((question, i) => {
    const own = new Map([...formulas.atoms.entries()].filter(([, atom]) => atom.question === question.id))
    const nothing: Truth = new Map([...own.keys()].map((atom) => [atom, false]))
    const unasked = {
      value: undefined,
      weight: 1,
      truth: nothing,
      name: `${question.id}:no`,
      quantities: {},
      points: 0,
    }
    const counts = counted.filter((multiplier) => multiplier.times === question.id)
    return {
      question,
      when: whens[i]!,
      options: optionsOf(question, own, counts, scored),
      unasked,
      optionFor: (value: AnswerValue | undefined) => optionFor(question, own, counts, scored, value),
    }
  })
  return { formulas, questions, rules, questionnaire, service }
}

/** How an end was come by: the last answer, and the step before it. Shared between ends. */
export interface Trail {
  question: string
  value: AnswerValue | undefined
  asked: boolean
  before: Trail | undefined
}

/** Everything that still matters at some question: ways that agree in it go on as one. */
export interface WayState {
  /** What is left of the conditions of the questions to come, and of the rules that are still open. */
  whens: Formula[]
  rules: { at: number; when: Formula }[]
  /** Numbers answered so far by which open rules may multiply. */
  quantities: Record<string, Amount>
  outcome: Outcome
  enquiry: boolean
  points: number
  minutes: Amount
  /** Sum of the items, in minor units: the least and the greatest of the ways gone so far. */
  least: number
  most: number
  ways: number
  /** Questions asked on the shortest and the longest way here. */
  shortest: number
  longest: number
  /** The fewest answers that differ from those given, where some were. */
  cost: number
  /** For each question on how many of the ways it was asked; absent where that is not wanted. */
  met?: number[]
  trail: Trail | undefined
}

/** What is seen on the way, and whether to go on. */
export interface Watch {
  asked?: (index: number, option: AnswerOption) => void
  fired?: (rule: number) => void
  /** What one way of answering costs; ways of least cost are kept. */
  cost?: (question: Question, option: AnswerOption) => number
  /** Told after each question how many states there are. @returns false to stop */
  level?: (index: number, states: number) => boolean
}

/**
 * The state before the first question, for somebody.
 * @param counted whether it is to be told how often each question is asked
 */
export function beginning(r: Ready, person: Asking, counted = false): WayState {
  const truth = aboutPerson(r.formulas, person)
  const settle = (formula: Formula): Formula => r.formulas.settle(formula, truth, personName(person))
  return {
    whens: r.questions.map(({ when }) => settle(when)),
    rules: r.rules.map(({ when }, at) => ({ at, when: settle(when) })),
    quantities: {},
    outcome: 'fits',
    enquiry: false,
    points: 0,
    minutes: r.service.minutes,
    least: 0,
    most: 0,
    ways: 1,
    shortest: 0,
    longest: 0,
    cost: 0,
    ...(counted ? { met: r.questions.map(() => 0) } : {}),
    trail: undefined,
  }
}

const personName = (person: Asking): string =>
  `person ${person.standing} ${person.invited} ${person.attempts} ${[...person.tags].sort().join('+')}`

const aboutPerson = (formulas: Formulas, person: Asking): Truth =>
  new Map(
    formulas.atoms.flatMap(({ condition }, number): [number, boolean][] => {
      if ('person' in condition) {
        const held = condition.person === 'invited' ? person.invited : person.standing === condition.person
        return [[number, held]]
      }
      if ('tag' in condition) return [[number, person.tags.includes(condition.tag)]]
      if ('attempts' in condition) return [[number, person.attempts >= condition.attempts]]
      return []
    }),
  )

/**
 * Walks all ways through the questions at once: states that agree in all that still matters are merged, so that
 * ways beyond counting need few states.
 * @returns the ends, or nothing when it was stopped
 */
export function walk(r: Ready, from: readonly WayState[], watch: Watch = {}): WayState[] | undefined {
  let states = merge(
    r,
    from.map((state) => fire(r, state, watch)),
  )
  for (const [index, { question, options, unasked }] of r.questions.entries()) {
    const next: WayState[] = []
    for (const state of states) {
      const asked = state.whens[0] === Formulas.TRUE
      for (const option of asked ? options : [unasked]) {
        if (asked) watch.asked?.(index, option)
        const answered = answer(r, state, question, option, asked)
        if (state.met) answered.met = metAfter(state.met, index, asked ? state.ways : 0, option.weight)
        answered.cost += asked ? (watch.cost?.(question, option) ?? 0) : 0
        next.push(fire(r, answered, watch))
      }
    }
    states = merge(r, next)
    if (watch.level && !watch.level(index, states.length)) return undefined
  }
  return states
}

const metAfter = (met: readonly number[], index: number, ways: number, weight: number): number[] =>
  met.map((count, i) => (i === index ? ways : count) * weight)

function answer(
  r: Ready,
  state: WayState,
  question: Question,
  option: AnswerOption,
  asked: boolean,
): WayState {
  const settle = (formula: Formula): Formula => r.formulas.settle(formula, option.truth, option.name)
  const counts = asked && asksSomething(question)
  return {
    ...state,
    whens: state.whens.slice(1).map(settle),
    rules: state.rules.map(({ at, when }) => ({ at, when: settle(when) })),
    quantities: { ...state.quantities, ...option.quantities },
    points: asked ? sum(state.points, option.points) : state.points,
    ways: state.ways * option.weight,
    shortest: state.shortest + (counts ? 1 : 0),
    longest: state.longest + (counts ? 1 : 0),
    trail: { question: question.id, value: option.value, asked, before: state.trail },
  }
}

/** Lets every rule act that has been decided; what multiplies by a question waits until that has been answered. */
function fire(r: Ready, state: WayState, watch: Watch): WayState {
  const answered = r.questions.length - state.whens.length
  const open: WayState['rules'] = []
  let next = state
  for (const rule of state.rules) {
    if (rule.when === Formulas.FALSE) continue
    const { effect } = r.rules[rule.at]!.rule
    const by = multiplierOf(effect)
    const at = by === undefined ? -1 : r.questions.findIndex(({ question }) => question.id === by.times)
    if (rule.when !== Formulas.TRUE || at >= answered) {
      open.push(rule)
      continue
    }
    watch.fired?.(rule.at)
    next = act(next, effect, by === undefined ? 1 : (next.quantities[multiplierName(by)] ?? 0))
  }
  return { ...next, rules: open, quantities: stillCounted(r, next.quantities, open) }
}

/** Numbers that no open rule multiplies by any more need not be told apart. */
function stillCounted(
  r: Ready,
  all: WayState['quantities'],
  open: WayState['rules'],
): WayState['quantities'] {
  const needed = new Set(
    open.flatMap(({ at }) => {
      const by = multiplierOf(r.rules[at]!.rule.effect)
      return by ? [multiplierName(by)] : []
    }),
  )
  return Object.fromEntries(Object.entries(all).filter(([id]) => needed.has(id)))
}

function act(state: WayState, effect: Effect, times: Amount): WayState {
  return { ...state, ...effectKind(effect).tally?.(effect, state, times) }
}

/** Where a price above some value changes the outcome, amounts must be told apart. */
const pricesMatter = ({ questionnaire }: Ready): boolean =>
  questionnaire.lookAbove !== undefined || questionnaire.enquiryAbove !== undefined

function merge(r: Ready, states: readonly WayState[]): WayState[] {
  const exact = pricesMatter(r)
  const points = r.questionnaire.bands.length > 0
  const merged = new Map<string, WayState>()
  for (const state of states) {
    const rules = state.rules.map(({ at, when }) => `${at}.${when}`).join()
    const amount = exact ? state.least : ''
    const key = `${state.whens.join()};${rules};${JSON.stringify(state.quantities)};${state.outcome}${state.enquiry};${points ? state.points : ''};${JSON.stringify(state.minutes)};${amount}`
    const before = merged.get(key)
    if (!before) {
      merged.set(key, { ...state })
      continue
    }
    before.ways += state.ways
    if (before.met && state.met) before.met = before.met.map((count, i) => count + (state.met?.[i] ?? 0))
    before.least = Math.min(before.least, state.least)
    before.most = Math.max(before.most, state.most)
    before.shortest = Math.min(before.shortest, state.shortest)
    before.longest = Math.max(before.longest, state.longest)
    if (state.cost < before.cost) {
      before.cost = state.cost
      before.trail = state.trail
    }
  }
  return [...merged.values()]
}

/** What an end comes to. */
export interface End {
  outcome: Outcome
  enquiry: boolean
  minutes: number
  /** Least and greatest price, in minor units. */
  least: number
  most: number
}

/** The outcome, length and price of an end: bands, rounding and the values above which one looks included. */
export function endOfWay(r: Ready, state: WayState): End {
  const { questionnaire } = r
  const bands = questionnaire.bands.filter((band) => state.points >= band.from).map((band) => band.outcome)
  const { minutes, price: least } = priceOf(r.service, state.minutes, state.least)
  const { price: most } = priceOf(r.service, state.minutes, state.most)
  const looks = questionnaire.lookAbove !== undefined && most > questionnaire.lookAbove
  const outcome = [...bands, ...(looks ? (['look'] as const) : [])].reduce(worseOf, state.outcome)
  const dear = questionnaire.enquiryAbove !== undefined && most > questionnaire.enquiryAbove
  const enquiry = state.enquiry || dear
  return { outcome, enquiry, minutes, least, most }
}

/** The answers of a trail, of the questions that were asked. */
export function answersOn(trail: Trail | undefined): Record<string, AnswerValue> {
  const answers: Record<string, AnswerValue> = {}
  for (let at = trail; at; at = at.before) {
    if (at.asked && at.value !== undefined) answers[at.question] = at.value
  }
  return answers
}
