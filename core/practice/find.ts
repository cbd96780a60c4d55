import type { Questionnaire } from '../questions/types.ts'
import type { TermsVersion } from '../terms/types.ts'
import { type Clocks, clocksOf, duration, type Zone, zone } from '../time/index.ts'
import type { Hours, Place, Practice, Service } from './types.ts'

export const serviceOf = (practice: Practice, id: string): Service | undefined =>
  practice.services.find((service) => service.id === id)

/**
 * The service of a session, or where that is gone from the practice, what stands for it: no rules of its own, and none
 * of what it kept clear. What is booked in a service that is gone still takes its time and can be moved.
 */
export const serviceOrTrace = (
  practice: Practice,
  { service: id, place, minutes }: { service: string; place: string; minutes: number },
): Service =>
  serviceOf(practice, id) ?? {
    id,
    name: id,
    description: '',
    minutes,
    lengthStep: 1,
    places: [place],
    price: { kind: 'free' },
    clearBefore: 0,
    clearAfter: 0,
    clearInsideHours: false,
    starts: { kind: 'every', minutes: 5 },
    notice: duration('PT0S'),
    reach: { kind: 'days', days: 365 },
    seats: 1,
    groupAt: 'any',
    groupDates: [],
    tidy: false,
    bookableBy: 'everyone',
    approval: { new: 'ask', known: 'ask' },
    terms: [],
    on: true,
    colour: 'leaf',
  }

/** Whether a service has something to tick before its sessions. */
export const ticksBefore = (practice: Practice, { service }: { service: string }): boolean =>
  serviceOf(practice, service)?.before?.tick === true

export const placeOf = (practice: Practice, id: string): Place | undefined =>
  practice.places.find((place) => place.id === id)

/** The zone a place keeps its hours in. */
export const zoneOf = (practice: Practice, place: Place | undefined): Zone =>
  zone(place?.zone ?? practice.profile.zone)

/** The hours that count at a place. */
export const hoursOf = (practice: Practice, place: Place | undefined): Hours => place?.hours ?? practice.hours

/** The questionnaire a service asks, in the version in force. */
export const questionnaireOf = (practice: Practice, service: Service): Questionnaire | undefined =>
  practice.questionnaires.find((questionnaire) => questionnaire.id === service.questionnaire)

/** The versions of terms in force for a service, in its order. */
export const termsInForce = (practice: Practice, service: Service): { id: string; version: TermsVersion }[] =>
  service.terms.flatMap((id) => {
    const version = practice.terms.find((terms) => terms.id === id)?.versions.at(-1)
    return version ? [{ id, version }] : []
  })

/** Whether both come to one place: then its clock counts. */
export const isInPerson = (place: Pick<Place, 'kind'> | undefined): boolean =>
  place !== undefined && place.kind !== 'video' && place.kind !== 'phone'

/** By whose clock a client reads the times of a session. */
export const clientClocks = (practice: Practice, placeId: string, client: string): Clocks => {
  const place = placeOf(practice, placeId)
  return clocksOf(isInPerson(place), zoneOf(practice, place), zone(client))
}
