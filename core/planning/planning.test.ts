import fc from 'fast-check'
import { RRule } from 'rrule'
import { describe, expect, it } from 'vitest'
import { type Diary, type Entry, makeDiary, newClient, openStarts } from '../openings/index.ts'
import type { Practice, Service } from '../practice/index.ts'
import { byPractitioner } from '../request/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  addDays,
  type Duration,
  dateAt,
  dateTimeAt,
  dayNumber,
  type LocalDate,
  minutesOf,
  parseInstant,
  shift,
  type WallTime,
  weekStart,
  zone,
} from '../time/index.ts'
import type { WaitingWindow } from '../waiting/types.ts'
import {
  DAY_COST,
  LEFT_OUT,
  MOST_PLANNED,
  type PlanWish,
  planSessions,
  REACH,
  RHYTHMS,
  type Rhythm,
  rhythmDates,
} from './index.ts'

const lisbon = zone('Europe/Lisbon')
const now = parseInstant('2026-01-05T08:00Z')
const on = (date: string) => date as LocalDate
const clock = (time: string) => time as WallTime

const block = (from: string, to: string) => ({ from: clock(from), to: clock(to) })
const usual = [block('09:00', '12:00'), block('14:00', '18:00')]

function house(change: Partial<Practice> = {}, of: Partial<Service> = {}): Practice {
  const service = sampleService({
    ...{ minutes: 60, clearBefore: 0, clearAfter: 0, starts: { kind: 'every', minutes: 30 }, tidy: false },
    ...of,
  })
  const base = samplePractice({ services: [service] })
  const weekly: Practice['hours']['weekly'] = [usual, usual, usual, usual, usual, [], []]
  return { ...base, limits: { openRequests: 3 }, hours: { weekly, changedDays: [] }, ...change }
}

const wishFor = (practice: Practice, change: Partial<PlanWish> = {}): PlanWish => ({
  service: practice.services[0]!,
  place: practice.services[0]!.places[0]!,
  minutes: 60,
  asker: byPractitioner,
  now,
  rhythm: 'week',
  first: on('2026-03-03'),
  time: clock('10:00'),
  count: 6,
  ...change,
})
const taken = (at: string, minutes = 60, id = at): Entry => {
  const start = parseInstant(at)
  return {
    ...{ id, kind: 'session', start, end: shift(start, minutes * 60_000), clearBefore: 0, clearAfter: 0 },
    ...{ service: 'other', place: 'studio' },
  }
}
const told = (practice: Practice, diary: Diary, wish: PlanWish): string[] =>
  planSessions(practice, diary, wish).sessions.map(({ start }) =>
    start === undefined ? 'nowhere' : dateTimeAt(lisbon, start),
  )

describe('a rhythm', () => {
  it.each<[string, Rhythm]>([
    ['2026-03-03', 'week'],
    ['2026-03-03', 'fortnight'],
    ['2026-03-10', 'month'],
    ['2026-01-31', 'month'],
    ['2024-02-29', 'month'],
    ['2026-12-29', 'month'],
  ])('from %s each %s is what rrule makes of RFC 5545', (first, rhythm) => {
    const nth = Math.ceil(Number(first.slice(8)) / 7)
    const day = new Date(`${first}T00:00Z`)
    const weekday = [RRule.MO, RRule.TU, RRule.WE, RRule.TH, RRule.FR, RRule.SA, RRule.SU][
      (day.getUTCDay() + 6) % 7
    ]!
    const rule = new RRule({
      dtstart: day,
      count: 30,
      ...(rhythm === 'month'
        ? { freq: RRule.MONTHLY, byweekday: [weekday.nth(nth >= 5 ? -1 : nth)] }
        : { freq: RRule.WEEKLY, interval: rhythm === 'week' ? 1 : 2 }),
    })
    const dates = rule.all().map((one) => one.toISOString().slice(0, 10))
    expect(rhythmDates(rhythm, on(first), 30)).toEqual(dates)
  })
})

