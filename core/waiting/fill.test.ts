import fc from 'fast-check'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { makeDiary, why } from '../openings/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  DAY,
  date,
  duration,
  HOUR,
  type Instant,
  instant,
  MINUTE,
  parseInstant,
  shift,
  time,
  type Weekday,
  zone,
} from '../time/index.ts'
import {
  couldCome,
  couldComeOn,
  fillFreed,
  liesIn,
  type Waiting,
  type WaitingWindow,
  whoCould,
} from './index.ts'

const now = parseInstant('2026-11-24T11:00Z')
const freed = { from: parseInstant('2026-11-26T14:00Z'), to: parseInstant('2026-11-26T16:00Z') }
const practice = samplePractice({
  services: [
    sampleService({ minutes: 60, clearBefore: 0, clearAfter: 0, starts: { kind: 'every', minutes: 5 } }),
  ],
})
const [service] = practice.services
const place = service!.places[0]!
const waits = (id: string, change: Partial<Waiting> = {}): Waiting => ({
  ...{ id, person: id, service: 's', place, minutes: 60, price: 5_500, zone: 'Europe/Lisbon', windows: [] },
  since: shift(now, -DAY),
  ...change,
})
const filled = (
  line: Waiting[],
  change: Partial<Parameters<typeof fillFreed>[4]> = {},
  entries: never[] = [],
) => fillFreed(practice, makeDiary(practice, entries), line, freed, { prefer: 'fullest', now, ...change })
const whyOf = (found: ReturnType<typeof filled>) =>
  Object.fromEntries(found.others.map(({ waiting, why: reason }) => [waiting.id, reason]))

