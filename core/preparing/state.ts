import { type Booking, isEnded, stateAt } from '../booking/index.ts'
import {
  type Practice,
  type PreparationMoments,
  placeOf,
  preparationDue,
  preparationOf,
  zoneOf,
} from '../practice/index.ts'
import {
  before,
  DAY,
  type Duration,
  type Instant,
  instant,
  MINUTE,
  shift,
  type Zone,
  zone,
} from '../time/index.ts'
import type { Course, HowFar, Station } from './course.ts'

/** How one thing stands at a moment. */
export interface StationState {
  station: Station
  /** By when; nothing where it hangs on a session that there is none of. */
  due?: Instant
  /** `gone`: the practice has it no more, and it need not be done. */
  is: 'open' | 'begun' | 'done' | 'overdue' | 'gone'
  progress: HowFar
}

/** How a course stands at a moment. */
export interface CourseState {
  /** Nothing of it need be done any more: it was ended, or its booking came to nothing. */
  over: boolean
  stations: StationState[]
  done: number
  /** How many there are that are still in the practice. */
  of: number
  /** The earliest moment by which something still open is due. */
  next?: Instant
}

/** Where dates of a course are reckoned: at the place of its session, else at home. */
const whereOf = (practice: Practice, booking: Booking | undefined): Zone =>
  booking ? zoneOf(practice, placeOf(practice, booking.place)) : zone(practice.profile.zone)

/** The moments a course hangs on. */
export const momentsOf = ({ given }: Course, booking: Booking | undefined): PreparationMoments => ({
  given: given.at,
  ...(booking ? { start: booking.start, end: shift(booking.start, booking.minutes * MINUTE) } : {}),
})

/** By when one thing of a course is to be done. */
export const dueOfStation = (
  practice: Practice,
  course: Course,
  { due }: Pick<Station, 'due'>,
  booking: Booking | undefined,
): Instant | undefined => preparationDue(due, momentsOf(course, booking), whereOf(practice, booking))

/**
 * The one telling of a course.
 * @param booking the one it goes with, as it stands
 */
export function courseAt(
  practice: Practice,
  course: Course,
  booking: Booking | undefined,
  now: Instant,
): CourseState {
  const { given, ended, progress } = course
  // A booking that is known no more was forgotten, and nobody has to do anything for it.
  const without = given.booking !== undefined && (!booking || isEnded(stateAt(booking, now)))
  const stations = given.stations.map((station): StationState => {
    const own = progress[station.id] ?? {}
    const due = dueOfStation(practice, course, station, booking)
    const told = { station, progress: own, ...(due === undefined ? {} : { due }) }
    if (own.done) return { ...told, is: 'done' }
    if (!preparationOf(practice, station.preparation)) return { ...told, is: 'gone' }
    if (due !== undefined && now > due) return { ...told, is: 'overdue' }
    return { ...told, is: own.filled && own.filled.answered > 0 ? 'begun' : 'open' }
  })
  const counting = stations.filter(({ is }) => is !== 'gone')
  const open = counting.filter(({ is }) => is !== 'done')
  const dues = open.flatMap(({ due }) => (due === undefined ? [] : [due]))
  return {
    over: ended !== undefined || without,
    stations,
    done: counting.length - open.length,
    of: counting.length,
    ...(dues.length > 0 ? { next: instant(Math.min(...dues)) } : {}),
  }
}

/** What is still to be done of a course. */
export const stillToDo = ({ over, stations }: CourseState): StationState[] =>
  over ? [] : stations.filter(({ is }) => is !== 'done' && is !== 'gone')

/** How far somebody is with a course: late, begun, or not begun; nothing where nothing is left to do. */
export function howFarWith(state: CourseState): 'overdue' | 'begun' | 'open' | undefined {
  const left = stillToDo(state)
  if (left.length === 0) return undefined
  if (left.some(({ is }) => is === 'overdue')) return 'overdue'
  return state.done > 0 || left.some(({ is }) => is === 'begun') ? 'begun' : 'open'
}

/** How long before something is due it is said once more, by itself. */
const SOON = 'P2D' as Duration
/** Nothing is said again so soon after it was given, or asked again. */
const LEAST_BETWEEN = DAY

/**
 * When it is said once more that something is due, if it is not done by then; and what that hangs on: the date itself,
 * so that a session moved is said anew. Nothing where it was said shortly before.
 */
export function remindedAt(
  practice: Practice,
  course: Course,
  booking: Booking | undefined,
): { at: Instant; anchor: Instant } | undefined {
  const { next } = courseAt(practice, course, booking, course.latest)
  if (next === undefined) return undefined
  const at = before(next, SOON, whereOf(practice, booking))
  const told = Math.max(course.given.at, course.chased ?? 0)
  return at < told + LEAST_BETWEEN ? undefined : { at, anchor: next }
}
