/** Where something lies beside others at the same time: which of how many. */
export interface Beside {
  lane: number
  lanes: number
}

/**
 * Puts what overlaps beside one another: each in the first lane that is free, and as many lanes for all of a run that
 * hangs together as its fullest moment needs.
 * @param spans ends are not included: what begins as another ends meets it not
 */
export function sideBySide(spans: readonly { start: number; end: number }[]): Beside[] {
  const order = spans.map((span, i) => ({ ...span, i })).sort((a, b) => a.start - b.start || b.end - a.end)
  const found: Beside[] = []
  let run: number[] = []
  let ends: number[] = []
  let until = Number.NEGATIVE_INFINITY
  const close = (): void => {
    for (const i of run) found[i] = { ...found[i]!, lanes: ends.length }
    run = []
    ends = []
  }
  for (const { start, end, i } of order) {
    if (start >= until) close()
    const free = ends.findIndex((other) => other <= start)
    const lane = free < 0 ? ends.length : free
    ends[lane] = end
    found[i] = { lane, lanes: 1 }
    run.push(i)
    until = Math.max(until, end)
  }
  close()
  return found
}
