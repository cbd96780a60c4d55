import type { QuestionnaireItem } from 'fhir/r4'
import type { Wrong } from '../../words/index.ts'
import type { AnswerValue } from '../base.ts'
import { holdsHtml } from '../text.ts'
import { type Element, type Kind, type Looked, texts, type Way } from './kind.ts'

/** What kinds whose answer is one written text have in common. */
export function written({
  name,
  example,
  problem,
  item,
  typed = 'text',
  compares = ['answered', '='],
  element = (value) => ({ as: 'String', value }),
  ways = (looked, taken) => texts(looked, example, taken),
}: {
  name: string
  /** Answers that are right, each different. */
  example: (n: number) => string
  /** What is wrong with a text. */
  problem: (text: string) => Wrong | undefined
  /** The type of its item; `named` where its kind must be kept. */
  item: { type: QuestionnaireItem['type']; named?: boolean; reads?: QuestionnaireItem['type'][] }
  typed?: Kind['typed']
  compares?: Kind['compares']
  element?: (text: string) => Element
  /** The ways of writing it, where more than single texts is told apart. */
  ways?: (looked: Looked, taken: (text: string) => boolean) => Way<string>[]
}): Kind<object> {
  const { type, named = false, reads = named ? [] : [type] } = item
  return {
    name,
    asks: true,
    shape: {},
    settings: [],
    begin: () => ({}),
    problem: (_, value) => (typeof value === 'string' ? problem(value) : { code: 'no-words' }),
    words: (_, value: AnswerValue) => String(value),
    ways: (_, looked: Looked) => ways(looked, (text) => problem(text) === undefined),
    compares,
    first: () => '',
    typed,
    fhir: {
      write: () => ({ item: { type }, named }),
      as: [type],
      reads: (item) => reads.includes(item.type),
      read: (item, { say }) => {
        if (item.type === 'dateTime') say('the time of day is not asked.')
        return {}
      },
      element: (_, value) => element(String(value)),
    },
  }
}

/** A text of at most so many characters, without HTML. */
export const plainText =
  (most: number, tooLong: Wrong = { code: 'too-long', data: { most } }) =>
  (text: string): Wrong | undefined =>
    text.length > most ? tooLong : holdsHtml(text) ? { code: 'no-html' } : undefined
