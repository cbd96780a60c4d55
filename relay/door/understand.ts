import { usesIn } from '@acolhida/core/booking'
import type { Wanted } from '@acolhida/core/door'
import { type Ask, type Asker, type Diary, keepsWhole } from '@acolhida/core/openings'
import type { KnownPerson } from '@acolhida/core/people'
import {
  findCode,
  offeredOn,
  type Practice,
  type PriceCode,
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  type TravelZone,
  travelled,
  travelZoneOf,
} from '@acolhida/core/practice'
import {
  type AnswerProblem,
  type Answers,
  asked,
  isAttached,
  isSealed,
  openAnswers,
  problemsIn,
  type Question,
  type Reading,
  readAnswers,
} from '@acolhida/core/questions'
import { canonicalJson } from '@acolhida/core/terms'
import { dateAt, type Instant, zone } from '@acolhida/core/time'
import { Refused } from '../refused.ts'
import type { FoundQuote } from '../store/quotes.ts'
import type { Store } from '../store/store.ts'
import { askingOf, hasBooked, hasLink, hasQuote, knownBy, published, visitorOf } from './circumstances.ts'

/** What a visit wants, by the rules in force. */
export interface Understood {
  practice: Practice
  service: Service
  /** The answers that count: of the questions that were asked. */
  answers: Answers
  extras: string[]
  travel: TravelZone | undefined
  code: PriceCode | undefined
  /** The practitioner's own quote, where one has come by its link. */
  quote: FoundQuote | undefined
  reading: Reading
  /** What the answers come to at a start that keeps the day whole. */
  wholeReading: Reading
  /** Earlier attempts of the visit whose answers differ from these. */
  earlier: ReturnType<Store['attempts']>
}

/** The service wanted, if it may be. @throws Refused when there is none, or it is not offered now */
export function wantedService(store: Store, { service: id, with: key }: Wanted, now: Instant): Service {
  const { practice } = published(store)
  const service = serviceOf(practice, id)
  if (!service)
    throw new Refused(404, 'unknown-service', 'This service does not exist.', { where: 'service' })
  if (!isOffered(store, service, now, key)) {
    throw new Refused(
      409,
      'service-off',
      `${service.name} is not offered at the moment. Please choose another one.`,
      { where: 'service' },
    )
  }
  return service
}

/**
 * Reads what a visit wants. Without a place nothing is said yet of how far to travel.
 * @throws Refused when it can't be wanted, or lacks answers
 */
export function understand(
  store: Store,
  wanted: Wanted & { place?: string; person?: { email: string } },
  now: Instant,
): Understood {
  const { practice } = published(store)
  const service = wantedService(store, wanted, now)
  const travel =
    wanted.place === undefined ? undefined : travelTo(practice, service, wanted.place, wanted.travel)
  const quote = quoteFor(store, wanted, now)
  if (quote) {
    // How far to travel is part of what was reckoned.
    if (travel && travel.id !== quote.travel)
      throw new Refused(
        422,
        'travel',
        'The quote is not for this place. Please choose another one, or write me a message.',
        { where: 'travel' },
      )
    return quoted(practice, service, quote, travel)
  }
  const questionnaire = questionnaireOf(practice, service)
  const questions = questionnaire?.questions ?? []
  const all = store.attempts(wanted.visit).filter((one) => one.service === service.id)
  const visitor = visitorOf(store, wanted.with)
  const person = wanted.person ? knownBy(store, wanted.person.email) : visitor
  const asking = askingOf(person, service.id, 0)
  const { answers } = asked(questions, wanted.answers, asking)
  // Attempts are told apart by what could be read of them.
  const same = canonicalJson(openAnswers(questions, answers))
  const earlier = all.filter((one) => canonicalJson(one.answers) !== same)
  const here = { ...asking, attempts: earlier.length }
  const problems = [
    // What somebody could not see, before they had said who they are, they need not have answered.
    ...problemsIn(
      wanted.person ? questions : withoutPrivate(questions),
      wanted.answers,
      askingOf(visitor, service.id, 0),
    ),
    ...(wanted.person && published(store).seal ? unsealed(questions, answers) : []),
    ...missingFiles(store, wanted.visit, questions, answers),
  ]
  if (problems.length > 0) {
    throw new Refused(422, 'answers', 'Some answers are missing or not as expected.', {
      where: 'answers',
      problems,
    })
  }
  const extras = extrasOf(service, wanted.extras)
  const code = codeFor(store, wanted, person, wanted.person === undefined, now)
  const read = (whole: boolean): Reading =>
    readAnswers(service, questionnaire, answers, here, { extras, travel, whole, code })
  return {
    practice,
    service: travelled(service, travel),
    answers,
    extras,
    travel,
    code,
    quote: undefined,
    reading: read(false),
    wholeReading: read(true),
    earlier,
  }
}

/** The travel zone of a place at the client's; nothing elsewhere. @throws Refused where one must be chosen */
function travelTo(
  practice: Practice,
  service: Service,
  id: string,
  travel: string | undefined,
): TravelZone | undefined {
  if (!service.places.includes(id)) {
    throw new Refused(422, 'unknown-place', `${service.name} does not take place there.`, { where: 'place' })
  }
  const place = placeOf(practice, id)
  if (place?.kind !== 'client' || !place.travel?.length) return undefined
  const found = travelZoneOf(place, travel)
  if (!found) {
    throw new Refused(
      422,
      'travel',
      'Please say where I should come. Farther than that, write me a message.',
      {
        where: 'travel',
      },
    )
  }
  return found
}

