import { count, maybe } from '../../shape/shape.ts'
import { sentencesIn, wordsIn } from '../text.ts'
import { type Kind, texts } from './kind.ts'
import { plainText } from './written.ts'

export interface Long {
  leastWords?: number
  mostWords?: number
  leastSentences?: number
  mostSentences?: number
}

const LONGEST = 20_000
const some = maybe(count)
const tooLong = plainText(LONGEST, 'Please keep it under 20,000 characters.')

/** Something told in one's own words. */
export const longKind: Kind<Long> = {
  name: 'In their own words',
  asks: true,
  shape: { leastWords: some, mostWords: some, leastSentences: some, mostSentences: some },
  settings: [
    { key: 'leastWords', label: 'Words at least', is: 'whole' },
    { key: 'mostWords', label: 'Words at most', is: 'whole' },
    { key: 'leastSentences', label: 'Sentences at least', is: 'whole' },
    { key: 'mostSentences', label: 'Sentences at most', is: 'whole' },
  ],
  begin: () => ({}),
  problem: (question, value) => {
    if (typeof value !== 'string') return 'Please answer in words.'
    const plain = tooLong(value)
    if (plain) return plain
    const words = wordsIn(value)
    if (question.leastWords && words < question.leastWords)
      return `A little more, please: at least ${question.leastWords} words (${words} so far).`
    if (question.mostWords && words > question.mostWords)
      return `A little shorter, please: at most ${question.mostWords} words (${words} now).`
    return problemWithSentences(question, sentencesIn(value))
  },
  words: (_, value) => String(value),
  ways: ({ leastWords = 0 }, looked) =>
    texts(looked, 'some words '.repeat(Math.max(1, leastWords / 2)).trim()),
  impossible: ({ leastWords = 0, mostWords, leastSentences = 0, mostSentences }) => {
    if (mostWords !== undefined && leastWords > mostWords)
      return `No answer is possible: at least ${leastWords} and at most ${mostWords} words.`
    return mostSentences !== undefined && leastSentences > mostSentences
      ? `No answer is possible: at least ${leastSentences} and at most ${mostSentences} sentences.`
      : undefined
  },
  compares: ['answered', '='],
  first: () => '',
  typed: 'text',
  fhir: {
    write: () => ({
      item: { type: 'text' },
      kept: ['leastWords', 'mostWords', 'leastSentences', 'mostSentences'],
    }),
    as: ['text'],
    reads: ({ type }) => type === 'text',
    read: () => ({}),
    element: (_, value) => ({ as: 'String', value: String(value) }),
  },
}

function problemWithSentences(
  { leastSentences, mostSentences }: Long,
  sentences: number,
): string | undefined {
  const many = (n: number): string => (n === 1 ? 'one sentence' : `${n} sentences`)
  if (leastSentences && sentences < leastSentences)
    return `A little more, please: at least ${many(leastSentences)} (${sentences} so far).`
  if (mostSentences && sentences > mostSentences)
    return `A little shorter, please: at most ${many(mostSentences)} (${sentences} now).`
  return undefined
}
