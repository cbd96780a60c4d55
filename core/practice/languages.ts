import type { Question, Sheet } from '../questions/types.ts'
import type { Piece, TextBlock } from '../terms/types.ts'
import { FIRST_LANGUAGE, type Language } from '../time/index.ts'
import type { Preparation } from './preparation.ts'
import type { Extra, Place, Practice, Service } from './types.ts'

/** One of the practitioner's texts that clients read. */
export interface OwnText {
  /** By what it is known in `Practice.translated`. */
  key: string
  text: string
  /** What it belongs to, and which of its texts it is. */
  of: string
  what: string
}

/** The language the practitioner's own texts are written in. */
export const ownLanguage = ({ language = FIRST_LANGUAGE }: Practice): Language => language

/** Every language that clients can read in, the practitioner's own first. */
export const languagesOf = (practice: Practice): Language[] => [
  ...new Set([ownLanguage(practice), ...(practice.languages ?? [])]),
]

type Put = (key: string, text: string, of: string, what: string) => string

function inQuestion(question: Question, at: string, of: string, put: Put): Question {
  const name = (key: string, text: string, what: string): string => put(`${at}/${key}`, text, of, what)
  const named = <T extends { id: string; text: string }>(items: readonly T[], what: string): T[] =>
    items.map((item) => ({ ...item, text: name(item.id, item.text, what) }))
  return {
    ...question,
    text: name('text', question.text, 'question'),
    ...(question.help ? { help: name('help', question.help, 'help') } : {}),
    ...('choices' in question ? { choices: named(question.choices, `choice of “${question.text}”`) } : {}),
    ...('items' in question ? { items: named(question.items, `item of “${question.text}”`) } : {}),
    ...('unit' in question && question.unit ? { unit: name('unit', question.unit, 'unit') } : {}),
    ...('leastName' in question ? { leastName: name('least', question.leastName, 'low end') } : {}),
    ...('mostName' in question ? { mostName: name('most', question.mostName, 'high end') } : {}),
  } as Question
}

const inSheet = <S extends Sheet>(sheet: S, at: string, of: string, put: Put): S => ({
  ...sheet,
  questions: sheet.questions.map((question) => inQuestion(question, `${at}/${question.id}`, of, put)),
  rules: sheet.rules.map((rule) => {
    const { effect } = rule
    const key = `${at}/rule/${rule.id}`
    if (effect.do === 'close')
      return { ...rule, effect: { ...effect, message: put(key, effect.message, of, 'kind no') } }
    if (effect.do === 'tell')
      return { ...rule, effect: { ...effect, text: put(key, effect.text, of, 'text between') } }
    return effect.do === 'item'
      ? { ...rule, effect: { ...effect, name: put(key, effect.name, of, 'line of the price') } }
      : rule
  }),
})

function inService(service: Service, put: Put): Service {
  const { id, name, description, section, extras, afterwards, before } = service
  const own = (key: string, text: string, what: string): string =>
    put(`service/${id}/${key}`, text, name, what)
  const extra = (one: Extra): Extra => ({ ...one, name: own(`extra/${one.id}`, one.name, 'extra') })
  return {
    ...service,
    name: own('name', name, 'name'),
    description: own('description', description, 'description'),
    ...(section ? { section: own('section', section, 'heading') } : {}),
    ...(extras ? { extras: extras.map(extra) } : {}),
    ...(afterwards
      ? {
          afterwards: { ...afterwards, text: own('afterwards', afterwards.text, 'what is shown afterwards') },
        }
      : {}),
    ...(before
      ? { before: { ...before, text: own('before', before.text, 'what to read or do before') } }
      : {}),
  }
}

const inBlocks = (blocks: readonly TextBlock[], put: (at: string, text: string) => string): TextBlock[] => {
  const line = (pieces: readonly Piece[], at: string): Piece[] =>
    pieces.map((piece, i) => ('text' in piece ? { ...piece, text: put(`${at}/${i}`, piece.text) } : piece))
  return blocks.map((block, i) =>
    'p' in block
      ? { p: line(block.p, String(i)) }
      : { ...block, list: block.list.map((one, j) => line(one, `${i}/${j}`)) },
  )
}

function inPreparation(one: Preparation, put: Put): Preparation {
  const own = (key: string, text: string, what: string): string =>
    put(`prepare/${one.id}/${key}`, text, one.name, what)
  const named = { ...one, name: own('name', one.name, 'name') }
  if (named.is === 'read')
    return { ...named, text: inBlocks(named.text, (at, text) => own(`letter/${at}`, text, 'letter')) }
  if (named.is === 'bring' || named.is === 'tick')
    return { ...named, text: own('text', named.text, 'what to do') }
  return named
}

