import type { Practice } from '../practice/types.ts'
import { type Instant, type LocalDate, MINUTE } from '../time/index.ts'
import { type Ask, frame } from './ask.ts'
import type { Diary } from './diary.ts'
import { spaceNeeded } from './forbidden.ts'
import { openStarts } from './open-starts.ts'

/** Parts of a day by the hour at which they begin. */
const PARTS = [0, 6, 12, 17]

/**
 * How tidy a start leaves its day, less being better: the minutes that stay free between it and the nearest
 * session on either side, after the space kept clear, counted only where they are too short to use.
 */
function waste(diary: Diary, f: ReturnType<typeof frame>, start: Instant): number {
  const end = start + f.length
  let before = Number.POSITIVE_INFINITY
  let after = Number.POSITIVE_INFINITY
  for (const entry of diary.entries) {
    if (entry.end <= start) before = Math.min(before, start - entry.end - spaceNeeded(f, entry, 'earlier'))
    else if (entry.start >= end) after = Math.min(after, entry.start - end - spaceNeeded(f, entry, 'later'))
  }
  const usable = f.practice.shortestUsable * MINUTE
  return [before, after].reduce((sum, gap) => sum + (gap < usable ? gap : 0), 0)
}

/**
 * A few well-chosen openings, at most `most`: the tidiest of one part of each day first, then of its other parts,
 * then the next of each, so that they spread over days and parts of day. The same input always gives the same choice, in order of time.
 */
export function wellChosen(
  practice: Practice,
  diary: Diary,
  ask: Ask,
  from: LocalDate,
  days: number,
  most: number,
): Instant[] {
  const starts = openStarts(practice, diary, ask, from, days)
  if (starts.length <= most) return starts
  const f = frame(practice, ask)
  const byDay = new Map<number, Map<number, { start: Instant; waste: number }[]>>()
  for (const start of starts) {
    const { day, ms } = f.zone.toWall(start)
    const part = PARTS.findLastIndex((hour) => ms / MINUTE / 60 >= hour)
    const parts = byDay.get(day) ?? new Map<number, { start: Instant; waste: number }[]>()
    parts.set(part, [...(parts.get(part) ?? []), { start, waste: waste(diary, f, start) }])
    byDay.set(day, parts)
  }
  // Each day begins with another of its parts, so that one part of every day does not come before all others.
  const rotated = [...byDay.values()].map((parts, i) => {
    const groups = [...parts.values()].map((group) =>
      group.sort((a, b) => a.waste - b.waste || a.start - b.start),
    )
    return groups.map((_, j) => groups[(i + j) % groups.length]!)
  })
  const ordered = PARTS.flatMap((_, rank) =>
    rotated.flatMap((groups) => (groups[rank] ? [groups[rank]] : [])),
  )
  const chosen: Instant[] = []
  for (let turn = 0; chosen.length < most; turn++) {
    for (const group of ordered) {
      const next = group[turn]
      if (next && chosen.length < most) chosen.push(next.start)
    }
  }
  return chosen.sort((a, b) => a - b)
}
