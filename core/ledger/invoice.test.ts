import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  afterEvents,
  type Booking,
  type BookingEvent,
  begin,
  invoiceInForce,
  sharesOf,
} from '../booking/index.ts'
import { splitTax } from '../money/rounding.ts'
import { type Tax, taxAt } from '../practice/index.ts'
import { newcomer, readAnswers } from '../questions/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { refusal, step } from '../tests/deciding.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { HOUR, parseInstant, shift } from '../time/index.ts'
import { accountOf, forLength, invoiceOf } from './index.ts'

const words = { service: 'A session', share: () => 'A share', mine: 'Taken off' }
const { at, start } = sampleAsked()

/** A booked session at a price, with the tax of its day. */
function booked(price: number, tax?: Booking['asked']['tax'], events: BookingEvent[] = []): Booking {
  const service = sampleService({
    price: { kind: 'fixed', amount: price },
    questionnaire: undefined as never,
  })
  const onTop = tax?.onTop ? { name: `${tax.name} ${tax.rate / 100} %`, rate: tax.rate } : undefined
  const reading = readAnswers(service, undefined, {}, newcomer, { extras: [], whole: false, tax: onTop })
  const asked = sampleAsked({ reading, ...(tax ? { tax } : {}) })
  return afterEvents(begin('b', asked), [{ type: 'welcomed', at, by: 'rules', settles: at }, ...events])
}
const adjusted = (amount: number): BookingEvent => ({
  type: 'adjusted',
  at,
  amount,
  text: 'So.',
  settles: at,
})

describe('tax', () => {
  // The fractions of a price that hold its tax: HM Revenue & Customs, VAT Notice 700, from memory: 1/6 at 20 %, 1/21 at 5 %.
  it.each([
    [12_000, 2_000, 2_000],
    [2_100, 500, 100],
    [12_300, 2_300, 2_300],
    [9_500, 2_300, 1_776],
  ])('in %i at %i basis points is %i', (gross, rate, tax) => {
    expect(splitTax(gross, rate)).toEqual({ net: gross - tax, tax })
    const invoice = invoiceOf(booked(gross, { name: 'VAT', rate }), words)
    expect(invoice).toMatchObject({ total: gross, tax: { amount: tax } })
  })

  it('on top is a line of the quote, and what is owed holds it', () => {
    const booking = booked(10_000, { name: 'VAT', rate: 2_300, onTop: true })
    expect(booking.price).toBe(12_300)
    expect(invoiceOf(booking, words)).toEqual({
      lines: [
        { name: 'First conversation', quantity: 1, amount: 10_000 },
        { name: 'VAT 23 %', quantity: 1, amount: 2_300 },
      ],
      total: 12_300,
      tax: { name: 'VAT', rate: 2_300, amount: 2_300 },
    })
  })

  it('has the rate of the day: the last whose first day has come, in the practice’s zone', () => {
    const tax: Tax = {
      name: 'VAT',
      rate: 2_300,
      later: [
        { from: '2027-07-01' as never, rate: 2_500 },
        { from: '2027-01-01' as never, rate: 2_400 },
      ],
    }
    const base = samplePractice()
    const practice = { ...base, profile: { ...base.profile, zone: 'Europe/Lisbon', tax } }
    const rate = (text: string) => taxAt(practice, parseInstant(text))?.rate
    expect(rate('2026-12-31T23:59Z')).toBe(2_300)
    expect(rate('2027-01-01T00:00Z')).toBe(2_400)
    // The first of July begins in Lisbon an hour before it does at Greenwich.
    expect(rate('2027-06-30T22:59Z')).toBe(2_400)
    expect(rate('2027-06-30T23:00Z')).toBe(2_500)
    expect(taxAt(samplePractice(), at)).toBeUndefined()
  })
})

