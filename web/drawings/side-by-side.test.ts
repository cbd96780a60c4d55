import fc from 'fast-check'
import { expect, it } from 'vitest'
import { sideBySide } from './side-by-side.ts'

const span = fc
  .tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 1, max: 12 }))
  .map(([start, length]) => ({ start, end: start + length }))

it('lets nothing lie on anything else, and needs no more lanes than the fullest moment', () => {
  fc.assert(
    fc.property(fc.array(span, { maxLength: 14 }), (spans) => {
      const lanes = sideBySide(spans)
      expect(lanes).toHaveLength(spans.length)
      const meet = (a: number, b: number): boolean =>
        spans[a]!.start < spans[b]!.end && spans[b]!.start < spans[a]!.end
      const most = Math.max(
        0,
        ...spans.map((one) => spans.filter(({ start, end }) => start <= one.start && one.start < end).length),
      )
      for (const [i, { lane, lanes: of }] of lanes.entries()) {
        expect(lane).toBeLessThan(of)
        expect(of).toBeLessThanOrEqual(most)
        for (let other = 0; other < i; other++) {
          if (!meet(i, other)) continue
          expect(lanes[other]!.lane).not.toBe(lane)
          expect(lanes[other]!.lanes).toBe(of)
        }
      }
    }),
  )
})
