import { spaceBetween } from '../openings/index.ts'
import type { Practice } from '../practice/index.ts'
import type { Candidate } from './candidate.ts'

/**
 * What a freed time can come to at most, where taking somebody again has a price instead of being impossible: the best
 * way through its minutes, by dynamic programming. Half of the bound; the prices themselves are the other half.
 */
export class Relaxed {
  /** After this minute nobody begins. */
  readonly #length: number
  readonly #all: readonly Candidate[]
  readonly #worth: readonly number[]
  /** The kinds of time kept clear are few, however many people there are. */
  readonly #before: number[]
  readonly #after: number[]
  /** By what is kept clear after one, and before the next. */
  readonly #gap: number[][]
  /** Of each, the first start at or after a minute. */
  readonly #next: Int32Array[]
  /** By minute, who could begin then. */
  readonly #at: number[][]
  /** By what is kept clear before and by minute: the most that can come from a start then or later. */
  readonly #ahead: Float64Array[]
  #prices: readonly number[]

  /** @param worth what each is worth, in their order */
  constructor(all: readonly Candidate[], worth: readonly number[], space: Practice['space']) {
    this.#all = all
    this.#worth = worth
    this.#length = Math.max(...all.map(({ starts }) => starts.at(-1)!)) + 1
    const befores = [...new Set(all.map(({ before }) => before))]
    const afters = [...new Set(all.map(({ after }) => after))]
    this.#before = all.map(({ before }) => befores.indexOf(before))
    this.#after = all.map(({ after }) => afters.indexOf(after))
    this.#gap = afters.map((after) => befores.map((before) => spaceBetween(space, after, before)))
    this.#at = Array.from({ length: this.#length }, () => [])
    this.#next = all.map(({ starts }, nth) => {
      const next = new Int32Array(this.#length + 1).fill(this.#length)
      for (const start of starts) {
        next[start] = start
        this.#at[start]!.push(nth)
      }
      for (let minute = this.#length - 1; minute >= 0; minute--)
        if (next[minute] !== minute) next[minute] = next[minute + 1]!
      return next
    })
    this.#ahead = befores.map(() => new Float64Array(this.#length + 1))
    this.#prices = all.map(() => 0)
  }

  get prices(): readonly number[] {
    return this.#prices
  }

  /** How many kinds of space can follow a session. */
  get kinds(): number {
    return this.#gap.length
  }

  /** Which kind of space follows somebody's session. */
  spaceAfter(nth: number): number {
    return this.#after[nth]!
  }

  /** Where somebody could begin after a session that ends then; nothing where nowhere. */
  startAfter(end: number, after: number, nth: number): number | undefined {
    const from = this.#earliest(end, after, this.#before[nth]!)
    const start = from < this.#length ? this.#next[nth]![from]! : this.#length
    return start < this.#length ? start : undefined
  }

  #earliest(end: number, after: number, before: number): number {
    return after === NOTHING ? end : end + this.#gap[after]![before]!
  }

  /** The most that can still come after a session that ends then, at the prices. */
  comes(end: number, after: number): number {
    let most = 0
    for (let before = 0; before < this.#ahead.length; before++) {
      const from = this.#earliest(end, after, before)
      if (from < this.#length) most = Math.max(most, this.#ahead[before]![from]!)
    }
    return most
  }

  /** What comes from a start of somebody on, at the prices. */
  #from(start: number, nth: number): number {
    const comes = this.comes(start + this.#all[nth]!.minutes, this.#after[nth]!)
    return this.#worth[nth]! - this.#prices[nth]! + comes
  }

  /** Sets the prices. @returns the bound they give */
  set(prices: readonly number[]): number {
    this.#prices = prices
    for (const ahead of this.#ahead) ahead[this.#length] = 0
    for (let minute = this.#length - 1; minute >= 0; minute--) {
      for (const ahead of this.#ahead) ahead[minute] = ahead[minute + 1]!
      for (const nth of this.#at[minute]!) {
        const ahead = this.#ahead[this.#before[nth]!]!
        const from = this.#from(minute, nth)
        if (from > ahead[minute]!) ahead[minute] = from
      }
    }
    return this.comes(0, NOTHING) + prices.reduce((sum, price) => sum + price, 0)
  }

  /** How often each is taken on the best way at the prices. */
  taken(): number[] {
    const taken = this.#all.map(() => 0)
    let [end, after] = [0, NOTHING]
    for (;;) {
      const most = this.comes(end, after)
      const start = most > NEAR ? this.#whence(end, after, most) : undefined
      if (start === undefined) return taken
      const near = NEAR * Math.max(1, most)
      const nth = this.#at[start]!.find((one) => this.#from(start, one) >= most - near)
      if (nth === undefined) return taken
      taken[nth]!++
      end = start + this.#all[nth]!.minutes
      after = this.#after[nth]!
    }
  }

  /** The last minute from which as much comes as can come at all. */
  #whence(end: number, after: number, most: number): number | undefined {
    for (let before = 0; before < this.#ahead.length; before++) {
      const ahead = this.#ahead[before]!
      let minute = this.#earliest(end, after, before)
      if (minute >= this.#length || ahead[minute] !== most) continue
      while (ahead[minute + 1] === most) minute++
      return minute
    }
    return undefined
  }
}

/** What follows before anybody has begun. */
export const NOTHING = -1

/** Sums of fractions are a little off. */
const NEAR = 1e-6
