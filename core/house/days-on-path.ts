import type { Between } from '../openings/index.ts'
import { placeOf, zoneOf } from '../practice/index.ts'
import { balanceOf, daysOnPath, pathSessions } from '../preparing/index.ts'
import { type Instant, instant } from '../time/index.ts'
import { published } from './house.ts'
import { over } from './over.ts'
import type { Work } from './work.ts'

/**
 * From which day to which a session of a path may lie, by those beside it that have a time.
 * @param chosen where some of them are wished for just now
 */
export function daysFor(
  { house, changes }: Pick<Work, 'house' | 'changes'>,
  { course: id, session }: { course: string; session: string },
  place: string,
  chosen: ReadonlyMap<string, Instant> = new Map(),
): Between {
  const next = over(house, changes)
  const course = next.course(id)
  if (!course) return {}
  const { practice } = published(house)
  const planned = new Map(
    balanceOf(course, (one) => next.booking(one), instant(0)).sessions.flatMap((one) =>
      one.booking ? [[one.session.id, one.booking.start] as const] : [],
    ),
  )
  return daysOnPath(
    pathSessions(course),
    session,
    (one) => chosen.get(one) ?? planned.get(one),
    zoneOf(practice, placeOf(practice, place)),
  )
}
