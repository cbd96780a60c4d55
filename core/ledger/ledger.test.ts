import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { afterEvents, type Booking, type BookingEvent, begin, planOf } from '../booking/index.ts'
import type { PaymentLine } from '../practice/types.ts'
import { sampleAsked } from '../tests/asked.ts'
import { step } from '../tests/deciding.ts'
import { DAY, duration, formatInstant, HOUR, SECOND, shift, zone } from '../time/index.ts'
import {
  accountOf,
  creditorReference,
  ibanWords,
  isIban,
  isReference,
  referenceOf,
  transferPayload,
} from './index.ts'

const utc = zone('UTC')
const { at, start } = sampleAsked()

/** A booking at a price in minor units, after some events. */
function booked(price: number, events: BookingEvent[] = [], payment?: PaymentLine[], deposit = 0): Booking {
  const asked = sampleAsked(payment ? { payment } : {})
  const reading = { ...asked.reading, quote: { ...asked.reading.quote, price, deposit } }
  const welcomed: BookingEvent = { type: 'welcomed', at, by: 'rules', settles: at }
  return afterEvents(begin('b', { ...asked, reading }), [welcomed, ...events])
}
const paid = (amount: number): BookingEvent => ({
  type: 'paid',
  at: shift(at, HOUR),
  amount,
  way: 'cash',
  settles: at,
})
const back = (amount: number): BookingEvent => ({
  ...{ type: 'given-back', at: shift(at, 2 * HOUR), amount, way: 'cash', settles: at },
})
const adjusted = (amount: number): BookingEvent => ({
  ...{ type: 'adjusted', at: shift(at, HOUR), amount, text: 'So.', settles: at },
})
const cancelled = (share: number): BookingEvent => ({
  ...{ type: 'cancelled', at: shift(at, 3 * HOUR), by: 'client', share, text: '', settles: at },
})
const missed: BookingEvent = { type: 'missed', at: shift(start, HOUR), settles: at }

