import { type Diary, type Entry, gatherGroups, makeDiary } from '../openings/index.ts'
import type { Practice } from '../practice/index.ts'
import { DAY, type Instant } from '../time/index.ts'

interface Piece {
  owner: string
  entry: Entry
}

/** Nothing keeps more than a day clear; limits count whole weeks. */
const CLEAR = 3 * DAY
const WEEKS = 9 * DAY

/** How far around a span what is taken can bear on it. */
function marginOf({ limits, services }: Practice): number {
  const counted = [limits, ...services].some(({ perDay, perWeek }) => perDay || perWeek)
  return counted ? WEEKS : CLEAR
}

/** Everything that is taken, kept in order of its start: entries go in and out one by one. */
export class LiveDiary {
  #pieces: Piece[] = []
  readonly #owned = new Map<string, Entry[]>()
  #longest = 0

  clear(): void {
    this.#pieces = []
    this.#owned.clear()
    this.#longest = 0
  }

  /** What an owner has. */
  of(owner: string): readonly Entry[] {
    return this.#owned.get(owner) ?? []
  }

  /** Puts all entries of an owner in place of those it had. */
  put(owner: string, entries: readonly Entry[]): void {
    for (const entry of this.#owned.get(owner) ?? []) this.#take(owner, entry)
    if (entries.length === 0) this.#owned.delete(owner)
    else this.#owned.set(owner, [...entries])
    for (const entry of entries) {
      this.#longest = Math.max(this.#longest, entry.end - entry.start)
      this.#pieces.splice(this.#after(entry.start), 0, { owner, entry })
    }
  }

  #take(owner: string, entry: Entry): void {
    let at = this.#after(entry.start) - 1
    while (at >= 0 && this.#pieces[at]!.entry.start === entry.start) {
      const piece = this.#pieces[at]!
      if (piece.owner === owner && piece.entry === entry) {
        this.#pieces.splice(at, 1)
        return
      }
      at--
    }
  }

  /** The place after everything that starts at or before a moment. */
  #after(start: number): number {
    let low = 0
    let high = this.#pieces.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.#pieces[middle]!.entry.start <= start) low = middle + 1
      else high = middle
    }
    return low
  }

  /** The entries around a span, the seats of groups counted together, without those of some owners. */
  slice(
    practice: Practice,
    from: Instant,
    to: Instant,
    but: readonly string[],
    also: readonly Entry[],
  ): Diary {
    const entries: Entry[] = [...also]
    const margin = marginOf(practice)
    const until = to + margin
    for (let at = this.#after(from - margin - this.#longest); at < this.#pieces.length; at++) {
      const { owner, entry } = this.#pieces[at]!
      if (entry.start > until) break
      if (!but.includes(owner)) entries.push(entry)
    }
    return makeDiary(practice, gatherGroups(practice, entries))
  }
}
