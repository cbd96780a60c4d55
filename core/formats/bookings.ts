import ICAL from 'ical.js'
import { type Booking, comesAndAsks, takes, whereAt } from '../booking/index.ts'
import { placeOf, serviceOf } from '../practice/find.ts'
import type { Practice } from '../practice/types.ts'
import { DAY, type Instant, MINUTE, shift } from '../time/index.ts'
import { newCalendar, utcTime, writeCalendar } from './icalendar.ts'

/** How far back and ahead bookings are written, in ms. */
const BACK = 60 * DAY
const AHEAD = 400 * DAY

/**
 * The UID of a booking's calendar entry (RFC 5545 §3.8.4.7). It is made from what never changes: whatever becomes of the
 * practice's name and address, a later revision or cancellation finds the entry it is about. Bookings asked for before
 * version 2 of the record, which knew of nothing shown, keep the UID under which their entries went out.
 */
export const uidOf = ({ id, profile }: Practice, booking: Booking): string =>
  `${booking.id}@${booking.asked.shown === '' ? profile.slug : id}.acolhida`

/** The practitioner's bookings and holds as an iCalendar file, with the names of whoever comes. */
export function writeBookings(practice: Practice, bookings: Iterable<Booking>, now: Instant): string {
  const calendar = newCalendar()
  calendar.updatePropertyWithValue('x-wr-calname', practice.profile.name)
  for (const booking of bookings) {
    const [taken] = takes(booking, now)
    if (!taken || booking.start < now - BACK || booking.start > now + AHEAD) continue
    const { service, minutes } = booking
    const place = placeOf(practice, booking.place)
    const held = taken.kind === 'hold'
    const event = new ICAL.Component('vevent')
    const say = (name: string, value: string | number | ICAL.Time): void => {
      event.updatePropertyWithValue(name, value)
    }
    say('uid', uidOf(practice, booking))
    say('sequence', booking.seq)
    say('dtstamp', utcTime(now))
    say('dtstart', utcTime(booking.start))
    say('dtend', utcTime(shift(booking.start, minutes * MINUTE)))
    say(
      'summary',
      `${comesAndAsks(booking)}, ${serviceOf(practice, service)?.name ?? ''}${held ? ' (held)' : ''}`,
    )
    const where = [place?.name, whereAt(practice, booking)].filter(Boolean).join(', ')
    if (where) say('location', where)
    say('status', held ? 'TENTATIVE' : 'CONFIRMED')
    calendar.addSubcomponent(event)
  }
  return writeCalendar(calendar)
}
