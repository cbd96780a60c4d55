import fc from 'fast-check'
import { expect, it } from 'vitest'
import { movedBlock } from './hours-band.tsx'

it('keeps every stretch inside its day and never turns it inside out, however it is dragged', () => {
  const stretch = fc
    .tuple(fc.integer({ min: 0, max: 94 }), fc.integer({ min: 1, max: 96 }))
    .filter(([a, b]) => a < b)
  fc.assert(
    fc.property(
      stretch,
      fc.constantFrom('from' as const, 'to' as const, 'whole' as const),
      fc.integer({ min: -200, max: 200 }),
      ([a, b], grip, by) => {
        const before = { from: a * 15, to: b * 15 }
        const after = movedBlock(before, grip, by * 15)
        expect(after.from).toBeGreaterThanOrEqual(0)
        expect(after.to).toBeLessThanOrEqual(1440)
        expect(after.to - after.from).toBeGreaterThanOrEqual(15)
        if (grip === 'whole') expect(after.to - after.from).toBe(before.to - before.from)
        if (grip === 'from') expect(after.to).toBe(before.to)
        if (grip === 'to') expect(after.from).toBe(before.from)
      },
    ),
  )
})
