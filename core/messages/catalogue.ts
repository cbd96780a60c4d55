import type { Practice } from '../practice/index.ts'
import type { Language } from '../time/index.ts'
import en from '../words/en/letters.json' with { type: 'json' }
import { ownWords } from '../words/own.ts'
import pt from '../words/pt/letters.json' with { type: 'json' }
import { type SaidValues, sayFrom } from '../words/say.ts'

/** The names of the sentences of letters. */
export type LetterWord = keyof typeof en
/** Says one of them. */
export type SayLetter = (word: LetterWord, values?: SaidValues) => string

const BOOKS: Readonly<Record<Language, Readonly<Partial<Record<LetterWord, string>>>>> = { pt }

const made = new WeakMap<Practice, Map<Language, SayLetter>>()

/**
 * How letters of a practice speak in a language: in the practitioner's own words where there are some, else in ours, in
 * the first language where that one lacks them. Made once for each.
 */
export function lettersIn(practice: Practice, language: Language): SayLetter {
  let languages = made.get(practice)
  if (!languages) made.set(practice, (languages = new Map()))
  let found = languages.get(language)
  if (!found) {
    const ours = { ...en, ...BOOKS[language] }
    found = sayFrom({ ...ours, ...ownWords(practice.words?.[language], 'letters', ours) }, language).text
    languages.set(language, found)
  }
  return found
}
