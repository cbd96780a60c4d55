import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Practice } from '../practice/index.ts'
import { openByTheMinute } from '../tests/minute.ts'
import { build, caseArb, overMidnightArb } from '../tests/random.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  type DayNumber,
  type Duration,
  date,
  dateTimeAt,
  type Instant,
  instant,
  instantOf,
  type LocalDateTime,
  localDate,
  MINUTE,
  parseInstant,
  timeAt,
  wallTime,
  zone,
} from '../time/index.ts'
import {
  type Asker,
  CLOSURE_RULES,
  closureWords,
  type Entry,
  entryFor,
  gatherGroups,
  lastDate,
  makeDiary,
  newClient,
  openStarts,
  why,
  workingDaysOn,
} from './index.ts'

const lisbon = zone('Europe/Lisbon')
const at = (text: string): Instant => instantOf(lisbon, text as LocalDateTime)
const session = (id: string, from: string, minutes: number, change: Partial<Entry> = {}): Entry => ({
  id,
  kind: 'session',
  start: at(from),
  end: instant(at(from) + minutes * MINUTE),
  clearBefore: 15,
  clearAfter: 15,
  service: 'other',
  ...change,
})

function ask(practice: Practice, now: Instant, asker: Asker = newClient, service = practice.services[0]!) {
  return { service, place: service.places[0]!, minutes: service.minutes, asker, now }
}

const starts = (practice: Practice, entries: Entry[], now: Instant, from: string, days = 1): string[] =>
  openStarts(practice, makeDiary(practice, entries), ask(practice, now), date(from), days).map((s) =>
    timeAt(lisbon, s),
  )

const rules = (practice: Practice, entries: Entry[], now: Instant, start: string, asker = newClient) =>
  why(practice, makeDiary(practice, entries), ask(practice, now, asker), at(start)).map((c) => c.rule)

describe('the worked example of the reckoning', () => {
  const practice = samplePractice()
  const now = parseInstant('2026-11-24T11:00Z')

  it('opens the 25th at ten starts between two sessions', () => {
    const entries = [session('a', '2026-11-25T10:00', 50), session('b', '2026-11-25T17:00', 50)]
    expect(starts(practice, entries, now, '2026-11-25')).toEqual([
      '11:15',
      '11:30',
      '11:45',
      '14:00',
      '14:15',
      '14:30',
      '14:45',
      '15:00',
      '15:15',
      '15:30',
    ])
  })

  it('opens the 26th at fifteen starts after one session', () => {
    const found = starts(practice, [session('a', '2026-11-26T10:00', 50)], now, '2026-11-26')
    expect(found).toHaveLength(15)
    expect(found.slice(0, 4)).toEqual(['11:15', '11:30', '11:45', '14:00'])
    expect(found.at(-1)).toBe('16:45')
  })

  it('names all closures of a closed start, in order', () => {
    const entries = [session('b', '2026-11-25T17:00', 50)]
    const strict = { ...practice, limits: { ...practice.limits, perDay: 1 } }
    expect(rules(strict, entries, now, '2026-11-25T16:45')).toEqual(['overlap', 'day-limit'])
    expect(rules(strict, entries, now, '2026-11-25T15:40')).toEqual(['grid', 'clear', 'day-limit'])
    expect(rules(practice, entries, now, '2026-11-25T10:00')).toEqual(['notice'])
    expect(rules(practice, [], now, '2026-11-24T10:00')).toEqual(['past', 'notice'])
    expect(rules(practice, [], now, '2026-11-28T10:00')).toEqual(['hours'])
  })
})

