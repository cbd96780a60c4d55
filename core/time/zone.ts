import { fromEpochMilliseconds, toZonedDateTimeISO } from 'temporal-polyfill/fns/Instant'
import { getTimeZoneTransition, offsetNanoseconds } from 'temporal-polyfill/fns/ZonedDateTime'
import {
  type DayNumber,
  type LocalDate,
  type LocalDateTime,
  localDate,
  splitDateTime,
  type WallTime,
  wallTime,
} from './date.ts'
import { DAY, type Instant, instant } from './instant.ts'

/**
 * The only place where wall time and instants meet.
 *
 * A conversion through Temporal costs some 20 µs, so the changes of a zone are read from it once, four
 * years at a time and only where they are needed, and looked up from then on.
 */
export interface Zone {
  readonly name: string
  /** Milliseconds to add to UTC for the wall time there, at an instant. */
  offsetAt(at: Instant): number
  /**
   * The instant of a wall time: a time that does not exist is read with the offset before the gap, one
   * that exists twice is the first (RFC 5545 §3.3.5). Minutes may run past either end of the day.
   */
  toInstant(day: DayNumber, minutes: number): Instant
  /** The day and the milliseconds after midnight on the wall at an instant. */
  toWall(at: Instant): { day: DayNumber; ms: number }
}

const SPAN = 4 * 365.25 * DAY

interface Stretch {
  /** Changes inside the stretch, ascending. */
  changes: number[]
  /** `offsets[0]` holds before the first change, `offsets[i]` from `changes[i - 1]` on. */
  offsets: number[]
}

function readStretch(name: string, index: number): Stretch {
  const from = index * SPAN
  let here = toZonedDateTimeISO(fromEpochMilliseconds(from), name)
  const stretch: Stretch = { changes: [], offsets: [offsetNanoseconds(here) / 1e6] }
  for (;;) {
    const next = getTimeZoneTransition(here, 'next')
    if (!next || next.epochMilliseconds >= from + SPAN) return stretch
    const offset = offsetNanoseconds(next) / 1e6
    // Some changes of a zone only rename it; they move nothing.
    if (offset !== stretch.offsets.at(-1)) {
      stretch.changes.push(next.epochMilliseconds)
      stretch.offsets.push(offset)
    }
    here = next
  }
}

class TableZone implements Zone {
  readonly name: string
  readonly #stretches = new Map<number, Stretch>()
  #last: Stretch | undefined
  #lastIndex = Number.NaN

  constructor(name: string) {
    this.name = name
    readStretch(name, 10)
  }

  offsetAt(at: Instant): number {
    const index = Math.floor(at / SPAN)
    let stretch = this.#last
    if (index !== this.#lastIndex || !stretch) {
      stretch = this.#stretches.get(index)
      if (!stretch) {
        stretch = readStretch(this.name, index)
        this.#stretches.set(index, stretch)
      }
      this.#last = stretch
      this.#lastIndex = index
    }
    const { changes, offsets } = stretch
    let i = 0
    while (i < changes.length && changes[i]! <= at) i++
    return offsets[i]!
  }

  toInstant(day: DayNumber, minutes: number): Instant {
    const wall = day * DAY + minutes * 60_000
    const before = this.offsetAt(instant(wall - DAY))
    const after = this.offsetAt(instant(wall + DAY))
    const first = instant(wall - before)
    if (before === after || this.offsetAt(first) === before) return first
    const second = instant(wall - after)
    return this.offsetAt(second) === after ? second : first
  }

  toWall(at: Instant): { day: DayNumber; ms: number } {
    const wall = at + this.offsetAt(at)
    const day = Math.floor(wall / DAY)
    return { day: day as DayNumber, ms: wall - day * DAY }
  }
}

const zones = new Map<string, Zone>()

/**
 * The zone of an IANA name ("Europe/Lisbon"). Its changes are remembered for the life of the program.
 * @throws RangeError when there is no such zone.
 */
export function zone(name: string): Zone {
  let found = zones.get(name)
  if (!found) {
    try {
      found = new TableZone(name)
    } catch {
      throw new RangeError(`"${name}" is not a time zone; write it as Europe/Lisbon`)
    }
    zones.set(name, found)
  }
  return found
}

/** Whether a text names a zone of the tz database. */
export function isZone(name: string): boolean {
  try {
    zone(name)
    return true
  } catch {
    return false
  }
}

/**
 * Whether every wall time of a date is a moment of that date. It is not where clocks jump over midnight: 23:30 may then
 * be a moment of the next day, and a date may be left out altogether (Pacific/Apia, 2011-12-30).
 */
export const ownsItsTimes = (where: Zone, day: DayNumber): boolean =>
  where.offsetAt(instant((day - 1) * DAY)) === where.offsetAt(instant((day + 2) * DAY))

/** The date at an instant in a zone. */
export const dateAt = (where: Zone, at: Instant): LocalDate => localDate(where.toWall(at).day)

/** The wall time at an instant in a zone, cut to the minute. */
export const timeAt = (where: Zone, at: Instant): WallTime =>
  wallTime(Math.floor(where.toWall(at).ms / 60_000))

/** The date and wall time at an instant in a zone, cut to the minute. */
export const dateTimeAt = (where: Zone, at: Instant): LocalDateTime =>
  `${dateAt(where, at)}T${timeAt(where, at)}` as LocalDateTime

/** The instant of a local date-time in a zone. @throws RangeError when the text is none. */
export function instantOf(where: Zone, value: LocalDateTime): Instant {
  const { day, minutes } = splitDateTime(value)
  return where.toInstant(day, minutes)
}
