import type { Between } from '../openings/index.ts'
import { placeOf, zoneOf } from '../practice/index.ts'
import { daysInCourse } from '../preparing/index.ts'
import type { Instant } from '../time/index.ts'
import { published } from './house.ts'
import { over } from './over.ts'
import type { Work } from './work.ts'

/**
 * From which day to which a session of a path may lie, by those beside it that have a time.
 * @param chosen where some of them are wished for just now
 */
export function daysFor(
  { house, changes, now }: Pick<Work, 'house' | 'changes' | 'now'>,
  { course: id, session }: { course: string; session: string },
  place: string,
  chosen?: ReadonlyMap<string, Instant>,
): Between {
  const next = over(house, changes)
  const course = next.course(id)
  if (!course) return {}
  const { practice } = published(house)
  const there = zoneOf(practice, placeOf(practice, place))
  return daysInCourse(course, session, (one) => next.booking(one), { now, there }, chosen)
}
