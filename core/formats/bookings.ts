import ICAL from 'ical.js'
import { type Booking, takes } from '../booking/index.ts'
import { placeOf, serviceOf } from '../practice/find.ts'
import type { Practice } from '../practice/types.ts'
import { DAY, type Instant, MINUTE, shift } from '../time/index.ts'
import { newCalendar, utcTime, writeCalendar } from './icalendar.ts'

/** How far back and ahead bookings are written, in ms. */
const BACK = 60 * DAY
const AHEAD = 400 * DAY

/** The practitioner's bookings and holds as an iCalendar file, with the names of whoever comes. */
export function writeBookings(practice: Practice, bookings: Iterable<Booking>, now: Instant): string {
  const calendar = newCalendar('PUBLISH')
  calendar.updatePropertyWithValue('x-wr-calname', practice.profile.name)
  for (const booking of bookings) {
    const { kind, starts } = takes(booking, now)
    if (starts.length === 0 || booking.start < now - BACK || booking.start > now + AHEAD) continue
    const { person, service, minutes, address } = booking.asked
    const place = placeOf(practice, booking.place)
    const held = kind === 'hold'
    const event = new ICAL.Component('vevent')
    const say = (name: string, value: string | number | ICAL.Time): void => {
      event.updatePropertyWithValue(name, value)
    }
    say('uid', `${booking.id}@${practice.profile.slug}.acolhida`)
    say('sequence', booking.seq)
    say('dtstamp', utcTime(now))
    say('dtstart', utcTime(booking.start))
    say('dtend', utcTime(shift(booking.start, minutes * MINUTE)))
    say('summary', `${person.name}, ${serviceOf(practice, service)?.name ?? ''}${held ? ' (held)' : ''}`)
    say('location', [place?.name, address].filter(Boolean).join(', '))
    say('status', held ? 'TENTATIVE' : 'CONFIRMED')
    calendar.addSubcomponent(event)
  }
  return writeCalendar(calendar)
}
