import {
  type Ask,
  type Entry,
  entryFor,
  gatherGroups,
  makeDiary,
  newClient,
  wellChosen,
} from '../openings/index.ts'
import { placeOf, serviceOf, travelled, travelZoneOf } from '../practice/index.ts'
import type { Practice } from '../practice/types.ts'
import type { Instant, LocalDate } from '../time/index.ts'
import { MOST_OFFERS } from './command.ts'
import type { Booking, Start } from './record.ts'

/** How many days are looked at for other times. */
const DAYS = 21

/**
 * Other times for each of some bookings, up to three each, of which no two are wanted by two people: those of the
 * first are taken when the next is looked at. Nothing for a group, and where nothing is open.
 * @param practice as it will be: with the time away in it
 * @param taken what is taken already, these bookings left out
 * @param from the first date that is looked at
 */
export function otherTimesFor(
  practice: Practice,
  taken: readonly Entry[],
  bookings: readonly Booking[],
  now: Instant,
  from: LocalDate,
): Map<string, Start[]> {
  const found = new Map<string, Start[]>()
  const entries = [...taken]
  for (const booking of bookings) {
    const own = serviceOf(practice, booking.service)
    if (!own || own.seats > 1) continue
    const { place, minutes, asked, service: id } = booking
    const service = travelled(own, travelZoneOf(placeOf(practice, place), asked.travel))
    // By the rules that bind clients, as somebody who has been let in.
    const asker: Ask['asker'] = { ...newClient, standing: 'known', invited: [id] }
    const ask: Ask = { service: { ...service, bookableBy: 'everyone' }, place, minutes, asker, now }
    const diary = makeDiary(practice, gatherGroups(practice, entries))
    const starts = wellChosen(practice, diary, ask, from, DAYS, MOST_OFFERS)
    if (starts.length === 0) continue
    found.set(
      booking.id,
      starts.map((start) => ({ start, place })),
    )
    for (const start of starts) {
      const hold = { kind: 'hold' as const, service: id, place, minutes, travel: asked.travel, start }
      entries.push(entryFor(practice, { ...hold, id: `${booking.id} ${start}` }))
    }
  }
  return found
}
