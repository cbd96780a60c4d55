import { HOUR, MINUTE } from '@acolhida/core/time'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Lane, startAt } from './drag.ts'
import { dayFrom, firstDay, spanName, viewFrom } from './span.ts'

const DAY_START = 1_000 * 24 * HOUR
/** Two days from 8 to 20 o'clock, 720 pixels wide: a pixel a minute. */
const lanes: Lane[] = [0, 1].map((day) => ({
  from: DAY_START + day * 24 * HOUR + 8 * HOUR,
  to: DAY_START + day * 24 * HOUR + 20 * HOUR,
  left: 100,
  right: 820,
  top: 200 + day * 60,
  bottom: 250 + day * 60,
}))
const at = (x: number, y: number, grabbed = 0, length = 60, step = 15): number => {
  const start = startAt(lanes, { x, y }, grabbed * MINUTE, length * MINUTE, step)!
  return (start - DAY_START) / MINUTE
}

describe('where something dragged would begin', () => {
  it('is the start under the pointer, less where it was grabbed, on the lane it is over', () => {
    expect(at(100, 210)).toBe(8 * 60)
    expect(at(160, 210)).toBe(9 * 60)
    expect(at(160, 210, 30)).toBe(8 * 60 + 30)
    expect(at(160, 270)).toBe(24 * 60 + 9 * 60)
  })

  it('snaps to the starts, and goes to the nearest lane when it is between or beyond them', () => {
    expect(at(167, 210)).toBe(9 * 60)
    expect(at(168, 210)).toBe(9 * 60 + 15)
    expect(at(160, 254)).toBe(9 * 60)
    expect(at(160, 257)).toBe(33 * 60)
    expect(at(160, 5_000)).toBe(33 * 60)
    expect(startAt([], { x: 1, y: 1 }, 0, HOUR, 15)).toBeUndefined()
  })

  it('is always whole on its day, whatever the pointer does', () => {
    fc.assert(
      fc.property(fc.integer(), fc.integer(), fc.integer({ min: 0, max: 90 }), (x, y, grabbed) => {
        const start = at(x, y, grabbed, 90)
        const day = start >= 24 * 60 ? 24 * 60 : 0
        expect(start).toBeGreaterThanOrEqual(day + 8 * 60)
        expect(start + 90).toBeLessThanOrEqual(day + 20 * 60)
      }),
    )
  })
})

describe('what is shown of the diary', () => {
  const day = dayFrom('2026-11-26')!

  it('is named by its first and last day', () => {
    expect(spanName(firstDay('week', day, 1), 7)).toBe('23 – 29 November')
    expect(spanName(firstDay('weeks', day, 1), 28)).toBe('23 November – 20 December')
    expect(spanName(firstDay('day', day, 1), 1)).toBe('Thursday 26 November')
    expect(spanName(dayFrom('2026-12-28')!, 7)).toBe('28 December 2026 – 3 January 2027')
    expect(spanName(firstDay('week', day, 7), 7)).toBe('22 – 28 November')
  })

  it('falls back to what is usual when the address says nothing sensible', () => {
    expect(viewFrom('toString')).toBe('week')
    expect(viewFrom(null)).toBe('week')
    expect(viewFrom('weeks')).toBe('weeks')
    expect(dayFrom('2026-02-30')).toBeUndefined()
    expect(dayFrom(null)).toBeUndefined()
  })
})
