import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Booking } from '../booking/index.ts'
import type { Path } from '../practice/index.ts'
import { samplePractice } from '../tests/sample.ts'
import { DAY, duration, type Instant, instant, parseInstant, zone } from '../time/index.ts'
import {
  balanceOf,
  type CourseEvent,
  dueToInvoice,
  givenPath,
  instalments,
  invoiceable,
  invoiceOfPath,
  moneyWith,
  nextPay,
  notInvoiced,
  openOfInvoice,
  paidFor,
  pathFault,
  paysAt,
  replayCourse,
  sharesByMinutes,
} from './index.ts'

const given = parseInstant('2027-01-11T10:00Z')
const practice = samplePractice()
const service = practice.services[0]!.id
const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'Europe/Lisbon' }
/** A path of 3,000.00: one session of 60 and six of 30 minutes, in seven instalments a month apart (`decisions.md` 17). */
const PATH: Path = {
  ...{ id: 'half-a-year', name: 'Half a year', text: '', price: 300_000 },
  stations: [
    { id: 'pay', does: 'pay', parts: 7, after: duration('P7D'), every: duration('P1M') },
    { id: 'long', does: 'sessions', service, minutes: 60, many: 1 },
    { id: 'rest', does: 'pause', days: 10 },
    { id: 'short', does: 'sessions', service, minutes: 30, many: 6, least: 5, most: 21 },
  ],
}
const begin = (path = PATH): CourseEvent => ({
  ...{ type: 'given', at: given, person },
  ...givenPath(practice, path, given, zone('Europe/Lisbon')),
})
/** As much of a booking as a path looks at. */
const booking = (id: string, more: Partial<Booking>): Booking =>
  ({
    ...{ id, status: 'booked', share: 0, start: given, minutes: 30, until: given, latest: given, offers: [] },
    ...{ asked: { houseRules: { cancelAfter: 100 } }, ...more },
  }) as Booking

describe('money that is shared out', () => {
  it('adds up to the last unit (check values of the trade: common practice, no source)', () => {
    expect(instalments(300_000, 7)).toEqual([...Array<number>(6).fill(42_857), 42_858])
    expect(sharesByMinutes(300_000, [60, 30, 30, 30, 30, 30, 30])).toEqual([
      75_000,
      ...Array<number>(6).fill(37_500),
    ])
    expect(instalments(0, 3)).toEqual([0, 0, 0])
    fc.assert(
      fc.property(fc.nat(1_000_000_000), fc.integer({ min: 1, max: 60 }), (amount, parts) => {
        const all = instalments(amount, parts)
        expect(all.reduce((a, b) => a + b, 0)).toBe(amount)
        expect(Math.max(...all) - Math.min(...all)).toBeLessThan(parts)
      }),
    )
    fc.assert(
      fc.property(
        fc.nat(1_000_000_000),
        fc.array(fc.integer({ min: 1, max: 600 }), { minLength: 1, maxLength: 60 }),
        (amount, minutes) => {
          const all = sharesByMinutes(amount, minutes)
          const whole = minutes.reduce((a, b) => a + b, 0)
          expect(all.reduce((a, b) => a + b, 0)).toBe(amount)
          // Nobody's share is off by more than the roundings of all.
          all.forEach((share, i) => {
            expect(Math.abs(share - (amount * minutes[i]!) / whole)).toBeLessThanOrEqual(minutes.length)
            expect(share).toBeGreaterThanOrEqual(0)
          })
        },
      ),
    )
  })
})

