import { addBook, bookInForce } from './books.ts'
import answers from './en/answers.json' with { type: 'json' }
import type fields from './en/fields.json'
import refusals from './en/refusals.json' with { type: 'json' }
import type { SaidValues, Sentence } from './say.ts'

export { addBook, BOOKS, type Book, bookIn, bookInForce, hasBook, ownIn } from './books.ts'
export { listed, readMessage, type SaidValues, type Sentence, sayFrom } from './say.ts'

addBook('en', 'answers', answers)
addBook('en', 'refusals', refusals)

/** The names of sentences about answers. */
export type AnswerWord = keyof typeof answers
/** The names of sentences beside fields. */
export type FieldWord = keyof typeof fields
/** The names of sentences with which something is refused; what stands before a dot is the code for programs. */
export type RefusalWord = keyof typeof refusals

/** What is wrong with an answer. */
export type Wrong = Sentence<AnswerWord>

/** What is wrong with an answer, in words for who gave it. */
export const wrongWords = ({ code, data }: Wrong): string => bookInForce('answers').text(code, data)
/** A sentence about answers, to stand in another. */
export const answerWord = (code: AnswerWord, data?: SaidValues): string =>
  bookInForce('answers').text(code, data)
/** Why something is refused, in words. */
export const refusalWords = (word: RefusalWord, data?: SaidValues): string =>
  bookInForce('refusals').text(word, data)

export { escapeHtml, jsonForHtml } from './html.ts'
