import { IntlMessageFormat } from 'intl-messageformat'

/** What stands in a sentence. */
export type SaidValues = Readonly<Record<string, string | number>>

/** A sentence of a catalogue, by its name, with what stands in it. */
export interface Sentence<K extends string = string> {
  code: K
  data?: SaidValues
}

/** The language the catalogues are in. Numbers and plurals follow it. */
const LANGUAGE = 'en-GB'

/**
 * Says sentences of a catalogue: ICU messages, by their names. Where an application is built, the messages have been
 * read already (`web/vite.shared.ts`), so that what reads them need not go along.
 */
export function sayFrom<K extends string>(
  catalogue: Readonly<Record<K, string>>,
): { text: (key: K, values?: SaidValues) => string; message: (key: K) => IntlMessageFormat } {
  const made = new Map<K, IntlMessageFormat>()
  const message = (key: K): IntlMessageFormat => {
    let found = made.get(key)
    if (!found) {
      found = new IntlMessageFormat(catalogue[key], LANGUAGE)
      made.set(key, found)
    }
    return found
  }
  return { message, text: (key, values) => String(message(key).format({ ...values })) }
}

/** Words one after another: "a picture, a PDF or a text". */
export const listed = (words: readonly string[], how: 'and' | 'or'): string =>
  new Intl.ListFormat(LANGUAGE, { type: how === 'or' ? 'disjunction' : 'conjunction' }).format(words)
