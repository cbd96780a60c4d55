import type { LocalDate } from '../time/index.ts'
import { blocksIn } from './hours-of-day.ts'
import { offeredOn } from './offered.ts'
import type { Practice } from './types.ts'

/** Something a door needs before it is opened. */
export type Missing = { what: 'headline' | 'hours' | 'service' } | { what: 'terms'; service: string }

/**
 * What a door still needs before somebody can ask for a time, or knows whom and what they agree to: a line about the
 * practitioner, hours, a service that is offered today, and terms of each such service.
 */
export function missingFor(practice: Practice, today: LocalDate): Missing[] {
  const offered = practice.services.filter((service) => offeredOn(service, today))
  const hours = [practice.hours, ...practice.places.flatMap((place) => place.hours ?? [])]
  const none = hours.every((one) => blocksIn(one).every(({ blocks }) => blocks.length === 0))
  return [
    ...(practice.profile.headline.trim() ? [] : [{ what: 'headline' as const }]),
    ...(none ? [{ what: 'hours' as const }] : []),
    ...(offered.length === 0 ? [{ what: 'service' as const }] : []),
    ...offered
      .filter(({ terms }) => terms.length === 0)
      .map(({ id }) => ({ what: 'terms' as const, service: id })),
  ]
}
