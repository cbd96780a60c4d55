import type { Booking } from '../booking/index.ts'
import type { Between } from '../openings/ask.ts'
import { addDays, dateAt, type Instant, type LocalDate, type Zone } from '../time/index.ts'
import type { Course, PathSession } from './course.ts'
import { balanceOf, pathSessions } from './path.ts'

/** The least distance of a session to the one before it, in days: what nothing is said of may be on one day. */
const leastOf = ({ least = 0 }: PathSession): number => least

/**
 * From which day to which a session of a path may lie, so that its sessions come one after another, as far apart as was
 * agreed: by those before and after it that have a time. Those between that have none need their room, too.
 * @param startOf when one of the others is; nothing where it has no time
 */
export function daysOnPath(
  sessions: readonly PathSession[],
  id: string,
  startOf: (id: string) => Instant | undefined,
  there: Zone,
): Between {
  const at = sessions.findIndex((session) => session.id === id)
  const dateOf = (i: number): LocalDate | undefined => {
    const start = startOf(sessions[i]!.id)
    return start === undefined ? undefined : dateAt(there, start)
  }
  let from: LocalDate | undefined
  let to: LocalDate | undefined
  let apart = leastOf(sessions[at]!)
  for (let i = at - 1; i >= 0; i--) {
    const before = dateOf(i)
    if (before !== undefined) {
      from = addDays(before, apart)
      const { most } = sessions[at]!
      if (i === at - 1 && most !== undefined) to = addDays(before, most)
      break
    }
    apart += leastOf(sessions[i]!)
  }
  apart = 0
  for (let i = at + 1; i < sessions.length; i++) {
    apart += leastOf(sessions[i]!)
    const after = dateOf(i)
    if (after === undefined) continue
    const last = addDays(after, -apart)
    to = to === undefined || last < to ? last : to
    const { most } = sessions[i]!
    if (i === at + 1 && most !== undefined) {
      const first = addDays(after, -most)
      from = from === undefined || first > from ? first : from
    }
    break
  }
  return { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) }
}

/**
 * From which day to which a session of a path may lie, by those beside it that have a time.
 * @param bookingOf a booking by its id, as it stands
 * @param chosen where some of them are wished for just now
 */
export function daysInCourse(
  course: Course,
  session: string,
  bookingOf: (id: string) => Booking | undefined,
  { now, there }: { now: Instant; there: Zone },
  chosen: ReadonlyMap<string, Instant> = new Map(),
): Between {
  const planned = new Map(
    balanceOf(course, bookingOf, now).sessions.flatMap((one) =>
      one.booking ? [[one.session.id, one.booking.start] as const] : [],
    ),
  )
  return daysOnPath(pathSessions(course), session, (one) => chosen.get(one) ?? planned.get(one), there)
}
