import { DAY, HOUR, type Instant, instant } from '@acolhida/core/time'

/** A clock to live by. */
export interface Clock {
  now(): Instant
  /** Whether a stand-in has moved it. */
  readonly moved: boolean
}

export const systemClock: Clock = { now: () => instant(Date.now()), moved: false }

/** A clock that can be moved forward: for the demo and tests only. */
export class MovableClock implements Clock {
  #ahead: number
  readonly #onMove: (ahead: number) => void
  readonly #beat: () => number

  /**
   * @param ahead by how many ms it is ahead already
   * @param beat what it is ahead of: this machine's time, or in tests one that stands still or begins at a fixed moment
   */
  constructor(ahead = 0, onMove: (ahead: number) => void = () => {}, beat: () => number = Date.now) {
    this.#ahead = ahead
    this.#onMove = onMove
    this.#beat = beat
  }

  now(): Instant {
    return instant(this.#beat() + this.#ahead)
  }

  get moved(): boolean {
    return this.#ahead !== 0
  }

  /** Moves it forward by a number of ms; a clock never goes back. */
  forward(ms: number): void {
    this.#ahead += Math.max(0, ms)
    this.#onMove(this.#ahead)
  }
}

/** From where to where the clock has leapt. */
export interface Leap {
  from: Instant
  to: Instant
}

/** A leap of the clock while the relay runs, against the machine's own count of time; and across a pause. */
const LEAP = HOUR
const LEAP_AT_START = 2 * DAY

/**
 * The relay's clock, by which everything is decided. It never goes back: behind the newest moment seen it counts as that.
 * A leap forward is taken as the time, but nothing happens by itself until the desk has said that it is right.
 */
export class HouseClock implements Clock {
  readonly #clock: Clock
  /** The machine's count of time in ms; false where leaps are meant. */
  readonly #steady: (() => number) | false
  #newest: Instant
  #last: { wall: number; steady: number } | undefined
  #leap: Leap | undefined

  /** @param newest the newest moment that the house has seen */
  constructor(clock: Clock, newest: Instant, steady: (() => number) | false = () => performance.now()) {
    this.#clock = clock
    this.#steady = steady
    this.#newest = newest
    const wall = clock.now()
    if (steady && newest > 0 && wall - newest > LEAP_AT_START) this.#leap = { from: newest, to: wall }
    this.now()
  }

  get moved(): boolean {
    return this.#clock.moved
  }

  /** Set while nothing may happen by itself. */
  get leapt(): Leap | undefined {
    this.now()
    return this.#leap
  }

  now(): Instant {
    const wall = this.#clock.now()
    const count = this.#steady
    if (count) {
      const steady = count()
      const last = this.#last
      if (last && wall - last.wall - (steady - last.steady) > LEAP)
        this.#leap ??= { from: instant(last.wall), to: wall }
      this.#last = { wall, steady }
    }
    if (wall > this.#newest) this.#newest = wall
    return this.#newest
  }

  /** The desk has looked: everything goes on, from the time as it is, or with the newest moment set back to it. */
  release(back: boolean): Instant {
    if (back) this.#newest = this.#clock.now()
    this.#leap = undefined
    return this.now()
  }
}
