import { freeBusy } from '@acolhida/core/formats'
import { writeBookings, writeHoursFile } from '@acolhida/core/formats/calendars'
import { type House, published } from '@acolhida/core/house'
import { DAY, type Instant, shift, zone } from '@acolhida/core/time'

/** How far ahead busy times are told. */
const AHEAD = 400 * DAY

/** The practitioner's bookings as a calendar to subscribe to. */
export const feed = (house: House, now: Instant): string =>
  writeBookings(published(house).practice, house.openBookings(), now)

/** The practitioner's usual hours, for those who plan by them (RFC 7953). */
export function feedHours(house: House, now: Instant): string {
  const { practice } = published(house)
  return writeHoursFile(practice, practice.hours, zone(practice.profile.zone), now)
}

/** When the practitioner is busy, for those who need no more. */
export function feedFreeBusy(house: House, now: Instant): string {
  const { practice } = published(house)
  const to = shift(now, AHEAD)
  return freeBusy(practice.profile.slug, house.diary(now, to).entries, now, to, now)
}
