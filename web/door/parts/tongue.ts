import type { DoorView } from '@acolhida/core/contract'
import {
  directionOf,
  FIRST_LANGUAGE,
  inForce,
  type Language,
  namePlaces,
  PSEUDO,
  speak,
  tongueInForce,
} from '@acolhida/core/time'
import { type AnswerWord, addBook, answerWord, hasBook } from '@acolhida/core/words'
import { useSyncExternalStore } from 'react'
import { type Saying, sayOtherwise } from '../../relay-client/said.ts'

/** The catalogues of each language: fetched when somebody reads in it, one language at a time. */
const CATALOGUES: Readonly<Record<Language, () => Promise<Parameters<typeof addBook>[2]>[]>> = {
  en: () => [import('@acolhida/core/words/door').then((it) => it.default)],
  pt: () => [
    import('@acolhida/core/words/pt/door').then((it) => it.default),
    import('@acolhida/core/words/pt/answers').then((it) => it.default),
    import('@acolhida/core/words/pt/fields').then((it) => it.default),
    import('@acolhida/core/words/pt/places').then((it) => it.default),
  ],
  [PSEUDO]: () => [import('@acolhida/core/words/pseudo/door').then((it) => it.default)],
}
const BOOKS = ['door', 'answers', 'fields'] as const

/** Where is kept in which language somebody wants to read. */
const CHOICE = 'acolhida-language'

/** What the client has chosen to read in, if anything. */
export function chosen(): Language | undefined {
  const asked = new URLSearchParams(location.search).get('in')
  if (asked !== null && Object.hasOwn(CATALOGUES, asked)) return asked
  try {
    return localStorage.getItem(CHOICE) ?? undefined
  } catch {
    return undefined
  }
}

const listeners = new Set<() => void>()
const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** The language the page is in; whatever says sentences is drawn anew with it. */
export const useTongue = (): Language => useSyncExternalStore(subscribe, inForce)

const SAID = {
  unreachable: 'relay.unreachable',
  failed: 'relay.failed',
  'too-many': 'relay.too-many',
  'too-large': 'relay.too-large',
  'clock-moved': 'clock.moved',
  'clock-off': 'clock.off',
} as const satisfies Record<Saying, AnswerWord>
sayOtherwise((what, values) => answerWord(SAID[what], values))

/** Has the page speak a language: fetches its catalogues, and turns the page round where it is written so. */
export async function speakHere(wanted: Language, own?: DoorView['words']): Promise<void> {
  const language = Object.hasOwn(CATALOGUES, wanted) ? wanted : FIRST_LANGUAGE
  if (!hasBook(language, 'door')) {
    const books = await Promise.all(CATALOGUES[language]!())
    for (const [i, book] of books.entries()) {
      const name = BOOKS[i]
      if (name) addBook(language, name, book)
      // After the catalogues come the names of places.
      else namePlaces(language, book as Readonly<Record<string, string>>)
    }
  }
  const before = tongueInForce()
  if (before.language === language && JSON.stringify(before.own) === JSON.stringify(own)) return
  speak({ language, ...(own ? { own } : {}) })
  document.documentElement.lang = language
  document.documentElement.dir = directionOf(language)
  for (const listener of listeners) listener()
}

/** Chooses a language, for this browser, from now on. */
export async function choose(language: Language): Promise<void> {
  try {
    localStorage.setItem(CHOICE, language)
  } catch {
    // Without storage it is chosen for as long as the page lives.
  }
  await speakHere(language)
}
