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
