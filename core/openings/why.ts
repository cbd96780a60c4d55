import type { Practice, Service } from '../practice/types.ts'
import {
  before,
  type DayNumber,
  dateAt,
  type Instant,
  instant,
  localDate,
  MINUTE,
  minutesOf,
  type Zone,
} from '../time/index.ts'
import { type Ask, allows, blocksOn, type Frame, frame } from './ask.ts'
import type { Closure } from './closures.ts'
import type { Diary, Entry } from './diary.ts'
import { spaceNeeded } from './forbidden.ts'

/** Every closure of a start, in the order of `CLOSURE_RULES`; none when it is open. */
export const why = (practice: Practice, diary: Diary, ask: Ask, start: Instant): Closure[] =>
  closuresIn(frame(practice, ask), diary, start)

/** A block of hours at a date, as instants. */
interface Span {
  from: number
  to: number
}

/** As `why`, with the frame already made. */
export function closuresIn(f: Frame, diary: Diary, start: Instant): Closure[] {
  const end = instant(start + f.length)
  const there = groupAt(f, diary, start)
  const joining = there !== undefined && there.taken! < there.seats!
  const near = around(diary, start, end).filter((entry) => entry !== there)
  const byDate = f.service.seats > 1 && f.service.groupAt === 'dates'
  const closures: Closure[] = [...timing(f, start), ...awayAt(f, start, end)]
  if (!joining && !byDate) closures.push(...placing(f, start, end))
  closures.push(...meeting(f, near, start, end))
  if (!joining) closures.push(...limits(f, diary, start))
  if (there && !joining) closures.push({ rule: 'full', service: f.service.id, because: 'no-seat' })
  if (!there && byDate) closures.push({ rule: 'full', service: f.service.id, because: 'no-date' })
  if (there && byDate && missedLeast(f.service, there, f.zone, f.now)) {
    closures.push({ rule: 'full', service: f.service.id, because: 'too-few' })
  }
  if (!joining && !byDate && f.service.tidy) closures.push(...untidy(f, near, start, end))
  return [...closures, ...person(f, start)]
}

/** Whether a group date has missed its least number of people: it is called off, and nobody can join it any more. */
export const missedLeast = (
  { least }: Pick<Service, 'least'>,
  { start, taken }: Pick<Entry, 'start' | 'taken'>,
  where: Zone,
  now: Instant,
): boolean => least !== undefined && (taken ?? 0) < least.people && now > before(start, least.by, where)

/** The group session of this service at that very start, whose own overlap and limits do not count. */
const groupAt = (f: Frame, diary: Diary, start: Instant): Entry | undefined =>
  f.service.seats > 1
    ? diary.entries.find((e) => e.start === start && e.service === f.service.id && e.place === f.place)
    : undefined

/** Entries that can bear on a start: nothing keeps more than a day clear. */
function around(diary: Diary, start: Instant, end: Instant): Entry[] {
  const day = 24 * 60 * MINUTE
  return diary.entries.filter((entry) => entry.end > start - day * 2 && entry.start < end + day * 2)
}

function timing(f: Frame, start: Instant): Closure[] {
  const closures: Closure[] = []
  if (start < f.now) closures.push({ rule: 'past' })
  if (start < f.noticeFrom) {
    closures.push({ rule: 'notice', service: f.service.id, from: f.noticeFrom, week: f.weekClosed })
  }
  if (dateAt(f.home, start) > f.lastDate) {
    closures.push({ rule: 'reach', service: f.service.id, last: f.lastDate })
  }
  return closures
}

const awayAt = (f: Frame, start: Instant, end: Instant): Closure[] =>
  f.away
    .filter((away) => away.from < end && away.to > start)
    .map(({ id, note }) => ({ rule: 'away', away: id, ...(note ? { note } : {}) }))