describe('windows', () => {
  const lisbon = zone('Europe/Lisbon')
  const weekly = fc.record(
    {
      from: fc.constantFrom(date('2026-03-28'), date('2026-11-26')),
      to: fc.constantFrom(date('2026-03-29'), date('2026-11-27')),
      weekdays: fc.subarray([1, 2, 3, 4, 5, 6, 7] as Weekday[], { minLength: 1 }),
      after: fc.constantFrom(time('00:00'), time('01:30'), time('09:00')),
      before: fc.constantFrom(time('02:00'), time('18:00'), time('24:00')),
    },
    { requiredKeys: [] },
  )

  it('hold a session as luxon tells it, minute by minute, also over midnight and where clocks change', () => {
    const from = Date.UTC(2026, 2, 28)
    const minute = fc.integer({ min: 0, max: 3 * 1_440 }).map((n) => instant(from + n * MINUTE))
    fc.assert(
      fc.property(
        weekly,
        minute,
        fc.integer({ min: 1, max: 300 }),
        (window: WaitingWindow, start, minutes) => {
          const at = (ms: number) => DateTime.fromMillis(ms, { zone: 'Europe/Lisbon' })
          const begins = at(start)
          const inside = Array.from({ length: minutes }, (_, n) => at(start + n * MINUTE)).every((moment) => {
            const day = moment.toISODate()!
            const clock = moment.toFormat('HH:mm')
            const timed = window.after !== undefined || window.before !== undefined
            return (
              (window.from === undefined || day >= window.from) &&
              (window.to === undefined || day <= window.to) &&
              (window.weekdays?.includes(moment.weekday as Weekday) ?? true) &&
              (!timed || day === begins.toISODate()) &&
              (window.before === undefined || clock < window.before)
            )
          })
          const begun = window.after === undefined || begins.toFormat('HH:mm') >= window.after
          // A wall time that comes twice lies before the end the first time and the second.
          fc.pre(at(start).offset === at(start + minutes * MINUTE).offset)
          expect(liesIn(window, start, minutes, lisbon)).toBe(inside && begun)
        },
      ),
      { numRuns: 1_500 },
    )
  })

  it('let somebody come on a date exactly where a session fits at some minute of it', () => {
    const utc = zone('UTC')
    const days = fc.constantFrom('2026-03-27', '2026-03-28', '2026-03-29', '2026-11-26', '2026-11-27')
    fc.assert(
      fc.property(
        fc.array(weekly, { maxLength: 3 }),
        days,
        fc.integer({ min: 1, max: 1_440 }),
        (windows, day, minutes) => {
          const begin = parseInstant(`${day}T00:00Z`)
          const starts = Array.from({ length: 1_441 - minutes }, (_, n) => shift(begin, n * MINUTE))
          const could = starts.some((start) => couldCome(waits('w', { windows, minutes }), start, utc))
          expect(couldComeOn({ windows, minutes }, date(day))).toBe(could)
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('a freed time', () => {
  it('goes to the dearest, or to those who fill it most (check value of the decisions)', () => {
    const line = [
      waits('dear', { minutes: 90, price: 9_000 }),
      waits('a'),
      waits('b', { since: shift(now, -2 * DAY) }),
    ]
    const full = filled(line)
    expect(full).toMatchObject({ value: 11_000, bound: 11_000, proven: true })
    expect(full.chosen.map(({ start }) => start - freed.from)).toEqual([0, HOUR])
    expect(full.chosen.map(({ waiting }) => waiting.id).sort()).toEqual(['a', 'b'])
    expect(whyOf(full)).toEqual({ dear: 'others' })
    expect(filled(line.slice(0, 1)).value).toBe(9_000)
    // Who has waited longest comes first, and the next has what is left.
    const longest = filled(line, { prefer: 'longest-wait' })
    expect(longest.chosen.map(({ waiting }) => waiting.id)).toEqual(['b', 'a'])
    const known = filled(line, {
      prefer: 'known-first',
      askerOf: (person) => ({
        ...{ who: 'client' as const, invited: [], blocked: false },
        standing: person === 'dear' ? ('known' as const) : ('new' as const),
      }),
    })
    expect(known.chosen.map(({ waiting }) => waiting.id)).toEqual(['dear'])
  })

  it('says of each why it is not for them', () => {
    const thursday = { weekdays: [4 as Weekday] }
    const found = fillFreed(
      practice,
      makeDiary(practice, [
        {
          ...{ id: 'there', kind: 'session', clearBefore: 0, clearAfter: 0 },
          start: shift(freed.from, 0),
          end: shift(freed.from, HOUR),
        },
      ]),
      [
        waits('fits', { windows: [{ ...thursday, after: time('15:00') }] }),
        waits('too-long', { minutes: 121 }),
        waits('friday', { windows: [{ weekdays: [5] }] }),
        waits('morning', { windows: [{ before: time('12:00') }] }),
        waits('taken', { windows: [{ before: time('15:00') }] }),
        waits('notice', { notice: duration('P3D') }),
        waits('gone', { service: 'none' }),
        // Asia’s afternoon is the studio’s morning.
        waits('far', { zone: 'Asia/Tokyo', windows: [{ before: time('18:00'), after: time('09:00') }] }),
        waits('late'),
      ],
      freed,
      { prefer: 'longest-wait', now },
    )
    expect(found.chosen.map(({ waiting }) => waiting.id)).toEqual(['fits'])
    expect(whyOf(found)).toEqual({
      ...{ 'too-long': 'too-short', friday: 'windows', morning: 'windows', taken: 'windows' },
      ...{ notice: 'notice', gone: 'not-for-them', far: 'windows', late: 'others' },
    })
  })

  it('says where in it the least stands in the way of whoever may not come', () => {
    const blocked = { who: 'client' as const, invited: [], blocked: true, standing: 'new' as const }
    const by = { prefer: 'fullest' as const, now, askerOf: () => blocked }
    const { able, others } = whoCould(practice, makeDiary(practice, []), [waits('w')], freed, by)
    expect(able).toEqual([])
    expect(others).toMatchObject([{ why: 'closed', start: freed.from, closures: [{ rule: 'person' }] }])
  })

  it('keeps the two hours before it that an offer needs', () => {
    const soon = (ms: number) => filled([waits('a')], { now: shift(freed.from, -ms) as Instant })
    expect(soon(2 * HOUR).chosen.map(({ start }) => start)).toEqual([freed.from])
    // A minute later it can begin five minutes later, on the service's own steps.
    expect(soon(2 * HOUR - MINUTE).chosen.map(({ start }) => start - freed.from)).toEqual([5 * MINUTE])
    expect(soon(0).others).toMatchObject([{ why: 'notice' }])
  })

  it('has sessions at whole minutes, whenever it came free', () => {
    const from = shift(freed.from, 61_250)
    const found = fillFreed(
      practice,
      makeDiary(practice, []),
      [waits('a'), waits('b', { minutes: 30 })],
      { ...freed, from },
      {
        ...{ prefer: 'fullest', now },
      },
    )
    expect(found.chosen.map(({ start }) => start % (5 * MINUTE))).toEqual([0, 0])
    expect(found.chosen[0]!.start).toBeGreaterThanOrEqual(from)
    expect(found.proven).toBe(true)
  })

  it('is only ever given at starts that openings give, by every preference', () => {
    const window = fc.record(
      {
        after: fc.constantFrom(time('13:00'), time('14:30')),
        before: fc.constantFrom(time('15:30'), time('16:00')),
      },
      { requiredKeys: [] },
    )
    const somebody = fc.record({
      minutes: fc.constantFrom(20, 30, 60, 90, 120, 180),
      price: fc.integer({ min: 0, max: 20_000 }),
      windows: fc.array(window, { maxLength: 2 }),
      since: fc.integer({ min: 0, max: 90 }).map((days) => shift(now, -days * DAY)),
    })
    const line = fc
      .array(somebody, { maxLength: 7 })
      .map((all) => all.map((one, nth) => waits(`w${nth}`, one)))
    fc.assert(
      fc.property(line, fc.constantFrom('longest-wait', 'fullest', 'known-first'), (all, prefer) => {
        const found = filled(all, { prefer: prefer as 'fullest' })
        expect(found.chosen.length + found.others.length).toBe(all.length)
        let end = 0
        for (const { waiting, start } of found.chosen) {
          const ask = { service: service!, place, minutes: waiting.minutes, now, asker: NEWCOMER }
          expect(why(practice, makeDiary(practice, []), ask, start)).toEqual([])
          expect(start).toBeGreaterThanOrEqual(end)
          end = start + waiting.minutes * MINUTE
        }
        expect(end).toBeLessThanOrEqual(freed.to)
        // No preference is worth more than the fullest.
        expect(found.value).toBeLessThanOrEqual(filled(all).value)
      }),
      { numRuns: 300 },
    )
  })
})
const NEWCOMER = { who: 'client' as const, standing: 'new' as const, invited: [], blocked: false }
