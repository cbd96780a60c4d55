import type { AskAtOnce } from '../practice/waitlist.ts'
import type { Instant } from '../time/index.ts'

/** What has made a time free. */
export const CAUSES = [
  'cancelled',
  'moved',
  'lapsed',
  'declined',
  'withdrawn',
  'hours',
  'calendar',
  'seats',
  'by-hand',
] as const
export type Cause = (typeof CAUSES)[number]

/**
 * What has come free. `service`: as which service says it is filled; `depth`: 1 where somebody in line has given it up
 * for an earlier one, and so no other follows from it.
 */
export interface FreedSpan {
  from: Instant
  to: Instant
  cause: Cause
  service?: string
  depth: 0 | 1
}

/** What can happen to a freed time; what is held out of it to whom is in the records of those who wait. */
export interface OwnOfFreed {
  freed: FreedSpan
  /** The practitioner has so many asked, whatever the service says. */
  go: { ask: AskAtOnce }
  /** Somebody is not asked for it, or may be again. */
  skipped: { line: string; back?: boolean }
  ended: { how: HowEnded }
}

/** Taken; nobody is left who could have it; its moment has passed; the practitioner has stopped it. */
export type HowEnded = 'taken' | 'nobody' | 'over' | 'stopped'

export type FreedEvent = {
  [K in keyof OwnOfFreed]: { type: K; at: Instant } & OwnOfFreed[K]
}[keyof OwnOfFreed]
type EventOf<K extends FreedEvent['type']> = Extract<FreedEvent, { type: K }>

/** A time that has come free, as its record tells. */
export interface Freed extends FreedSpan {
  id: string
  seq: number
  at: Instant
  latest: Instant
  go?: AskAtOnce
  skipped: string[]
  ended?: { at: Instant; how: HowEnded }
}

const APPLY: { [K in FreedEvent['type']]: (freed: Freed, event: EventOf<K>) => Freed } = {
  freed: (freed) => freed,
  go: ({ ended: _, ...freed }, { ask }) => ({ ...freed, go: ask }),
  skipped: (freed, { line, back }) => ({
    ...freed,
    skipped: [...freed.skipped.filter((one) => one !== line), ...(back ? [] : [line])],
  }),
  ended: (freed, { at, how }) => ({ ...freed, ended: { at, how } }),
}

/** A freed time as it begins. */
export function beginFreed(id: string, { type: _, ...event }: EventOf<'freed'>): Freed {
  return { id, seq: 1, latest: event.at, skipped: [], ...event }
}

/** A freed time after something has happened to it. */
export function applyFreed(before: Freed, event: FreedEvent): Freed {
  const freed = { ...before, seq: before.seq + 1, latest: event.at }
  return (APPLY[event.type] as (freed: Freed, event: FreedEvent) => Freed)(freed, event)
}

/** A freed time from its whole record. @throws RangeError for a record without a beginning */
export function replayFreed(id: string, record: readonly FreedEvent[]): Freed {
  const [first, ...rest] = record
  if (first?.type !== 'freed') throw new RangeError(`The record of ${id} has no beginning.`)
  return rest.reduce(applyFreed, beginFreed(id, first))
}
