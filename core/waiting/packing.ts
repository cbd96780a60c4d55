import type { Practice } from '../practice/index.ts'
import type { Candidate } from './candidate.ts'
import { NOTHING, Relaxed } from './relaxed.ts'

/** The best that was found for a freed time. */
export interface Packing {
  chosen: { id: string; start: number }[]
  value: number
  /** What no choice can be worth more than; the same as `value` where that is proven. */
  bound: number
  /** That no other choice is worth more; and of those worth as much, none has waited longer in all. */
  proven: boolean
  /** How many ways were looked at. */
  steps: number
}

/** How many ways are looked at before the best so far is taken. */
export const MOST_STEPS = 200_000

/**
 * Who is to have a freed time so that it is worth most: each once at a start of theirs, with the time that is kept clear
 * between sessions; of what is worth the same, those who have waited longest in all.
 *
 * Scheduling with windows is hard in general (Garey and Johnson, SS1: sequencing within intervals), so it is a search:
 * branch and bound over the order of sessions, each as early as it can be. What can still come is bounded by Lagrangian
 * relaxation of “each once” (Held and Karp 1971; Fisher 1981): see `Relaxed`.
 */
export function packBest(
  candidates: readonly Candidate[],
  { space, most = MOST_STEPS }: { space: Practice['space']; most?: number },
): Packing {
  const able = candidates.filter(({ starts, minutes }) => starts.length > 0 && minutes > 0)
  if (able.length === 0) return { chosen: [], value: 0, bound: 0, proven: true, steps: 0 }
  return new Search(able, space, most).run()
}

/** A choice so far, as a chain of who begins when. */
interface Node {
  used: bigint
  /** Where its last session ends, and which kind of space follows it. */
  end: number
  after: number
  /** Of value and waiting together. */
  worth: number
  /** The prices of all who are not used. */
  prices: number
  last: { nth: number; start: number; before: Node } | undefined
}

/** How often the prices of taking somebody twice are put right before ways are looked at. */
const ROUNDS = 120

/** Sums of fractions are a little off; whole numbers are compared. */
const SLACK = 1e-3

class Search {
  readonly #all: readonly Candidate[]
  readonly #most: number
  /** Worth first, then waiting: both in one number, `unit` for each of the value. */
  readonly #worth: number[]
  readonly #unit: number
  readonly #relaxed: Relaxed
  readonly #bits: bigint[]
  #best: Node
  #steps = 0

  constructor(all: readonly Candidate[], space: Practice['space'], most: number) {
    this.#all = all
    this.#most = most
    const values = all.reduce((sum, { value }) => sum + value, 0)
    const hours = all.reduce((sum, { waited }) => sum + waited, 0)
    // Together they must stay whole numbers that are told apart; of very large sums, hours are counted more coarsely.
    const coarse = Math.max(1, Math.ceil((hours * (values + 1)) / 2 ** 50))
    const waited = all.map((one) => Math.floor(one.waited / coarse))
    this.#unit = 1 + waited.reduce((sum, one) => sum + one, 0)
    this.#worth = all.map(({ value }, nth) => value * this.#unit + waited[nth]!)
    this.#relaxed = new Relaxed(all, this.#worth, space)
    this.#bits = all.map((_, nth) => 1n << BigInt(nth))
    this.#best = this.#root()
  }

