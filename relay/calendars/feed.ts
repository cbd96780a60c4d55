import { bookingEntries, takes } from '@acolhida/core/booking'
import { freeBusy } from '@acolhida/core/formats'
import { placeOf, serviceOf } from '@acolhida/core/practice'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, type Instant, MINUTE, shift } from '@acolhida/core/time'
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import { published } from '../door/circumstances.ts'
import { Refused } from '../refused.ts'
import { type Store, token } from '../store/store.ts'

/** How far back and ahead the feed reaches. */
const BACK = 60 * DAY
const AHEAD = 400 * DAY

/** A new address for the private feed; the one before leads nowhere from now on. */
export function newFeed(store: Store): string {
  const secret = token()
  store.act(() => store.set('feed', sha256Hex(secret)))
  return secret
}

function check(store: Store, secret: string): void {
  if (store.setting('feed') !== sha256Hex(secret))
    throw new Refused(404, 'unknown-feed', 'There is no calendar at this address.')
}

/** The practitioner's bookings as a calendar to subscribe to. */
export function feed(store: Store, secret: string, now: Instant): string {
  check(store, secret)
  const { practice } = published(store)
  const calendar = ical({
    prodId: { company: 'acolhida', product: 'acolhida', language: 'EN' },
    name: practice.profile.name,
    method: ICalCalendarMethod.PUBLISH,
  })
  for (const booking of store.bookings()) {
    const { kind, starts } = takes(booking, now)
    if (booking.start < now - BACK || booking.start > now + AHEAD || starts.length === 0) continue
    const held = kind === 'hold'
    const { person, service, minutes } = booking.asked
    calendar.createEvent({
      id: `${booking.id}@${practice.profile.slug}.acolhida`,
      sequence: booking.seq,
      stamp: new Date(now),
      start: new Date(booking.start),
      end: new Date(booking.start + minutes * MINUTE),
      summary: `${person.name}, ${serviceOf(practice, service)?.name ?? ''}${held ? ' (held)' : ''}`,
      location: placeOf(practice, booking.place)?.name ?? '',
      status: held ? ICalEventStatus.TENTATIVE : ICalEventStatus.CONFIRMED,
    })
  }
  return calendar.toString()
}

/** When the practitioner is busy, for those who need no more. */
export function feedFreeBusy(store: Store, secret: string, now: Instant): string {
  check(store, secret)
  const { practice, sessions } = published(store)
  const entries = [
    ...sessions,
    ...bookingEntries(practice, store.bookings(), now),
    ...store.calendars().flatMap((one) => one.entries),
  ]
  return freeBusy(practice.profile.slug, entries, now, shift(now, AHEAD), now)
}
