import { blockingMove } from '@acolhida/core/booking'
import {
  type Ask,
  type Between,
  type Closure,
  closureWords,
  newClient,
  openStarts,
  why,
} from '@acolhida/core/openings'
import {
  type Practice,
  placeOf,
  serviceOrTrace,
  travelled,
  travelZoneOf,
  zoneOf,
} from '@acolhida/core/practice'
import {
  DAY,
  date,
  dateAt,
  type Instant,
  instantOf,
  type LocalDate,
  type LocalDateTime,
  shift,
} from '@acolhida/core/time'
import type { Taken } from '../data/taken.ts'

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

/** Of a start that is not known yet. */
export const UNKNOWN: Weighed = { start: undefined, closures: [], blocked: true, clash: false }

/** The start that is typed; nothing while it is none. */
export function startIn(practice: Practice, chosen: Pick<Chosen, 'place' | 'at'>): Instant | undefined {
  try {
    return instantOf(zoneOf(practice, placeOf(practice, chosen.place)), chosen.at as LocalDateTime)
  } catch {
    return undefined
  }
}

/** The day that is chosen; nothing while it is none. */
export function dayOf({ at }: Pick<Chosen, 'at'>): LocalDate | undefined {
  try {
    return date(at.slice(0, 10))
  } catch {
    return undefined
  }
}

/** Weighs starts against everything else in the diary, as the practitioner may choose them. */
export class Scales {
  readonly #practice: Practice
  readonly #taken: Taken
  readonly #now: Instant
  readonly #between: Between | undefined

  /**
   * @param taken without what is weighed
   * @param between from which day to which it may lie, where it is a session of a path
   */
  constructor(practice: Practice, taken: Taken, now: Instant, between?: Between) {
    this.#between = between
    this.#practice = practice
    this.#taken = taken
    this.#now = now
  }

  #ask(chosen: Chosen): Ask | undefined {
    const practice = this.#practice
    if (!(chosen.minutes > 0)) return undefined
    const service = serviceOrTrace(practice, chosen)
    return {
      service: travelled(service, travelZoneOf(placeOf(practice, chosen.place), chosen.travel)),
      place: chosen.place,
      minutes: chosen.minutes,
      asker: { ...newClient, who: 'practitioner', ...(this.#between ? { between: this.#between } : {}) },
      now: this.#now,
    }
  }

  /** Every rule a start breaks, and whether it could be all the same. */
  at(chosen: Omit<Chosen, 'at'>, start: Instant): Weighed {
    const ask = this.#ask({ ...chosen, at: '' })
    if (!ask) return UNKNOWN
    const practice = this.#practice
    const found = why(practice, this.#taken.diary, ask, start)
    const about = {
      practice,
      start,
      minutes: chosen.minutes,
      zone: zoneOf(practice, placeOf(practice, chosen.place)),
      nameOf: this.#taken.name,
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
    const start = startIn(this.#practice, chosen)
    return start === undefined ? UNKNOWN : this.at(chosen, start)
  }

  /** The open starts of a day. */
  openOn(chosen: Chosen, on: LocalDate): Instant[] {
    const ask = this.#ask(chosen)
    return ask ? openStarts(this.#practice, this.#taken.diary, ask, on, 1) : []
  }

  /** The nearest open starts, before and after one, within three days. */
  nearest(chosen: Chosen, start: Instant): Instant[] {
    const ask = this.#ask(chosen)
    if (!ask) return []
    const practice = this.#practice
    const where = zoneOf(practice, placeOf(practice, chosen.place))
    const near = openStarts(practice, this.#taken.diary, ask, dateAt(where, shift(start, -3 * DAY)), 7)
    return [near.filter((at) => at < start).at(-1), near.find((entry) => entry > start)].filter(
      (at) => at !== undefined,
    )
  }
}
