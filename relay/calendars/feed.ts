import { bookingEntries } from '@acolhida/core/booking'
import { freeBusy } from '@acolhida/core/formats'
import { writeBookings, writeHoursFile } from '@acolhida/core/formats/calendars'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, type Instant, shift, zone } from '@acolhida/core/time'
import { published } from '../door/circumstances.ts'
import { Refused } from '../refused.ts'
import { type Store, token } from '../store/store.ts'

/** How far ahead busy times are told. */
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
  return writeBookings(published(store).practice, store.bookings(), now)
}

/** The practitioner's usual hours, for those who plan by them (RFC 7953). */
export function feedHours(store: Store, secret: string, now: Instant): string {
  check(store, secret)
  const { practice } = published(store)
  return writeHoursFile(practice, practice.hours, zone(practice.profile.zone), now)
}

/** When the practitioner is busy, for those who need no more. */
export function feedFreeBusy(store: Store, secret: string, now: Instant): string {
  check(store, secret)
  const { practice, sessions } = published(store)
  const entries = [
    ...sessions,
    ...bookingEntries(practice, store.bookings(), now),
    ...store.calendars.all().flatMap((one) => one.entries),
  ]
  return freeBusy(practice.profile.slug, entries, now, shift(now, AHEAD), now)
}