describe('single rules', () => {
  const now = parseInstant('2026-11-24T11:00Z')

  it('counts seven working days from Tuesday 24 November to Thursday 3 December', () => {
    expect(workingDaysOn(samplePractice(), date('2026-11-24'), 7, lisbon)).toBe('2026-12-03')
  })

  it('does not count a working day that is wholly away', () => {
    const practice = samplePractice({
      away: [{ id: 'x', from: '2026-11-26T00:00' as LocalDateTime, to: '2026-11-27T00:00' as LocalDateTime }],
    })
    expect(workingDaysOn(practice, date('2026-11-24'), 7, lisbon)).toBe('2026-12-04')
  })

  it('opens a month on a day of the month before, the last day where there is no such day', () => {
    const service = sampleService({ reach: { kind: 'months', opensOn: 31 } })
    const last = (day: string) => lastDate(samplePractice(), service, at(`${day}T12:00`), lisbon)
    expect(last('2026-11-29')).toBe('2026-11-30')
    expect(last('2026-11-30')).toBe('2026-12-31')
    expect(last('2027-02-28')).toBe('2027-03-31')
  })

  it('closes the whole coming week from a named moment on, which itself is still in time', () => {
    const practice = samplePractice({ weekCloses: { weekday: 4, time: wallTime(720) } })
    const first = (moment: string) =>
      dateTimeAt(
        lisbon,
        openStarts(practice, makeDiary(practice, []), ask(practice, at(moment)), date('2026-11-23'), 30)[0]!,
      )
    expect(first('2026-11-26T12:00')).toBe('2026-11-30T09:00')
    expect(first('2026-11-26T12:01')).toBe('2026-12-07T09:00')
  })

  it('takes a block turned inside out by the clock change as empty', () => {
    const weekly = [[], [], [], [], [], [], [{ from: wallTime(90), to: wallTime(135) }]] as never
    const practice = samplePractice({
      hours: { weekly, changedDays: [] },
      services: [
        sampleService({ minutes: 15, clearBefore: 0, clearAfter: 0, reach: { kind: 'days', days: 999 } }),
      ],
    })
    expect(starts(practice, [], now, '2027-03-28')).toEqual([])
    expect(starts(practice, [], now, '2027-03-21')).toEqual(['01:30', '01:45', '02:00'])
  })

  it('asks for the larger clear time, or the sum when the practice says so', () => {
    const entries = [session('a', '2026-11-26T09:00', 60)]
    expect(starts(samplePractice(), entries, now, '2026-11-26')[0]).toBe('10:15')
    expect(starts(samplePractice({ space: 'sum' }), entries, now, '2026-11-26')[0]).toBe('10:30')
  })

  it('does not merge touching blocks', () => {
    const day = [
      { from: wallTime(540), to: wallTime(600) },
      { from: wallTime(600), to: wallTime(660) },
    ]
    const practice = samplePractice({ hours: { weekly: [day, day, day, day, day, [], []], changedDays: [] } })
    expect(starts(practice, [], now, '2026-11-26')).toEqual([])
  })

  it('binds clients, not the practitioner, by reserved hours', () => {
    const day = [{ from: wallTime(540), to: wallTime(660), reservedFor: { known: true } }]
    const practice = samplePractice({ hours: { weekly: [day, day, day, day, day, [], []], changedDays: [] } })
    expect(rules(practice, [], now, '2026-11-26T09:00')).toEqual(['hours'])
    expect(rules(practice, [], now, '2026-11-26T09:00', { ...newClient, standing: 'known' })).toEqual([])
    expect(rules(practice, [], now, '2026-11-26T09:00', { ...newClient, who: 'practitioner' })).toEqual([])
  })

  it('closes the days before and after where a session of their path may lie', () => {
    const day = [{ from: wallTime(540), to: wallTime(660) }]
    const practice = samplePractice({
      hours: { weekly: [day, day, day, day, day, day, day], changedDays: [] },
    })
    const dates = ['2026-11-26', '2026-11-27', '2026-11-28', '2026-11-29']
    const bounds = [undefined, '2026-11-25', '2026-11-27', '2026-11-28', '2026-12-09']
    for (const from of bounds)
      for (const to of bounds) {
        const between = { ...(from ? { from: date(from) } : {}), ...(to ? { to: date(to) } : {}) }
        for (const who of ['client', 'practitioner'] as const) {
          const asker = { ...newClient, who, between }
          const open = openStarts(
            practice,
            makeDiary(practice, []),
            ask(practice, now, asker),
            date(dates[0]!),
            dates.length,
          ).map((start) => dateTimeAt(lisbon, start) as string)
          // All that `why` says nothing of, and no other; on the days between, both of them with it.
          for (const start of dates.flatMap((one) => [`${one}T09:00`, `${one}T09:45`])) {
            const lies = (!from || from <= start.slice(0, 10)) && (!to || start.slice(0, 10) <= to)
            expect(rules(practice, [], now, start, asker)).toEqual(lies ? [] : ['person'])
            expect(open.includes(start)).toBe(lies)
          }
        }
      }
  })

  it('closes invited-only services and blocked people', () => {
    const practice = samplePractice({ services: [sampleService({ bookableBy: 'invited' })] })
    expect(rules(practice, [], now, '2026-11-26T09:00')).toEqual(['person'])
    expect(rules(practice, [], now, '2026-11-26T09:00', { ...newClient, invited: ['s'] })).toEqual([])
    expect(
      rules(practice, [], now, '2026-11-26T09:00', { ...newClient, invited: ['s'], blocked: true }),
    ).toEqual(['person'])
  })
})

