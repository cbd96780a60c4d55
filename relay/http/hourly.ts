import { HOUR } from '@acolhida/core/time'

/** How many names are counted at once at the most; beyond, the longest-standing are forgotten. */
const MOST_NAMES = 20_000

/** Counts what somebody does within an hour, in memory alone: no address is written anywhere. */
export class Hourly {
  readonly #most: number
  readonly #now: () => number
  readonly #spent = new Map<string, { from: number; n: number }>()

  /** @param now a count of ms that nobody sets back */
  constructor(most: number, now: () => number = () => performance.now()) {
    this.#most = most
    this.#now = now
  }

  /** Spends so much of an hour's worth; false, and nothing spent, where that is more than there is. */
  spend(who: string, n = 1): boolean {
    const now = this.#now()
    const before = this.#spent.get(who)
    const running = before && now - before.from < HOUR ? before : { from: now, n: 0 }
    if (running.n + n > this.#most) return false
    this.#spent.delete(who)
    this.#spent.set(who, { from: running.from, n: running.n + n })
    if (this.#spent.size > MOST_NAMES) this.#spent.delete(this.#spent.keys().next().value!)
    return true
  }

  /** Whether there is as much left. */
  has(who: string, n = 1): boolean {
    return this.spentBy(who) + n <= this.#most
  }

  /** How much somebody has spent within the hour. */
  spentBy(who: string): number {
    const before = this.#spent.get(who)
    return before && this.#now() - before.from < HOUR ? before.n : 0
  }
}
