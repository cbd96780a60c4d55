import { type Asker, makeDiary } from '../openings/index.ts'
import type { Practice, Waitlist } from '../practice/index.ts'
import { DAY, type Instant, MINUTE } from '../time/index.ts'
import { chooseAmong, type FillBy, whoCould } from './fill.ts'
import type { Freed } from './freed.ts'
import { isInLine, type LineEvent, lineAt, type PlaceInLine, replayLine } from './line.ts'
import { preferenceOf, waitingAmong } from './to-ask.ts'

/** A place in line as its record tells it. */
export interface LineRecord {
  id: string
  events: readonly LineEvent[]
}

/** A place in line as it was at a moment; nothing of one that had not begun. */
export function lineThen({ id, events }: LineRecord, at: Instant): PlaceInLine | undefined {
  const until = events.filter((event) => event.at <= at)
  return until.length > 0 ? replayLine(id, until) : undefined
}

/** How a time that came free would have gone by other choices. */
export interface WouldHaveGone {
  /** Who would have been asked first, for each time in it. */
  chosen: { line: PlaceInLine; start: Instant }[]
  /** What that would have been worth. */
  value: number
  /** How many could have come at all. */
  could: number
}

/** What else is known of those who waited. */
export interface WhatIsKnown {
  askerOf: (person: string) => Asker | undefined
  /** When the booking begins that somebody would rather have earlier. */
  startOf: (booking: string) => Instant | undefined
}

/**
 * How a freed time would have gone by these choices, among those who waited when it came free. It is looked at as if all
 * of it had been free, by the hours and rules of today: what stood around it then is not asked.
 */
export function wouldHaveGone(
  practice: Practice,
  freed: Freed,
  records: readonly LineRecord[],
  list: Waitlist,
  { askerOf, startOf }: WhatIsKnown,
): WouldHaveGone {
  const then = records.flatMap((record) => {
    const line = lineThen(record, freed.at)
    // What was held out in that very moment is this freed time.
    const before = line && (line.offer?.freed === freed.id || lineAt(line, freed.at).is === 'waiting')
    return line && before ? [line] : []
  })
  const by: FillBy = {
    ...preferenceOf(list),
    askerOf,
    now: freed.at,
    bare: true,
  }
  const line = waitingAmong(practice, then, startOf)
  const { able } = whoCould(practice, makeDiary(practice, []), line, freed, by)
  const { chosen, value } = chooseAmong(practice, able, by)
  const byId = new Map(then.map((one) => [one.id, one]))
  return {
    chosen: chosen.map(({ waiting, start }) => ({ line: byId.get(waiting.id)!, start })),
    value,
    could: able.length,
  }
}

/** How waiting has gone lately. */
export interface WaitingNumbers {
  /** How many wait, and half of them for longer than so many days. */
  waiting: number
  medianDays: number
  /** Of the times that came free: how many there were, how many were taken, half of them within so many minutes. */
  freed: number
  taken: number
  medianMinutes: number
  /** What the sessions taken were worth, in minor units. */
  worth: number
}

const median = (numbers: readonly number[]): number => {
  const sorted = numbers.toSorted((a, b) => a - b)
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? 0
}

/** How waiting has gone since a moment. */
export function waitingNumbers(
  records: readonly LineRecord[],
  freedTimes: readonly Freed[],
  since: Instant,
  now: Instant,
): WaitingNumbers {
  const freed = new Map(freedTimes.filter(({ at }) => at >= since).map((one) => [one.id, one]))
  const waits: number[] = []
  const quick: number[] = []
  const taken = new Set<string>()
  let worth = 0
  for (const { id, events } of records) {
    const line = replayLine(id, events)
    if (isInLine(lineAt(line, now))) waits.push((now - line.joined.at) / DAY)
    for (const event of events) {
      const of = event.type === 'taken' ? freed.get(event.freed) : undefined
      if (!of || event.type !== 'taken') continue
      quick.push((event.at - of.at) / MINUTE)
      taken.add(of.id)
      worth += line.joined.price
    }
  }
  return {
    waiting: waits.length,
    medianDays: Math.floor(median(waits)),
    freed: freed.size,
    taken: taken.size,
    medianMinutes: Math.round(median(quick)),
    worth,
  }
}