describe('a path', () => {
  it('is given session by session, with distances, worths and dates', () => {
    const { path } = givenPath(practice, PATH, given, zone('Europe/Lisbon'))
    expect(path.sessions.map(({ id, minutes, worth, least }) => [id, minutes, worth, least])).toEqual([
      ['long', 60, 75_000, undefined],
      // A pause of ten days and the least distance of five.
      ['short-1', 30, 37_500, 15],
      ...[2, 3, 4, 5, 6].map((n) => [`short-${n}`, 30, 37_500, 5]),
    ])
    expect(path.sessions[1]!.most).toBe(21)
    // A month from the 18th is the 18th, by the clock of the practice.
    expect(path.pays.map(({ due }) => due).slice(0, 4)).toEqual(
      ['2027-01-18T10:00Z', '2027-02-18T10:00Z', '2027-03-18T10:00Z', '2027-04-18T09:00Z'].map(parseInstant),
    )
    expect(path.order).toEqual([
      ...[1, 2, 3, 4, 5, 6, 7].map((n) => `pay-${n}`),
      'long',
      ...[1, 2, 3, 4, 5, 6].map((n) => `short-${n}`),
    ])
    const unsaid = givenPath(practice, { ...PATH, stations: PATH.stations.slice(1) }, given, zone('UTC'))
    expect(unsaid.path.pays).toEqual([{ id: 'whole', amount: 300_000, due: given }])
    expect(unsaid.path.order[0]).toBe('whole')
  })

  it('has no two sessions or payments of one name, whatever its stations are called', () => {
    const one = { does: 'sessions', service, minutes: 30, many: 6 } as const
    const stations: Path['stations'] = [
      { ...one, id: 'sessions' },
      { ...one, id: 'sessions-2', many: 1 },
      { ...one, id: 'sessions-1', many: 2 },
    ]
    const { path } = givenPath(practice, { ...PATH, stations }, given, zone('UTC'))
    const ids = path.sessions.map(({ id }) => id)
    expect(new Set(ids).size).toBe(9)
    expect(path.order).toEqual(['whole', ...ids])
  })

  it('that can never be planned is said so', () => {
    const one = (station: Path['stations'][number]) => pathFault(practice, { ...PATH, stations: [station] })
    expect(pathFault(practice, PATH)).toBeUndefined()
    expect(one({ id: 'a', does: 'sessions', service: 'gone', minutes: 30, many: 1 })).toContain('gone')
    expect(one({ id: 'a', does: 'sessions', service, minutes: 30, many: 2, least: 9, most: 3 })).toContain(
      '9 days',
    )
    expect(one({ id: 'a', does: 'prepare', preparation: 'none' })).toContain('gone')
    expect(pathFault(practice, { ...PATH, stations: [] })).toContain('nothing')
    const many = { id: 'a', does: 'sessions', service, minutes: 30, many: 60 } as const
    expect(pathFault(practice, { ...PATH, stations: [many, { ...many, id: 'b' }] })).toContain('120')
  })

  it('gives back 1,500.00 when it is ended after the long and two short ones (check value)', () => {
    const bookings = new Map([
      ['b0', booking('b0', { status: 'attended' })],
      ['b1', booking('b1', { status: 'attended' })],
      // Missed at the whole price, it is used up.
      ['b2', booking('b2', { status: 'missed' })],
    ])
    const course = replayCourse('one', [
      begin(),
      ...['long', 'short-1', 'short-2'].map(
        (session, i): CourseEvent => ({ type: 'booked', at: given, session, booking: `b${i}` }),
      ),
      { type: 'paid', at: given, amount: 300_000, way: 'transfer' },
    ])
    expect(balanceOf(course, (id) => bookings.get(id), given)).toMatchObject({
      ...{
        used: 3,
        planned: 0,
        left: 4,
        price: 300_000,
        paid: 300_000,
        open: 0,
        worth: 150_000,
        back: 150_000,
      },
    })
  })

  it('is used up by what took place or was given up too late, and by nothing else', () => {
    const stateOf = (more: Partial<Booking> | undefined) => {
      const course = replayCourse('one', [
        begin(),
        { type: 'booked', at: given, session: 'long', booking: 'b' },
      ])
      return balanceOf(course, () => more && booking('b', more), given).sessions[0]!.is
    }
    expect(stateOf(undefined)).toBe('left')
    expect(stateOf({})).toBe('planned')
    expect(stateOf({ status: 'attended' })).toBe('used')
    expect(stateOf({ status: 'cancelled', share: 100 })).toBe('used')
    // For a part of the price that part is owed, and the session is there once more.
    expect(stateOf({ status: 'cancelled', share: 50 })).toBe('left')
    expect(stateOf({ status: 'cancelled' })).toBe('left')
    const half = { cancelAfter: 50 } as Booking['asked']['houseRules']
    expect(stateOf({ status: 'missed', asked: { houseRules: half } as Booking['asked'] })).toBe('left')
  })

  it('says what is due next with what was due before, and nothing once it has come or ended', () => {
    const at = (day: number): Instant => (given + day * 86_400_000) as Instant
    const paid = (amount: number): CourseEvent => ({ type: 'paid', at: at(8), amount, way: 'cash' })
    expect(nextPay(replayCourse('one', [begin()]))).toMatchObject({ id: 'pay-1', amount: 42_857 })
    const some = replayCourse('one', [begin(), paid(50_000)])
    expect(nextPay(some)).toMatchObject({ id: 'pay-2', amount: 2 * 42_857 - 50_000 })
    expect(nextPay(replayCourse('one', [begin(), paid(300_000)]))).toBeUndefined()
    expect(nextPay(replayCourse('one', [begin(), { type: 'ended', at: at(1) }]))).toBeUndefined()
    const balance = balanceOf(some, () => undefined, at(40))
    expect(balance).toMatchObject({ due: 2 * 42_857, overdue: 2 * 42_857 - 50_000, open: 250_000 })
  })

  it('is late a day after its date, and what comes goes to the earliest part', () => {
    const at = (day: number): Instant => (given + day * DAY) as Instant
    const some = replayCourse('one', [begin(), { type: 'paid', at: at(1), amount: 50_000, way: 'cash' }])
    const [first, second] = paysAt(some, given)
    expect([first!.is, second!.is, second!.open]).toEqual(['paid', 'open', 2 * 42_857 - 50_000])
    const late = instant(second!.due + DAY)
    expect(paysAt(some, late)[1]!.is).toBe('open')
    expect(paysAt(some, instant(late + 1))[1]!.is).toBe('overdue')
    expect(balanceOf(some, () => undefined, instant(late + 1)).overdue).toBe(2 * 42_857 - 50_000)
  })

  it('gives back with its end, and taking that back leaves all that has happened meanwhile', () => {
    const paid = (amount: number): CourseEvent => ({ type: 'paid', at: given, amount, way: 'cash' })
    const more = {
      sessions: [{ id: 'more', service, name: 'x', minutes: 30, worth: 100 }],
      pays: [{ id: 'more', amount: 100, due: given }],
    }
    const begun = [begin(), paid(90_000)]
    const ended: CourseEvent = { type: 'ended', at: given, settles: instant(given + 8_000), back: 40_000 }
    expect(paidFor(replayCourse('one', [...begun, ended]))).toBe(50_000)
    const meanwhile: CourseEvent[] = [
      { type: 'paused', at: given, text: 'Away.' },
      { type: 'extended', at: given, ...more },
      paid(1_000),
    ]
    for (const act of [ended, { type: 'chased', at: given, text: 'So.', settles: given } as const]) {
      const back = replayCourse('one', [
        ...begun,
        act,
        ...meanwhile,
        { type: 'taken-back', at: given, of: 3 },
      ])
      const { seq: _, payments, ...kept } = replayCourse('one', [...begun, ...meanwhile])
      expect({ ...back, payments: payments!.length }).toMatchObject({ ...kept, payments: payments!.length })
      expect([back.ended, back.chased, back.unsettled, paidFor(back)]).toEqual([
        ...[undefined, undefined, undefined, 91_000],
      ])
    }
  })

  it('always adds up, whatever is booked, extended, paid and taken back', () => {
    const ids = ['long', ...[1, 2, 3, 4, 5, 6].map((n) => `short-${n}`)]
    const event: fc.Arbitrary<CourseEvent> = fc.oneof(
      fc
        .tuple(fc.constantFrom(...ids), fc.constantFrom('a', 'b', 'c'))
        .map(([session, of]): CourseEvent => ({ type: 'booked', at: given, session, booking: of })),
      fc.integer({ min: -50_000, max: 90_000 }).map(
        (amount): CourseEvent => ({
          ...{ type: 'paid', at: given, amount, way: 'cash' },
        }),
      ),
      fc.nat(9_000).map(
        (price): CourseEvent => ({
          ...{ type: 'extended', at: given, pays: [{ id: 'more', amount: price, due: given }] },
          sessions: [{ id: 'more', service, name: 'x', minutes: 30, worth: price }],
        }),
      ),
      fc.constant<CourseEvent>({ type: 'paused', at: given, text: '' }),
    )
    const bookings = {
      ...{ a: booking('a', { status: 'attended' }), b: booking('b', {}) },
      c: booking('c', { status: 'cancelled', share: 30 }),
    } as Record<string, Booking>
    fc.assert(
      fc.property(fc.array(event, { maxLength: 15 }), (events) => {
        const course = replayCourse('one', [begin(), ...events])
        const balance = balanceOf(course, (id) => bookings[id], given)
        const extended = events.filter(({ type }) => type === 'extended').length
        expect(balance.used + balance.planned + balance.left).toBe(7 + extended)
        expect(balance.open).toBe(balance.price - balance.paid)
        expect(balance.back).toBe(balance.paid - balance.worth)
        const worths = balance.sessions.reduce((sum, { session }) => sum + session.worth, 0)
        expect(worths).toBe(balance.price)
      }),
    )
  })
})

