import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeDiary } from '../openings/index.ts'
import { type AskAtOnce, type Preference, WAITLIST } from '../practice/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { DAY, date, HOUR, instant, MINUTE, parseInstant, shift, time } from '../time/index.ts'
import { type FillBy, whoCould } from './fill.ts'
import { holdOutNext } from './held-out.ts'
import type { LineEvent } from './line.ts'
import { lineThen, waitingNumbers, wouldHaveGone } from './looking-back.ts'
import { hoursWorthOpening, withBlock } from './more-hours.ts'
import type { Waiting } from './types.ts'

const now = parseInstant('2026-11-24T11:00Z')
const freed = { from: parseInstant('2026-11-26T14:00Z'), to: parseInstant('2026-11-26T16:00Z') }
const practice = samplePractice({
  services: [
    sampleService({
      ...{ minutes: 60, clearBefore: 0, clearAfter: 15, starts: { kind: 'every', minutes: 15 } },
      waitlist: WAITLIST,
    }),
    sampleService({ id: 'g', minutes: 60, seats: 3, groupAt: 'any', starts: { kind: 'every', minutes: 60 } }),
  ],
})
const place = practice.services[0]!.places[0]!
const waits = (id: string, change: Partial<Waiting> = {}): Waiting => ({
  ...{ id, person: id, service: 's', place, minutes: 60, price: 5_500, zone: 'Europe/Lisbon', windows: [] },
  since: shift(now, -DAY - id.charCodeAt(0)),
  ...change,
})
const by = (prefer: Preference = 'longest-wait'): FillBy => ({ prefer, now, bare: true })
const next = (
  line: Waiting[],
  ask: AskAtOnce,
  standing: Parameters<typeof holdOutNext>[2] = [],
  prefer?: Preference,
  seats = 3,
) => {
  const { able } = whoCould(practice, makeDiary(practice, []), line, freed, by(prefer))
  const left = able.filter(({ waiting }) => !standing.some((other) => other.waiting.id === waiting.id))
  return holdOutNext(practice, left, standing, { ...by(prefer), ask, seats: () => seats })
}
const ids = (held: { waiting: { id: string } }[]): string => held.map(({ waiting }) => waiting.id).join('')

describe('whom a freed time is held out to', () => {
  it('is one for each time in it, nobody, so many for each, or everybody', () => {
    // With a quarter kept clear after each, two hours hold one of 60 minutes and one of 45.
    const line = [waits('c'), waits('b'), waits('a', { minutes: 45 })]
    expect(ids(next(line, 'none'))).toBe('')
    expect(ids(next(line, 1))).toBe('ca')
    expect(ids(next(line, 'all')).split('').sort().join('')).toBe('abc')
    expect(next(line, 2).length).toBeGreaterThanOrEqual(next(line, 1).length)
  })

  it('counts those to whom it is held out already', () => {
    const line = [waits('c'), waits('b'), waits('a')]
    const first = next([line[0]!], 1)
    expect(ids(first)).toBe('c')
    const rivals = (held: typeof first) =>
      held.filter(({ start }) => Math.abs(start - first[0]!.start) < 75 * MINUTE).length
    expect(rivals(next(line, 1, first))).toBe(0)
    expect(rivals(next(line, 2, first))).toBeGreaterThan(0)
  })

  it('asks as many for a group as it has seats', () => {
    const group = (id: string) => waits(id, { service: 'g' })
    const line = [...'abcdef'].map(group)
    const start = next(line, 1)[0]?.start
    const here = (seats: number, ask: AskAtOnce) =>
      next(line, ask, [], undefined, seats).filter((one) => one.start === start).length
    expect(here(2, 1)).toBe(2)
    expect(here(2, 2)).toBe(4)
    expect(here(0, 1)).toBe(0)
  })

  it('never asks more for one time than was said, nobody twice, and all it can', () => {
    const person = fc.record({
      minutes: fc.constantFrom(30, 45, 60, 90),
      price: fc.constantFrom(1_000, 5_500, 9_000),
    })
    fc.assert(
      fc.property(
        fc.array(person, { maxLength: 9 }),
        fc.constantFrom<AskAtOnce>(1, 2, 3),
        fc.constantFrom<Preference>('longest-wait', 'fullest', 'known-first'),
        (people, ask, prefer) => {
          const line = people.map((one, i) => waits(String.fromCharCode(97 + i), one))
          const held = next(line, ask, [], prefer)
          expect(new Set(held.map(({ waiting }) => waiting.id)).size).toBe(held.length)
          // The plain definition: at every minute, with the quarter kept clear after each, at most so many.
          for (let at: number = freed.from; at < freed.to; at += MINUTE) {
            const there = held.filter(
              ({ start, waiting }) => start <= at && at < start + (waiting.minutes + 15) * MINUTE,
            )
            expect(there.length).toBeLessThanOrEqual(ask as number)
          }
          const all = next(line, 1, [], prefer)
          expect(held.length).toBeGreaterThanOrEqual(all.length)
          if (line.some(({ minutes }) => minutes <= 120)) expect(held.length).toBeGreaterThan(0)
        },
      ),
      { numRuns: 300 },
    )
  })
})

