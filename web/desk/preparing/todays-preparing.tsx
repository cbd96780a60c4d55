import { stillToDo } from '@acolhida/core/preparing'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { counted } from '../parts/words.ts'
import { stateOf, useOpenCourses } from './use-courses.ts'

/** Who is late with what they were to prepare, in a line. */
export function TodaysPreparing({ desk: { practice } }: { desk: Desk }) {
  const now = useMinute()
  const late = (useOpenCourses() ?? []).filter((given) =>
    stillToDo(stateOf(practice, given, now)).some(({ is }) => is === 'overdue'),
  )
  if (late.length === 0) return null
  const [first] = late
  return (
    <p className="note mt-5 bg-sun-soft text-sun-ink">
      {late.length === 1
        ? `${first!.row.course.given.person.name} has not done what they were to prepare.`
        : `${counted(late.length, 'person has', 'people have')} not done what they were to prepare.`}{' '}
      <Link className="way" to="/people/preparing">
        See who, and ask again
      </Link>
    </p>
  )
}
