import { type Booking, othersOf, type Reached, reachedAs } from '../booking/index.ts'
import type { Course } from './course.ts'

/**
 * Who reads what there is to do: whoever comes, where that is theirs to prepare; else who asked, or was given it.
 * @param booking the one it goes with
 */
export function readerOfCourse(
  { given: { person } }: { given: Pick<Course['given'], 'person'> },
  booking: Booking | undefined,
): Reached {
  const others = booking ? othersOf(booking) : (person.others ?? {})
  return reachedAs(person, others, others.comes?.agrees ? 'comes' : 'asks', 'email')
}

/** Whether what is to be agreed to and prepared is told to who comes, and so not to who asked. */
export const isToldToWhoComes = (booking: Booking): boolean =>
  readerOfCourse({ given: { person: booking.asked.person } }, booking).as === 'comes'