describe('the ledger', () => {
  it('owes the price once booked, the share once cancelled or missed, and nothing before', () => {
    expect(accountOf(begin('b', sampleAsked()))).toMatchObject({ owed: 0, open: 0, lines: [] })
    expect(accountOf(booked(9_500))).toMatchObject({ owed: 9_500, paid: 0, open: 9_500 })
    expect(accountOf(booked(9_555, [cancelled(50)]))).toMatchObject({ owed: 4_778, open: 4_778 })
    expect(accountOf(booked(9_500, [cancelled(0)]))).toMatchObject({ owed: 0, open: 0 })
    const { cancelAfter } = sampleAsked().houseRules
    expect(accountOf(booked(9_500, [missed])).owed).toBe((9_500 * cancelAfter) / 100)
  })

  it('counts what came, went back and was changed, and says what is to be given back', () => {
    const one = accountOf(booked(9_500, [adjusted(-1_500), paid(9_000), back(500)]))
    expect(one).toMatchObject({ owed: 8_000, paid: 9_000, givenBack: 500, open: -500 })
    expect(accountOf(booked(9_500, [paid(9_500), cancelled(0)])).open).toBe(-9_500)
  })

  it('gives what the practitioner has promised for their own part, of a session paid or not', () => {
    const own = {
      type: 'cancelled',
      at: shift(at, 3 * HOUR),
      by: 'practitioner',
      text: '',
      settles: at,
    } as const
    const late = { type: 'running-late', at: shift(at, HOUR), minutes: 20, settles: at } as const
    const cancelledLate: BookingEvent = { ...own, share: 0, gives: 50 }
    expect(accountOf(booked(9_555, [cancelledLate]))).toMatchObject({ owed: -4_778, open: -4_778 })
    expect(accountOf(booked(9_500, [paid(9_500), cancelledLate])).open).toBe(-14_250)
    expect(accountOf(booked(9_500, [cancelledLate, back(4_750)])).open).toBe(0)
    expect(
      accountOf(booked(9_500, [{ ...late, gives: 20 }])).lines.map(({ what, amount }) => [what, amount]),
    ).toEqual([
      ['price', 9_500],
      ['mine', -1_900],
    ])
    expect(accountOf(booked(9_500, [late])).owed).toBe(9_500)
    // Said anew, the last word counts; cancelled after it, the cancelling alone.
    expect(accountOf(booked(9_500, [{ ...late, gives: 20 }, late])).owed).toBe(9_500)
    expect(accountOf(booked(9_500, [{ ...late, gives: 20 }, cancelledLate])).owed).toBe(-4_750)
  })

  it('gives it for a time given up late when none of the others was taken, and not while they stand', () => {
    const offered: BookingEvent = {
      ...{ type: 'offered', at: shift(at, HOUR), until: shift(at, DAY), text: '', settles: at },
      ...{ starts: [{ start: shift(start, DAY), place: 'video' }], gives: 50 },
    }
    expect(accountOf(booked(9_500, [offered])).lines).toEqual([])
    expect(accountOf(booked(9_500, [offered, { type: 'lapsed', at: shift(at, DAY) }])).open).toBe(-4_750)
    const taken: BookingEvent = {
      type: 'accepted',
      at: shift(at, DAY),
      start: shift(start, DAY),
      place: 'video',
    }
    expect(accountOf(booked(9_500, [offered, taken])).open).toBe(9_500)
  })

  it('keeps what was noted a moment before its client does something', () => {
    const noting = { do: 'pay', amount: 9_500, way: 'cash' } as const
    const noted = step(booked(9_500), noting, shift(at, HOUR))
    const gone = step(noted, { do: 'cancel', by: 'client', text: '' }, shift(at, HOUR + SECOND))
    expect(gone).toMatchObject({ status: 'cancelled', payments: [{ amount: 9_500 }] })
    expect(accountOf(gone).open).toBe(-9_500)
    // A decision that contradicts it is taken back as before.
    const moved = {
      do: 'move',
      start: shift(start, DAY),
      place: 'video',
      minutes: 75,
      text: '',
      clash: false,
    } as const
    const back = step(
      step(noted, moved, shift(at, 2 * HOUR)),
      { do: 'cancel', by: 'client', text: '' },
      shift(at, 2 * HOUR + SECOND),
    )
    expect(back).toMatchObject({ status: 'cancelled', start, payments: [{ amount: 9_500 }] })
  })

  it('always adds up, whatever happens, and no money comes from nowhere', () => {
    const event = fc.oneof(
      fc.integer({ min: 1, max: 20_000 }).map(paid),
      fc.integer({ min: 1, max: 5_000 }).map(back),
      fc.integer({ min: -5_000, max: 5_000 }).map(adjusted),
      fc.constantFrom(0, 33, 50, 100).map(cancelled),
      fc.constant(missed),
      fc.constantFrom(0, 33, 100).map(
        (gives): BookingEvent => ({
          ...{ type: 'running-late', at: shift(start, -HOUR), minutes: 20, settles: at },
          gives,
        }),
      ),
    )
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100_000 }),
        fc.array(event, { maxLength: 8 }),
        (price, events) => {
          const { lines, owed, paid: came, givenBack, open } = accountOf(booked(price, events))
          expect(lines.reduce((sum, { amount }) => sum + amount, 0)).toBe(open)
          expect(open).toBe(owed - came + givenBack)
          const said = (type: string) =>
            events.reduce((sum, one) => (one.type === type && 'amount' in one ? sum + one.amount : sum), 0)
          expect([came, givenBack]).toEqual([said('paid'), said('given-back')])
        },
      ),
    )
  })
})

