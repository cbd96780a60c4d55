import type { ClockNames, DoorService } from '@acolhida/core/contract'
import { isInPerson } from '@acolhida/core/practice'
import {
  type Clocks,
  clocksOf,
  dateAt,
  type Instant,
  longDate,
  MINUTE,
  moment,
  sameClock,
  shift,
  shortDate,
  span,
  timeAt,
  zone,
  zonePlace,
} from '@acolhida/core/time'
import { say } from './say.ts'

/** By whose clock the times of a service at a place are read. */
export const clocksAt = (place: DoorService['places'][number] | undefined, client: string): Clocks =>
  clocksOf(isInPerson(place), zone(place?.zone ?? client), zone(client))

export const clocksNamed = ({ first, also }: ClockNames): Clocks => ({
  first: zone(first),
  ...(also ? { also: zone(also) } : {}),
})

/** The other clock, where it shows something else at a moment. */
export const otherClock = ({ first, also }: Clocks, at: Instant): Clocks['also'] =>
  also && !sameClock(first, also, at) ? also : undefined

const named = (zoneName: string): string => say('zone.named', { place: zonePlace(zoneName) })

/** "Thu 3 Dec, 15:00 (Lisbon time)" */
export const momentAt = (at: Instant, { first }: Clocks): string =>
  `${moment(at, first)} ${named(first.name)}`

/** "Thu 3 Dec, 15:00": where the zone stands beside it already. */
export const startWords = (at: Instant, { first }: Clocks): string =>
  `${shortDate(dateAt(first, at))}, ${timeAt(first, at)}`

/** "Thursday 3 December, 15:00 – 16:15 (Lisbon time)" */
export const sessionAt = (start: Instant, minutes: number, { first }: Clocks): string =>
  `${longDate(dateAt(first, start))}, ${span(start, shift(start, minutes * MINUTE), first)} ${named(first.name)}`

/** "16:15 – 17:30 in Berlin": the same by the client's own clock, where it differs. */
export function besideIt(start: Instant, minutes: number, clocks: Clocks): string | undefined {
  const also = otherClock(clocks, start)
  return (
    also &&
    say('time.beside', {
      time: span(start, shift(start, minutes * MINUTE), also),
      place: zonePlace(also.name),
    })
  )
}
