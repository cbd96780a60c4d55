import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Candidate } from './candidate.ts'
import { packBest } from './packing.ts'

/** Every choice in every order, one by one: slow, and plainly right. */
function bruteForce(
  candidates: readonly Candidate[],
  space: 'sum' | 'larger',
): [value: number, waited: number] {
  let best: [number, number] = [0, 0]
  const go = (
    left: readonly Candidate[],
    last: { end: number; after: number } | undefined,
    sum: [number, number],
  ) => {
    if (sum[0] > best[0] || (sum[0] === best[0] && sum[1] > best[1])) best = sum
    for (const one of left) {
      const gap = last ? (space === 'sum' ? last.after + one.before : Math.max(last.after, one.before)) : 0
      const start = one.starts.find((minute) => minute >= (last ? last.end + gap : 0))
      if (start === undefined) continue
      const end = { end: start + one.minutes, after: one.after }
      go(
        left.filter((other) => other !== one),
        end,
        [sum[0] + one.value, sum[1] + one.waited],
      )
    }
  }
  go(candidates, undefined, [0, 0])
  return best
}
const grid = fc.integer({ min: 0, max: 24 }).map((step) => step * 5)
const candidate = fc.record({
  minutes: fc.constantFrom(5, 15, 20, 30, 50, 60, 90),
  before: fc.constantFrom(0, 5, 15),
  after: fc.constantFrom(0, 10),
  value: fc.oneof(fc.constantFrom(0, 60, 90), fc.integer({ min: 0, max: 10_000 })),
  waited: fc.integer({ min: 0, max: 2_000 }),
  starts: fc.uniqueArray(grid, { maxLength: 12 }).map((starts) => starts.sort((a, b) => a - b)),
})
const several = fc
  .array(candidate, { maxLength: 6 })
  .map((all): Candidate[] => all.map((one, nth) => ({ ...one, id: `c${nth}` })))

it('takes what is worth most, and of that who has waited longest, as every choice tried one by one', () => {
  fc.assert(
    fc.property(several, fc.constantFrom('sum' as const, 'larger' as const), (all, space) => {
      const found = packBest(all, { space })
      const [value, waited] = bruteForce(all, space)
      expect([found.value, found.bound, found.proven]).toEqual([value, value, true])
      const chosen = found.chosen.map(({ id, start }) => ({ of: all.find((one) => one.id === id)!, start }))
      expect(new Set(chosen.map(({ of }) => of)).size).toBe(chosen.length)
      expect(chosen.reduce((sum, { of }) => sum + of.value, 0)).toBe(value)
      expect(chosen.reduce((sum, { of }) => sum + of.waited, 0)).toBe(waited)
      let last: (typeof chosen)[number] | undefined
      for (const one of chosen) {
        expect(one.of.starts).toContain(one.start)
        if (last) {
          const { after } = last.of
          const gap = space === 'sum' ? after + one.of.before : Math.max(after, one.of.before)
          expect(one.start).toBeGreaterThanOrEqual(last.start + last.of.minutes + gap)
        }
        last = one
      }
    }),
    { numRuns: 2_000 },
  )
})

const one = (id: string, minutes: number, value: number, starts: number[], waited = 0): Candidate => ({
  ...{ id, minutes, value, starts, waited, before: 0, after: 0 },
})

it('fills two hours as the check value says: dearest 90.00, fullest 110.00', () => {
  const every = Array.from({ length: 24 }, (_, step) => step * 5)
  const fitting = (minutes: number) => every.filter((start) => start + minutes <= 120)
  const found = packBest(
    [one('dear', 90, 9_000, fitting(90)), one('a', 60, 5_500, fitting(60)), one('b', 60, 5_500, fitting(60))],
    { space: 'larger' },
  )
  expect(found).toMatchObject({ value: 11_000, proven: true })
  expect(found.chosen.map(({ start }) => start)).toEqual([0, 60])
})

it('solves the worked example of weighted interval scheduling', () => {
  // Kleinberg and Tardos, Algorithm Design (2005), §6.1, the instance of figure 6.2, from memory: intervals with the
  // weights 2, 4, 4, 7, 2, 1; the best are the first, the third and the fifth, 2 + 4 + 2 = 8.
  const intervals: [from: number, to: number, weight: number][] = [
    ...([
      [0, 3, 2],
      [1, 5, 4],
      [4, 6, 4],
      [2, 8, 7],
      [6, 9, 2],
      [7, 10, 1],
    ] as [number, number, number][]),
  ]
  const found = packBest(
    intervals.map(([from, to, weight], nth) => one(`${nth + 1}`, to - from, weight, [from])),
    { space: 'larger' },
  )
  expect(found).toMatchObject({ value: 8, proven: true })
  expect(found.chosen.map(({ id }) => id)).toEqual(['1', '3', '5'])
})

it('says what it could not prove', () => {
  const starts = Array.from({ length: 96 }, (_, step) => step * 5)
  const many = Array.from({ length: 60 }, (_, nth) =>
    one(`${nth}`, [20, 30, 50, 60, 75, 90][nth % 6]!, 1_000 + ((nth * 7_919) % 6_007), starts, nth),
  )
  const { proven, value, bound } = packBest(many, { space: 'larger', most: 3 })
  expect(proven).toBe(false)
  expect(bound).toBeGreaterThanOrEqual(value)
  expect(value).toBeGreaterThan(0)
})

it('stays exact at prices and waits beyond any practice', () => {
  const all = Array.from({ length: 12 }, (_, nth) =>
    one(`${nth}`, 30, 999_999_990 + (nth % 4), [0, 30, 60], 87_600 - nth),
  )
  const { value, proven, chosen } = packBest(all, { space: 'larger' })
  expect([value, proven, chosen.length]).toEqual([3 * 999_999_993, true, 3])
})
