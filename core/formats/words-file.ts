import type { Practice, Translated } from '../practice/index.ts'
import { languageTag } from '../shape/plain.ts'
import { line, object, one, record, type Schema, text } from '../shape/shape.ts'
import type { Language } from '../time/index.ts'

/** One's own words in one language, as a file: sentences of the catalogues, and one's own texts. */
export interface WordsFile {
  format: 'acolhida-words'
  version: 1
  language: Language
  /** By catalogue and name. */
  sentences: Record<string, string>
  /** By `OwnText.key`. */
  texts: Record<string, Translated>
}

/** Longer is no such file, in characters. */
export const LONGEST_WORDS = 4_000_000

export const wordsFile: Schema<WordsFile> = object({
  format: one('acolhida-words'),
  version: one(1),
  language: languageTag,
  sentences: record(line(100), text(2_000), 5_000),
  texts: record(line(200), object({ text: text(20_000), of: text(20_000) }), 20_000),
})

/** The words of a practice in a language, to go out. */
export const wordsOut = ({ words = {}, translated = {} }: Practice, language: Language): WordsFile => ({
  format: 'acolhida-words',
  version: 1,
  language,
  sentences: words[language] ?? {},
  texts: translated[language] ?? {},
})
