import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asked, fresh, now, refusal, step } from '../tests/deciding.ts'
import { DAY, MINUTE, SECOND, shift } from '../time/index.ts'
import { apply, type Booking, isPlaced, seenAt, stateAt, undoableAt } from './index.ts'

const rules = { ...asked.houseRules, graceMinutes: 15 }
const booked: Booking = step({ ...fresh, asked: { ...asked, houseRules: rules } }, { do: 'welcome' }, now)
const after = (minutes: number) => shift(booked.start, minutes * MINUTE)
const attend = { do: 'attend' } as const
const miss = { do: 'miss' } as const

describe('how a session went', () => {
  it('is said after it has begun, and that somebody missed it after the minutes of grace', () => {
    expect(refusal(booked, attend, booked.start)).toBe('too-early')
    expect(refusal(booked, attend, shift(booked.start, 1))).toBe('done')
    expect(refusal(booked, miss, after(15))).toBe('too-early')
    expect(refusal(booked, miss, shift(after(15), 1))).toBe('done')
    expect(refusal(fresh, attend, after(20))).toBe('not-booked')
  })

  it('can be taken back at once, and put right at any time', () => {
    const missed = step(booked, miss, after(20))
    expect(stateAt(missed, after(21))).toEqual({ is: 'missed' })
    const undo = undoableAt(missed, shift(after(20), SECOND))!
    expect(step(missed, { do: 'take-back', of: undo.of }, shift(after(20), SECOND)).status).toBe('booked')
    expect(undoableAt(missed, after(21))).toBeUndefined()
    const attended = step(missed, { ...attend, late: 20 }, shift(after(0), 3 * DAY))
    expect(attended).toMatchObject({ status: 'attended', late: 20 })
    // What was said before is gone where it is put right.
    const longer = step(attended, { ...attend, minutes: 90 }, shift(after(0), 4 * DAY))
    expect(longer).toMatchObject({ status: 'attended', lasted: 90, minutes: booked.minutes })
    expect(longer.late).toBeUndefined()
    expect(step(longer, miss, shift(after(0), 5 * DAY)).lasted).toBeUndefined()
  })

  it('said again the same changes nothing', () => {
    const attended = step(booked, { ...attend, late: 5 }, after(80))
    expect(step(attended, { ...attend, late: 5 }, after(90))).toEqual(attended)
    const missed = step(booked, miss, after(80))
    expect(step(missed, miss, after(90))).toEqual(missed)
  })

  it('tells nobody, moves no money, and closes what a client can still do', () => {
    fc.assert(
      fc.property(fc.boolean(), fc.integer({ min: 16, max: 50_000 }), (came, minutes) => {
        const at = after(minutes)
        const said = step(booked, came ? attend : miss, at)
        const settled = shift(at, MINUTE)
        expect(said.tells).toEqual(booked.tells)
        expect([said.price, said.share, said.sequence]).toEqual([booked.price, 0, booked.sequence])
        expect(isPlaced(stateAt(said, settled))).toBe(true)
        expect(seenAt(said, settled).status).toBe(came ? 'attended' : 'missed')
        for (const does of [
          { do: 'cancel', by: 'client', text: '' },
          { do: 'move-own', start: at, place: booked.place },
          { do: 'withdraw' },
        ] as const)
          expect(refusal(said, does, settled)).not.toBe('done')
      }),
    )
  })

  it('an event of it says only what was otherwise than planned', () => {
    const event = { type: 'attended' as const, at: after(80), settles: after(80) }
    expect(apply(booked, event)).not.toHaveProperty('late')
    expect(apply(booked, event)).not.toHaveProperty('lasted')
  })
})
