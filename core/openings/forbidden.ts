import type { Practice } from '../practice/index.ts'
import { MINUTE } from '../time/index.ts'
import type { Frame } from './ask.ts'
import type { Diary, Entry } from './diary.ts'

/** The space between two sessions, of what each wants kept clear on that side. */
export const spaceBetween = (space: Practice['space'], one: number, other: number): number =>
  space === 'sum' ? one + other : Math.max(one, other)

/** The space in ms that a session of this ask needs towards an entry that comes before, or after it. */
export function spaceNeeded(f: Frame, entry: Entry, entryIs: 'earlier' | 'later'): number {
  const own = entryIs === 'earlier' ? f.service.clearBefore : f.service.clearAfter
  if (entry.kind === 'outside') return own * MINUTE
  const theirs = entryIs === 'earlier' ? entry.clearAfter : entry.clearBefore
  return spaceBetween(f.practice.space, own, theirs) * MINUTE
}

/**
 * The starts that entries and time away rule out, as disjoint ascending open intervals: `s` is ruled out when
 * `lows[i] < s < highs[i]` for some i. Between two of them lies exactly the room in which a start may move,
 * so the same intervals also tell how tidy a start leaves its day.
 */
export interface Forbidden {
  lows: Float64Array
  highs: Float64Array
  count: number
}

/** Gathers the ruled-out starts in linear time; entries come sorted by start, so little is left to sort. */
export function forbiddenStarts(f: Frame, diary: Diary, from: number, to: number): Forbidden {
  const { entries } = diary
  const reach = diary.longest + f.length + 24 * 60 * MINUTE
  let first = 0
  let beyond = entries.length
  while (first < beyond) {
    const middle = (first + beyond) >> 1
    if (entries[middle]!.start < from - reach) first = middle + 1
    else beyond = middle
  }
  const most = entries.length - first + f.away.length
  const lows = new Float64Array(most)
  const highs = new Float64Array(most)
  let n = 0
  // Entries come by their start; clear times and time away disturb that order a little, never far.
  const add = (low: number, high: number): void => {
    let at = n++
    while (at > 0 && lows[at - 1]! > low) {
      lows[at] = lows[at - 1]!
      highs[at] = highs[at - 1]!
      at--
    }
    lows[at] = low
    highs[at] = high
  }
  let nextAway = 0
  for (let i = first; i < entries.length; i++) {
    const entry = entries[i]!
    if (entry.start > to + reach) break
    const low = entry.start - f.length - spaceNeeded(f, entry, 'later')
    for (; nextAway < f.away.length && f.away[nextAway]!.from - f.length <= low; nextAway++) {
      add(f.away[nextAway]!.from - f.length, f.away[nextAway]!.to)
    }
    add(low, entry.end + spaceNeeded(f, entry, 'earlier'))
  }
  for (; nextAway < f.away.length; nextAway++) add(f.away[nextAway]!.from - f.length, f.away[nextAway]!.to)
  return merge(lows, highs, n)
}

function merge(lows: Float64Array, highs: Float64Array, n: number): Forbidden {
  let count = 0
  for (let i = 0; i < n; i++) {
    // Touching intervals stay apart: the point between them is allowed, a gap that fits exactly.
    if (count > 0 && lows[i]! < highs[count - 1]!) {
      if (highs[i]! > highs[count - 1]!) highs[count - 1] = highs[i]!
    } else {
      lows[count] = lows[i]!
      highs[count] = highs[i]!
      count++
    }
  }
  return { lows, highs, count }
}
