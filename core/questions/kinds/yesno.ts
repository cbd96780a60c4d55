import type { Kind } from './kind.ts'

/** Yes or no. */
export const yesnoKind: Kind = {
  name: 'Yes or no',
  asks: true,
  shape: {},
  settings: [],
  begin: () => ({}),
  problem: (_, value) => (typeof value === 'boolean' ? undefined : { code: 'yes-or-no' }),
  words: (_, value) => (value ? 'Yes' : 'No'),
  ways: () => [
    [true, 1],
    [false, 1],
  ],
  compares: ['=', 'answered'],
  first: () => true,
  typed: 'yesno',
  fhir: {
    write: () => ({ item: { type: 'boolean' } }),
    as: ['boolean'],
    reads: ({ type }) => type === 'boolean',
    read: () => ({}),
    element: (_, value) => ({ as: 'Boolean', value: value === true }),
  },
}
