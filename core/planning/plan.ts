import { type Asker, type Closure, type Diary, openStarts, why } from '../openings/index.ts'
import { type Practice, placeOf, type Service, zoneOf } from '../practice/index.ts'
import {
  addDays,
  type DayNumber,
  type Duration,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  localDate,
  MINUTE,
  minutesOf,
  type WallTime,
  weekStart,
  type Zone,
  zone,
} from '../time/index.ts'
import type { WaitingWindow } from '../waiting/types.ts'
import { liesIn } from '../waiting/windows.ts'
import { MOST_PLANNED, REACH, type Rhythm, rhythmDates } from './rhythm.ts'

/** Sessions to be planned at once. */
export interface PlanWish {
  service: Service
  place: string
  minutes: number
  asker: Asker
  now: Instant
  rhythm: Rhythm
  /** The date and the time of day of the first one, by the place's clock. */
  first: LocalDate
  time: WallTime
  /** How many; at most `MOST_PLANNED`. */
  count: number
  /** When they can come, by the place's clock: any of them will do; always where there is none. */
  windows?: readonly WaitingWindow[]
  /** Whole days that lie between two sessions at least, and at most: 1 is the day after. */
  least?: number
  greatest?: number
  /** Where sessions differ: of each one, in order, what it is and how far from the one before. */
  each?: readonly PlanEach[]
}

/** One session of a plan whose sessions differ. */
export interface PlanEach {
  service: Service
  minutes: number
  least?: number
  greatest?: number
}

/** What is wished for the kth session. */
export const wishFor = (wish: PlanWish, k: number): PlanWish => {
  const each = wish.each?.[k]
  return each ? { ...wish, service: each.service, minutes: each.minutes } : wish
}

/** One session of a plan. */
export interface PlannedSession {
  /** The date it was meant for, and the moment. */
  meant: LocalDate
  ideal: Instant
  /** Where it lies; nothing where there is no room for it. */
  start?: Instant
  /** How far that is from what was meant: in days, and in minutes of the time of day. */
  days: number
  minutes: number
  /** Why it is not where it was meant: they can't come then (`outside`); what closes that start; or the others, where neither. */
  outside?: boolean
  because: Closure[]
}

export interface SessionPlan {
  sessions: PlannedSession[]
  /** What its deviations come to; no other plan comes to less. */
  cost: number
}

/** What it costs, in minutes of the time of day, to go to another day, for each day; and to leave a session out. */
export const DAY_COST = 240
export const LEFT_OUT = 100_000

/** A day on which a session could lie, with its best start. */
interface Candidate {
  day: DayNumber
  start: Instant
  cost: number
  days: number
  minutes: number
}

/** What leads to a candidate at the least cost: the session before it, and how many of its week there are with it. */
interface Reached {
  cost: number
  before?: { k: number; c: number; n: number }
}

/**
 * Plans sessions after a rhythm: each as near as can be to its date and time of day, in order, as far apart as is wished
 * for, within hours, diary and limits. Notice, reach and the closing of weeks bind whoever books at the door and are not
 * looked at for the practitioner. What lies on a day is reckoned once; then the cheapest way through the days is found
 * (a shortest path, by dynamic programming), so no other plan deviates less.
 * @throws RangeError where the wish can't be meant: too many, or distances that exclude each other
 */
