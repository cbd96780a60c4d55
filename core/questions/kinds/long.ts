import { count, maybe } from '../../shape/shape.ts'
import type { Wrong } from '../../words/index.ts'
import type { AnswerValue } from '../base.ts'
import { sentencesIn, wordsIn } from '../text.ts'
import { type Kind, limitsOf, texts } from './kind.ts'
import { plainText } from './written.ts'

export interface Long {
  leastWords?: number
  mostWords?: number
  leastSentences?: number
  mostSentences?: number
}

const LONGEST = 20_000
const some = maybe(count)
const tooLong = plainText(LONGEST)

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
  problem,
  limits: ({ leastWords, mostWords, leastSentences, mostSentences }) => [
    ...limitsOf(
      { least: 'limit.words-least', most: 'limit.words-most', between: 'limit.words-between' },
      leastWords,
      mostWords,
    ),
    ...limitsOf(
      {
        least: 'limit.sentences-least',
        most: 'limit.sentences-most',
        between: 'limit.sentences-between',
      },
      leastSentences,
      mostSentences,
    ),
  ],
  words: (_, value) => String(value),
  ways: (question, looked) =>
    texts(
      looked,
      (n) => sample(question, n),
      (text) => problem(question, text) === undefined,
    ),
  impossible: (question) => {
    const { leastWords = 0, mostWords, leastSentences = 0, mostSentences } = question
    if (mostWords !== undefined && leastWords > mostWords)
      return `No answer is possible: at least ${leastWords} and at most ${mostWords} words.`
    if (mostSentences !== undefined && leastSentences > mostSentences)
      return `No answer is possible: at least ${leastSentences} and at most ${mostSentences} sentences.`
    return problem(question, sample(question, 0))
      ? 'No answer is possible: so many words and sentences are longer than 20,000 characters.'
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

function problem(question: Long, value: AnswerValue): Wrong | undefined {
  if (typeof value !== 'string') return { code: 'no-words' }
  const plain = tooLong(value)
  if (plain) return plain
  const words = wordsIn(value)
  if (question.leastWords && words < question.leastWords)
    return { code: 'too-few-words', data: { least: question.leastWords, now: words } }
  if (question.mostWords && words > question.mostWords)
    return { code: 'too-many-words', data: { most: question.mostWords, now: words } }
  return problemWithSentences(question, sentencesIn(value))
}

/** A text that keeps to how many words and sentences there must be; each `n` gives another. */
function sample({ leastWords = 0, mostWords, leastSentences = 0 }: Long, n: number): string {
  const most = mostWords ?? Number.POSITIVE_INFINITY
  const words = Math.min(Math.max(leastWords, leastSentences, n < 1 ? 1 : 2), most)
  const sentences = Math.max(leastSentences, 1)
  const word = words > 1_000 || sentences > 1_000 ? 'a' : 'words'
  let text = ''
  for (let at = 0; at < Math.min(Math.max(words, sentences), LONGEST + 1); at++) {
    // Where there must be more sentences than there may be words, a word holds several: a mark ends each.
    const end = at < sentences - 1 ? '.' : ''
    const space = at === 0 ? '' : at < words ? ' ' : '”'
    text += `${space}${at === 0 && n > 0 ? `other${n}` : word}${end}`
  }
  return text
}

function problemWithSentences({ leastSentences, mostSentences }: Long, sentences: number): Wrong | undefined {
  if (leastSentences && sentences < leastSentences)
    return { code: 'too-few-sentences', data: { least: leastSentences, now: sentences } }
  if (mostSentences && sentences > mostSentences)
    return { code: 'too-many-sentences', data: { most: mostSentences, now: sentences } }
  return undefined
}
