import type { Asker, Diary } from '../openings/index.ts'
import { type Block, blocksOfDate, type Hours, type Practice } from '../practice/index.ts'
import {
  addDays,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  minutesOf,
  time,
  type WallTime,
  zone,
} from '../time/index.ts'
import { chooseAmong, type FillBy, whoCould } from './fill.ts'
import type { Waiting } from './types.ts'

/** A stretch of a day that is closed now, and how many of those who wait would have a time in it. */
export interface WorthOpening {
  date: LocalDate
  from: WallTime
  to: WallTime
  /** At how many different times, one each. */
  fit: number
  /** What these sessions are worth, in minor units. */
  value: number
}

/** The parts of a day that are looked at, by the practice's clock. */
const PARTS: readonly (readonly [WallTime, WallTime])[] = [
  [time('08:00'), time('12:00')],
  [time('13:00'), time('17:00')],
  [time('17:00'), time('21:00')],
]

/** What is shorter is not worth opening for, in minutes. */
const SHORTEST = 60

/** What of a part of the day lies in no block. */
function closedIn(
  [from, to]: readonly [WallTime, WallTime],
  blocks: readonly Block[],
): [WallTime, WallTime][] {
  let left: [WallTime, WallTime][] = [[from, to]]
  for (const block of blocks)
    left = left.flatMap(([a, b]): [WallTime, WallTime][] =>
      block.to <= a || block.from >= b
        ? [[a, b]]
        : [
            ...(block.from > a ? [[a, block.from] as [WallTime, WallTime]] : []),
            ...(block.to < b ? [[block.to, b] as [WallTime, WallTime]] : []),
          ],
    )
  return left.filter(([a, b]) => minutesOf(b) - minutesOf(a) >= SHORTEST)
}

/** Hours with one more block on one date. */
export function withBlock({ changedDays, ...hours }: Hours, date: LocalDate, block: Block): Hours {
  const blocks = [...blocksOfDate({ ...hours, changedDays }, date), block].sort(
    (a, b) => minutesOf(a.from) - minutesOf(b.from),
  )
  const others = changedDays.filter((day) => day.date !== date)
  const changed = { ...changedDays.find((day) => day.date === date), date, blocks }
  return { ...hours, changedDays: [...others, changed].sort((a, b) => (a.date < b.date ? -1 : 1)) }
}

/**
 * Which closed stretches of the coming days would give most of those who wait a time, were they opened; the best first.
 * Reckoned by the same rules as everything else, as if the hours were there already. Places with hours of their own keep
 * them.
 */
export function hoursWorthOpening(
  practice: Practice,
  diary: Diary,
  line: readonly Waiting[],
  { days, now, askerOf }: { days: number; now: Instant; askerOf?: (person: string) => Asker | undefined },
): WorthOpening[] {
  const home = zone(practice.profile.zone)
  const by: FillBy = { prefer: 'longest-wait', now, bare: true, ...(askerOf ? { askerOf } : {}) }
  const today = dateAt(home, now)
  const found: WorthOpening[] = []
  for (let i = 0; i < days; i++) {
    const date = addDays(today, i)
    const blocks = blocksOfDate(practice.hours, date)
    for (const [from, to] of PARTS.flatMap((part) => closedIn(part, blocks))) {
      const span = {
        from: home.toInstant(dayNumber(date), minutesOf(from)),
        to: home.toInstant(dayNumber(date), minutesOf(to)),
      }
      if (span.from <= now) continue
      const opened = { ...practice, hours: withBlock(practice.hours, date, { from, to }) }
      const { able } = whoCould(opened, diary, line, span, by)
      const { chosen, value } = chooseAmong(opened, able, by)
      if (chosen.length > 0) found.push({ date, from, to, fit: chosen.length, value })
    }
  }
  return found.sort((a, b) => b.fit - a.fit || b.value - a.value || (a.date < b.date ? -1 : 1))
}
