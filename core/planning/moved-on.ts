import { type Practice, placeOf, zoneOf } from '../practice/index.ts'
import { addDays, dateAt, dayNumber, type Instant, minutesOf, type WallTime } from '../time/index.ts'

/**
 * Where sessions go that are moved together: by as many days each, to one time of day by the clock of its own place.
 * @param days whole days, below nothing to the past
 */
export const movedOn = (
  practice: Practice,
  sessions: readonly { place: string; start: Instant }[],
  days: number,
  time: WallTime,
): Instant[] =>
  sessions.map(({ place, start }) => {
    const there = zoneOf(practice, placeOf(practice, place))
    return there.toInstant(dayNumber(addDays(dateAt(there, start), days)), minutesOf(time))
  })
