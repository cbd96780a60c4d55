import fc from 'fast-check'
import { RRule } from 'rrule'
import { describe, expect, it } from 'vitest'
import { checkPractice } from '../practice/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { DAY, date, dateTimeAt, type LocalDateTime, parseInstant, timeAt, zone } from '../time/index.ts'
import { comesTrue, isRepeat } from '../time/recurrence.ts'
import { awayTimes, makeDiary, newClient, openStarts, workingDaysOn } from './index.ts'

const lisbon = zone('Europe/Lisbon')
const away = (from: string, to: string, repeat: string) =>
  samplePractice({ away: [{ id: 'a', from: from as LocalDateTime, to: to as LocalDateTime, repeat }] })
const starts = (practice: ReturnType<typeof samplePractice>, from: string, to: string): string[] =>
  awayTimes(practice, parseInstant(from), parseInstant(to))
    .filter((away) => away.to > parseInstant(from) && away.from < parseInstant(to))
    .map((awayTime) => dateTimeAt(lisbon, awayTime.from))

describe('repeated time away', () => {
  // RFC 5545 §3.8.5.3, "Monthly on the first Friday for 10 occurrences", set in Lisbon and in our year.
  it('follows the rules of RFC 5545', () => {
    const practice = away('2026-12-04T09:00', '2026-12-04T12:00', 'FREQ=MONTHLY;COUNT=10;BYDAY=1FR')
    expect(starts(practice, '2026-12-01T00:00Z', '2027-04-30T00:00Z')).toEqual([
      '2026-12-04T09:00',
      '2027-01-01T09:00',
      '2027-02-05T09:00',
      '2027-03-05T09:00',
      '2027-04-02T09:00',
    ])
  })

  it('keeps its wall time across a clock change', () => {
    const practice = away('2027-03-21T09:00', '2027-03-21T10:00', 'FREQ=WEEKLY')
    const [, after] = awayTimes(
      practice,
      parseInstant('2027-03-20T00:00Z'),
      parseInstant('2027-03-30T00:00Z'),
    )
    expect(timeAt(lisbon, after!.from)).toBe('09:00')
    expect(after!.to - after!.from).toBe(3_600_000)
  })

  it('closes openings, and whole days of it are no working days', () => {
    const service = sampleService({
      minutes: 60,
      clearBefore: 0,
      clearAfter: 0,
      starts: { kind: 'every', minutes: 60 },
    })
    const practice = { ...away('2026-11-26T00:00', '2026-11-27T00:00', 'FREQ=WEEKLY'), services: [service] }
    const now = parseInstant('2026-11-24T11:00Z')
    const ask = { service, place: 'video', minutes: 60, asker: newClient, now }
    const days = openStarts(practice, makeDiary(practice, []), ask, date('2026-11-25'), 9).map((s) =>
      dateTimeAt(lisbon, s).slice(8, 10),
    )
    expect([...new Set(days)]).toEqual(['25', '27', '30', '01', '02'])
    expect(workingDaysOn(practice, date('2026-11-24'), 3, lisbon)).toBe('2026-11-30')
  })

  it('agrees with another library on random rules', () => {
    const rule = fc.record({
      freq: fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY'),
      interval: fc.integer({ min: 1, max: 4 }),
      days: fc.uniqueArray(fc.constantFrom('MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'), { maxLength: 3 }),
      count: fc.option(fc.integer({ min: 1, max: 12 }), { nil: undefined }),
      offset: fc.integer({ min: 0, max: 40 }),
    })
    fc.assert(
      fc.property(rule, ({ freq, interval, days, count, offset }) => {
        const first = new Date(Date.UTC(2026, 10, 2 + offset, 9))
        // RFC 5545 leaves open what a first day outside its own rule means; so it is always in it.
        const own = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'][first.getUTCDay()]!
        const parts = [
          `FREQ=${freq}`,
          `INTERVAL=${interval}`,
          ...(days.length > 0 ? [`BYDAY=${[...new Set([own, ...days])].join(',')}`] : []),
          ...(count ? [`COUNT=${count}`] : []),
        ]
        const from = `${first.toISOString().slice(0, 10)}T09:00`
        const practice = away(from, from.replace('09:00', '10:00'), parts.join(';'))
        const theirs = RRule.fromString(
          `DTSTART:${first.toISOString().replaceAll(/[-:]|\.000/g, '')}\nRRULE:${parts.join(';')}`,
        )
          .between(new Date(Date.UTC(2026, 10, 1)), new Date(Date.UTC(2027, 3, 1)), true)
          .map((date) => date.toISOString().slice(0, 16))
        expect(starts(practice, '2026-11-01T00:00Z', '2027-04-01T00:00Z')).toEqual(theirs)
      }),
      { numRuns: 300 },
    )
  })

  it('never looks without end for what never comes true', () => {
    const never = [
      'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
      'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30,31',
      'FREQ=MONTHLY;INTERVAL=12;BYMONTHDAY=31;BYMONTH=3',
      'FREQ=DAILY;INTERVAL=7;BYDAY=MO',
    ]
    const begun = process.cpuUsage().user
    for (const rule of never) {
      expect(comesTrue(rule, { year: 2026, month: 11, day: 27 })).toBe(false)
      const practice = away('2026-11-27T09:00', '2026-11-27T10:00', rule)
      expect(starts(practice, '2026-11-01T00:00Z', '2027-04-01T00:00Z')).toEqual(['2026-11-27T09:00'])
      expect(checkPractice(practice).map(({ path }) => path)).toContain('away[0]')
    }
    // Not a matter of speed: without the check, this does not end.
    expect(process.cpuUsage().user - begun).toBeLessThan(20_000_000)
    for (const rule of ['FREQ=DAILY', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', 'FREQ=MONTHLY;BYDAY=5MO'])
      expect(comesTrue(rule, { year: 2026, month: 11, day: 27 })).toBe(true)
    for (const rule of ['FREQ=HOURLY', 'FREQ=SECONDLY;BYSETPOS=9']) expect(isRepeat(rule)).toBe(false)
  })

  it('knows what is a rule', () => {
    expect(isRepeat('FREQ=WEEKLY;BYDAY=FR')).toBe(true)
    for (const text of ['', 'WEEKLY', 'FREQ=SOMETIMES']) expect(isRepeat(text)).toBe(false)
    expect(DAY).toBe(86_400_000)
  })
})
