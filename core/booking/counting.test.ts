import fc from 'fast-check'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import type { Counting, Lead } from '../practice/types.ts'
import { sampleAsked } from '../tests/asked.ts'
import { DAY, duration, HOUR, type Instant, parseInstant, shift, zone } from '../time/index.ts'
import {
  afterEvents,
  type Booking,
  type BookingEvent,
  begin,
  type Counted,
  countedIn,
  holdsFor,
  leadsTo,
  mattersFrom,
  wouldLead,
} from './index.ts'

const lisbon = zone('Europe/Lisbon')
const lead = (over: Partial<Lead> = {}): Lead => ({
  points: 2,
  within: duration('P6M'),
  to: 'ask',
  lasts: duration('P3M'),
  ...over,
})
const counting: Counting = { missed: 2, late: 1, leads: [lead(), lead({ points: 4, to: 'not-online' })] }

function booked(id: string, events: BookingEvent[], rules: Counting | undefined = counting): Booking {
  const asked = sampleAsked()
  const houseRules = { ...asked.houseRules, ...(rules ? { counting: rules } : {}) }
  const welcomed: BookingEvent = { type: 'welcomed', at: asked.at, by: 'rules', settles: asked.at }
  return afterEvents(begin(id, sampleAsked({ houseRules })), [welcomed, ...events])
}
const { start } = sampleAsked()
const at = shift(start, HOUR)
const missed: BookingEvent = { type: 'missed', at, settles: at }
const cancelled = (share: number, by: 'client' | 'practitioner' = 'client'): BookingEvent => ({
  ...{ type: 'cancelled', at: shift(start, -HOUR), by, share, text: '', settles: shift(start, -HOUR) },
})
const forgiven: BookingEvent = { type: 'forgiven', at, text: 'Ill.', settles: at }

describe('what counts against a client', () => {
  it('is what was missed, from its start, and what was cancelled late, from then; by the rules of its day', () => {
    expect(countedIn(booked('b', [missed]))).toEqual({ booking: 'b', at: start, points: 2 })
    expect(countedIn(booked('b', [cancelled(50)]))).toEqual({
      ...{ booking: 'b', at: shift(start, -HOUR), points: 1 },
    })
    expect(countedIn(booked('b', [cancelled(0)]))).toBeUndefined()
    expect(countedIn(booked('b', [cancelled(0, 'practitioner')]))).toBeUndefined()
    expect(countedIn(booked('b', []))).toBeUndefined()
    expect(countedIn(booked('b', [missed], { ...counting, missed: 0 }))).toBeUndefined()
    const without = afterEvents(begin('b', sampleAsked()), [missed])
    expect(countedIn(without)).toBeUndefined()
  })

  it('no longer counts once it is forgiven, and counts again when it is said once more', () => {
    const one = booked('b', [missed, forgiven])
    expect(countedIn(one)).toBeUndefined()
    expect(one).toMatchObject({ status: 'missed', forgiven: { text: 'Ill.' } })
    const later = shift(at, HOUR)
    const again = afterEvents(one, [
      { type: 'attended', at: later, settles: later },
      { ...missed, at: later },
    ])
    expect(countedIn(again)).toMatchObject({ points: 2 })
    expect(countedIn(booked('b', [cancelled(100), forgiven]))).toBeUndefined()
  })
})

describe('what it leads to', () => {
  const one = (text: string, points = 1): Counted => ({ booking: text, at: parseInstant(text), points })
  const holds = (counted: Counted[], now: string, leads: Lead[] = [lead()]) =>
    holdsFor(leads, counted, parseInstant(now), lisbon)

  it('begins with what reaches the points within the time, both edges included, and ends after its own time', () => {
    const two = [one('2026-03-10T10:00Z'), one('2026-09-10T09:00Z')]
    // Six months before 10 September 10:00 in Lisbon's summer time is 10 March 10:00 in its winter time.
    expect(holds(two, '2026-09-10T09:00Z')).toEqual([
      {
        lead: lead(),
        since: parseInstant('2026-09-10T09:00Z'),
        until: parseInstant('2026-12-10T10:00Z'),
      },
    ])
    expect(holds([one('2026-03-10T09:59:59Z'), two[1]!], '2026-09-10T09:00Z')).toEqual([])
    expect(holds(two, '2026-12-10T10:00Z')).toHaveLength(1)
    expect(holds(two, '2026-12-10T10:00:01Z')).toEqual([])
    expect(holds(two, '2026-09-10T08:59:59Z')).toEqual([])
  })

  it('is longer with each that still reaches them, whatever order they come in', () => {
    const three = [one('2026-09-20T09:00Z'), one('2026-09-10T09:00Z'), one('2026-09-01T09:00Z')]
    expect(holds(three, '2026-12-15T09:00Z')).toHaveLength(1)
    expect(leadsTo(holds(three, '2026-12-15T09:00Z'), 'ask')).toBe(true)
    expect(leadsTo(holds(three, '2026-12-15T09:00Z'), 'not-online')).toBe(false)
  })

  it('is what a look at every day, with another date library, says', () => {
    const day = fc.nat({ max: 500 })
    const months = fc.integer({ min: 1, max: 6 })
    const from = DateTime.fromISO('2026-01-05T12:00', { zone: 'Europe/Lisbon' })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(day, fc.nat({ max: 3 })), { maxLength: 6 }),
        fc.tuple(fc.integer({ min: 1, max: 5 }), months, months),
        day,
        (items, [points, within, lasts], now) => {
          const on = (n: number) => from.plus({ days: n })
          const counted = items.map(([n, points], i) => ({
            booking: String(i),
            at: on(n).toMillis() as Instant,
            points,
          }))
          const rule = lead({ points, within: duration(`P${within}M`), lasts: duration(`P${lasts}M`) })
          let until: DateTime | undefined
          for (let n = 0; n <= now; n++) {
            if (!items.some(([other]) => other === n)) continue
            const first = on(n).minus({ months: within })
            const sum = items
              .filter(([other]) => other <= n && on(other) >= first)
              .reduce((total, [, points]) => total + points, 0)
            if (sum >= points) until = on(n).plus({ months: lasts })
          }
          const expected = until !== undefined && on(now) <= until
          const found = holdsFor([rule], counted, on(now).toMillis() as Instant, lisbon)
          expect(found.map((one) => one.until)).toEqual(expected ? [until?.toMillis()] : [])
          // What is older than what can matter makes no difference.
          const oldest = mattersFrom([rule], on(now).toMillis() as Instant, lisbon)
          const newer = counted.filter((one) => one.at >= oldest)
          expect(holdsFor([rule], newer, on(now).toMillis() as Instant, lisbon)).toEqual(found)
        },
      ),
    )
  })

  it('tells what other rules would have led to', () => {
    const people = [
      [booked('a', [missed])],
      [booked('b', [cancelled(50)])],
      [booked('c', [missed]), booked('d', [missed, forgiven]), booked('e', [cancelled(100)])],
      [booked('f', [])],
    ]
    const since = shift(start, -100 * DAY)
    expect(wouldLead(counting, people, since, lisbon)).toEqual({ missed: 2, late: 2, met: [2, 0] })
    const strict = { ...counting, leads: [lead({ points: 1 }), lead({ points: 3 })] }
    expect(wouldLead(strict, people, since, lisbon).met).toEqual([3, 1])
    expect(wouldLead(strict, people, shift(at, 1), lisbon)).toEqual({ missed: 0, late: 0, met: [0, 0] })
  })
})