describe('an invoice', () => {
  it('says everything owed, line by line, and comes to it whatever has happened', () => {
    const event = fc.oneof(
      fc.integer({ min: -4_000, max: 4_000 }).map(adjusted),
      fc
        .constantFrom(0, 33, 50, 100)
        .map(
          (share): BookingEvent => ({ type: 'cancelled', at, by: 'client', share, text: '', settles: at }),
        ),
      fc.constant<BookingEvent>({ type: 'missed', at: shift(start, HOUR), settles: at }),
      fc.constant<BookingEvent>({ type: 'paid', at, amount: 700, way: 'cash', settles: at }),
    )
    const tax = fc.constantFrom(
      undefined,
      { name: 'VAT', rate: 2_300 },
      { name: 'VAT', rate: 2_300, onTop: true },
    )
    fc.assert(
      fc.property(fc.nat({ max: 50_000 }), tax, fc.array(event, { maxLength: 5 }), (price, of, events) => {
        const booking = booked(price, of, events)
        const invoice = invoiceOf(booking, words)
        expect(invoice.total).toBe(accountOf(booking).owed)
        expect(invoice.lines.reduce((sum, { amount }) => sum + amount, 0)).toBe(invoice.total)
        if (!invoice.tax) return
        // To a cent or two, the tax is what the rate makes of what is left without it.
        const net = invoice.total - invoice.tax.amount
        expect(Math.abs(invoice.tax.amount - (net * 2_300) / 10_000)).toBeLessThan(2)
      }),
    )
  })

  it('is made of what was set up late, too: a price that was none, with the reason', () => {
    const free = booked(0, undefined, [{ ...adjusted(9_500), text: 'A session, as we said' } as BookingEvent])
    expect(invoiceOf(free, words)).toEqual({
      lines: [{ name: 'A session, as we said', quantity: 1, amount: 9_500 }],
      total: 9_500,
    })
  })

  it('has a number once, never changes, and is taken back by another of its own', () => {
    const made = step(booked(9_500), { do: 'invoice' }, shift(at, HOUR))
    expect(made.invoices).toMatchObject([{ number: 'A-7', total: 9_500 }])
    expect(refusal(made, { do: 'invoice' }, shift(at, HOUR))).toBe('invoiced-already')
    expect(refusal(made, { do: 'correct-invoice', number: 'A-6', text: 'So.' }, shift(at, HOUR))).toBe(
      'no-invoice',
    )
    const back = step(made, { do: 'correct-invoice', number: 'A-7', text: 'Twice.' }, shift(at, 2 * HOUR))
    expect(back.invoices?.at(-1)).toMatchObject({ corrects: 'A-7', total: -9_500, text: 'Twice.' })
    expect(invoiceInForce(back)).toBeUndefined()
    expect(back.invoices?.[0]).toEqual(made.invoices?.[0])
  })
})

describe('what a length costs', () => {
  // 75.00 for 30 minutes: common practice, no source; sums made by hand.
  it.each([
    [20, 5_000],
    [45, 11_250],
    [50, 12_500],
    [30, 7_500],
  ])('of %i minutes at 75.00 for 30 is %i', (lasted, price) => {
    const base = booked(7_500)
    const booking: Booking = { ...base, minutes: 30, status: 'attended', lasted }
    expect(forLength(booking)).toBe(price - 7_500)
  })
})

describe('instalments', () => {
  // 3,000.00 in seven: six of 428.57 and one of 428.58. Common practice, no source; sums made by hand.
  it('of which all but the last are rounded, and the last takes what is left', () => {
    const seventh = { kind: 'share', percent: 100 / 7 } as const
    const lines = Array.from({ length: 7 }, (_, i) => ({
      id: `l${i}`,
      much: i < 6 ? seventh : ({ kind: 'rest' } as const),
      due: { kind: 'word' } as const,
    }))
    const shares = sharesOf({ price: 300_000, deposit: 0, lines, ahead: false })
    expect(shares.map(({ amount }) => amount)).toEqual([...Array(6).fill(42_857), 42_858])
  })
})
