import { apply, type Booking, begin, type Contact } from '@acolhida/core/booking'
import type { Practice, Service } from '@acolhida/core/practice'
import { linesFor, rulesFor } from '@acolhida/core/practice'
import { newcomer, readAnswers } from '@acolhida/core/questions'
import { DAY, HOUR, type Instant, type Language, shift, zone } from '@acolhida/core/time'

/** Who comes in an example. */
export const somebody = (practice: Practice, language: Language, zoneName?: string): Contact => ({
  name: 'Somebody New',
  email: 'somebody@example.org',
  phone: '+351 912 345 678',
  zone: zoneName ?? practice.profile.zone,
  language,
})

/** How far ahead an example lies, in days: far enough for everything that goes before it. */
const AHEAD = 15

/** A booking as it could be, of somebody new who has booked a service now: to show what they would be sent. */
export function exampleBooking(practice: Practice, service: Service, person: Contact, now: Instant): Booking {
  const there = zone(practice.profile.zone)
  const { day } = there.toWall(shift(now, AHEAD * DAY))
  const start = there.toInstant(day, 10 * 60)
  const at = shift(now, -HOUR)
  const reading = readAnswers(service, undefined, {}, newcomer)
  const payment = linesFor(service, 'new')
  const booking = begin('example', {
    type: 'asked',
    v: 2,
    at,
    service: service.id,
    place: service.places[0] ?? '',
    start,
    minutes: reading.quote.minutes,
    person,
    asking: newcomer,
    proof: 'link',
    answers: {},
    reading,
    attempts: [],
    agreements: [],
    houseRules: rulesFor(practice, service),
    currency: practice.profile.currency,
    until: shift(at, DAY),
    shown: '',
    ...(payment.length > 0 ? { payment } : {}),
  })
  return apply(booking, { type: 'welcomed', at: now, by: 'rules', settles: now })
}
