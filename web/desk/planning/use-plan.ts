import {
  MOST_PLANNED,
  type PlanEach,
  type PlanWish,
  planSessions,
  type Rhythm,
  type SessionPlan,
} from '@acolhida/core/planning'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import type { PathSession } from '@acolhida/core/preparing'
import { byPractitioner } from '@acolhida/core/request'
import { DAY, date, dayNumber, type LocalDate, shift, time } from '@acolhida/core/time'
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

/** What each session of a path is, for planning. */
function eachOf({ practice }: Desk, { path }: PlanForm): { each?: PlanEach[] } {
  if (!path) return {}
  return {
    each: path.sessions.map(({ service: id, minutes, least, most }) => {
      const service = serviceOf(practice, id)
      if (!service) throw new RangeError('A service of this path is gone from the practice.')
      return {
        ...{ service, minutes },
        ...(least === undefined ? {} : { least }),
        ...(most === undefined ? {} : { greatest: most }),
      }
    }),
  }
}

/** A plan as far as it can be made of what stands in the fields. */
export interface Made {
  wish?: PlanWish
  plan?: SessionPlan
  taken?: Taken
  /** What is still wanted of the fields. */
  problem?: string
}

/** How far beyond its last date a plan can reach, in ms. */
const BEYOND = 40 * DAY
const LONGEST: Record<Rhythm, number> = { week: 7, fortnight: 14, month: 31 }

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
  const begin = useMemo(() => {
    if (!form.first) return now
    return zoneOf(practice, placeOf(practice, form.place)).toInstant(dayNumber(form.first), 0)
  }, [practice, form.place, form.first, now])
  const many = Number.isInteger(form.count) ? Math.min(Math.max(form.count, 1), MOST_PLANNED) : 1
  // A pause on a path moves what comes after it.
  const pauses = form.path?.sessions.reduce((sum, { least = 0 }) => sum + least, 0) ?? 0
  const end = shift(begin, (many * LONGEST[form.rhythm] + pauses) * DAY + BEYOND)
  const taken = useTaken(desk, shift(begin, -BEYOND), end)
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
