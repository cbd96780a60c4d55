import { blockingMove } from '@acolhida/core/booking'
import {
  type Ask,
  type Closure,
  closureWords,
  type Diary,
  type Entry,
  makeDiary,
  newClient,
  openStarts,
  why,
} from '@acolhida/core/openings'
import { placeOf, serviceOf, travelled, travelZoneOf, zoneOf } from '@acolhida/core/practice'
import { DAY, dateAt, type Instant, instantOf, type LocalDateTime, shift } from '@acolhida/core/time'
import { type Desk, entriesOf } from '../data/live.ts'
import { entryTitle } from '../parts/todays-line.tsx'

/** A start as it is being chosen. */
export interface Chosen {
  service: string
  place: string
  /** Local date-time at the place; may be half typed. */
  at: string
  minutes: number
  /** The travel zone, at the client's. */
  travel?: string | undefined
}

export interface Weighed {
  start: Instant | undefined
  closures: { closure: Closure; words: string }[]
  /** Can't be done at all; `clash`: only after saying so. */
  blocked: boolean
  clash: boolean
}

/** What an entry of the diary is called inside a sentence. */
export function entryName(desk: Desk, entry: Entry): string {
  const { title, line } = entryTitle(desk, entry)
  return line && line !== title ? `${line} with ${title}` : title
}

/** Weighs starts against everything else in the diary, as the practitioner may choose them. */
export class Scales {
  readonly #desk: Desk
  readonly #diary: Diary
  readonly #now: Instant

  /** @param but the booking whose own time is left out */
  constructor(desk: Desk, now: Instant, but?: string) {
    this.#desk = desk
    this.#now = now
    const others = { ...desk, bookings: desk.bookings.filter((one) => one.id !== but) }
    this.#diary = makeDiary(desk.practice, entriesOf(others, now))
  }

  #ask(chosen: Chosen): Ask | undefined {
    const { practice } = this.#desk
    const service = serviceOf(practice, chosen.service)
    if (!service || !(chosen.minutes > 0)) return undefined
    return {
      service: travelled(service, travelZoneOf(placeOf(practice, chosen.place), chosen.travel)),
      place: chosen.place,
      minutes: chosen.minutes,
      asker: { ...newClient, who: 'practitioner' },
      now: this.#now,
    }
  }

  /** Every rule a start breaks, and whether it could be all the same. */
  at(chosen: Omit<Chosen, 'at'>, start: Instant): Weighed {
    const ask = this.#ask({ ...chosen, at: '' })
    if (!ask) return { start: undefined, closures: [], blocked: true, clash: false }
    const { practice } = this.#desk
    const found = why(practice, this.#diary, ask, start)
    const about = {
      practice,
      start,
      minutes: chosen.minutes,
      zone: zoneOf(practice, placeOf(practice, chosen.place)),
      nameOf: (entry: Entry) => entryName(this.#desk, entry),
    }
    return {
      start,
      closures: found.map((closure) => ({ closure, words: closureWords(closure, about) })),
      blocked: blockingMove(found, true).length > 0,
      clash: blockingMove(found, false).length > 0,
    }
  }

  /** As `at`, for a start as it is typed. */
  typed(chosen: Chosen): Weighed {
    const { practice } = this.#desk
    try {
      const where = zoneOf(practice, placeOf(practice, chosen.place))
      return this.at(chosen, instantOf(where, chosen.at as LocalDateTime))
    } catch {
      return { start: undefined, closures: [], blocked: true, clash: false }
    }
  }

  /** The nearest open starts, before and after one, within three days. */
  nearest(chosen: Chosen, start: Instant): Instant[] {
    const ask = this.#ask(chosen)
    if (!ask) return []
    const { practice } = this.#desk
    const where = zoneOf(practice, placeOf(practice, chosen.place))
    const near = openStarts(practice, this.#diary, ask, dateAt(where, shift(start, -3 * DAY)), 7)
    return [near.filter((one) => one < start).at(-1), near.find((one) => one > start)].filter(
      (one) => one !== undefined,
    )
  }
}
