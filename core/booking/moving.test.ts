import { describe, expect, it } from 'vitest'
import { about, asked, events, fresh, lisbon, now, refusal, step } from '../tests/deciding.ts'
import { before, duration, HOUR, instant, MINUTE, shift } from '../time/index.ts'
import { type Booking, costOf, deadlinesIn, decide, movable } from './index.ts'

const rules = {
  ...asked.houseRules,
  cancel: [
    { until: duration('PT36H'), share: 0 },
    { until: duration('PT24H'), share: 50 },
  ],
  cancelAfter: 100,
  move: { until: duration('PT24H'), times: 2 },
}
const settled = shift(now, MINUTE)
const booked: Booking = step({ ...fresh, asked: { ...asked, houseRules: rules } }, { do: 'welcome' }, now)
const until = before(booked.start, duration('PT24H'), lisbon)
const to = (hours: number) => ({
  do: 'move-own' as const,
  start: shift(booked.start, hours * HOUR),
  place: booked.place,
})

describe('moving one’s own session', () => {
  it('is in time at the last moment itself, and a moment later is not', () => {
    expect(refusal(booked, to(48), until)).toBe('done')
    expect(refusal(booked, to(48), shift(until, 1))).toBe('too-late')
    expect(refusal(booked, to(48), booked.start)).toBe('too-late')
    expect(refusal(fresh, to(48), settled)).toBe('not-booked')
  })

  it('is possible as often as the rules of the day one asked say', () => {
    expect(movable(booked, lisbon)).toEqual({ until, left: 2 })
    const once = step(booked, to(48), settled)
    expect(movable(once, lisbon)?.left).toBe(1)
    const twice = step(once, to(72), settled)
    expect(movable(twice, lisbon)).toBeUndefined()
    expect(refusal(twice, to(24), settled)).toBe('too-late')
    // What the practitioner moves is not counted.
    const theirs = step(
      once,
      { do: 'move', start: shift(once.start, HOUR), place: once.place, minutes: 75, text: '', clash: false },
      settled,
    )
    expect(movable(theirs, lisbon)?.left).toBe(1)
  })

  it('goes to what is open alone, keeps length and price, and raises the revision of the entry', () => {
    const decision = decide(booked, to(48), about(settled, ['overlap']))
    expect('refused' in decision && decision.refused.code).toBe('not-open')
    const moved = step(booked, to(48), settled)
    expect(moved).toMatchObject({
      status: 'booked',
      start: to(48).start,
      minutes: booked.minutes,
      price: booked.price,
      sequence: booked.sequence + 1,
      movedBy: 'client',
      tells: { step: 'moved', due: settled },
    })
    // Nobody can take it back: it was the client's own.
    expect(moved.unsettled).toBeUndefined()
    expect(events(decide(booked, { ...to(0) }, about(settled)))).toEqual([])
  })

  it('makes cancelling no cheaper than it was, until the practitioner moves it', () => {
    const atHalf = shift(before(booked.start, duration('PT36H'), lisbon), HOUR)
    expect(costOf(booked, lisbon, atHalf)).toBe(50)
    const moved = step(booked, to(24 * 14), atHalf)
    expect(moved.leastShare).toBe(50)
    expect(costOf(moved, lisbon, atHalf)).toBe(50)
    expect(deadlinesIn(moved, lisbon).deadlines.map(({ share }) => share)).toEqual([50, 50, undefined])
    const late = instant(moved.start - HOUR)
    expect(costOf(moved, lisbon, late)).toBe(100)
    const theirs = step(
      moved,
      {
        do: 'move',
        start: shift(moved.start, HOUR),
        place: moved.place,
        minutes: 75,
        text: '',
        clash: false,
      },
      atHalf,
    )
    expect(costOf(theirs, lisbon, atHalf)).toBe(0)
    expect(theirs.movedBy).toBeUndefined()
    // Moved in time, nothing is owed for it.
    expect(step(booked, to(24 * 14), settled).leastShare).toBeUndefined()
  })

  it('takes back first what the client has not been told', () => {
    const untold = step(
      booked,
      {
        do: 'move',
        start: shift(booked.start, HOUR),
        place: booked.place,
        minutes: 75,
        text: '',
        clash: false,
      },
      settled,
    )
    const types = events(decide(untold, to(48), about(shift(settled, 1_000)))).map(({ type }) => type)
    expect(types).toEqual(['taken-back', 'moved'])
  })
})
