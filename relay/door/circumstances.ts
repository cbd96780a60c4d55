import {
  type Booking,
  bookingEntries,
  type Circumstances,
  holdUntil,
  type Start,
} from '@acolhida/core/booking'
import type { DoorPackage } from '@acolhida/core/door'
import {
  type Asker,
  type Diary,
  entryFor,
  gatherGroups,
  makeDiary,
  newClient,
  why,
} from '@acolhida/core/openings'
import { type KnownPerson, mailHash } from '@acolhida/core/people'
import { placeOf, type Service, serviceOf, travelled, travelZoneOf, zoneOf } from '@acolhida/core/practice'
import { type Asking, newcomer } from '@acolhida/core/questions'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, type Instant, MINUTE } from '@acolhida/core/time'
import { Refused } from '../refused.ts'
import type { Store } from '../store/store.ts'

/** The published practice. @throws Refused before the desk has published anything */
export function published(store: Store): DoorPackage {
  const found = store.package
  if (!found) throw new Refused(404, 'no-door', 'There is no door here yet.')
  return found
}

/**
 * Everything that is taken at `now`, as the relay knows it.
 * @param but the visit or the booking whose own times are left out
 */
export function diaryAt(store: Store, now: Instant, but: { visit?: string; booking?: string } = {}): Diary {
  const { practice, sessions } = published(store)
  // Limits count by weeks; nothing older than that can bear on a start.
  const recent: Booking[] = []
  for (const booking of store.bookings()) {
    if (booking.id !== but.booking && booking.start > now - 15 * DAY) recent.push(booking)
  }
  const keeps = store
    .keepsAt(now)
    .filter((keep) => keep.visit !== but.visit)
    .map((keep) => entryFor(practice, { ...keep, id: `keep-${keep.visit}`, kind: 'hold' }))
  return makeDiary(
    practice,
    gatherGroups(practice, [
      ...sessions,
      ...bookingEntries(practice, recent, now),
      ...keeps,
      ...store.calendars.all().flatMap((calendar) => calendar.entries),
    ]),
  )
}

/** The person behind a mail address, as far as the relay has been told. */
export function knownBy(store: Store, email: string): KnownPerson | undefined {
  if (store.visitor) return store.visitor
  const { people, salt } = published(store)
  const hash = mailHash(email, salt)
  return people.find((person) => person.mailHashes.includes(hash))
}

/** Whether a key is that of a service's own link. */
const hasOwnLink = (service: Service, key: string | undefined): boolean =>
  key !== undefined && service.linkKey !== undefined && sha256Hex(service.linkKey) === sha256Hex(key)

/** Whether a key is the private link of somebody who has this service booked, or had it: they may book it again. */
export function hasBooked(store: Store, service: Service, key: string | undefined): boolean {
  const link = key === undefined ? undefined : store.link(key)
  const booking = link && store.booking(link.booking)
  return (
    booking !== undefined &&
    booking.asked.service === service.id &&
    ['booked', 'attended', 'missed'].includes(booking.status)
  )
}

/** Whether a key is that of a quote for this service: whoever was sent one may see and book it. */
export const hasQuote = (store: Store, service: Service, key: string | undefined): boolean =>
  key !== undefined && store.quotes.behind(key)?.service === service.id

/** Whether a key shows a service that is not for everyone. */
export const hasLink = (store: Store, service: Service, key: string | undefined): boolean =>
  hasOwnLink(service, key) || hasBooked(store, service, key) || hasQuote(store, service, key)

/**
 * Who comes, as far as that is known before they say so: in a trial it is settled, and the private link of a booking
 * tells whose it is.
 */
export function visitorOf(store: Store, key: string | undefined): KnownPerson | undefined {
  if (store.visitor) return store.visitor
  const link = key === undefined ? undefined : store.link(key)
  const booking = link && store.booking(link.booking)
  return booking && knownBy(store, booking.asked.person.email)
}

/** Who asks for a service, once they have said who they are. Its own link lets in whom nobody has invited. */
export function askerOf(
  store: Store,
  person: KnownPerson | undefined,
  service: Service,
  key: string | undefined,
): Asker {
  const asker: Asker = person
    ? { who: 'client', standing: person.standing, invited: person.invited, blocked: person.blocked }
    : newClient
  const linked =
    (service.bookableBy === 'link' && hasOwnLink(service, key)) ||
    hasBooked(store, service, key) ||
    hasQuote(store, service, key)
  return linked ? { ...asker, invited: [...asker.invited, service.id] } : asker
}

/**
 * Who looks at a service's openings before saying who they are. Where only invited people may book, its link shows
 * them all the same; whoever sends must be invited.
 */
export function lookerOf(store: Store, service: Service, key: string | undefined): Asker {
  if (store.visitor) return askerOf(store, store.visitor, service, key)
  return hasLink(store, service, key) ? { ...newClient, invited: [service.id] } : newClient
}

export const askingOf = (person: KnownPerson | undefined, service: string, attempts: number): Asking => ({
  ...newcomer,
  ...(person
    ? {
        standing: person.standing,
        invited: person.invited.includes(service),
        tags: person.tags ?? [],
      }
    : {}),
  attempts,
})

/** What `decide` may look at for a booking, as the relay sees it. */
export function circumstances(store: Store, booking: Booking, now: Instant): Circumstances {
  const { practice } = published(store)
  let diary: Diary | undefined
  return {
    now,
    zone: zoneOf(practice, placeOf(practice, booking.place)),
    closuresOf: (
      { start, place }: Start,
      minutes = booking.asked.minutes,
      wanted = booking.asked.service,
    ) => {
      diary ??= diaryAt(store, now, { booking: booking.id })
      const service = serviceOf(practice, wanted)
      if (!service) return [{ rule: 'person', because: 'blocked' }]
      const ask = {
        service: travelled(service, travelZoneOf(placeOf(practice, place), booking.asked.travel)),
        place,
        minutes,
        asker: { ...newClient, who: 'practitioner' as const },
        now,
      }
      return why(practice, diary, ask, start)
    },
    offersUntil: (starts) => {
      const first = starts.reduce((a, b) => (a.start <= b.start ? a : b))
      const zone = zoneOf(practice, placeOf(practice, first.place))
      return holdUntil(practice.answering, now, first.start, zone)
    },
  }
}

/** How long a picked start is kept, in ms; renewed once. */
export const KEEP = 10 * MINUTE
