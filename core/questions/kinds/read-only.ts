import type { QuestionnaireItem } from 'fhir/r4'
import type { Kind } from './kind.ts'

/** What is read and not answered. */
const readOnly = (name: string, type: QuestionnaireItem['type'], named: boolean): Kind => ({
  name,
  asks: false,
  shape: {},
  settings: [],
  begin: () => ({}),
  problem: () => undefined,
  words: (_, value) => String(value),
  ways: () => [],
  compares: ['answered'],
  first: () => '',
  typed: 'text',
  fhir: {
    write: () => ({ item: { type }, named }),
    as: ['display', type],
    reads: (item) => !named && item.type === type,
    read: () => ({}),
  },
})

/** Something to read. */
export const passageKind = readOnly('Something to read', 'display', false)

/** Begins a part that is shown by itself; its condition is that of everything in it. */
export const sectionKind = readOnly('A new part', 'group', true)
