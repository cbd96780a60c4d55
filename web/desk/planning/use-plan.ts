import {
  MOST_PLANNED,
  type PlanEach,
  type PlanWish,
  planEnd,
  planSessions,
  type Rhythm,
  type SessionPlan,
} from '@acolhida/core/planning'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { type PathSession, plannedAs } from '@acolhida/core/preparing'
import { byPractitioner } from '@acolhida/core/request'
import {
  DAY,
  date,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  shift,
  time,
  zone,
} from '@acolhida/core/time'
import type { WaitingWindow } from '@acolhida/core/waiting'
import { useMemo } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { type Taken, useTaken } from '../data/taken.ts'

/** What is wished for, as it stands in the fields. */
export interface PlanForm {
  service: string
  place: string
  minutes: number
  rhythm: Rhythm
  /** Nothing while it is no date. */
  first: LocalDate | ''
  time: string
  count: number
  least: number
  /** When they can come; at any time where there is none. */
  windows: WaitingWindow[]
  /** The sessions of a path that are planned, in place of service, length, number and distance. */
  path?: { course: string; name: string; sessions: readonly PathSession[] }
}

/** What each session of a path is, for planning. @throws RangeError */
function eachOf({ practice }: Desk, { path }: PlanForm): { each?: PlanEach[] } {
  if (!path) return {}
  const each = plannedAs(practice, path.sessions)
  if (!each) throw new RangeError('A service of this path is gone from the practice.')
  return { each }
}

/** A plan as far as it can be made of what stands in the fields. */
export interface Made {
  wish?: PlanWish
  plan?: SessionPlan
  taken?: Taken
  /** What is still wanted of the fields. */
  problem?: string
}

/** How far before and after its dates the diary counts, in ms: limits are of whole weeks. */
const BESIDE = 8 * DAY

/** The wish in the fields. @throws RangeError saying what is wanted */
function wishIn(desk: Desk, form: PlanForm, now: PlanWish['now']): PlanWish {
  const { practice } = desk
  const service = serviceOf(practice, form.service)
  if (!service) throw new RangeError('Please choose a service.')
  if (!form.first) throw new RangeError('Please give the day of the first session.')
  if (!(form.minutes >= 1)) throw new RangeError('Please give a length in minutes.')
  return {
    ...{ service, place: form.place, minutes: form.minutes, asker: byPractitioner, now },
    ...{ rhythm: form.rhythm, first: date(form.first), time: time(form.time), count: form.count },
    least: form.least,
    ...(form.windows.length > 0 ? { windows: form.windows } : {}),
    ...eachOf(desk, form),
  }
}

/** Plans as one types. What was moved by hand is no part of it. */
export function usePlan(desk: Desk, form: PlanForm): Made {
  const now = useMinute()
  const { practice } = desk
  const { from, to } = useMemo(() => {
    const first = form.first || dateAt(zone(practice.profile.zone), now)
    const there = zoneOf(practice, placeOf(practice, form.place))
    const count = Number.isInteger(form.count) ? Math.min(Math.max(form.count, 1), MOST_PLANNED) : 1
    const each = form.path && plannedAs(practice, form.path.sessions)
    const last = planEnd({ rhythm: form.rhythm, first: date(first), count, ...(each ? { each } : {}) })
    const at = (day: LocalDate): Instant => there.toInstant(dayNumber(day), 0)
    return { from: shift(at(date(first)), -BESIDE), to: shift(at(last), BESIDE) }
  }, [practice, form, now])
  const taken = useTaken(desk, from, to)
  return useMemo(() => {
    try {
      const wish = wishIn(desk, form, now)
      return { wish, ...(taken ? { taken, plan: planSessions(practice, taken.diary, wish) } : {}) }
    } catch (error) {
      if (error instanceof RangeError) return { problem: error.message }
      throw error
    }
  }, [desk, practice, form, taken, now])
}