describe('invoices of a path', () => {
  const WORDS = { part: ({ n, of }: { n: number; of: number }) => `${n} of ${of}`, back: 'Given back' }
  const invoiced = (n: number, more: object): CourseEvent =>
    ({ type: 'invoiced', at: given, n, number: `IM-${n}`, lines: [], total: 1, ...more }) as CourseEvent
  const ids = (all: readonly { id: string }[]) => all.map(({ id }) => id)

  it('are of parts of its price, each once, and again when one was taken back', () => {
    const begun = replayCourse('c', [begin()])
    expect(ids(notInvoiced(begun))).toEqual(ids(begun.given.path!.pays))
    const [first, second] = notInvoiced(begun)
    const of = invoiceOfPath(begun, [first!, second!], WORDS)
    expect(of).toMatchObject({ total: 85_714, parts: ['pay-1', 'pay-2'] })
    expect(of.lines.map(({ name }) => name)).toEqual(['1 of 7', '2 of 7'])
    const made = replayCourse('c', [begin(), invoiced(1, of)])
    expect(ids(notInvoiced(made))).toEqual(['pay-3', 'pay-4', 'pay-5', 'pay-6', 'pay-7'])
    const back = replayCourse('c', [begin(), invoiced(1, of), invoiced(2, { corrects: 'IM-1' })])
    expect(ids(notInvoiced(back))).toEqual(ids(notInvoiced(begun)))
  })

  it('are of what was due by its end, and of what was given back with it; taken back, as if it went on', () => {
    const at = instant(given + 40 * DAY)
    const ended = replayCourse('c', [begin(), { type: 'ended', at, settles: instant(at + 1), back: 30_000 }])
    expect(invoiceable(ended).map(({ id, amount }) => [id, amount])).toEqual([
      ['pay-1', 42_857],
      ['pay-2', 42_857],
      ['given-back', -30_000],
    ])
    const { lines, total } = invoiceOfPath(ended, invoiceable(ended).slice(-1), WORDS)
    expect([lines, total]).toEqual([[{ name: 'Given back', quantity: 1, amount: -30_000 }], -30_000])
    const again = replayCourse('c', [
      ...[begin(), { type: 'ended' as const, at, settles: instant(at + 1), back: 30_000 }],
      { type: 'taken-back', at, of: 2 },
    ])
    expect(ids(invoiceable(again))).toEqual(ids(invoiceable(replayCourse('c', [begin()]))))
  })

  it('are of all that is due by now to begin with, or else of the next part; what comes goes to the earliest', () => {
    const begun = replayCourse('c', [begin()])
    const [, second, third] = begun.given.path!.pays
    expect(ids(dueToInvoice(begun, given))).toEqual(['pay-1'])
    expect(ids(dueToInvoice(begun, second!.due))).toEqual(['pay-1', 'pay-2'])
    const made = replayCourse('c', [begin(), invoiced(1, { parts: ['pay-1', 'pay-2'] })])
    expect(ids(dueToInvoice(made, second!.due))).toEqual(['pay-3'])
    const paid = replayCourse('c', [begin(), { type: 'paid', at: given, amount: 50_000, way: 'cash' }])
    const open = (parts: string[]) =>
      openOfInvoice(paid, { number: '1', at: given, lines: [], total: 0, parts }, third!.due)
    expect([open(['pay-1']), open(['pay-2']), open(['pay-2', 'pay-3'])]).toEqual([0, 35_714, 78_571])
  })

  it('add up to its price whatever parts they are of, and hold the tax of the day it was given', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.nat(10_000_000),
        fc.integer({ min: 1, max: 10_000 }),
        fc.array(fc.nat(59)),
        (parts, price, rate, cuts) => {
          const path = { ...PATH, price, stations: [{ ...PATH.stations[0]!, parts }] } as Path
          const taxed = { ...practice, profile: { ...practice.profile, tax: { name: 'VAT', rate } } }
          const record = [
            { ...begin(), ...givenPath(taxed, path, given, zone('Europe/Lisbon')) } as CourseEvent,
          ]
          let course = replayCourse('c', record)
          let total = 0
          for (const cut of [...cuts, 59]) {
            const chosen = notInvoiced(course).slice(0, cut + 1)
            if (chosen.length === 0) break
            const facts = invoiceOfPath(course, chosen, WORDS)
            // A gross amount holds its tax: net + net × rate is the whole (common practice, no source).
            const net = facts.total - facts.tax!.amount
            expect(Math.abs(net * (10_000 + rate) - facts.total * 10_000)).toBeLessThanOrEqual(10_000 + rate)
            total += facts.total
            record.push(invoiced(record.length, facts))
            course = replayCourse('c', record)
          }
          expect([total, notInvoiced(course)]).toEqual([price, []])
        },
      ),
    )
  })
})

it('money with somebody: what has come by its currency, and what is open of sessions and paths by its dates', () => {
  const owes = (id: string, price: number, come: number, days: number): Booking =>
    ({
      ...booking(id, { status: 'attended', price, start: instant(given + days * DAY) } as Partial<Booking>),
      asked: { currency: 'CHF', houseRules: { cancelAfter: 100 }, reading: { quote: { price } } },
      ...(come === 0 ? {} : { payments: [{ seq: 2, at: given, amount: come, way: 'cash' }] }),
    }) as never
  const path = replayCourse('c', [begin(), { type: 'paid', at: given, amount: 50_000, way: 'cash' }])
  const sessions = [
    owes('late', 9_000, 0, 60),
    owes('early', 9_000, 10_000, 1),
    owes('even', 9_000, 9_000, 2),
  ]
  const { come, open } = moneyWith(
    sessions,
    [path, replayCourse('none', [{ ...begin(), path: undefined } as never])],
    given,
  )
  expect([...come].sort()).toEqual([
    ['CHF', 19_000],
    ['EUR', 50_000],
  ])
  expect(open.map(({ id, open }) => [id, open])).toEqual([
    ['early', -1_000],
    ['c', 250_000],
    ['late', 9_000],
  ])
})
