import { type Booking, type Circumstances, holdUntil, type Mark, wordNeeded } from '../booking/index.ts'
import { why } from '../openings/index.ts'
import { placeOf, serviceOf, serviceOrTrace, travelled, travelZoneOf, zoneOf } from '../practice/index.ts'
import { byPractitioner, personBehind } from '../request/index.ts'
import { dateAt, type Instant } from '../time/index.ts'
import { type House, published } from './house.ts'
import { askToMove, placesToMove } from './moving.ts'

/** What `decide` may look at for a booking. */
export function circumstances(house: House, booking: Booking, now: Instant): Circumstances {
  const { practice, people, salt } = published(house)
  const { asked } = booking
  return {
    now,
    zone: zoneOf(practice, placeOf(practice, booking.place)),
    closuresOf: ({ start, place }, minutes = booking.minutes, wanted = booking.service) => {
      const service = serviceOrTrace(practice, { service: wanted, place, minutes })
      const ask = {
        service: travelled(service, travelZoneOf(placeOf(practice, place), asked.travel)),
        place,
        minutes,
        asker: byPractitioner,
        now,
      }
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
    offersUntil: (starts) => {
      const first = starts.reduce((a, b) => (a.start <= b.start ? a : b))
      return holdUntil(practice.answering, now, first.start, zoneOf(practice, placeOf(practice, first.place)))
    },
    proving: () => {
      const person = personBehind({ people, salt }, asked.person.email)
      const service = serviceOf(practice, booking.service)
      const invited = person?.invited.includes(booking.service) ?? false
      const marks: Mark[] = []
      if (person?.blocked) marks.push('blocked')
      if (service?.bookableBy === 'invited' && !invited) marks.push('not-invited')
      const straight =
        service !== undefined &&
        wordNeeded(service, person?.standing ?? 'new', asked.reading, marks) === undefined
      const there = zoneOf(practice, placeOf(practice, booking.place))
      return { until: holdUntil(practice.answering, now, booking.start, there), straight, marks }
    },
  }
}
