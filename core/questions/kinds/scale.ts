import { text, whole } from '../../shape/shape.ts'
import { bound, FHIR, type Kind } from './kind.ts'
import { impossibleBounds, numbers, problemWithNumber } from './number.ts'

export interface Scale {
  least: number
  most: number
  leastName: string
  mostName: string
}

const END = 'A scale has two ends.'

/** A scale from one end to the other. */
export const scaleKind: Kind<Scale> = {
  name: 'A scale',
  asks: true,
  shape: {
    least: whole(-1_000_000, 1_000_000),
    most: whole(-1_000_000, 1_000_000),
    leastName: text(60),
    mostName: text(60),
  },
  settings: [
    { key: 'least', label: 'At least', is: 'number', must: END },
    { key: 'most', label: 'At most', is: 'number', must: END },
    { key: 'leastName', label: 'The low end means', is: 'text' },
    { key: 'mostName', label: 'The high end means', is: 'text' },
  ],
  begin: () => ({ least: 1, most: 7, leastName: 'not at all', mostName: 'very much' }),
  problem: (question, value) => problemWithNumber(question, true, value),
  words: ({ most }, value) => `${value} of ${most}`,
  ways: (question, looked) => numbers({ ...question, whole: true }, looked),
  impossible: impossibleBounds,
  compares: ['=', '≠', '<', '≤', '>', '≥', 'answered'],
  first: ({ least }) => least,
  typed: 'number',
  multiplies: true,
  fhir: {
    write: ({ least, most }) => ({
      item: { type: 'integer' },
      extension: [...bound(FHIR.minValue, least), ...bound(FHIR.maxValue, most)],
      kept: ['leastName', 'mostName'],
      named: true,
    }),
    as: ['integer'],
    reads: () => false,
    read: (_, { least, most }) =>
      least === undefined || most === undefined ? undefined : { least, most, leastName: '', mostName: '' },
    element: (_, value) => ({ as: 'Integer', value: Number(value) }),
  },
}
