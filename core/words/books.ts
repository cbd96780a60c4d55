import { FIRST_LANGUAGE, type Language, type Tongue, tongueInForce } from '../time/language.ts'
import { type Speech, sayFrom } from './say.ts'

/** The catalogues: one for each room of the house. */
export const BOOKS = ['answers', 'fields', 'refusals', 'terms', 'door', 'letters'] as const
export type Book = (typeof BOOKS)[number]

type Sentences = Readonly<Record<string, unknown>>

const known = new Map<string, Sentences>()
const made = new WeakMap<object, Map<string, Speech<string>>>()
/** What stands for the practitioner's own sentences where there are none. */
const NONE = {}

const shelf = (language: Language, book: Book): string => `${language} ${book}`

/** Puts a catalogue of a language on the shelf. In an application it may have been read already (see `sayFrom`). */
export function addBook(language: Language, book: Book, sentences: Sentences): void {
  known.set(shelf(language, book), sentences)
}

/** The sentences of a catalogue in a language, those it lacks in the first. */
export const bookIn = (language: Language, book: Book): Sentences => ({
  ...known.get(shelf(FIRST_LANGUAGE, book)),
  ...known.get(shelf(language, book)),
})

/** Whether a language has a catalogue of its own here. */
export const hasBook = (language: Language, book: Book): boolean => known.has(shelf(language, book))

/** How a catalogue speaks in the tongue in force. Made once for each language and the sentences of one's own. */
export function bookInForce(book: Book, { language, own }: Tongue = tongueInForce()): Speech<string> {
  const of = own ?? NONE
  let books = made.get(of)
  if (!books) {
    books = new Map()
    made.set(of, books)
  }
  const at = shelf(language, book)
  let found = books.get(at)
  if (!found || found.from !== known.get(at)) {
    const said = sayFrom({ ...bookIn(language, book), ...ownIn(own, book) }, language)
    found = { ...said, from: known.get(at) }
    books.set(at, found)
  }
  return found
}

/** The practitioner's own sentences of one catalogue, by their names there. */
export function ownIn(
  own: Readonly<Record<string, unknown>> | undefined,
  book: Book,
): Record<string, unknown> {
  const before = `${book}.`
  return Object.fromEntries(
    Object.entries(own ?? {}).flatMap(([key, said]) =>
      key.startsWith(before) ? [[key.slice(before.length), said]] : [],
    ),
  )
}
