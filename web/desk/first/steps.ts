import { type Place, type PlaceKind, type Practice, questionnaireOf } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { durationOf, inOneUnit } from '@acolhida/core/time'
import { parseBlocks, typedBlocks } from '../hours/parse-blocks.ts'
import { amount, wholeTyped } from '../settings/setting.ts'
import { withTermsVersion } from '../terms/change.ts'

/** The first path: what a door needs, in the order in which one thinks of it. */
export const FIRST_STEPS = [
  { id: 'practice', name: 'Practice' },
  { id: 'hours', name: 'Hours' },
  { id: 'service', name: 'Service' },
  { id: 'questions', name: 'Questions' },
  { id: 'terms', name: 'Terms' },
] as const

/** A week in which all working days have the same hours. */
export interface UsualWeek {
  /** Monday first. */
  days: readonly boolean[]
  /** "9–13, 14–18" */
  hours: string
}

/** The usual week as it is typed; where days differ, with the hours of the first that has any. */
export const weekOf = ({ hours: { weekly } }: Practice): UsualWeek => ({
  days: weekly.map((blocks) => blocks.length > 0),
  hours: typedBlocks(weekly.find((blocks) => blocks.length > 0) ?? []),
})

/** @throws Error when the hours can't be read, or there are none */
export function withWeek(practice: Practice, { days, hours }: UsualWeek): Practice {
  const blocks = parseBlocks(hours, [])
  if (blocks.length === 0 || !days.includes(true))
    throw new Error('Tick the days on which you work, and write the hours, as 9–13, 14–18.')
  const weekly = days.map((works) => (works ? blocks : [])) as Practice['hours']['weekly']
  return { ...practice, hours: { ...practice.hours, weekly } }
}

/** The first service, as far as it is asked for at the beginning. */
export interface FirstService {
  name: string
  minutes: string
  /** Empty or 0: free of charge. */
  price: string
  where: 'video' | 'phone' | 'studio'
  /** Of the studio. */
  address: string
}

/** How places read after a length, "20 minutes …". */
const PLACE: Record<FirstService['where'], Pick<Place, 'name'> & Partial<Place>> = {
  video: { name: 'by video' },
  phone: { name: 'by phone', whoCalls: 'practitioner' },
  studio: { name: 'at my studio' },
}

const asWhere = (kind: PlaceKind | undefined): FirstService['where'] =>
  kind === 'phone' || kind === 'studio' ? kind : 'video'

/** @param decimals of the currency */
export function firstService(practice: Practice, decimals: number): FirstService {
  const [service] = practice.services
  const place = practice.places.find(({ id }) => id === service?.places[0])
  const price = service?.price
  return {
    name: service?.name ?? '',
    minutes: String(service?.minutes ?? ''),
    price: price?.kind === 'fixed' ? (price.amount / 10 ** decimals).toFixed(decimals) : '',
    where: asWhere(place?.kind),
    address: place?.address ?? '',
  }
}

/** @throws Error when a number can't be read */
export function withFirstService(practice: Practice, typed: FirstService, decimals: number): Practice {
  const [service, ...rest] = practice.services
  if (!service) throw new Error('There is no service yet. Add one on the page “Services”.')
  const cost = typed.price.trim() === '' ? 0 : amount(typed.price, decimals)
  const has = practice.places.find(({ kind }) => kind === typed.where)
  const address = typed.where === 'studio' ? typed.address.trim() : ''
  const { address: _, ...bare } = has ?? {
    id: typed.where,
    kind: typed.where,
    told: 'confirmation' as const,
    ...PLACE[typed.where],
  }
  const place: Place = { ...bare, ...(address ? { address } : has?.address ? { address: has.address } : {}) }
  const places = has
    ? practice.places.map((other) => (other.id === has.id ? place : other))
    : [...practice.places, place]
  return {
    ...practice,
    places,
    services: [
      {
        ...service,
        name: typed.name.trim(),
        minutes: wholeTyped(typed.minutes, 5),
        price: cost === 0 ? { kind: 'free' } : { kind: 'fixed', amount: cost },
        places: [place.id],
      },
      ...rest,
    ],
  }
}

/** The questions of the first service, as texts. */
export function firstQuestions(practice: Practice): string[] {
  const [service] = practice.services
  return ((service && questionnaireOf(practice, service)?.questions) ?? []).map(({ text }) => text)
}

/** Questions that stay keep what they are; new ones take a long answer; those left empty go. */
export function withFirstQuestions(practice: Practice, texts: readonly string[]): Practice {
  const [service] = practice.services
  const questionnaire = service && questionnaireOf(practice, service)
  if (!questionnaire) return practice
  const taken = new Set(questionnaire.questions.map(({ id }) => id))
  const another = (): string => {
    const id = freeId(taken, 'question')
    taken.add(id)
    return id
  }
  const questions = texts.flatMap((typed, i) => {
    const text = typed.trim()
    if (!text) return []
    const before = questionnaire.questions[i]
    return [before ? { ...before, text } : { id: another(), kind: 'long' as const, text, required: false }]
  })
  const same = JSON.stringify(questions) === JSON.stringify(questionnaire.questions)
  if (same) return practice
  const next = { ...questionnaire, version: questionnaire.version + 1, questions }
  return {
    ...practice,
    questionnaires: practice.questionnaires.map((other) => (other.id === questionnaire.id ? next : other)),
  }
}

/** What is agreed at the beginning. */
export interface FirstTerms {
  text: string
  /** For how many hours before the session cancelling is free of charge. */
  free: string
  /** What it costs after that, in per cent. */
  late: string
}

export function firstTerms({ terms, houseRules: { cancel, cancelAfter } }: Practice): FirstTerms {
  const until = cancel[0] && inOneUnit(cancel[0].until)
  const hours = { minutes: 1 / 60, hours: 1, days: 24, weeks: 168, months: 720 }
  return {
    text: terms[0]?.versions.at(-1)?.text ?? '',
    free: until ? String(Math.round(until.amount * hours[until.unit])) : '24',
    late: String(cancelAfter),
  }
}

/** @throws Error when a number can't be read */
export function withFirstTerms(practice: Practice, { text, free, late }: FirstTerms): Practice {
  const share = wholeTyped(late, 0)
  if (share > 100) throw new Error('Cancelling late costs 100 % at most.')
  const until = durationOf(wholeTyped(free, 0), 'hours')
  const ruled: Practice = {
    ...practice,
    houseRules: { ...practice.houseRules, cancel: [{ until, share: 0 }], cancelAfter: share },
  }
  const [terms] = practice.terms
  const version = terms?.versions.at(-1)
  if (!terms || !version || version.clauses || version.text === text) return ruled
  return withTermsVersion(ruled, terms.id, version.title, text)
}