export function planSessions(practice: Practice, diary: Diary, wish: PlanWish): SessionPlan {
  const { count, least = 1, greatest } = wish
  if (!Number.isInteger(count) || count < 1 || count > MOST_PLANNED)
    throw new RangeError(`Between 1 and ${MOST_PLANNED} sessions can be planned at once, not ${count}.`)
  if (!(least >= 1) || (greatest !== undefined && greatest < least))
    throw new RangeError('The least distance is a day or more, and the greatest no smaller than the least.')
  const dates = datesOf(wish)
  const there = zoneOf(practice, placeOf(practice, wish.place))
  const free = freedom(practice, wish)
  const by = candidates(free.practice, diary, wish, there, dates)
  const room = weekRoom(practice, diary, servicesIn(wish))
  const found = cheapest(by, {
    least: (k) => wish.each?.[k]?.least ?? least,
    greatest: (k) => wish.each?.[k]?.greatest ?? greatest,
    room,
    weeks: weeksOf(practice, there),
  })
  return {
    cost: found.cost,
    sessions: dates.map((meant, k): PlannedSession => {
      const at = found.chosen[k]
      const moved = at === undefined || at.days !== 0 || at.minutes !== 0
      const ideal = there.toInstant(dayNumber(meant), minutesOf(wish.time))
      return {
        meant,
        ideal,
        ...(at ? { start: at.start } : {}),
        days: at?.days ?? 0,
        minutes: at?.minutes ?? 0,
        ...(moved && !canCome(wishFor(wish, k), ideal, there) ? { outside: true } : {}),
        because: moved ? why(free.practice, diary, freedom(practice, wishFor(wish, k)), ideal) : [],
      }
    }),
  }
}

/**
 * The dates that are meant: those of the rhythm, later by whole weeks where sessions must be further apart than that, as
 * after a pause. What comes after moves along.
 */
function datesOf({ rhythm, first, count, each }: PlanWish): LocalDate[] {
  let later = 0
  return rhythmDates(rhythm, first, count).map((date, k, all) => {
    const gap = k === 0 ? 0 : dayNumber(date) - dayNumber(all[k - 1]!)
    const more = k === 0 ? 0 : (each?.[k]?.least ?? 0) - gap
    if (more > 0) later += Math.ceil(more / 7) * 7
    return addDays(date, later)
  })
}

/** The last date up to which a plan can reach: so far the diary must be known. */
export const planEnd = (wish: Pick<PlanWish, 'rhythm' | 'first' | 'count' | 'each'>): LocalDate =>
  addDays(datesOf(wish as PlanWish).at(-1) ?? wish.first, 31)

/** What does not bind the practitioner, set aside for them. */
function freedom(practice: Practice, wish: PlanWish): PlanWish & { practice: Practice } {
  const { asker, service, now, first, count } = wish
  if (asker.who === 'client') return { ...wish, practice }
  const { weekCloses: _, ...open } = practice
  const today = dateAt(zone(practice.profile.zone), now)
  const from = Math.max(dayNumber(first), dayNumber(today))
  const far = Math.max(from + (count + 1) * 31, dayNumber(planEnd(wish)))
  return {
    ...wish,
    practice: open,
    service: {
      ...service,
      notice: 'PT0S' as Duration,
      reach: { kind: 'until', date: localDate(far as DayNumber) },
    },
  }
}

const canCome = ({ windows, minutes }: PlanWish, start: Instant, there: Zone): boolean =>
  !windows || windows.some((window) => liesIn(window, start, minutes, there))

/** For each session the days it could lie on, in order, each with the start that is nearest to the time of day meant. */
function candidates(
  practice: Practice,
  diary: Diary,
  wish: PlanWish,
  there: Zone,
  dates: readonly LocalDate[],
): Candidate[][] {
  const reach = REACH[wish.rhythm]
  const begin = dates[0]!
  const days = dayNumber(dates.at(-1)!) - dayNumber(begin) + reach.after + 1
  const clock = minutesOf(wish.time)
  const bestOf = (one: PlanWish): Map<DayNumber, { start: Instant; minutes: number }> => {
    const best = new Map<DayNumber, { start: Instant; minutes: number }>()
    for (const start of openStarts(practice, diary, one, begin, days)) {
      if (!canCome(one, start, there)) continue
      const { day, ms } = there.toWall(start)
      const minutes = Math.round(ms / MINUTE) - clock
      const known = best.get(day)
      if (!known || Math.abs(minutes) < Math.abs(known.minutes)) best.set(day, { start, minutes })
    }
    return best
  }
  // What is alike is reckoned once.
  const kinds = new Map<string, ReturnType<typeof bestOf>>()
  return dates.map((meant, k) => {
    const own = freedom(practice, wishFor(wish, k))
    const kind = `${own.service.id} ${own.minutes}`
    const best = kinds.get(kind) ?? bestOf(own)
    kinds.set(kind, best)
    const ideal = dayNumber(meant)
    const found: Candidate[] = []
    for (let day = (ideal - reach.before) as DayNumber; day <= ideal + reach.after; day++) {
      // Nothing is planned before the first date.
      const one = day < dayNumber(dates[0]!) ? undefined : best.get(day)
      if (!one) continue
      const off = day - ideal
      found.push({
        day,
        start: one.start,
        days: off,
        minutes: one.minutes,
        cost: Math.abs(off) * DAY_COST + Math.abs(one.minutes),
      })
    }
    return found
  })
}

