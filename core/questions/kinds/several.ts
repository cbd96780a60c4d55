import { count, maybe } from '../../shape/shape.ts'
import type { Choice } from '../base.ts'
import { begun, choiceName, choices, codingOf, codingsOf, readChoices } from './choices.ts'
import { bound, FHIR, type Kind, limitsOf, numberIn, TooMany } from './kind.ts'

export interface Several {
  choices: Choice[]
  least?: number
  most?: number
}

/** Several to choose from. */
export const severalKind: Kind<Several> = {
  name: 'Several to choose from',
  asks: true,
  shape: { choices, least: maybe(count), most: maybe(count) },
  settings: [
    { key: 'choices', label: 'Choices, a line each', is: 'choices' },
    { key: 'least', label: 'Choose at least', is: 'whole' },
    { key: 'most', label: 'Choose at most', is: 'whole' },
  ],
  begin: (listed) => ({ choices: begun(listed) }),
  problem: (question, value) => {
    const known = Array.isArray(value) && value.every((id) => question.choices.some((c) => c.id === id))
    if (!known || new Set(value).size !== value.length) return { code: 'among-these' }
    if (question.least && value.length < question.least)
      return { code: 'choose-more', data: { least: question.least } }
    if (question.most && value.length > question.most)
      return { code: 'choose-fewer', data: { most: question.most } }
    return undefined
  },
  limits: ({ least, most }) =>
    least !== undefined && least === most
      ? [{ code: 'limit.choose-exactly', data: { most } }]
      : limitsOf(
          { least: 'limit.choose-least', most: 'limit.choose-most', between: 'limit.choose-between' },
          least,
          most,
        ),
  words: (question, value) =>
    (Array.isArray(value) ? value : [value]).map((id) => choiceName(question.choices, id)).join(', '),
  ways: (question, { compared, scored }) =>
    subsets(
      question.choices.map((choice) => choice.id),
      [
        ...compared,
        ...question.choices.filter((choice) => scored && choice.points).map((choice) => choice.id),
      ],
      question.least ?? (question.required ? 1 : 0),
      question.most ?? question.choices.length,
    ),
  impossible: ({ least = 0, most, choices: list }) => {
    if (most !== undefined && least > most)
      return `No answer is possible: at least ${least} and at most ${most} are to be chosen.`
    return least > list.length
      ? `No answer is possible: there ${list.length === 1 ? 'is only one choice' : `are only ${list.length} choices`}.`
      : undefined
  },
  compares: ['includes', 'answered'],
  first: (question) => question.choices[0]?.id ?? '',
  typed: 'text',
  listed: (question) => question.choices,
  fhir: {
    write: ({ choices: list, least, most }) => ({
      item: { type: 'choice', answerOption: codingsOf(list), repeats: true },
      extension: [...bound(FHIR.minOccurs, least), ...bound(FHIR.maxOccurs, most)],
    }),
    as: ['choice'],
    reads: ({ type, repeats }) => (type === 'choice' || type === 'open-choice') && repeats === true,
    read: ({ type, extension }, { choices: found, say }) => {
      const read = readChoices(type, found(), say)
      const least = numberIn(extension, FHIR.minOccurs)
      const most = numberIn(extension, FHIR.maxOccurs)
      return read && { choices: read, ...(least ? { least } : {}), ...(most ? { most } : {}) }
    },
    element: (question, value) => codingOf(question.choices, value),
    answered: (item) =>
      (item.answer ?? []).flatMap((answer) => answer.valueCoding?.code ?? answer.valueString ?? []),
  },
}

/** The sets of choices, with those that no condition looks at counted together. */
function subsets(
  list: readonly string[],
  looked: readonly unknown[],
  least: number,
  most: number,
): [string[], number][] {
  const seen = list.filter((id) => looked.includes(id))
  const rest = list.filter((id) => !looked.includes(id))
  if (seen.length > 12) throw new TooMany('choices')
  const found: [string[], number][] = []
  for (let mask = 0; mask < 1 << seen.length; mask++) {
    const chosen = seen.filter((_, i) => mask & (1 << i))
    for (let more = 0; more <= rest.length; more++) {
      const size = chosen.length + more
      // Nothing chosen is no answer.
      if (size === 0 || size < least || size > most) continue
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
