import type { Choice } from '../base.ts'
import { begun, choiceName, choices, codingOf, codingsOf, readChoices } from './choices.ts'
import type { Kind } from './kind.ts'

export interface One {
  choices: Choice[]
}

/** One of several. */
export const oneKind: Kind<One> = {
  name: 'One to choose',
  asks: true,
  shape: { choices },
  settings: [{ key: 'choices', label: 'Choices, a line each', is: 'choices' }],
  begin: (listed) => ({ choices: begun(listed) }),
  problem: (question, value) =>
    question.choices.some((choice) => choice.id === value) ? undefined : { code: 'one-of-these' },
  words: (question, value) => choiceName(question.choices, value),
  ways: (question) => question.choices.map((choice) => [choice.id, 1]),
  impossible: (question) =>
    question.choices.length === 0 ? 'No answer is possible: there are no choices.' : undefined,
  compares: ['=', '≠', 'answered'],
  first: (question) => question.choices[0]?.id ?? '',
  typed: 'text',
  listed: (question) => question.choices,
  fhir: {
    write: (question) => ({ item: { type: 'choice', answerOption: codingsOf(question.choices) } }),
    as: ['choice'],
    reads: ({ type, repeats }) => (type === 'choice' || type === 'open-choice') && !repeats,
    read: ({ type }, { choices: found, say }) => {
      const read = readChoices(type, found(), say)
      return read && { choices: read }
    },
    element: (question, value) => codingOf(question.choices, value),
  },
}