describe('travelling and links', () => {
  const now = parseInstant('2026-11-24T11:00Z')
  const round = { id: 'round', name: 'Around', surcharge: 0, clear: 30, postalCodes: [] }
  const base = samplePractice()
  const practice: Practice = {
    ...base,
    places: [...base.places, { id: 'home', kind: 'client', name: 'at yours', told: 'door', travel: [round] }],
    services: [sampleService({ places: ['video', 'home'] })],
  }

  it('keeps the way clear in the diary, where the session is at the client’s', () => {
    const part = {
      id: 'b',
      kind: 'session' as const,
      service: 's',
      start: at('2026-11-26T10:00'),
      minutes: 60,
    }
    expect(entryFor(practice, { ...part, place: 'home', travel: 'round' })).toMatchObject({
      clearBefore: 45,
      clearAfter: 45,
    })
    expect(entryFor(practice, { ...part, place: 'video', travel: 'round' }).clearBefore).toBe(15)
    expect(entryFor(practice, { ...part, place: 'home' }).clearBefore).toBe(15)
  })

  it('opens a service with a link to those who have it, and explains that to the others', () => {
    const linked = samplePractice({ services: [sampleService({ bookableBy: 'link' })] })
    const came = { ...newClient, invited: ['s'] }
    expect(rules(linked, [], now, '2026-11-26T10:00')).toEqual(['person'])
    expect(starts(linked, [], now, '2026-11-26')).toEqual([])
    expect(rules(linked, [], now, '2026-11-26T10:00', came)).toEqual([])
    const [closure] = why(linked, makeDiary(linked, []), ask(linked, now), at('2026-11-26T10:00'))
    const words = closureWords(closure!, {
      practice: linked,
      start: at('2026-11-26T10:00'),
      minutes: 75,
      zone: lisbon,
      nameOf: () => '',
    })
    expect(words).toBe('It is for people who have its link.')
  })
})

describe('groups', () => {
  const now = parseInstant('2026-11-24T11:00Z')
  const group = sampleService({
    seats: 2,
    perDay: 1,
    groupDates: [{ id: 'g', start: '2026-11-28T11:00' as LocalDateTime, place: 'video' }],
  })
  const practice = samplePractice({ services: [group, sampleService({ id: 'solo' })] })
  const taken = (n: number): Entry[] =>
    gatherGroups(
      practice,
      Array.from({ length: n }, (_, i) =>
        session(`b${i}`, '2026-11-28T11:00', 75, { service: 's', place: 'video' }),
      ),
    )

  it('is open on its date, outside the hours, while a seat is left', () => {
    for (const n of [0, 1]) {
      expect(rules(practice, taken(n), now, '2026-11-28T11:00')).toEqual([])
      expect(starts(practice, taken(n), now, '2026-11-24', 14)).toEqual(['11:00'])
    }
    expect(rules(practice, taken(2), now, '2026-11-28T11:00')).toEqual(['day-limit', 'full'])
    expect(starts(practice, taken(2), now, '2026-11-24', 14)).toEqual([])
    expect(rules(practice, [], now, '2026-11-27T11:00')).toEqual(['full'])
  })

  it('is called off when too few have come by the last moment, and not a moment before', () => {
    const least = { ...group, least: { people: 2, by: 'P1D' as Duration } }
    const careful = samplePractice({ services: [least] })
    // The day before at the same time of day, in the zone of the place.
    const last = parseInstant('2026-11-27T11:00Z')
    const closed = (n: number, at: Instant) => rules(careful, taken(n), at, '2026-11-28T11:00')
    const soon = samplePractice({ services: [{ ...least, notice: 'PT0S' as Duration }] })
    expect(rules(soon, taken(1), last, '2026-11-28T11:00')).toEqual([])
    expect(rules(soon, taken(1), instant(last + 1), '2026-11-28T11:00')).toEqual(['full'])
    expect(rules(soon, taken(0), instant(last + 1), '2026-11-28T11:00')).toEqual(['full'])
    expect(closed(1, now)).toEqual([])
    expect(
      openStarts(soon, makeDiary(soon, taken(1)), ask(soon, instant(last + 1)), date('2026-11-28'), 1),
    ).toEqual([])
  })

  it('keeps its time from other services before anybody has come', () => {
    const solo = practice.services[1]!
    const closures = why(
      practice,
      makeDiary(practice, []),
      { ...ask(practice, now), service: solo },
      at('2026-11-28T11:30'),
    )
    expect(closures.map((c) => c.rule)).toContain('overlap')
  })
})

