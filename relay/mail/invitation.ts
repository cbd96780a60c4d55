import { addressTold, type Booking } from '@acolhida/core/booking'
import { uidOf } from '@acolhida/core/formats/calendars'
import { type Practice, placeOf, serviceOf } from '@acolhida/core/practice'
import { type Instant, MINUTE } from '@acolhida/core/time'
import ical, {
  ICalAttendeeRole,
  ICalAttendeeStatus,
  ICalCalendarMethod,
  ICalEventStatus,
} from 'ical-generator'

/** A text in a parameter, where nothing can be escaped by a backslash (RFC 5545, §3.2; RFC 6868). */
const paramText = (text: string): string =>
  text
    .replaceAll('^', '^^')
    .replaceAll(/\r\n|[\r\n]/g, '^n')
    .replaceAll('"', "^'")

/**
 * The calendar entry that goes with a confirmation or a cancellation (RFC 5545, RFC 5546). Its UID stays the
 * same for the life of a booking; SEQUENCE rises with each revision.
 * @param link the private link, where everything about it is
 */
export function invitation(
  practice: Practice,
  booking: Booking,
  method: 'REQUEST' | 'CANCEL',
  now: Instant,
  link?: string,
): string {
  const { profile } = practice
  const { minutes } = booking
  const { person } = booking.asked
  const place = placeOf(practice, booking.place)
  const address = addressTold(practice, booking, now)
  const told = [place?.name, address].filter(Boolean).join(', ')
  const calendar = ical({
    prodId: { company: 'acolhida', product: 'acolhida', language: 'EN' },
    method: method === 'REQUEST' ? ICalCalendarMethod.REQUEST : ICalCalendarMethod.CANCEL,
  })
  calendar.createEvent({
    id: uidOf(practice, booking),
    sequence: booking.sequence,
    stamp: new Date(now),
    start: new Date(booking.start),
    end: new Date(booking.start + minutes * MINUTE),
    summary: `${serviceOf(practice, booking.service)?.name ?? 'Session'} with ${profile.name}`,
    ...(told ? { location: told } : {}),
    ...(link ? { url: link, description: { plain: link } } : {}),
    status: method === 'REQUEST' ? ICalEventStatus.CONFIRMED : ICalEventStatus.CANCELLED,
    organizer: { name: paramText(profile.name), email: profile.email },
    attendees: [
      {
        name: paramText(person.name),
        email: person.email,
        role: ICalAttendeeRole.REQ,
        status: ICalAttendeeStatus.ACCEPTED,
        rsvp: false,
      },
    ],
  })
  return `${calendar.toString().replace(/[\r\n]+$/, '')}\r\n`
}
