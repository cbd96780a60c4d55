import fc from 'fast-check'
import type { Asker, Entry } from '../openings/index.ts'
import type { Practice, Service } from '../practice/index.ts'
import {
  addDays,
  type DayNumber,
  type Duration,
  date,
  dateTimeAt,
  instant,
  MINUTE,
  wallTime,
  zone,
} from '../time/index.ts'
import { samplePractice, sampleService } from './sample.ts'

/** Random practices of a few days, some of them across a clock change. */
const changes = [
  '2026-10-25',
  '2027-03-28',
  '2026-11-01',
  '2027-03-14',
  '2026-10-04',
  '2027-04-04',
  '2026-06-10',
]
const zones = Intl.supportedValuesOf('timeZone')

const blocksArb = fc
  .array(
    fc.tuple(
      fc.integer({ min: 0, max: 95 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 0, max: 5 }),
    ),
    {
      maxLength: 3,
    },
  )
  .map((list) =>
    list
      .filter(([from, length]) => from * 15 + length * 15 <= 1440)
      .map(([from, length, kept]) => ({
        from: wallTime(from * 15),
        to: wallTime((from + length) * 15),
        ...(kept === 0 ? { reservedFor: { known: true } } : {}),
      })),
  )

const quarter = fc.integer({ min: 0, max: 96 }).map((q) => wallTime(q * 15))
const maybe = <T>(arb: fc.Arbitrary<T>) => fc.option(arb, { nil: undefined, freq: 2 })

/** What one random case is made of. */
export const caseArb = fc.record({
  zone: fc.constantFrom(...zones),
  placeZone: maybe(fc.constantFrom(...zones)),
  from: fc.tuple(fc.constantFrom(...changes), fc.integer({ min: -2, max: 1 })),
  days: fc.integer({ min: 2, max: 3 }),
  weekly: fc.array(blocksArb, { minLength: 7, maxLength: 7 }),
  changed: maybe(blocksArb),
  season: maybe(
    fc.record({
      first: fc.integer({ min: -2, max: 3 }),
      more: fc.integer({ min: 0, max: 2 }),
      weekly: fc.array(blocksArb, { minLength: 7, maxLength: 7 }),
    }),
  ),
  minutes: fc.constantFrom(15, 20, 45, 50, 75),
  clear: fc.tuple(fc.constantFrom(0, 10, 15), fc.constantFrom(0, 5, 30)),
  inside: fc.boolean(),
  step: fc.constantFrom(5, 15, 20, 60),
  fixed: maybe(fc.array(quarter, { minLength: 1, maxLength: 4 })),
  earliest: maybe(quarter),
  latest: maybe(quarter),
  notice: fc.constantFrom('PT0S', 'PT5H', 'PT24H', 'P1D'),
  nowBack: fc.integer({ min: -1500, max: 2000 }),
  reachDays: fc.integer({ min: 0, max: 6 }),
  sum: fc.boolean(),
  tidy: fc.boolean(),
  limits: fc.record({
    d: maybe(fc.integer({ min: 1, max: 3 })),
    w: maybe(fc.integer({ min: 1, max: 5 })),
    pd: maybe(fc.integer({ min: 1, max: 4 })),
  }),
  away: maybe(fc.tuple(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 1, max: 600 }))),
  entries: fc.array(
    fc.record({
      at: fc.integer({ min: -200, max: 4500 }),
      length: fc.integer({ min: 0, max: 180 }),
      kind: fc.constantFrom('session' as const, 'hold' as const, 'outside' as const),
      clear: fc.tuple(fc.constantFrom(0, 15, 20), fc.constantFrom(0, 10, 45)),
      mine: fc.boolean(),
    }),
    { maxLength: 6 },
  ),
  known: fc.boolean(),
  practitioner: fc.boolean(),
})

/** Random cases where clocks jump over midnight, or leave a date out. */
export const overMidnightArb = fc
  .tuple(
    caseArb,
    fc.constantFrom(
      ['America/Scoresbysund', '2026-03-29'],
      ['America/Scoresbysund', '2026-10-25'],
      ['America/Nuuk', '2027-03-28'],
      ['Africa/Cairo', '2026-04-24'],
      ['Pacific/Apia', '2011-12-30'],
      ['Pacific/Kwajalein', '1993-08-21'],
    ),
    fc.boolean(),
  )
  .map(([found, [zone, day], atPlace]) => ({
    ...found,
    ...(atPlace ? { placeZone: zone! } : { zone: zone!, placeZone: undefined }),
    from: [day!, found.from[1]] as [string, number],
  }))

/** A random case as a practice, its diary and a question about it. */
export function build(c: typeof caseArb extends fc.Arbitrary<infer T> ? T : never) {
  const from = addDays(date(c.from[0]), c.from[1])
  const home = zone(c.zone)
  const begin = home.toInstant((Date.parse(from) / 86_400_000) as DayNumber, 0)
  const service: Service = sampleService({
    minutes: c.minutes,
    clearBefore: c.clear[0],
    clearAfter: c.clear[1],
    clearInsideHours: c.inside,
    starts: c.fixed ? { kind: 'fixed', times: c.fixed } : { kind: 'every', minutes: c.step },
    notice: c.notice as Duration,
    reach: { kind: 'days', days: c.reachDays },
    tidy: c.tidy,
    ...(c.earliest ? { earliestStart: c.earliest } : {}),
    ...(c.latest ? { latestStart: c.latest } : {}),
    ...(c.limits.d ? { perDay: c.limits.d } : {}),
    ...(c.limits.w ? { perWeek: c.limits.w } : {}),
  })
  const base = samplePractice()
  const local = (ms: number) => dateTimeAt(home, instant(ms))
  const practice: Practice = {
    ...base,
    profile: { ...base.profile, zone: c.zone },
    places: [{ ...base.places[0]!, ...(c.placeZone ? { zone: c.placeZone } : {}) }],
    hours: {
      weekly: c.weekly as never,
      // A season that begins or ends with any of the days looked at, or has one of them alone.
      ...(c.season
        ? {
            seasons: [
              {
                from: addDays(from, c.season.first),
                to: addDays(from, c.season.first + c.season.more),
                weekly: c.season.weekly as never,
              },
            ],
          }
        : {}),
      changedDays: c.changed ? [{ date: addDays(from, 1), blocks: c.changed }] : [],
    },
    space: c.sum ? 'sum' : 'larger',
    away: c.away
      ? [
          {
            id: 'away',
            from: local(begin + c.away[0] * MINUTE),
            to: local(begin + (c.away[0] + c.away[1]) * MINUTE),
          },
        ]
      : [],
    limits: { openRequests: 2, ...(c.limits.pd ? { perDay: c.limits.pd } : {}) },
    services: [service],
  }
  const entries = c.entries.map(
    (e, i): Entry => ({
      id: `e${i}`,
      kind: e.kind,
      start: instant(begin + e.at * MINUTE),
      end: instant(begin + (e.at + e.length) * MINUTE),
      clearBefore: e.kind === 'outside' ? 0 : e.clear[0],
      clearAfter: e.kind === 'outside' ? 0 : e.clear[1],
      service: e.mine ? service.id : 'other',
    }),
  )
  const asker: Asker = {
    who: c.practitioner ? 'practitioner' : 'client',
    standing: c.known ? 'known' : 'new',
    invited: [],
    blocked: false,
  }
  const now = instant(begin - c.nowBack * MINUTE)
  return {
    practice,
    entries,
    from,
    days: c.days,
    ask: { service, place: service.places[0]!, minutes: service.minutes, asker, now },
  }
}