describe('how a price is paid', () => {
  const line = (much: PaymentLine['much'], due: PaymentLine['due']): PaymentLine => ({ id: 'x', much, due })
  const plan = (booking: Booking) =>
    planOf(booking, utc).map(({ amount, due, kind }) => [amount, formatInstant(due), kind])

  it('is on the day where nothing else was said, a deposit of the rules before it', () => {
    expect(plan(booked(9_500))).toEqual([[9_500, formatInstant(start), 'on-the-day']])
    expect(plan(booked(9_500, [], undefined, 2_000))).toEqual([
      [2_000, formatInstant(at), 'deposit'],
      [7_500, formatInstant(start), 'on-the-day'],
    ])
    expect(plan(booked(0))).toEqual([])
  })

  it('is by the lines of its day: sums, shares of the whole price, the rest; never more than there is', () => {
    const lines = [
      line({ kind: 'share', percent: 30 }, { kind: 'word' }),
      line({ kind: 'sum', amount: 1_000 }, { kind: 'before', by: duration('P1D') }),
      line({ kind: 'rest' }, { kind: 'after', by: duration('P14D') }),
    ]
    // 30 % of 95.55 is 28.665: half away from zero.
    expect(plan(booked(9_555, [], lines))).toEqual([
      [2_867, formatInstant(at), 'word'],
      [1_000, formatInstant(shift(start, -DAY)), 'before'],
      [5_688, formatInstant(shift(start, 75 * 60_000 + 14 * DAY)), 'after'],
    ])
    expect(plan(booked(500, [], [line({ kind: 'sum', amount: 9_999 }, { kind: 'word' })]))).toEqual([
      [500, formatInstant(at), 'word'],
    ])
    // Due before it was booked is due then.
    const early = line({ kind: 'rest' }, { kind: 'before', by: duration('P60D') })
    expect(plan(booked(500, [], [early]))).toEqual([[500, formatInstant(at), 'before']])
  })

  it('adds up to the price', () => {
    const much = fc.oneof(
      fc.integer({ min: 0, max: 9_000 }).map((amount) => ({ kind: 'sum' as const, amount })),
      fc.integer({ min: 0, max: 100 }).map((percent) => ({ kind: 'share' as const, percent })),
      fc.constant({ kind: 'rest' as const }),
    )
    fc.assert(
      fc.property(
        fc.nat({ max: 50_000 }),
        fc.array(much, { maxLength: 5 }),
        fc.nat({ max: 9_000 }),
        (price, of, deposit) => {
          const lines = of.map((one) => line(one, { kind: 'word' }))
          const all = planOf(booked(price, [], lines, Math.min(deposit, price)), utc)
          expect(all.reduce((sum, { amount }) => sum + amount, 0)).toBe(price)
          expect(all.every(({ amount }) => amount > 0)).toBe(true)
        },
      ),
    )
  })
})

describe('transfers', () => {
  // The examples of the IBAN registry (ISO 13616), from memory, and one with two digits swapped.
  it.each([
    ['GB29 NWBK 6016 1331 9268 19', true],
    ['DE89 3704 0044 0532 0130 00', true],
    ['PT50 0002 0123 1234 5678 9015 4', true],
    ['FR14 2004 1010 0505 0001 3M02 606', true],
    ['GB29 NWBK 6016 1331 9268 91', false],
    ['PT50', false],
  ])('go to %s: %s', (iban, holds) => {
    expect(isIban(iban)).toBe(holds)
  })

  it('carry a reference with check digits', () => {
    // The example of ISO 11649, from memory.
    expect(creditorReference('539007547034')).toBe('RF18539007547034')
    expect(isReference('RF18 5390 0754 7034')).toBe(true)
    expect(isReference('RF18 5390 0754 7043')).toBe(false)
    expect(() => creditorReference('a b')).toThrow('letters and digits')
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 40 }), (id) => {
        const reference = referenceOf({ id })
        expect(isReference(reference)).toBe(true)
        expect(reference).toBe(referenceOf({ id }))
        // Another digit, or letter, in place of the last is noticed.
        const last = reference.at(-1)!
        const alike = /\d/.test(last) ? '0123456789' : 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'
        const other = alike[(alike.indexOf(last) + 1) % alike.length]!
        expect(isReference(reference.slice(0, -1) + other)).toBe(false)
      }),
    )
    expect(ibanWords('PT50000201231234567890154')).toBe('PT50 0002 0123 1234 5678 9015 4')
  })

  it('can be scanned: the lines of EPC069-12, version 002', () => {
    const to = { name: 'Iria Montalvar', iban: 'PT50000201231234567890154' }
    expect(transferPayload(to, 9_505, 'EUR', 'RF18539007547034')?.split('\n')).toEqual([
      ...['BCD', '002', '1', 'SCT', '', 'Iria Montalvar', 'PT50000201231234567890154', 'EUR95.05', ''],
      'RF18539007547034',
    ])
    expect(transferPayload(to, 9_500, 'CHF', 'x')).toBeUndefined()
    expect(transferPayload(to, 0, 'EUR', 'x')).toBeUndefined()
  })
})