/** The blocks of the start's date that hold the session, among all and among those that allow it. */
function containing(f: Frame, start: Instant, end: Instant): { all: Span[]; allowed: Span[]; any: boolean } {
  const { day } = f.zone.toWall(start)
  const all: Span[] = []
  const allowed: Span[] = []
  const blocks = blocksOn(f.hours, day)
  for (const { from, to, block } of blocks) {
    const span = { from: f.zone.toInstant(day, from), to: f.zone.toInstant(day, to) }
    if (start < span.from || end > span.to) continue
    all.push(span)
    if (allows(block, f)) allowed.push(span)
  }
  return { all, allowed, any: blocks.length > 0 }
}

const keepsClear = (f: Frame, span: Span, start: Instant, end: Instant): boolean =>
  start - f.service.clearBefore * MINUTE >= span.from && end + f.service.clearAfter * MINUTE <= span.to

function placing(f: Frame, start: Instant, end: Instant): Closure[] {
  const closures: Closure[] = []
  const { service } = f
  const { day } = f.zone.toWall(start)
  const { all, allowed, any } = containing(f, start, end)
  const inside = service.clearInsideHours
    ? allowed.filter((span) => keepsClear(f, span, start, end))
    : allowed
  if (inside.length === 0) {
    const because = !any ? 'none' : all.length === 0 ? 'outside' : allowed.length === 0 ? 'reserved' : 'clear'
    closures.push({ rule: 'hours', date: localDate(day), because, changed: f.hours.changed.has(day) })
  }
  if (!onGrid(f, inside.length > 0 ? inside : allowed, start, day)) {
    closures.push({ rule: 'grid', service: service.id })
  }
  if (service.earliestStart && start < f.zone.toInstant(day, minutesOf(service.earliestStart))) {
    closures.push({ rule: 'day-edge', service: service.id, edge: 'earliest' })
  }
  if (service.latestStart && start > f.zone.toInstant(day, minutesOf(service.latestStart))) {
    closures.push({ rule: 'day-edge', service: service.id, edge: 'latest' })
  }
  return closures
}

function onGrid(f: Frame, spans: Span[], start: Instant, day: DayNumber): boolean {
  const { starts } = f.service
  if (starts.kind === 'fixed') {
    return starts.times.some((time) => f.zone.toInstant(day, minutesOf(time)) === start)
  }
  const step = starts.minutes * MINUTE
  return spans.length === 0 || spans.some((span) => (start - span.from) % step === 0)
}

function meeting(f: Frame, near: readonly Entry[], start: Instant, end: Instant): Closure[] {
  const overlaps: Closure[] = []
  const clears: Closure[] = []
  for (const entry of near) {
    if (entry.start < end && entry.end > start) {
      overlaps.push({ rule: 'overlap', entry })
      continue
    }
    const earlier = entry.end <= start
    const needed = spaceNeeded(f, entry, earlier ? 'earlier' : 'later')
    const left = earlier ? start - entry.end : entry.start - end
    if (left < needed) {
      clears.push({
        rule: 'clear',
        entry,
        side: earlier ? 'before' : 'after',
        needed: needed / MINUTE,
        left: left / MINUTE,
      })
    }
  }
  return [...overlaps, ...clears]
}

function limits(f: Frame, diary: Diary, start: Instant): Closure[] {
  const { service, practice } = f
  const closures: Closure[] = []
  const { day } = f.home.toWall(start)
  const judge = (
    rule: 'day-limit' | 'week-limit',
    of: 'service' | 'practice',
    limit: number | undefined,
    count: () => number,
  ): void => {
    if (limit && count() >= limit) closures.push({ rule, of, service: service.id, limit })
  }
  judge('day-limit', 'service', service.perDay, () => diary.count('day', day, service.id))
  judge('day-limit', 'practice', practice.limits.perDay, () => diary.count('day', day))
  judge('week-limit', 'service', service.perWeek, () => diary.count('week', day, service.id))
  judge('week-limit', 'practice', practice.limits.perWeek, () => diary.count('week', day))
  return closures
}

