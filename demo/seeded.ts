/** Chance that follows from a seed: the same seed gives the same choices (mulberry32, in the public domain). */
export class Seeded {
  #state: number

  constructor(seed: number) {
    this.#state = seed >>> 0
  }

  /** From 0 to just below 1. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) >>> 0
    let t = this.#state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }

  chance(of: number): boolean {
    return this.next() < of
  }

  /** A whole number, both ends included. */
  whole(least: number, most: number): number {
    return least + Math.floor(this.next() * (most - least + 1))
  }

  /** Any whole number of ms between two. */
  between(least: number, most: number): number {
    return Math.round(least + this.next() * (most - least))
  }

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.next() * from.length)]!
  }
}