  run(): Packing {
    const open = this.#price()
    this.#look()
    const value = Math.floor(this.#best.worth / this.#unit)
    const proven = this.#steps < this.#most
    return {
      chosen: this.#chosen(),
      value,
      bound: proven ? value : Math.max(value, Math.floor((open + SLACK) / this.#unit)),
      proven,
      steps: this.#steps,
    }
  }

  /** Puts the prices so that the bound is as low as it gets, and finds first good ways meanwhile. @returns the bound */
  #price(): number {
    let open = Number.POSITIVE_INFINITY
    let prices = this.#relaxed.prices
    let kept = prices
    let pace = 1
    let since = 0
    for (let round = 0; round < ROUNDS; round++) {
      const whole = this.#relaxed.set(prices)
      if (whole < open - 1e-6) {
        open = whole
        kept = prices
        since = 0
      } else if (++since > 8) {
        pace /= 2
        since = 0
      }
      if (round % 10 === 0) this.#greedy()
      if (Math.floor(open + SLACK) <= this.#best.worth) break
      const taken = this.#relaxed.taken()
      const off = taken.reduce((sum, times) => sum + (1 - times) ** 2, 0)
      // Nobody is taken twice, and nobody who is left out has a price: the bound is as low as it gets.
      if (taken.every((times, nth) => times === 1 || (times === 0 && prices[nth] === 0))) break
      const step = (pace * Math.max(whole - this.#best.worth, 1)) / off
      prices = prices.map((price, nth) => Math.max(0, price - step * (1 - taken[nth]!)))
    }
    this.#relaxed.set(kept)
    this.#greedy()
    return open
  }

  #root(): Node {
    const prices = this.#relaxed.prices.reduce((sum, price) => sum + price, 0)
    return { used: 0n, end: 0, after: NOTHING, worth: 0, prices, last: undefined }
  }

  /** What can follow: each who is left, as early as they can begin. */
  #children(node: Node): Node[] {
    const children: Node[] = []
    for (let nth = 0; nth < this.#all.length; nth++) {
      const bit = this.#bits[nth]!
      if (node.used & bit) continue
      const start = this.#relaxed.startAfter(node.end, node.after, nth)
      if (start === undefined) continue
      children.push({
        used: node.used | bit,
        end: start + this.#all[nth]!.minutes,
        after: this.#relaxed.spaceAfter(nth),
        worth: node.worth + this.#worth[nth]!,
        prices: node.prices - this.#relaxed.prices[nth]!,
        last: { nth, start, before: node },
      })
    }
    return children
  }

  /** The most that can become of a choice. */
  #promise(node: Node): number {
    return node.worth + node.prices + this.#relaxed.comes(node.end, node.after)
  }

  #keep(node: Node): void {
    if (node.worth > this.#best.worth) this.#best = node
  }

  /** Takes at each point what promises most. */
  #greedy(): void {
    for (let node: Node | undefined = this.#root(); node; ) {
      this.#keep(node)
      let best: { child: Node; most: number } | undefined
      for (const child of this.#children(node)) {
        const most = this.#promise(child)
        if (!best || most > best.most) best = { child, most }
      }
      node = best?.child
    }
  }

  /** Looks through the ways, the most promising first. */
  #look(): void {
    const seen = new Map<bigint, number>()
    const kinds = BigInt(this.#relaxed.kinds)
    const stack = [{ node: this.#root(), most: Number.POSITIVE_INFINITY }]
    for (let top = stack.pop(); top; top = stack.pop()) {
      if (Math.floor(top.most + SLACK) <= this.#best.worth) continue
      if (++this.#steps >= this.#most) return
      const children: typeof stack = []
      for (const node of this.#children(top.node)) {
        this.#keep(node)
        const most = this.#promise(node)
        if (Math.floor(most + SLACK) <= this.#best.worth) continue
        // The same people, done no later: whatever can follow here can follow there.
        const key = node.used * kinds + BigInt(node.after)
        const before = seen.get(key)
        if (before !== undefined && before <= node.end) continue
        seen.set(key, node.end)
        children.push({ node, most })
      }
      stack.push(...children.sort((a, b) => a.most - b.most))
    }
  }

  #chosen(): Packing['chosen'] {
    const chosen: Packing['chosen'] = []
    for (let { last } = this.#best; last; last = last.before.last)
      chosen.unshift({ id: this.#all[last.nth]!.id, start: last.start })
    return chosen
  }
}
