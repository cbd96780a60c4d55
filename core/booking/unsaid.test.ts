import { describe, expect, it } from 'vitest'
import { sampleAsked } from '../tests/asked.ts'
import { about, asked, events, fresh, now, refusal, step } from '../tests/deciding.ts'
import { HOUR, MINUTE, shift } from '../time/index.ts'
import { apply, begin, type Command, decide, replay, stateAt, takes, UNDO } from './index.ts'

describe('an address that has not proved true', () => {
  const open = begin('b', sampleAsked({ proof: 'open', until: shift(asked.at, 30 * MINUTE) }))
  const soon = shift(asked.at, 10 * MINUTE)

  it('is not decided on, and is held shortly', () => {
    expect(stateAt(open, soon)).toEqual({ is: 'unproved', until: open.until })
    const decisions: Command[] = [
      { do: 'welcome' },
      { do: 'decline', text: '' },
      { do: 'offer', starts: [], text: '' },
      { do: 'overrule', outcome: 'fits', text: '' },
    ]
    for (const command of decisions) expect(refusal(open, command, soon)).toBe('not-proved')
    expect(stateAt(open, shift(open.until, 1)).is).toBe('lapsed')
    expect(step(open, { do: 'lapse' }, shift(open.until, 1)).tells).toBeUndefined()
    expect(step(open, { do: 'withdraw' }, soon).tells).toBeUndefined()
  })

  it('is held for the practitioner’s word from the moment it proves true, or is booked where no word is needed', () => {
    const proved = step(open, { do: 'prove' }, soon)
    expect(stateAt(proved, soon)).toEqual({ is: 'waiting', until: shift(soon, 24 * HOUR) })
    expect(proved.awaited).toEqual({ seq: 2, at: soon })
    const straight = { ...about(soon), proving: () => ({ until: soon, straight: true, marks: [] }) }
    const booked = events(decide(open, { do: 'prove' }, straight)).reduce(apply, open)
    expect(booked).toMatchObject({ status: 'booked', tells: { step: 'confirmation', due: soon } })
    expect(booked.unsettled).toBeUndefined()
    const late = shift(open.until, 1)
    expect(stateAt(step(open, { do: 'prove' }, late), late).is).toBe('lapsed')
  })
})

describe('a client’s act that crosses a decision not said yet', () => {
  const cancel: Command = { do: 'cancel', by: 'client', text: '' }

  it('takes it back first, and is judged by what they see', () => {
    const welcomed = step(fresh, { do: 'welcome' }, now)
    expect(events(decide(welcomed, { do: 'withdraw' }, about(now))).map(({ type }) => type)).toEqual([
      'taken-back',
      'withdrawn',
    ])
    const before = shift(asked.start, -30 * HOUR)
    const booked = apply(fresh, { type: 'welcomed', at: before, by: 'practitioner', settles: before })
    const to = { start: shift(asked.start, 100 * HOUR), place: 'video', minutes: 75 }
    const late = shift(asked.start, -HOUR)
    const moved = step(booked, { do: 'move', ...to, text: '', clash: false }, late)
    // By the start they see it is too late to be free.
    expect(step(moved, cancel, late)).toMatchObject({ status: 'cancelled', share: 100, start: asked.start })
    expect(step(moved, cancel, shift(late, UNDO + 1))).toMatchObject({ share: 0, start: to.start })
  })

  it('leaves one message to be told: the newest', () => {
    const welcomed = step(fresh, { do: 'welcome' }, now)
    expect(welcomed.tells).toEqual({ seq: 2, step: 'confirmation', due: shift(now, UNDO + 1) })
    expect(step(welcomed, { do: 'take-back', of: 2 }, now).tells).toEqual({
      seq: 1,
      step: 'asked',
      due: asked.at,
    })
    const off = step(welcomed, { do: 'cancel', by: 'practitioner', text: '' }, now)
    expect(off.tells).toEqual({ seq: 3, step: 'cancelled', due: shift(now, UNDO + 1) })
    expect(stateAt(step(off, { do: 'take-back', of: 3 }, now), now).is).toBe('booked')
    expect(takes(off, now).map((take) => take.start)).toEqual([asked.start])
    expect(takes(off, shift(now, UNDO + 1))).toEqual([])
  })
})

describe('records of earlier versions', () => {
  it('are read as this program means them, and newer ones are not', () => {
    const { v: _, asking: __, proof: ___, shown: ____, ...rest } = asked
    const first = { ...rest, standing: 'known' as const, byHand: true }
    const gone = { type: 'cancelled' as const, at: now, by: 'client' as const, share: 50, text: '' }
    const booking = replay('b', [first, { type: 'welcomed', at: now, by: 'rules', settles: now }, gone])
    expect(booking).toMatchObject({ status: 'cancelled', share: 50, asked: { v: 2, proof: 'hand' } })
    expect(booking.asked.asking).toEqual({ standing: 'known', invited: false, tags: [], attempts: 0 })
    expect(booking.unsettled).toBeUndefined()
    expect(() => replay('b', [asked, { type: 'not-known-yet', at: now } as never])).toThrow('newer Acolhida')
    expect(() => replay('b', [{ ...asked, v: 3 } as never])).toThrow('newer Acolhida')
  })
})