describe('a plan', () => {
  const practice = house()

  it('keeps to weekday and time of day where everything is free, through the clock change', () => {
    const plan = planSessions(practice, makeDiary(practice, []), wishFor(practice))
    expect(plan.cost).toBe(0)
    expect(plan.sessions.map(({ start }) => dateTimeAt(lisbon, start!))).toEqual(
      ['03-03', '03-10', '03-17', '03-24', '03-31', '04-07'].map((day) => `2026-${day}T10:00`),
    )
    // The clocks go forward on the 29th: an hour less lies between the fourth and the fifth.
    expect(plan.sessions[4]!.start! - plan.sessions[3]!.start!).toBe((7 * 24 - 1) * 3_600_000)
  })

  it('gives way by the least, and says to what', () => {
    const diary = makeDiary(practice, [
      taken('2026-03-10T10:00Z', 30, 'short'),
      taken('2026-03-17T09:00Z', 9 * 60, 'all day'),
    ])
    const plan = planSessions(practice, diary, wishFor(practice, { count: 3 }))
    expect(
      plan.sessions.map(({ start, days, minutes }) => [dateTimeAt(lisbon, start!), days, minutes]),
    ).toEqual([
      ['2026-03-03T10:00', 0, 0],
      ['2026-03-10T10:30', 0, 30],
      ['2026-03-16T10:00', -1, 0],
    ])
    expect(plan.sessions[0]!.because).toEqual([])
    expect(plan.sessions[1]!.because).toMatchObject([{ rule: 'overlap', entry: { id: 'short' } }])
    expect(plan.sessions[2]!.because).toMatchObject([{ rule: 'overlap', entry: { id: 'all day' } }])
    expect(plan.cost).toBe(30 + DAY_COST)
  })

  it('leaves out what has no room, with the reason, and plans the rest', () => {
    const diary = makeDiary(practice, [taken('2026-03-06T00:00Z', 11 * 24 * 60, 'nothing else')])
    const plan = planSessions(practice, diary, wishFor(practice, { count: 3 }))
    expect(plan.sessions.map(({ start }) => start === undefined)).toEqual([false, true, false])
    expect(plan.sessions[1]!.because.length).toBeGreaterThan(0)
    expect(plan.cost).toBe(LEFT_OUT)
  })

  it('keeps within the windows of whoever comes, and between the distances that are wished for', () => {
    const windows: WaitingWindow[] = [{ weekdays: [1, 4], after: clock('14:00'), before: clock('16:00') }]
    expect(told(practice, makeDiary(practice, []), wishFor(practice, { windows, count: 3 }))).toEqual([
      '2026-03-05T14:00',
      '2026-03-09T14:00',
      '2026-03-16T14:00',
    ])
    const [first] = planSessions(practice, makeDiary(practice, []), wishFor(practice, { windows })).sessions
    expect(first).toMatchObject({ outside: true, days: 2, minutes: 240, because: [] })
    const apart = wishFor(practice, { windows, count: 3, least: 6 })
    expect(told(practice, makeDiary(practice, []), apart)).toEqual([
      '2026-03-05T14:00',
      '2026-03-12T14:00',
      '2026-03-19T14:00',
    ])
  })

  it('takes no more of a week than its limit, and looks beyond notice and reach for the practitioner alone', () => {
    const two = house({ limits: { openRequests: 3, perWeek: 1 } })
    const diary = makeDiary(two, [taken('2026-03-09T09:00Z', 60, 'theirs')])
    // The week of the 9th is full: both that follow go on to the next weeks, and none is left out.
    expect(told(two, diary, wishFor(two, { count: 3 }))).toEqual([
      '2026-03-03T10:00',
      '2026-03-16T10:00',
      '2026-03-23T10:00',
    ])
    const near = house({}, { notice: 'P60D' as Duration, reach: { kind: 'days', days: 70 } })
    const client = wishFor(near, { asker: newClient, first: on('2026-03-03'), count: 4 })
    expect(told(near, makeDiary(near, []), client)).toContain('nowhere')
    expect(told(near, makeDiary(near, []), { ...client, asker: byPractitioner })).not.toContain('nowhere')
  })

  it('refuses what can’t be meant', () => {
    const diary = makeDiary(practice, [])
    for (const change of [
      { count: 0 },
      { count: MOST_PLANNED + 1 },
      { count: 1.5 },
      { least: 0 },
      { least: 8, greatest: 7 },
    ])
      expect(() => planSessions(practice, diary, wishFor(practice, change))).toThrow(RangeError)
  })

  /** Every plan there is, tried: each session on any open start within reach, or left out. */
  function byHand(practice: Practice, diary: Diary, wish: PlanWish): number {
    const dates = rhythmDates(wish.rhythm, wish.first, wish.count)
    // Where sessions must be further apart than the rhythm has them, what follows moves by whole weeks.
    for (let k = 1; k < dates.length; k++)
      while (dayNumber(dates[k]!) - dayNumber(dates[k - 1]!) < (wish.each?.[k]?.least ?? 0))
        for (let j = k; j < dates.length; j++) dates[j] = addDays(dates[j]!, 7)
    const reach = REACH[wish.rhythm]
    const { greatest, windows } = wish
    const leastOf = (k: number): number => wish.each?.[k]?.least ?? wish.least ?? 1
    const limit = practice.limits.perWeek
    const free = { ...wish, service: { ...wish.service, notice: 'PT0S' as Duration } }
    const starts = dates.map((meant, k) => {
      const long = wish.each?.[k]?.minutes ?? 60
      const from = addDays(meant, -reach.before)
      return openStarts(
        practice,
        diary,
        { ...free, minutes: long },
        from,
        reach.before + reach.after + 1,
      ).filter((start) => {
        const [day, at] = dateTimeAt(lisbon, start).split('T') as [LocalDate, WallTime]
        const minutes = minutesOf(at)
        const weekday = ((dayNumber(day) + 3) % 7) + 1
        return (
          day >= wish.first &&
          (!windows ||
            windows.some(
              ({ weekdays = [], after, before }) =>
                weekdays.includes(weekday as 1) &&
                minutesOf(after!) <= minutes &&
                minutes + long <= minutesOf(before!),
            ))
        )
      })
    })
    let best = Number.POSITIVE_INFINITY
    const look = (k: number, cost: number, chosen: LocalDate[]): void => {
      if (cost >= best) return
      if (k === dates.length) {
        best = cost
        return
      }
      for (const start of starts[k]!) {
        const day = dateAt(lisbon, start)
        const last = chosen.at(-1)
        const apart = last === undefined ? undefined : dayNumber(day) - dayNumber(last)
        if (apart !== undefined && (apart < leastOf(k) || (greatest !== undefined && apart > greatest)))
          continue
        const week = (one: LocalDate) => weekStart(dayNumber(one), practice.profile.weekStart)
        const same = chosen.filter((one) => week(one) === week(day)).length
        if (limit && diary.count('week', dayNumber(day)) + same >= limit) continue
        const off = Math.abs(dayNumber(day) - dayNumber(dates[k]!)) * DAY_COST
        const time = Math.abs(
          minutesOf(dateTimeAt(lisbon, start).slice(11) as WallTime) - minutesOf(wish.time),
        )
        look(k + 1, cost + off + time, [...chosen, day])
      }
      look(k + 1, cost + LEFT_OUT, chosen)
    }
    look(0, 0, [])
    return best
  }

  it('costs no more than any other, 150 small practices tried', () => {
    const hour = fc.integer({ min: 8, max: 18 })
    fc.assert(
      fc.property(
        fc.record({
          rhythm: fc.constantFrom(...RHYTHMS.filter((one) => one !== 'month')),
          count: fc.integer({ min: 1, max: 3 }),
          hour,
          busy: fc.array(
            fc.record({
              day: fc.integer({ min: -3, max: 30 }),
              hour,
              hours: fc.constantFrom(1, 2, 9, 24, 72),
            }),
            { maxLength: 8 },
          ),
          week: fc.constantFrom(undefined, 1, 2),
          least: fc.constantFrom(undefined, 1, 5, 8),
          greatest: fc.constantFrom(undefined, 8, 13),
          each: fc.constantFrom<[number, number | undefined][] | undefined>(
            undefined,
            [
              [120, undefined],
              [60, 9],
              [60, 3],
            ],
            [
              [60, undefined],
              [60, 16],
              [180, undefined],
            ],
          ),
          window: fc.constantFrom<WaitingWindow | undefined>(undefined, {
            weekdays: [2, 5],
            after: clock('09:00'),
            before: clock('15:00'),
          }),
        }),
        ({ rhythm, count, hour, busy, week, least, greatest, window, each }) => {
          const practice = house(
            { limits: { openRequests: 3, ...(week ? { perWeek: week } : {}) } },
            { starts: { kind: 'every', minutes: 60 }, reach: { kind: 'days', days: 300 } },
          )
          const diary = makeDiary(
            practice,
            busy.map(({ day, hour, hours }, i) =>
              taken(
                `${addDays(on('2026-03-03'), day)}T${String(hour).padStart(2, '0')}:00Z`,
                hours * 60,
                `busy-${i}`,
              ),
            ),
          )
          const wish = wishFor(practice, {
            ...{ rhythm, count, time: clock(`${String(hour).padStart(2, '0')}:00`) },
            ...(least ? { least } : {}),
            // A path says of each session how far it is from the one before.
            ...(greatest && !each ? { greatest } : {}),
            ...(each
              ? {
                  each: each.slice(0, count).map(([minutes, far]) => ({
                    ...{ service: practice.services[0]!, minutes },
                    ...(far ? { least: far } : {}),
                  })),
                }
              : {}),
            ...(window ? { windows: [window] } : {}),
          })
          const plan = planSessions(practice, diary, wish)
          expect(plan.cost).toBe(byHand(practice, diary, wish))
          // What it says is what it costs, and every start is open.
          const sum = plan.sessions.reduce(
            (all, { start, days, minutes }) =>
              all + (start === undefined ? LEFT_OUT : Math.abs(days) * DAY_COST + Math.abs(minutes)),
            0,
          )
          expect(sum).toBe(plan.cost)
          for (const [k, { start }] of plan.sessions.entries())
            if (start !== undefined)
              expect(
                openStarts(
                  practice,
                  diary,
                  {
                    ...wish,
                    minutes: wish.each?.[k]?.minutes ?? 60,
                    service: { ...wish.service, notice: 'PT0S' as Duration },
                  },
                  dateAt(lisbon, start),
                  1,
                ),
              ).toContain(start)
        },
      ),
      { numRuns: 150 },
    )
  })
})
