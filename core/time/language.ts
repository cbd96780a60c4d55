/** The languages in which the catalogues ship whole. */
export const LANGUAGES = ['en', 'pt'] as const

/** A language, by its BCP 47 tag. */
export type Language = string

/** The language the program begins with; where another lacks something, it stands in this one. */
export const FIRST_LANGUAGE = 'en'

/** The pseudo language that runs from right to left and shows whatever does not come from a catalogue. */
export const PSEUDO = 'ar-XB'

const LOCALES: Readonly<Record<string, string>> = { en: 'en-GB', pt: 'pt-PT', [PSEUDO]: 'en-GB' }

/** By which locale `Intl` writes dates, numbers and money of a language. */
export const localeOf = (language: Language): string => LOCALES[language] ?? language

/** In which direction a language is written. */
export const directionOf = (language: Language): 'ltr' | 'rtl' => (language === PSEUDO ? 'rtl' : 'ltr')

const NAMES: Readonly<Record<string, string>> = { en: 'English', pt: 'Português', [PSEUDO]: 'Pseudo' }

/** A language by its own name. */
export const languageName = (language: Language): string => NAMES[language] ?? language

/**
 * The language that is understood best: the first wanted of which one is there, by its whole tag or the part before the
 * dash (RFC 4647, look-up).
 */
export function bestLanguage(wanted: readonly string[], there: readonly Language[]): Language | undefined {
  for (const one of wanted) {
    const tag = one.toLowerCase()
    const found =
      there.find((language) => language.toLowerCase() === tag) ??
      there.find((language) => language.toLowerCase() === tag.split('-')[0])
    if (found) return found
  }
  return undefined
}

/** How is spoken: the language, and the practitioner's own sentences in it, by catalogue and name. */
export interface Tongue {
  language: Language
  own?: Readonly<Record<string, unknown>> | undefined
}

let tongue: Tongue = { language: FIRST_LANGUAGE }

/** The tongue in force: dates, money and sentences follow it where nothing else is said. */
export const tongueInForce = (): Tongue => tongue

/** The language in force. */
export const inForce = (): Language => tongue.language

/**
 * Does something in another tongue: in force while the work runs, and no longer. What it begins and does not wait for
 * speaks as it was before.
 */
export function speaking<T>(as: Tongue, work: () => T): T {
  const before = tongue
  tongue = as
  try {
    return work()
  } finally {
    tongue = before
  }
}

/** Speaks so from now on: for a page, which is read by one person. */
export function speak(as: Tongue): void {
  tongue = as
}