describe('words', () => {
  it('puts every closure into a sentence that names what it refers to', () => {
    const practice = samplePractice({ limits: { openRequests: 2, perDay: 1 } })
    const now = parseInstant('2026-11-24T11:00Z')
    const start = at('2026-11-25T16:45')
    const closures = why(
      practice,
      makeDiary(practice, [session('b', '2026-11-25T17:00', 50)]),
      ask(practice, now),
      start,
    )
    const words = closures.map((closure) =>
      closureWords(closure, {
        practice,
        start,
        minutes: 75,
        zone: lisbon,
        nameOf: () => 'Coaching with L. Bielak',
      }),
    )
    expect(words).toEqual([
      'It would run until 18:00, into Coaching with L. Bielak (17:00 – 17:50).',
      'Your daily limit of 1 is reached.',
    ])
  })
})

describe('against the minute-by-minute oracle', () => {
  const runs = Number(process.env.ORACLE_RUNS ?? 800)

  it(`agrees on ${runs} random practices in all zones`, { timeout: 3_600_000 }, () => {
    let opened = 0
    fc.assert(
      fc.property(caseArb, (c) => {
        const { practice, entries, from, days, ask } = build(c)
        const found = openStarts(practice, makeDiary(practice, entries), ask, from, days)
        opened += found.length
        expect(found.map((s) => new Date(s).toISOString())).toEqual(
          openByTheMinute(practice, entries, ask, from, days).map((s) => new Date(s).toISOString()),
        )
      }),
      { numRuns: runs },
    )
    expect(opened).toBeGreaterThan(runs / 4)
  })

  it('agrees where clocks jump over midnight and where a date is left out', () => {
    let opened = 0
    fc.assert(
      fc.property(overMidnightArb, (c) => {
        const { practice, entries, from, days, ask } = build(c)
        const diary = makeDiary(practice, entries)
        const found = openStarts(practice, diary, ask, from, days)
        opened += found.length
        expect(found).toEqual(openByTheMinute(practice, entries, ask, from, days))
        for (const start of found) expect(why(practice, diary, ask, start)).toEqual([])
      }),
      { numRuns: 250 },
    )
    expect(opened).toBeGreaterThan(60)
  }, 120_000)

  it('counts no date as a working day that clocks leave out', () => {
    const practice = samplePractice()
    const apia = zone('Pacific/Apia')
    // Thursday 29, then Saturday 31 December 2011: there was no Friday. Monday is the next working day.
    expect(workingDaysOn(practice, date('2011-12-29'), 1, apia)).toBe('2012-01-02')
  })

  it('explains exactly the starts that are closed, in the order of the rules', () => {
    fc.assert(
      fc.property(fc.oneof({ weight: 4, arbitrary: caseArb }, overMidnightArb), (c) => {
        const { practice, entries, from, days, ask } = build(c)
        const diary = makeDiary(practice, entries)
        const open = new Set(openStarts(practice, diary, ask, from, days))
        const there = zone(practice.places[0]!.zone ?? practice.profile.zone)
        const day = (Date.parse(from) / 86_400_000) as DayNumber
        const begin = there.toInstant(day, 0)
        const end = there.toInstant((day + days) as DayNumber, 0)
        for (let s = begin; s < end; s = instant(s + 5 * MINUTE)) {
          const closures = why(practice, diary, ask, s)
          expect(closures.length === 0).toBe(open.has(s))
          const order = closures.map((closure) => CLOSURE_RULES.indexOf(closure.rule))
          expect(order).toEqual([...order].sort((a, b) => a - b))
        }
        expect(localDate(day)).toBe(from)
      }),
      { numRuns: 100 },
    )
  })
})
