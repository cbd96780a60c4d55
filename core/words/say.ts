import { IntlMessageFormat } from 'intl-messageformat'
import { FIRST_LANGUAGE, inForce, type Language, localeOf } from '../time/language.ts'

/** What stands in a sentence. */
export type SaidValues = Readonly<Record<string, string | number>>

/** A sentence of a catalogue, by its name, with what stands in it. */
export interface Sentence<K extends string = string> {
  code: K
  data?: SaidValues
}

/** How a catalogue speaks. */
export interface Speech<K extends string> {
  text(key: K, values?: SaidValues): string
  message(key: K): IntlMessageFormat
  /** What it was made from. */
  from?: unknown
}

/**
 * Says sentences of a catalogue: ICU messages, by their names; numbers and plurals follow its language. Where an
 * application is built, the messages have been read already (`web/vite.shared.ts`), so that what reads them need not go
 * along.
 */
export function sayFrom<K extends string>(
  catalogue: Readonly<Record<K, unknown>>,
  language: Language = FIRST_LANGUAGE,
): Speech<K> {
  const made = new Map<K, IntlMessageFormat>()
  const message = (key: K): IntlMessageFormat => {
    let found = made.get(key)
    if (!found) {
      found = new IntlMessageFormat(catalogue[key] as string, localeOf(language))
      made.set(key, found)
    }
    return found
  }
  return { message, text: (key, values) => String(message(key).format({ ...values })) }
}

/** Words one after another: "a picture, a PDF or a text". */
export const listed = (words: readonly string[], how: 'and' | 'or', language: Language = inForce()): string =>
  new Intl.ListFormat(localeOf(language), { type: how === 'or' ? 'disjunction' : 'conjunction' }).format(
    words,
  )

/** A message as it is read, for where what reads it is left out. @throws SyntaxError where it is none */
export const readMessage = (text: string, language: Language): unknown =>
  new IntlMessageFormat(text, localeOf(language)).getAst()
