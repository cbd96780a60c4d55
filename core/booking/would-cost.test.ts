import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asked, fresh, lisbon } from '../tests/deciding.ts'
import { DAY, duration, HOUR, instant, shift } from '../time/index.ts'
import { type Booking, wouldHaveCost } from './index.ts'

const rules = { ...asked.houseRules, cancel: [{ until: duration('PT24H'), share: 0 }], cancelAfter: 50 }
const since = shift(fresh.start, -100 * DAY)
/** Cancelled by its client so many hours before the session, which cost them a share. */
const gone = (hours: number, more: Partial<Booking> = {}): Booking => ({
  ...fresh,
  price: 5_000,
  status: 'cancelled',
  cancelledBy: 'client',
  latest: shift(fresh.start, -hours * HOUR),
  ...more,
})
const cost = (bookings: Booking[]) => wouldHaveCost(bookings, rules, since, () => lisbon)

describe('what cancellations would have cost', () => {
  it('is told for each moment of cancelling, the last one in time included', () => {
    expect(cost([gone(25), gone(24), gone(23.5), gone(1, { share: 50 })])).toEqual({
      cancellations: 4,
      shares: [
        { share: 0, count: 2 },
        { share: 50, count: 2 },
      ],
      dearer: 1,
    })
    expect(cost([])).toEqual({ cancellations: 0, shares: [], dearer: 0 })
  })

  it('counts no others: the practitioner’s own, what is free, what stands, and what is long ago', () => {
    expect(
      cost([
        gone(1, { cancelledBy: 'practitioner' }),
        gone(1, { price: 0 }),
        gone(1, { status: 'booked' }),
        gone(1, { latest: instant(since - 1) }),
      ]).cancellations,
    ).toBe(0)
    expect(cost([gone(1, { latest: since })]).cancellations).toBe(1)
  })

  it('adds up, over a record of 15,000, whatever is in it', () => {
    const hours = fc.double({ min: 0, max: 60, noNaN: true })
    fc.assert(
      fc.property(fc.array(hours, { minLength: 1, maxLength: 12 }), (before) => {
        const many = Array.from({ length: 15_000 }, (_, i) => gone(before[i % before.length]!))
        const { cancellations, shares, dearer } = cost(many)
        expect(cancellations).toBe(15_000)
        expect(shares.reduce((sum, { count }) => sum + count, 0)).toBe(15_000)
        expect(dearer).toBe(shares.find(({ share }) => share === 50)?.count ?? 0)
        const late = many.filter(({ latest, start }) => start - latest < 24 * HOUR).length
        expect(dearer).toBe(late)
      }),
      { numRuns: 5 },
    )
  })
})
