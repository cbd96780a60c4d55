import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { accountOf } from '../ledger/index.ts'
import { letterFor } from '../messages/index.ts'
import type { PaymentLine } from '../practice/types.ts'
import { sampleAsked } from '../tests/asked.ts'
import { lisbon, now, refusal, step } from '../tests/deciding.ts'
import { samplePractice } from '../tests/sample.ts'
import { DAY, duration, HOUR, type Instant, SECOND, shift } from '../time/index.ts'
import { type Asked, begin } from './index.ts'
import { mustFirst, openOnAsking, planOf, stillFirst } from './plan.ts'
import type { Booking, Mark } from './record.ts'
import { seenAt, stateAt } from './state.ts'
import { takes } from './takes.ts'

const word: PaymentLine = {
  id: 'l',
  much: { kind: 'share', percent: 30 },
  due: { kind: 'word' },
  first: true,
}

/** A request at 100.00, of which something must be paid first; six hours are left for it. */
function asked(change: Partial<Asked> = {}, marks: Mark[] = []): Booking {
  const base = sampleAsked({ payment: [word], first: duration('PT6H'), ...change })
  const reading = { ...base.reading, quote: { ...base.reading.quote, price: 10_000, deposit: 0 } }
  return { ...begin('b', { ...base, reading }), mailProved: true, marks }
}
const welcomed = step(asked(), { do: 'welcome' }, now)
const given = shift(now, 8 * SECOND)
const later = shift(now, HOUR)
const pay = (booking: Booking, amount: number, at: Instant): Booking =>
  step(booking, { do: 'pay', amount, way: 'transfer' }, at)

