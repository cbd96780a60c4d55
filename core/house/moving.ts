import { type Booking, costOf, deadlinesIn, seenAt } from '../booking/index.ts'
import type { DoorOpenings, WantedMoves } from '../contract/types.ts'
import { type Ask, newClient, openStarts } from '../openings/index.ts'
import {
  type Place,
  type Practice,
  placeOf,
  serviceOrTrace,
  travelled,
  travelZoneOf,
  zoneOf,
} from '../practice/index.ts'
import { personBehind } from '../request/index.ts'
import { addDays, dateAt, dayNumber, type Instant, type Zone } from '../time/index.ts'
import { daysFor } from './days-on-path.ts'
import { type House, published } from './house.ts'

/** How far on one looks for more, where a page has none, in days. */
const LOOK_ON = 120

/** How one would ask for another time of a session, as its client: the rules that bind clients count, and no invitation. */
export function askToMove(house: House, booking: Booking, placeId: string, now: Instant): Ask {
  const { practice, people, salt } = published(house)
  const { service: id, minutes, asked } = booking
  const service = serviceOrTrace(practice, { service: id, place: placeId, minutes })
  const place: Place | undefined = placeOf(practice, placeId)
  return {
    service: {
      ...travelled(service, travelZoneOf(place, asked.travel)),
      bookableBy: 'everyone',
    },
    place: placeId,
    minutes,
    asker: {
      ...newClient,
      standing: personBehind({ people, salt }, asked.person.email)?.standing ?? 'new',
      invited: [id],
      ...(asked.path ? { between: daysFor({ house, changes: [], now }, asked.path, placeId) } : {}),
    },
    now,
  }
}

/** At which places a session can be, where it is moved by its client: its own, while the service still has it. */
export const placesToMove = (practice: Practice, { service, place, minutes }: Booking): string[] =>
  serviceOrTrace(practice, { service, place, minutes }).places.filter(
    (id) => placeOf(practice, id) !== undefined,
  )

/** The rules as dates for a session that its client has moved: cancelling costs no less than it would have before. */
function wouldHold(
  booking: Booking,
  start: Instant,
  zone: Zone,
  now: Instant,
): NonNullable<DoorOpenings['holds']> {
  const leastShare = Math.max(booking.leastShare ?? 0, costOf(booking, zone, now))
  const { plea: _, ...moved } = { ...booking, start, leastShare }
  const { deadlines, shareAfter, mine } = deadlinesIn(moved, zone)
  return { deadlines, shareAfter, ...(mine ? { mine } : {}) }
}

/** The open starts to which a client may move their session, from a date on. */
export function openingsToMove(
  house: House,
  booking: Booking,
  { from: wanted, days, place, start }: WantedMoves,
  now: Instant,
): DoorOpenings {
  const { practice } = published(house)
  const seen = seenAt(booking, now)
  const at = place && placesToMove(practice, seen).includes(place) ? place : seen.place
  const there = zoneOf(practice, placeOf(practice, at))
  const from = wanted ?? dateAt(there, now)
  const ask = askToMove(house, seen, at, now)
  const next = addDays(from, days)
  const open = (first: typeof from, many: number): Instant[] => {
    const to = there.toInstant(dayNumber(addDays(first, many)), 0)
    const begin = there.toInstant(dayNumber(first), 0)
    // Its own time is free for it, and no other time to move to.
    const diary = house.diary(begin, to, { booking: booking.id })
    return openStarts(practice, diary, ask, first, many).filter(
      (start) => start !== seen.start || at !== seen.place,
    )
  }
  const starts = open(from, days)
  return {
    starts,
    lower: [],
    near: [],
    seats: {},
    minutes: seen.minutes,
    ...(start === undefined ? {} : { holds: wouldHold(seen, start, there, now) }),
    ...(open(next, LOOK_ON).length > 0 ? { next } : {}),
    now,
  }
}
