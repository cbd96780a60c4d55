import type { Wanted } from '@acolhida/core/door'
import { type Ask, type Asker, type Diary, keepsWhole } from '@acolhida/core/openings'
import type { KnownPerson } from '@acolhida/core/people'
import {
  offeredOn,
  type Practice,
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  type TravelZone,
  travelled,
  travelZoneOf,
} from '@acolhida/core/practice'
import { type Answers, asked, problemsIn, type Reading, readAnswers } from '@acolhida/core/questions'
import { canonicalJson } from '@acolhida/core/terms'
import { dateAt, type Instant, zone } from '@acolhida/core/time'
import { Refused } from '../refused.ts'
import type { Store } from '../store/store.ts'
import { askingOf, hasBooked, hasLink, published } from './circumstances.ts'

/** What a visit wants, by the rules in force. */
export interface Understood {
  practice: Practice
  service: Service
  /** The answers that count: of the questions that were asked. */
  answers: Answers
  extras: string[]
  travel: TravelZone | undefined
  reading: Reading
  /** What the answers come to at a start that keeps the day whole. */
  wholeReading: Reading
  /** Earlier attempts of the visit whose answers differ from these. */
  earlier: ReturnType<Store['attempts']>
}

/** The service wanted, if it may be. @throws Refused when there is none, or it is not offered now */
function wantedService(store: Store, { service: id, with: key }: Wanted, now: Instant): Service {
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
  wanted: Wanted & { place?: string },
  now: Instant,
  person: KnownPerson | undefined = store.visitor,
): Understood {
  const { practice } = published(store)
  const service = wantedService(store, wanted, now)
  const travel =
    wanted.place === undefined ? undefined : travelTo(practice, service, wanted.place, wanted.travel)
  const questionnaire = questionnaireOf(practice, service)
  const questions = questionnaire?.questions ?? []
  const all = store.attempts(wanted.visit).filter((one) => one.service === service.id)
  const asking = askingOf(person, service.id, 0)
  const { answers } = asked(questions, wanted.answers, asking)
  const same = canonicalJson(answers)
  const earlier = all.filter((one) => canonicalJson(one.answers) !== same)
  const here = { ...asking, attempts: earlier.length }
  const problems = problemsIn(questions, wanted.answers, here)
  if (problems.length > 0) {
    throw new Refused(422, 'answers', 'Some answers are missing or not as expected.', {
      where: 'answers',
      problems,
    })
  }
  const extras = (service.extras ?? []).map((one) => one.id).filter((one) => wanted.extras?.includes(one))
  const read = (whole: boolean): Reading =>
    readAnswers(service, questionnaire, answers, here, { extras, travel, whole })
  return {
    practice,
    service: travelled(service, travel),
    answers,
    extras,
    travel,
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

/** As `understand`, for those who may go on to the times. @throws Refused when the way ends before */
export function understandOpen(
  store: Store,
  wanted: Wanted & { place: string },
  now: Instant,
  person?: KnownPerson,
): Understood {
  const understood = understand(store, wanted, now, person)
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
  return offeredOn(service, dateAt(zone(profile.zone), now)) || hasBooked(store, service, key)
}

/** Whether somebody may see a service at the door: it is for everyone, or they came by its link. */
export const mayBeSeen = (store: Store, service: Service, key: string | undefined): boolean =>
  service.bookableBy === 'everyone' ||
  hasLink(store, service, key) ||
  (store.visitor?.invited.includes(service.id) ?? false)