/** The extras of a service that are wanted, in the service's order. */
export const extrasOf = (service: Service, wanted: readonly string[] | undefined): string[] =>
  (service.extras ?? []).map((one) => one.id).filter((one) => wanted?.includes(one))

/** The practitioner's own quote by whose link one has come. @throws Refused when it no longer stands */
function quoteFor(store: Store, wanted: Wanted, now: Instant): FoundQuote | undefined {
  const quote = wanted.quote === undefined ? undefined : store.quotes.behind(wanted.quote)
  if (!quote || quote.service !== wanted.service) return undefined
  if (quote.booking)
    throw new Refused(
      409,
      'quote-used',
      'This has been booked already. The mail about it has the link to your booking.',
    )
  if (quote.until < now)
    throw new Refused(
      409,
      'quote-over',
      'This quote no longer stands. Please write to me, and I will send you a new one.',
    )
  return quote
}

/** What a quote of the practitioner's wants: it has been read and reckoned when it was sent. */
function quoted(
  practice: Practice,
  service: Service,
  quote: FoundQuote,
  travel: TravelZone | undefined,
): Understood {
  return {
    practice,
    service: travelled(service, travel),
    answers: quote.answers,
    extras: quote.extras,
    travel,
    code: practice.codes?.find((one) => one.id === quote.code),
    quote,
    reading: quote.reading,
    wholeReading: quote.reading,
    earlier: [],
  }
}

/** The price code that was typed. @throws Refused when it can't be used */
function codeFor(
  store: Store,
  wanted: Wanted,
  person: KnownPerson | undefined,
  unsaid: boolean,
  now: Instant,
): PriceCode | undefined {
  if (!wanted.code?.trim()) return undefined
  const found = readCode(store, wanted, person, unsaid, now)
  if (typeof found === 'string') throw new Refused(422, 'code', found, { where: 'code' })
  return found
}

/** The price code that was typed, or why it can't be used. */
export function readCode(
  store: Store,
  wanted: Pick<Wanted, 'service' | 'code'>,
  person: KnownPerson | undefined,
  unsaid: boolean,
  now: Instant,
): PriceCode | string {
  const { practice } = published(store)
  return findCode(practice, wanted.code ?? '', {
    service: wanted.service,
    today: dateAt(zone(practice.profile.zone), now),
    person: person?.id,
    unsaid: unsaid && !person,
    used: usesIn(store.bookings(), now),
  })
}

/** Private answers come with the request alone; until then they are not missed. */
const withoutPrivate = (questions: readonly Question[]): Question[] =>
  questions.map((one) => (one.private ? { ...one, required: false } : one))

/** Private answers that have come as they are, though they could have been sealed. */
const unsealed = (questions: readonly Question[], answers: Answers): AnswerProblem[] =>
  questions
    .filter((one) => one.private && answers[one.id] !== undefined && !isSealed(answers[one.id]))
    .map((one) => ({
      question: one.id,
      message: 'Please open this page anew: this answer must come sealed.',
    }))

/** Files that are answered with but have not arrived from this visit. */
function missingFiles(
  store: Store,
  visit: string,
  questions: readonly Question[],
  answers: Answers,
): AnswerProblem[] {
  return questions.flatMap(({ id }) => {
    const answer = answers[id]
    if (!isAttached(answer)) return []
    const file = store.files.get(answer.file)
    const same = file?.visit === visit && file.type === answer.type && file.data.length === answer.size
    return same ? [] : [{ question: id, message: 'This file has not arrived. Please choose it once more.' }]
  })
}

/** As `understand`, for those who may go on to the times. @throws Refused when the way ends before */
export function understandOpen(
  store: Store,
  wanted: Wanted & { place: string; person?: { email: string } },
  now: Instant,
): Understood {
  const understood = understand(store, wanted, now)
  if (understood.quote) return understood
  if (understood.reading.outcome === 'closed') {
    throw new Refused(
      409,
      'closed',
      understood.reading.kind?.message || 'With these answers I can not offer you a time.',
    )
  }
  if (understood.reading.enquiryInstead) {
    throw new Refused(
      409,
      'enquiry-instead',
      'This is more than I book without talking first. Please write me a message.',
    )
  }
  return understood
}

/** The question about openings that follows from what is wanted. */
export const askFor = (u: Understood, place: string, asker: Asker, now: Instant): Ask => ({
  service: u.service,
  place,
  minutes: u.reading.quote.minutes,
  asker,
  now,
})

/** Tells which starts cost less, because they keep the day whole; none where that is not rewarded. */
export function costsLess(u: Understood, diary: Diary, ask: Ask): (start: Instant) => boolean {
  const lower = u.wholeReading.quote.price < u.reading.quote.price
  return lower ? keepsWhole(u.practice, diary, ask) : () => false
}

/** Whether a service is at the door; for whoever has had it, it stays so when it has been taken off. */
export const isOffered = (store: Store, service: Service, now: Instant, key: string | undefined): boolean => {
  const { profile } = published(store).practice
  return (
    offeredOn(service, dateAt(zone(profile.zone), now)) ||
    hasBooked(store, service, key) ||
    hasQuote(store, service, key)
  )
}

/** Whether somebody may see a service at the door: it is for everyone, or they came by its link. */
export const mayBeSeen = (store: Store, service: Service, key: string | undefined): boolean =>
  service.bookableBy === 'everyone' ||
  hasLink(store, service, key) ||
  (store.visitor?.invited.includes(service.id) ?? false)
