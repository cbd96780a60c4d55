import { FIRST_LANGUAGE, type Language } from '@acolhida/core/time'
import { addBook, type Book, hasBook } from '@acolhida/core/words'
import type { MessageFormatElement } from '@formatjs/icu-messageformat-parser'
import { parse } from '@formatjs/icu-messageformat-parser'
import { isClients, momentOf, type WayMoment } from './moments.ts'

type Sentences = Readonly<Record<string, unknown>>

const BOOKS: Readonly<Record<Language, () => Promise<{ book: Book; said: Sentences }[]>>> = {
  en: async () => [
    { book: 'door', said: (await import('@acolhida/core/words/door')).default },
    { book: 'answers', said: (await import('@acolhida/core/words/en/answers')).default },
    { book: 'fields', said: (await import('@acolhida/core/words/fields')).default },
    { book: 'terms', said: (await import('@acolhida/core/words/en/terms')).default },
    { book: 'letters', said: (await import('@acolhida/core/words/letters')).default },
    { book: 'refusals', said: (await import('@acolhida/core/words/en/refusals')).default },
  ],
  pt: async () => [
    { book: 'door', said: (await import('@acolhida/core/words/pt/door')).default },
    { book: 'answers', said: (await import('@acolhida/core/words/pt/answers')).default },
    { book: 'fields', said: (await import('@acolhida/core/words/pt/fields')).default },
    { book: 'terms', said: (await import('@acolhida/core/words/pt/terms')).default },
    { book: 'letters', said: (await import('@acolhida/core/words/pt/letters')).default },
    { book: 'refusals', said: (await import('@acolhida/core/words/pt/refusals')).default },
  ],
}

/** A sentence of ours, read: by its whole name, and when a client comes upon it. */
export interface OurSentence {
  key: string
  moment: WayMoment
  message: MessageFormatElement[]
}

/** Every sentence that clients read in a language, in the order of their way. */
export async function sentencesFor(language: Language): Promise<OurSentence[]> {
  const books = await (BOOKS[language] ?? BOOKS[FIRST_LANGUAGE]!)()
  return books.flatMap(({ book, said }) =>
    Object.entries(said).flatMap(([name, text]) => {
      const key = `${book}.${name}`
      if (!isClients(key)) return []
      // Where the application is built, messages have been read already.
      const message = typeof text === 'string' ? parse(text) : (text as MessageFormatElement[])
      return [{ key, moment: momentOf(book, name), message }]
    }),
  )
}

/** Puts the sentences that fill terms in a language on the shelf, where they are not there yet. */
export async function fetchTermsBook(language: Language): Promise<void> {
  if (hasBook(language, 'terms')) return
  const found = (await BOOKS[language]?.())?.find(({ book }) => book === 'terms')
  if (found) addBook(language, 'terms', found.said)
}