function inPlace(place: Place, put: Put): Place {
  const own = (key: string, text: string, what: string): string =>
    put(`place/${place.id}/${key}`, text, place.name, what)
  return {
    ...place,
    name: own('name', place.name, 'name'),
    ...(place.travel
      ? {
          travel: place.travel.map((zone) => ({ ...zone, name: own(zone.id, zone.name, 'travel zone') })),
        }
      : {}),
  }
}

/** The practice with every text of the practitioner's that a client reads put through a function. */
function throughTexts(practice: Practice, put: Put): Practice {
  const { profile, door, messaging } = practice
  const own = (key: string, text: string, what: string): string =>
    put(`profile/${key}`, text, profile.name, what)
  return {
    ...practice,
    profile: {
      ...profile,
      headline: own('headline', profile.headline, 'line under the name'),
      greeting: own('greeting', profile.greeting, 'greeting'),
      ...(profile.pronouns ? { pronouns: own('pronouns', profile.pronouns, 'pronouns') } : {}),
      ...(profile.about ? { about: own('about', profile.about, 'lines about you') } : {}),
    },
    services: practice.services.map((service) => inService(service, put)),
    places: practice.places.map((place) => inPlace(place, put)),
    ...(practice.preparations
      ? { preparations: practice.preparations.map((one) => inPreparation(one, put)) }
      : {}),
    questionnaires: practice.questionnaires.map((questionnaire) =>
      inSheet(questionnaire, `questions/${questionnaire.id}`, questionnaire.name, put),
    ),
    ...(messaging
      ? {
          messaging: {
            ...messaging,
            ...(messaging.greeting
              ? { greeting: own('hello', messaging.greeting, 'first line of mails') }
              : {}),
            ...(messaging.signature
              ? { signature: own('signature', messaging.signature, 'last lines of mails') }
              : {}),
          },
        }
      : {}),
    ...(door?.text ? { door: { ...door, text: own('door', door.text, 'text of the closed door') } } : {}),
  }
}

/** Every text of the practitioner's that clients read, in the order in which it is set up. */
export function ownTexts(practice: Practice): OwnText[] {
  const found: OwnText[] = []
  throughTexts(practice, (key, text, of, what) => {
    if (text.trim()) found.push({ key, text, of, what })
    return text
  })
  for (const { id, name, subject, body } of practice.texts ?? []) {
    if (subject) found.push({ key: `text/${id}/subject`, text: subject, of: name, what: 'subject' })
    if (body) found.push({ key: `text/${id}/body`, text: body, of: name, what: 'message' })
  }
  return found
}

const made = new WeakMap<Practice, Map<Language, Practice>>()

/**
 * The practice as clients read it in a language: the practitioner's texts in that language where they are there, else
 * as they were written. Made once for each.
 */
export function inLanguage(practice: Practice, language: Language): Practice {
  const there = practice.translated?.[language]
  if (language === ownLanguage(practice) || !there) return practice
  let languages = made.get(practice)
  if (!languages) {
    languages = new Map()
    made.set(practice, languages)
  }
  let found = languages.get(language)
  if (!found) {
    const say = (key: string, text: string): string => there[key]?.text || text
    found = {
      ...throughTexts(practice, say),
      ...(practice.texts
        ? {
            texts: practice.texts.map((text) => ({
              ...text,
              ...(text.subject ? { subject: say(`text/${text.id}/subject`, text.subject) } : {}),
              body: say(`text/${text.id}/body`, text.body),
            })),
          }
        : {}),
    }
    languages.set(language, found)
  }
  return found
}

/** What still lacks in a language: texts without one, and those that have changed since. */
export const lackingTexts = (
  practice: Practice,
  language: Language,
): (OwnText & { is: 'missing' | 'changed' })[] =>
  ownTexts(practice).flatMap((text): (OwnText & { is: 'missing' | 'changed' })[] => {
    const there = practice.translated?.[language]?.[text.key]
    if (!there?.text.trim()) return [{ ...text, is: 'missing' as const }]
    return there.of === text.text ? [] : [{ ...text, is: 'changed' as const }]
  })

/** The terms in force that are not there in a language; whoever reads it reads them as first written. */
export const lackingTerms = (practice: Practice, language: Language): { id: string; title: string }[] =>
  language === ownLanguage(practice)
    ? []
    : practice.terms.flatMap(({ id, versions }) => {
        const version = versions.at(-1)
        return version && !version.also?.[language] ? [{ id, title: version.title }] : []
      })
