import { inLanguage, languagesOf, ownLanguage } from '../practice/index.ts'
import { bestLanguage, type Language, speaking, type Tongue } from '../time/index.ts'
import type { House } from './house.ts'
import type { Does } from './work.ts'

/** The language in which somebody is spoken to: the first they want that the practice speaks, else its own. */
export function languageAt({ practice }: Pick<House, 'practice'>, wanted: readonly string[]): Language {
  if (!practice) return bestLanguage(wanted, ['en', 'pt']) ?? 'en'
  return bestLanguage(wanted, languagesOf(practice)) ?? ownLanguage(practice)
}

/** How the house speaks in a language: with the practitioner's own sentences. */
const tongueOf = ({ practice }: House, language: Language): Tongue => ({
  language,
  own: practice?.words?.[language],
})

/** An object with some of its values replaced, and all else its own. */
const instead = <T extends object>(of: T, values: Partial<T>): T =>
  new Proxy(of, {
    get: (target, name) => {
      if (Object.hasOwn(values, name)) return Reflect.get(values, name)
      const value: unknown = Reflect.get(target, name, target)
      return typeof value === 'function' ? value.bind(target) : value
    },
  })

/** The house as it is read in a language: the practitioner's texts in it, where they are there. */
function spoken(house: House, language: Language): House {
  const { pack } = house
  if (!pack) return house
  const practice = inLanguage(pack.practice, language)
  return practice === pack.practice ? house : instead(house, { pack: { ...pack, practice }, practice })
}

/** Looks something up as it is read in a language. */
export const lookIn = <T>(house: House, language: Language, view: (house: House) => T): T =>
  speaking(tongueOf(house, language), () => view(spoken(house, language)))

/** One thing done by somebody who reads a language: what they are shown, and what is kept of it, is in that one. */
export const doneIn =
  <B, A>(language: Language, does: Does<B, A>): Does<B, A> =>
  (work, body) =>
    speaking(tongueOf(work.house, language), () =>
      does(instead(work, { house: spoken(work.house, language) }), body),
    )