/**
 * What stays free on either side of a start, in minutes, between it and the nearest thing after the space kept
 * clear: once for each containing block that allows it. Nothing where the start does not fit at all.
 */
function roomBeside(
  f: Frame,
  near: readonly Entry[],
  start: Instant,
  end: Instant,
): { before: number; after: number }[] {
  const { allowed } = containing(f, start, end)
  const fits =
    meeting(f, near, start, end).length === 0 && awayAt(f, start, end).length === 0 && allowed.length > 0
  if (!fits) return []
  const { service } = f
  let left = Number.POSITIVE_INFINITY
  let right = Number.POSITIVE_INFINITY
  for (const entry of near) {
    if (entry.end <= start) left = Math.min(left, start - entry.end - spaceNeeded(f, entry, 'earlier'))
    else right = Math.min(right, entry.start - end - spaceNeeded(f, entry, 'later'))
  }
  for (const away of f.away) {
    if (away.to <= start) left = Math.min(left, start - away.to)
    else right = Math.min(right, away.from - end)
  }
  const unit = service.clearInsideHours ? MINUTE : 0
  const step = service.starts.kind === 'every' ? service.starts.minutes * MINUTE : 0
  const inside = allowed.filter((span) => !service.clearInsideHours || keepsClear(f, span, start, end))
  // A start on the grid of some blocks is judged in those; one on no grid in all of them, as with fixed starts.
  const onGrid = inside.filter((span) => step === 0 || (start - span.from) % step === 0)
  return (onGrid.length > 0 ? onGrid : inside).map((span) => ({
    before: Math.min(left, start - span.from - service.clearBefore * unit) / MINUTE,
    after: Math.min(right, span.to - end - service.clearAfter * unit) / MINUTE,
  }))
}

/** What stays free must be nothing or usable, in the containing block that leaves it tidiest. */
function untidy(f: Frame, near: readonly Entry[], start: Instant, end: Instant): Closure[] {
  const tooShort = (left: number): boolean => left > 0 && left < f.practice.shortestUsable
  const judged = roomBeside(f, near, start, end).map((room) =>
    (['before', 'after'] as const)
      .filter((side) => tooShort(room[side]))
      .map((side): Closure => ({ rule: 'untidy', service: f.service.id, side, left: room[side] })),
  )
  return judged.sort((a, b) => a.length - b.length)[0] ?? []
}

/**
 * Whether a start keeps the day whole: on one side nothing stays free, and on the other nothing or enough to use,
 * so that free time is not cut in two.
 */
export function keepsWhole(practice: Practice, diary: Diary, ask: Ask): (start: Instant) => boolean {
  const f = frame(practice, ask)
  // Others come to the same session: nothing is kept whole for one of them.
  if (f.service.seats > 1) return () => false
  return (start) => {
    const end = instant(start + f.length)
    return roomBeside(f, around(diary, start, end), start, end).some(({ before, after }) => {
      const [less, more] = before < after ? [before, after] : [after, before]
      return less <= 0 && (more <= 0 || more >= f.practice.shortestUsable)
    })
  }
}

/** Whether a start lies where a session of somebody's path may. */
function liesBetween({ asker: { between = {} }, zone }: Frame, start: Instant): boolean {
  const day = dateAt(zone, start)
  return (
    (between.from === undefined || between.from <= day) && (between.to === undefined || day <= between.to)
  )
}

function person(f: Frame, start: Instant): Closure[] {
  const { between } = f.asker
  const outside = between !== undefined && !liesBetween(f, start)
  const onPath: Closure[] = outside ? [{ rule: 'person', because: 'path', ...between }] : []
  if (f.asker.who === 'practitioner') return onPath
  if (f.asker.blocked) return [{ rule: 'person', because: 'blocked' }]
  const { bookableBy, id } = f.service
  if (bookableBy === 'everyone' || f.asker.invited.includes(id)) return onPath
  return [...onPath, { rule: 'person', because: bookableBy === 'link' ? 'link-only' : 'invited-only' }]
}
