/**
 * The bare sweep: which starts of a grid do not meet a busy interval, by two sorted arrays and nothing else. No zones,
 * no rules, no clear time: the least anything could cost that gives the same yes or no. What a busy interval rules out
 * is jumped over.
 */
export function bareSweep(
  blocks: readonly (readonly [number, number])[],
  starts: Float64Array,
  ends: Float64Array,
  length: number,
  step: number,
): number[] {
  const open: number[] = []
  let p = 0
  for (const [from, to] of blocks) {
    for (let s = from; s + length <= to; ) {
      while (p < ends.length && ends[p]! <= s) p++
      if (p === ends.length || starts[p]! >= s + length) {
        open.push(s)
        s += step
      } else {
        s += Math.ceil((ends[p]! - s) / step) * step
      }
    }
  }
  return open
}