describe('what must be paid first', () => {
  it('holds the time after the word, and books it once it has come', () => {
    expect(stateAt(welcomed, later)).toEqual({ is: 'unpaid', until: shift(given, 6 * HOUR) })
    // Until the word can't be taken back, the client still reads that it is waited for.
    expect(stateAt(seenAt(welcomed, now), now).is).toBe('waiting')
    expect(takes(welcomed, later)).toMatchObject([{ kind: 'hold' }])
    expect(welcomed.tells).toMatchObject({ step: 'to-pay' })

    const some = pay(welcomed, 1_000, later)
    expect(stateAt(some, later).is).toBe('unpaid')
    expect(stillFirst(some, lisbon)).toMatchObject({ amount: 2_000 })
    const all = pay(some, 2_000, shift(later, HOUR))
    expect(stateAt(all, shift(later, HOUR))).toMatchObject({ is: 'booked' })
    expect(all).toMatchObject({ worded: shift(later, HOUR + 8 * SECOND), tells: { step: 'confirmation' } })
    expect(all.owes).toBeUndefined()
    // Taken back, the time is held again, and the money has not come.
    const back = step(all, { do: 'take-back', of: all.seq }, shift(later, HOUR + 3 * SECOND))
    expect(stateAt(back, shift(later, HOUR + 3 * SECOND)).is).toBe('unpaid')
    expect(stillFirst(back, lisbon)).toMatchObject({ amount: 2_000 })
  })

  it('lets the time go when it has not come: free, uncounted, told why, and what came is given back', () => {
    const until = shift(given, 6 * HOUR)
    const some = pay(welcomed, 1_000, later)
    expect(refusal(some, { do: 'lapse' }, until)).toBe('hold-stands')
    const lapsed = step(some, { do: 'lapse' }, shift(until, 1))
    expect(stateAt(lapsed, shift(until, 1)).is).toBe('lapsed')
    expect(takes(lapsed, shift(until, 1))).toEqual([])
    expect(accountOf(lapsed)).toMatchObject({ owed: 0, paid: 1_000, open: -1_000 })
    const letter = letterFor(
      samplePractice(),
      lapsed,
      { step: 'lapsed', anchor: lapsed.seq },
      shift(until, 1),
    )
    expect(letter?.text).toContain('what was to be paid first has not come')
    // What comes after that books nothing; it is to be given back.
    const late = pay(lapsed, 3_000, shift(until, HOUR))
    expect(stateAt(late, shift(until, HOUR)).is).toBe('lapsed')
    expect(accountOf(late).open).toBe(-4_000)
  })

  it('can be let go by both, free of charge, and booked all the same by the practitioner', () => {
    expect(stateAt(step(welcomed, { do: 'withdraw' }, later), later).is).toBe('withdrawn')
    expect(stateAt(step(welcomed, { do: 'decline', text: '' }, later), later).is).toBe('declined')
    expect(stateAt(step(welcomed, { do: 'welcome' }, later), later).is).toBe('booked')
    expect(refusal(welcomed, { do: 'cancel', by: 'client', text: '' }, later)).toBe('not-booked')
    expect(refusal(welcomed, { do: 'miss' }, later)).toBe('not-booked')
  })

  it('may come before the word: then the word books', () => {
    const ahead = pay(asked({ payment: [{ ...word, due: { kind: 'asking' } }] }), 3_000, now)
    expect(stateAt(ahead, later).is).toBe('waiting')
    expect(openOnAsking(ahead)).toBe(0)
    // Asked for on asking, whether it decides over the booking or not; it is said with the request.
    const { first: _, ...line } = word
    const open = asked({ payment: [{ ...line, due: { kind: 'asking' } }] })
    expect(openOnAsking(open)).toBe(3_000)
    expect(letterFor(samplePractice(), open, { step: 'asked', anchor: 1 }, now)?.text).toContain(
      '€30.00 is to be paid on asking.',
    )
    expect(openOnAsking(asked())).toBe(0)
    expect(accountOf(ahead)).toMatchObject({ owed: 10_000, open: 7_000 })
    expect(stateAt(step(ahead, { do: 'welcome' }, later), later).is).toBe('booked')
    const declined = step(ahead, { do: 'decline', text: '' }, later)
    expect(accountOf(declined).open).toBe(-3_000)
  })

  it('is also a deposit that rules ask, the whole price where misses have led to that, and nothing by hand', () => {
    const base = asked({ payment: [] })
    expect(mustFirst({ ...base, deposit: 2_500 })).toBe(2_500)
    expect(mustFirst({ ...base, deposit: 0 })).toBe(0)
    expect(mustFirst(asked({ payment: [] }, ['pay-first']))).toBe(10_000)
    const { first: _, ...none } = asked().asked
    expect(mustFirst({ ...asked(), asked: none })).toBe(0)
    expect(stateAt(step({ ...asked(), asked: none }, { do: 'welcome' }, now), later).is).toBe('booked')
  })

  it('has until its own day where it is due before the session, and never longer than to the start', () => {
    const before: PaymentLine = { ...word, id: 'm', due: { kind: 'before', by: duration('PT12H') } }
    const { start } = sampleAsked()
    const plan = planOf(step(asked({ payment: [before] }), { do: 'welcome' }, now), lisbon)
    expect(plan[0]).toMatchObject({ amount: 3_000, due: shift(start, -12 * HOUR), first: true })
    const long = step(asked({ first: duration('P30D') }), { do: 'welcome' }, now)
    expect(long.until).toBe(start)
    // With two, the hold goes from one to the other.
    const both = step(asked({ payment: [word, before] }), { do: 'welcome' }, now)
    const one = pay(both, 3_000, later)
    expect(stateAt(one, later)).toEqual({ is: 'unpaid', until: shift(start, -12 * HOUR) })
    expect(stateAt(pay(one, 3_000, later), later).is).toBe('booked')
  })

  it('waits when other times are taken, once, and not for what was booked already', () => {
    const starts = [{ start: shift(sampleAsked().start, DAY), place: 'video' }]
    const offered = step(welcomed, { do: 'offer', starts, text: '' }, later)
    expect(stateAt(offered, later).is).toBe('offered')
    const soon = shift(later, 9 * SECOND)
    const taken = step(offered, { do: 'accept', ...starts[0]! }, soon)
    expect(stateAt(taken, soon)).toEqual({ is: 'unpaid', until: shift(soon, 6 * HOUR) })
    const booked = pay(welcomed, 3_000, later)
    const again = step(booked, { do: 'offer', starts, text: '' }, shift(later, HOUR))
    const then = shift(later, 2 * HOUR)
    expect(stateAt(step(again, { do: 'accept', ...starts[0]! }, then), then).is).toBe('booked')
  })

  it('is booked exactly when enough has come, however it comes', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 2_000 }), { maxLength: 6 }), (sums) => {
        let booking = welcomed
        let came = 0
        sums.forEach((amount, i) => {
          booking = pay(booking, amount, shift(later, i * MINUTE_APART))
          came += amount
          expect(booking.status).toBe(came >= 3_000 ? 'booked' : 'requested')
          expect(accountOf(booking).open).toBe(10_000 - came)
        })
      }),
    )
  })
})

const MINUTE_APART = 60_000