const joined = (at: number, change: object = {}): LineEvent => ({
  ...{ type: 'joined', at: instant(at), service: 's', place, minutes: 60, price: 5_500 },
  person: { name: 'W', email: 'w@example.org', zone: 'Europe/Lisbon' },
  ...{ answers: {}, attempts: [], agreements: [], windows: [] },
  ...change,
})

describe('looking back', () => {
  const f = {
    id: 'f',
    seq: 1,
    at: now,
    latest: now,
    skipped: [],
    cause: 'cancelled' as const,
    depth: 0 as const,
  }
  const gone = { ...f, ...freed, service: 's' }
  const records = [
    { id: 'long', events: [joined(now - 9 * DAY)] },
    { id: 'short', events: [joined(now - DAY, { price: 9_000 })] },
    { id: 'later', events: [joined(now + DAY)] },
    {
      id: 'left',
      events: [
        joined(now - 20 * DAY),
        { type: 'ended', at: shift(now, -DAY), by: 'client', why: 'left', text: '' } as LineEvent,
      ],
    },
  ]

  it('asks those who waited then, by what is set now', () => {
    const behind = { askerOf: () => undefined, startOf: () => undefined }
    const short = { ...gone, to: shift(gone.from, 75 * MINUTE) }
    const went = wouldHaveGone(practice, short, records, WAITLIST, behind)
    expect(went.chosen.map(({ line }) => line.id)).toEqual(['long'])
    expect(went.could).toBe(2)
    const fullest = wouldHaveGone(practice, short, records, { ...WAITLIST, prefer: 'fullest' }, behind)
    expect([fullest.chosen.map(({ line }) => line.id), fullest.value]).toEqual([['short'], 9_000])
    expect(lineThen(records[2]!, now)).toBeUndefined()
  })

  it('counts what was filled, how fast, and what it was worth', () => {
    const took: LineEvent[] = [
      joined(now - 9 * DAY),
      { type: 'taken', at: shift(now, 40 * MINUTE), freed: 'f', booking: 'b' },
    ]
    const all = [...records.slice(0, 2), { id: 'took', events: took }]
    const other = { ...gone, id: 'g' }
    expect(waitingNumbers(all, [gone, other], shift(now, -DAY), shift(now, HOUR))).toEqual({
      ...{ waiting: 2, medianDays: 1, freed: 2, taken: 1, medianMinutes: 40, worth: 5_500 },
    })
  })
})

describe('more hours', () => {
  it('are told by how many they would help, by opening them and looking', () => {
    const thursday = date('2026-11-26')
    const evening = { from: thursday, to: thursday, after: time('17:00') }
    const line = [...'abcd'].map((id) => waits(id, { windows: [evening] }))
    const diary = makeDiary(practice, [])
    const [best] = hoursWorthOpening(practice, diary, line, { days: 7, now })
    // The hours end at six; three more hold two sessions of an hour with a quarter after each.
    expect(best).toEqual({
      ...{ date: thursday, from: '18:00', to: '21:00', fit: 2, value: 11_000 },
    })
    const hours = withBlock(practice.hours, thursday, { from: time('18:00'), to: time('21:00') })
    expect(hours.changedDays.find((day) => day.date === thursday)?.blocks.at(-1)).toEqual({
      ...{ from: '18:00', to: '21:00' },
    })
    const again = hoursWorthOpening({ ...practice, hours }, diary, line, { days: 7, now })
    expect(again.filter((one) => one.date === thursday)).toEqual([])
  })

  it('are none where nobody waits', () => {
    expect(hoursWorthOpening(practice, makeDiary(practice, []), [], { days: 21, now })).toEqual([])
  })
})
