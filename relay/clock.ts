import { type Instant, instant } from '@acolhida/core/time'

/** The relay's clock, by which everything is decided. */
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

  /** @param ahead by how many ms it is ahead already */
  constructor(ahead = 0, onMove: (ahead: number) => void = () => {}) {
    this.#ahead = ahead
    this.#onMove = onMove
  }

  now(): Instant {
    return instant(Date.now() + this.#ahead)
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
