import type { Practice } from '../practice/types.ts'
import {
  DAY,
  type DayNumber,
  dayNumber,
  type Instant,
  instant,
  type LocalDate,
  MINUTE,
  minutesOf,
  ownsItsTimes,
} from '../time/index.ts'
import { type Ask, allows, blocksOn, type Frame, frame } from './ask.ts'
import type { Diary } from './diary.ts'
import { type Forbidden, forbiddenStarts } from './forbidden.ts'
import { closuresIn } from './why.ts'

/**
 * The open starts of a service on `days` dates from `from` on (dates of the place's zone), ascending.
 *
 * It gives exactly the starts for which `why` names no closure, but never looks at a closed start twice: the
 * diary is turned into ruled-out intervals once, and each block of hours is swept beside them.
 */
export function openStarts(
  practice: Practice,
  diary: Diary,
  ask: Ask,
  from: LocalDate,
  days: number,
): Instant[] {
  const f = frame(practice, ask)
  if (closedToPerson(f)) return []
  const { between } = f.asker
  const begins = dayNumber(between?.from !== undefined && between.from > from ? between.from : from)
  const last = dayNumber(from) + days - 1
  const ends = between?.to === undefined ? last : Math.min(last, dayNumber(between.to))
  if (begins > ends) return []
  return startsFrom(f, diary, begins, ends - begins + 1)
}

function startsFrom(f: Frame, diary: Diary, first: DayNumber, days: number): Instant[] {
  const begin = f.zone.toInstant(first, 0)
  const end = f.zone.toInstant((first + days) as DayNumber, 0)
  const found = joinable(f, diary, begin, end)
  if (!(f.service.seats > 1 && f.service.groupAt === 'dates')) {
    sweep(f, diary, forbiddenStarts(f, diary, begin, end), first, days, found)
  }
  return ascending(found) ? found : [...new Set(found)].sort((a, b) => a - b)
}

/** Blocks that overlap, or come in another order than the clock, are rare; sorting would cost more than the sweep. */
function ascending(starts: readonly Instant[]): boolean {
  for (let i = 1; i < starts.length; i++) if (starts[i]! <= starts[i - 1]!) return false
  return true
}

const closedToPerson = (f: Frame): boolean =>
  f.asker.who === 'client' &&
  (f.asker.blocked || (f.service.bookableBy !== 'everyone' && !f.asker.invited.includes(f.service.id)))

/** Starts of group sessions of this service that still have a seat; few, so each is asked by itself. */
function joinable(f: Frame, diary: Diary, begin: number, end: number): Instant[] {
  if (f.service.seats < 2) return []
  return diary.entries
    .filter((e) => e.service === f.service.id && e.place === f.place && e.start >= begin && e.start < end)
    .map((e) => e.start)
    .filter((start) => closuresIn(f, diary, start).length === 0)
}

/** Which dates of the practice still take a session; undefined when nothing is limited. */
function limitOpen(f: Frame, diary: Diary): ((day: DayNumber) => boolean) | undefined {
  const { service, practice } = f
  const { limits } = practice
  if (!(service.perDay ?? service.perWeek ?? limits.perDay ?? limits.perWeek)) return undefined
  const known = new Map<DayNumber, boolean>()
  const below = (span: 'day' | 'week', limit: number | undefined, day: DayNumber, of?: string): boolean =>
    !limit || diary.count(span, day, of) < limit
  const judge = (day: DayNumber): boolean =>
    below('day', service.perDay, day, service.id) &&
    below('day', limits.perDay, day) &&
    below('week', service.perWeek, day, service.id) &&
    below('week', limits.perWeek, day)
  return (day) => {
    let open = known.get(day)
    if (open === undefined) {
      open = judge(day)
      known.set(day, open)
    }
    return open
  }
}

function sweep(
  f: Frame,
  diary: Diary,
  forbidden: Forbidden,
  first: number,
  days: number,
  found: Instant[],
): void {
  const { service } = f
  const earliest = service.earliestStart ? minutesOf(service.earliestStart) : undefined
  const latest = service.latestStart ? minutesOf(service.latestStart) : undefined
  const lower = Math.max(f.now, f.noticeFrom)
  // Starts are on dates of the practice up to and including the last one.
  const upper = f.home.toInstant((dayNumber(f.lastDate) + 1) as DayNumber, 0) - 1
  const insideBefore = service.clearInsideHours ? service.clearBefore * MINUTE : 0
  const insideAfter = service.clearInsideHours ? service.clearAfter * MINUTE : 0
  const limit = limitOpen(f, diary)
  const sameDates = f.home === f.zone
  const fixed = service.starts.kind === 'fixed' ? service.starts.times.map(minutesOf) : undefined
  const step = service.starts.kind === 'every' ? service.starts.minutes * MINUTE : 0
  const usable = service.tidy ? f.practice.shortestUsable * MINUTE : 0
  const { lows, highs, count } = forbidden
  // The interval that ends last before the start looked at, or holds it.
  let p = 0
  let blockFrom = 0
  let blockLast = 0
  let today = first
  // Some wall time of the date may be a moment of another: then it belongs to that one.
  let odd = false

  /** Takes an open start in; of a ruled-out one, gives where its interval ends. */
  const look = (s: number): number => {
    if (odd && f.zone.toWall(instant(s)).day !== today) return 0
    while (p < count && highs[p]! <= s) p++
    if (p < count && lows[p]! < s) return highs[p]!
    if (limit && !sameDates && !limit(f.home.toWall(instant(s)).day)) return 0
    if (usable) {
      const left = s - (p > 0 && highs[p - 1]! > blockFrom ? highs[p - 1]! : blockFrom)
      const right = (p < count && lows[p]! < blockLast ? lows[p]! : blockLast) - s
      if ((left > 0 && left < usable) || (right > 0 && right < usable)) return 0
    }
    found.push(instant(s))
    return 0
  }

  const lastDay = Math.min(first + days - 1, Math.ceil(upper / DAY) + 1)
  for (let day = Math.max(first, Math.floor(lower / DAY) - 1) as DayNumber; day <= lastDay; day++) {
    today = day
    odd = !ownsItsTimes(f.zone, day)
    for (const { from, to, block } of blocksOn(f.hours, day)) {
      if (!allows(block, f)) continue
      const begin = f.zone.toInstant(day, from)
      blockFrom = begin + insideBefore
      blockLast = f.zone.toInstant(day, to) - insideAfter - f.length
      let low = Math.max(blockFrom, lower)
      let high = Math.min(blockLast, upper)
      if (earliest !== undefined) low = Math.max(low, f.zone.toInstant(day, earliest))
      if (latest !== undefined) high = Math.min(high, f.zone.toInstant(day, latest))
      if (low > high || (limit && sameDates && !limit(day))) continue
      // Blocks that overlap, or a clock set back, can take the sweep a little back.
      while (p > 0 && highs[p - 1]! > low) p--
      if (fixed) {
        for (const minutes of fixed) {
          const s = f.zone.toInstant(day, minutes)
          if (s < low || s > high) continue
          while (p > 0 && highs[p - 1]! > s) p--
          look(s)
        }
        continue
      }
      for (let s = begin + Math.ceil((low - begin) / step) * step; s <= high; ) {
        const jump = look(s)
        s = jump > s ? begin + Math.ceil((jump - begin) / step) * step : s + step
      }
    }
  }
}
