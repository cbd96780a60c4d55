import { awayTimes, type Diary, type Entry } from '../openings/index.ts'
import type { Practice } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import { groupOf } from './group-of.ts'
import type { InTheWay } from './sift-sessions.ts'

/** Everything between two moments that a session could lie in, with what it is called. */
export const inTheWay = (
  practice: Practice,
  { entries }: Diary,
  [from, to]: readonly [Instant, Instant],
  nameOf: (entry: Entry) => string,
): InTheWay[] => [
  // A date on which people come together is in nobody's way before somebody has come.
  ...entries.flatMap((entry): InTheWay[] => {
    const { start, end, service, place, seats, taken } = entry
    if (seats && !taken) return []
    const group = seats && service && place ? { group: groupOf(service, place, start) } : {}
    return [{ start, end, name: nameOf(entry), ...group }]
  }),
  ...awayTimes(practice, from, to).map((away) => ({ start: away.from, end: away.to, name: 'time away' })),
]