/** How many sessions more a week takes, by the limits of service and practice. */
function weekRoom(
  practice: Practice,
  diary: Diary,
  services: readonly Service[],
): (day: DayNumber) => number {
  const { perWeek } = practice.limits
  const left = (limit: number | undefined, day: DayNumber, of?: string): number =>
    limit ? limit - diary.count('week', day, of) : Number.POSITIVE_INFINITY
  return (day) =>
    Math.min(left(perWeek, day), ...services.map((service) => left(service.perWeek, day, service.id)))
}

/** The week of the practice that a day of the place lies in. */
const weeksOf = (practice: Practice, there: Zone) => {
  const home = zone(practice.profile.zone)
  return ({ day, start }: Candidate): number =>
    weekStart(home === there ? day : home.toWall(start).day, practice.profile.weekStart)
}

/** The services that a plan has sessions of. */
const servicesIn = ({ service, each }: PlanWish): Service[] => [
  ...new Map((each ?? [{ service }]).map((one) => [one.service.id, one.service])).values(),
]

interface Bounds {
  /** Whole days between a session and the one before it. */
  least: (k: number) => number
  greatest: (k: number) => number | undefined
  room: (day: DayNumber) => number
  weeks: (candidate: Candidate) => number
}

/** The cheapest choice of one candidate for each session, or of none, within bounds. */
function cheapest(
  by: readonly Candidate[][],
  { least, greatest, room, weeks }: Bounds,
): { cost: number; chosen: (Candidate | undefined)[] } {
  // reached[k][c][n]: the least cost of a plan whose last session is k on candidate c, the nth of its week.
  const reached: Reached[][][] = []
  let end: { cost: number; at?: { k: number; c: number; n: number } } = { cost: by.length * LEFT_OUT }
  by.forEach((candidates, k) => {
    reached.push(
      candidates.map((candidate) => {
        const week = weeks(candidate)
        const space = room(week as DayNumber)
        const ways: Reached[] = []
        const way = (n: number, cost: number, before?: Reached['before']): void => {
          const known = ways[n]
          if (n <= space && (!known || cost < known.cost)) ways[n] = { cost, ...(before ? { before } : {}) }
        }
        way(1, k * LEFT_OUT + candidate.cost)
        for (let j = k - 1; j >= 0; j--) {
          const skipped = (k - 1 - j) * LEFT_OUT
          by[j]!.forEach((other, c) => {
            const apart = candidate.day - other.day
            const most = greatest(k)
            if (apart < least(k) || (most !== undefined && apart > most)) return
            const same = weeks(other) === week
            reached[j]![c]!.forEach(({ cost }, n) => {
              way(same ? n + 1 : 1, cost + skipped + candidate.cost, { k: j, c, n })
            })
          })
        }
        return ways
      }),
    )
    reached[k]!.forEach((ways, c) => {
      ways.forEach(({ cost }, n) => {
        const whole = cost + (by.length - 1 - k) * LEFT_OUT
        if (whole < end.cost) end = { cost: whole, at: { k, c, n } }
      })
    })
  })
  const chosen: (Candidate | undefined)[] = by.map(() => undefined)
  for (let at = end.at; at; at = reached[at.k]![at.c]![at.n]!.before) chosen[at.k] = by[at.k]![at.c]
  return { cost: end.cost, chosen }
}

/** The open starts of a day to which a planned session can be moved by hand, where it lies within the plan's year. */
export function startsOn(practice: Practice, diary: Diary, wish: PlanWish, day: LocalDate): Instant[] {
  const free = freedom(practice, wish)
  return openStarts(free.practice, diary, free, day, 1)
}
