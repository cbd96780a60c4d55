import { describe, expect, it } from 'vitest'
import { shareOf } from '../money/rounding.ts'
import type { HouseRules } from '../practice/types.ts'
import { about, asked, events, fresh, lisbon, now, refusal, step } from '../tests/deciding.ts'
import { duration, HOUR, type Instant, MINUTE, shift } from '../time/index.ts'
import { type Booking, type DeskDoes, deadlinesIn, decide, givenIn } from './index.ts'

describe('the practitioner’s own side', () => {
  const mine = { within: duration('PT24H'), cancelled: 50, grace: 10, late: 20 }
  const { start } = fresh
  const bookedBy = (houseRules: HouseRules): Booking => ({
    ...fresh,
    status: 'booked',
    worded: shift(start, -100 * HOUR),
    asked: { ...asked, houseRules },
  })
  const promised = bookedBy({ ...asked.houseRules, mine })
  const does = (booking: Booking, command: DeskDoes, at: Instant) =>
    events(decide(booking, command, about(at)))

  it('gives what it promised for cancelling later than it may, the last moment free', () => {
    const cancel = { do: 'cancel', by: 'practitioner', text: '' } as const
    const until = shift(start, -24 * HOUR)
    expect(deadlinesIn(promised, lisbon).mine).toEqual({ until, cancelled: 50, grace: 10, late: 20 })
    expect(does(promised, cancel, until)).toMatchObject([{ type: 'cancelled', share: 0 }])
    expect(does(promised, cancel, until)[0]).not.toHaveProperty('gives')
    expect(does(promised, cancel, shift(until, 1))).toMatchObject([{ type: 'cancelled', gives: 50 }])
    expect(does(bookedBy(asked.houseRules), cancel, shift(until, 1))[0]).not.toHaveProperty('gives')
  })

  it('gives what it promised for coming later than it may', () => {
    const late = (minutes: number) => does(promised, { do: 'run-late', minutes }, shift(start, -HOUR))
    expect(late(10)[0]).not.toHaveProperty('gives')
    expect(late(11)).toMatchObject([{ type: 'running-late', minutes: 11, gives: 20 }])
  })

  it('is given back whether anything was paid or not, and no more than that', () => {
    const gone = step(promised, { do: 'cancel', by: 'practitioner', text: '' }, shift(start, -HOUR))
    const most = shareOf(promised.price, 50)
    expect(refusal(gone, { do: 'give-back', amount: most + 1, way: 'cash' }, start)).toBe('not-paid')
    expect(refusal(gone, { do: 'give-back', amount: most, way: 'cash' }, start)).toBe('done')
  })

  it('gives it for a time given up so late, unless another is taken', () => {
    const late = shift(start, -HOUR)
    const other = { start: shift(start, 48 * HOUR), place: 'video' }
    const offer: DeskDoes = { do: 'offer', text: '', starts: [other] }
    expect(does(promised, offer, shift(start, -24 * HOUR))[0]).not.toHaveProperty('gives')
    // Of a request, no session is given up.
    expect(does(fresh, offer, now)[0]).not.toHaveProperty('gives')
    const offered = step(promised, offer, late)
    expect([offered.gives, givenIn(offered).share]).toEqual([50, 0])
    const settled = shift(late, MINUTE)
    const none = step(offered, { do: 'refuse', text: '' }, settled)
    const gone = step(offered, { do: 'lapse' }, shift(offered.until, 1))
    const off = step(offered, { do: 'decline', text: '' }, settled)
    expect([none, gone, off].map((one) => givenIn(one).share)).toEqual([50, 50, 50])
    const taken = step(offered, { do: 'accept', ...other }, settled)
    expect(taken.gives).toBeUndefined()
    // Nor does it come back by something else: what its client cancels gives nothing.
    const left = step(taken, { do: 'cancel', by: 'client', text: '' }, shift(settled, MINUTE))
    expect(givenIn(left).share).toBe(0)
  })

  it('leaves nothing of the time that was given up: what a move made dearer, and an exception made of it', () => {
    const dear: Booking = { ...promised, leastShare: 50, movedBy: 'client', moves: 1 }
    const pleaded = step(dear, { do: 'plead', text: 'Please.' }, shift(start, -HOUR))
    const granted = step(pleaded, { do: 'except', granted: true, text: '' }, shift(start, -HOUR))
    const other = { start: shift(start, 480 * HOUR), place: 'video' }
    const offered = step(granted, { do: 'offer', text: '', starts: [other] }, shift(start, -HOUR / 2))
    const taken = step(offered, { do: 'accept', ...other }, shift(start, -HOUR / 4))
    expect(taken).toMatchObject({ status: 'booked', moves: 1, start: other.start })
    for (const gone of ['leastShare', 'movedBy', 'plea']) expect(taken).not.toHaveProperty(gone)
  })
})
