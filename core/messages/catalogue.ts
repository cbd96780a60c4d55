import type { Practice } from '../practice/index.ts'
import type { Language } from '../time/index.ts'
import { addBook, bookInForce } from '../words/books.ts'
import letters from '../words/en/letters.json' with { type: 'json' }
import lettersPt from '../words/pt/letters.json' with { type: 'json' }
import type { SaidValues } from '../words/say.ts'

addBook('en', 'letters', letters)
addBook('pt', 'letters', lettersPt)

/** The names of the sentences of letters. */
export type LetterWord = keyof typeof letters
/** Says one of them. */
export type SayLetter = (word: LetterWord, values?: SaidValues) => string

/** How letters of a practice speak in a language: in the practitioner's own words where there are some, else in ours. */
export const lettersIn = (practice: Practice, language: Language): SayLetter =>
  bookInForce('letters', { language, own: practice.words?.[language] }).text
