import { type Booking, blockingMove, type Circumstances, holdUntil } from '../booking/index.ts'
import { invoiceOf } from '../ledger/index.ts'
import { type Ask, why } from '../openings/index.ts'
import {
  type Practice,
  placeOf,
  serviceOf,
  serviceOrTrace,
  travelled,
  travelZoneOf,
  zoneOf,
} from '../practice/index.ts'
import { byPractitioner, personBehind } from '../request/index.ts'
import { dateAt, type Instant } from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
import { type House, published } from './house.ts'
import { askToMove, placesToMove } from './moving.ts'
import { nextInvoice } from './numbered.ts'
import { marksAgainst, wordFor } from './standing.ts'

/** How the practitioner asks for another start of a booking: no rule binds them that they can set aside. */
export const askByHand = (
  practice: Practice,
  { service, asked }: Pick<Booking, 'service' | 'asked'>,
  { place, minutes }: { place: string; minutes: number },
  now: Instant,
): Ask => ({
  service: travelled(
    serviceOrTrace(practice, { service, place, minutes }),
    travelZoneOf(placeOf(practice, place), asked.travel),
  ),
  ...{ place, minutes, asker: byPractitioner, now },
})

/** What `decide` may look at for a booking. */
export function circumstances(house: House, booking: Booking, now: Instant): Circumstances {
  const { practice, people, salt } = published(house)
  const { asked } = booking
  /** Whether somebody was quicker, where its time was not held. */
  const isGone = (): boolean => {
    const service = serviceOrTrace(practice, booking)
    const { place, start, minutes } = booking
    const travels = travelled(service, travelZoneOf(placeOf(practice, place), asked.travel))
    const ask = { service: travels, place, minutes, asker: byPractitioner, now }
    return (
      blockingMove(why(practice, house.diary(start, start, { booking: booking.id }), ask, start), false)
        .length > 0
    )
  }
  return {
    now,
    zone: zoneOf(practice, placeOf(practice, booking.place)),
    ticks: serviceOf(practice, booking.service)?.before?.tick === true,
    closuresOf: ({ start, place }, minutes = booking.minutes, wanted = booking.service) => {
      const ask = askByHand(practice, { service: wanted, asked }, { place, minutes }, now)
      return why(practice, house.diary(start, start, { booking: booking.id }), ask, start)
    },
    closedToClient: ({ start, place }) => {
      if (!placesToMove(practice, booking).includes(place))
        return [
          {
            rule: 'hours',
            date: dateAt(zoneOf(practice, undefined), start),
            because: 'none',
            changed: false,
          },
        ]
      return why(
        practice,
        house.diary(start, start, { booking: booking.id }),
        askToMove(house, booking, place, now),
        start,
      )
    },
    heldFromNow: () => {
      const there = zoneOf(practice, placeOf(practice, booking.place))
      return holdUntil(practice.answering, now, booking.start, there)
    },
    offersUntil: (starts) => {
      const first = starts.reduce((a, b) => (a.start <= b.start ? a : b))
      return holdUntil(practice.answering, now, first.start, zoneOf(practice, placeOf(practice, first.place)))
    },
    invoice: () =>
      invoiceOf(booking, {
        service: serviceOf(practice, booking.service)?.name ?? 'Session',
        share: ({ status, share }) =>
          refusalWords(status === 'missed' ? 'invoice.missed' : 'invoice.share', { share }),
        mine: refusalWords('invoice.mine'),
      }),
    nextInvoice: () => nextInvoice(house),
    proving: () => {
      const person = personBehind({ people, salt }, asked.person.email)
      const service = serviceOf(practice, booking.service)
      const invited = person?.invited.includes(booking.service) ?? false
      const there = zoneOf(practice, placeOf(practice, booking.place))
      const until = holdUntil(practice.answering, now, booking.start, there)
      const { email } = asked.person
      if (!service) return { until, straight: false, marks: marksAgainst(house, email, now) }
      if (asked.unheld && isGone())
        return { until, straight: false, marks: [], no: refusalWords('taken-meanwhile') }
      const { word, marks } = wordFor(house, { service, reading: asked.reading, person, email }, now)
      // Whom the practitioner has blocked is told nothing; everybody else why it ends here.
      if (marks.includes('not-online') && !marks.includes('blocked'))
        return { until, straight: false, marks, no: refusalWords('not-online') }
      if (service.bookableBy === 'invited' && !invited)
        return { until, straight: false, marks: [...marks, 'not-invited'] }
      return { until, straight: word === undefined, marks }
    },
  }
}
