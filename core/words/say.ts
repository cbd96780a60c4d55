import { IntlMessageFormat } from 'intl-messageformat'
import { FIRST_LANGUAGE, type Language, localeOf } from '../time/language.ts'

/** What stands in a sentence. */
export type SaidValues = Readonly<Record<string, string | number>>

/** A sentence of a catalogue, by its name, with what stands in it. */
export interface Sentence<K extends string = string> {
  code: K
  data?: SaidValues
}

/**
 * Says sentences of a catalogue: ICU messages, by their names; numbers and plurals follow its language. Where an application is built, the messages have been
 * read already (`web/vite.shared.ts`), so that what reads them need not go along.
 */
export function sayFrom<K extends string>(
  catalogue: Readonly<Record<K, string>>,
  language: Language = FIRST_LANGUAGE,
): { text: (key: K, values?: SaidValues) => string; message: (key: K) => IntlMessageFormat } {
  const made = new Map<K, IntlMessageFormat>()
  const message = (key: K): IntlMessageFormat => {
    let found = made.get(key)
    if (!found) {
      found = new IntlMessageFormat(catalogue[key], localeOf(language))
      made.set(key, found)
    }
    return found
  }
  return { message, text: (key, values) => String(message(key).format({ ...values })) }
}

/** Words one after another: "a picture, a PDF or a text". */
export const listed = (
  words: readonly string[],
  how: 'and' | 'or',
  language: Language = FIRST_LANGUAGE,
): string =>
  new Intl.ListFormat(localeOf(language), { type: how === 'or' ? 'disjunction' : 'conjunction' }).format(
    words,
  )
