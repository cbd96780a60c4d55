import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { askReaders, CALENDARS, type CalendarVerdict, readersAreHere } from '../tests/ask-readers.ts'
import { ownBusy } from '../tests/calendar-cases.ts'
import { formatInstant, parseInstant, zone } from '../time/index.ts'
import { busyTimes } from './busy.ts'

const event = (...lines: string[]): string => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'].join('\r\n')
const calendar = (...parts: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test', ...parts, 'END:VCALENDAR'].join('\r\n')
const read = (text: string, from = '2026-11-01T00:00Z', to = '2027-01-01T00:00Z') =>
  busyTimes(text, parseInstant(from), parseInstant(to), zone('Europe/Lisbon'))
const starts = (text: string, from?: string, to?: string): string[] =>
  read(text, from, to).entries.map((entry) => formatInstant(entry.start).slice(0, 16))
const hour = ['DURATION:PT1H']
const daily = (...lines: string[]): string =>
  event(
    'UID:r',
    'DTSTART;TZID=America/New_York:20261124T090000',
    ...hour,
    'RRULE:FREQ=DAILY;COUNT=4',
    ...lines,
  )
const days = (...days: number[]): string[] => days.map((day) => `2026-11-${day}T14:00`)

describe('exceptions of repeated events', () => {
  it('count by themselves where the event itself is missing', () => {
    const lone = event('UID:l', 'RECURRENCE-ID:20261124T100000Z', 'DTSTART:20261124T120000Z', ...hour)
    expect(starts(calendar(lone))).toEqual(['2026-11-24T12:00'])
    const cancelled = event(
      'UID:l',
      'RECURRENCE-ID:20261124T100000Z',
      'DTSTART:20261124T120000Z',
      ...hour,
      'STATUS:CANCELLED',
    )
    expect(starts(calendar(cancelled))).toEqual([])
  })

  it('are matched by the moment, in UTC or in any zone', () => {
    expect(starts(calendar(daily()))).toEqual(days(24, 25, 26, 27))
    expect(starts(calendar(daily('EXDATE:20261125T140000Z')))).toEqual(days(24, 26, 27))
    expect(starts(calendar(daily('EXDATE;TZID=Europe/Lisbon:20261125T140000,20261127T140000')))).toEqual(
      days(24, 26),
    )
    const moved = event('UID:r', 'RECURRENCE-ID:20261126T140000Z', 'DTSTART:20261126T200000Z', ...hour)
    expect(starts(calendar(daily(), moved))).toEqual([...days(24, 25), '2026-11-26T20:00', ...days(27)])
    const until = 'RRULE:FREQ=DAILY;UNTIL=20261126T140000Z'
    expect(
      starts(calendar(event('UID:u', 'DTSTART;TZID=America/New_York:20261124T090000', ...hour, until))),
    ).toEqual(days(24, 25, 26))
  })

  it('are matched by the moment in a zone of the file’s own, too', () => {
    const zones = [
      'BEGIN:VTIMEZONE',
      'TZID:Here',
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:-0500',
      'TZOFFSETTO:-0500',
      'END:STANDARD',
      'END:VTIMEZONE',
    ].join('\r\n')
    const here = daily('EXDATE:20261125T140000Z').replace('America/New_York', 'Here')
    expect(starts(calendar(zones, here))).toEqual(days(24, 26, 27))
  })

  it('may come from far outside of what is asked, and may be meant for all that follow', () => {
    const far = event('UID:f', 'DTSTART:20200101T090000Z', ...hour, 'RRULE:FREQ=YEARLY')
    const into = event('UID:f', 'RECURRENCE-ID:20220101T090000Z', 'DTSTART:20261130T090000Z', ...hour)
    expect(starts(calendar(far, into))).toEqual(['2026-11-30T09:00'])
    const onwards = event(
      'UID:r',
      'RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=America/New_York:20261126T090000',
      'DTSTART;TZID=America/New_York:20261126T100000',
      ...hour,
    )
    expect(starts(calendar(daily(), onwards))).toEqual([
      ...days(24, 25),
      '2026-11-26T15:00',
      '2026-11-27T15:00',
    ])
  })

  it('of two for the same time the later version holds', () => {
    const at = (n: number, hour: number): string =>
      event(
        'UID:r',
        'RECURRENCE-ID:20261126T140000Z',
        `DTSTART:20261126T${hour}0000Z`,
        'DURATION:PT1H',
        `SEQUENCE:${n}`,
      )
    expect(starts(calendar(daily(), at(2, 20), at(1, 18)))).toEqual([
      ...days(24, 25),
      '2026-11-26T20:00',
      ...days(27),
    ])
  })
})

// Verdicts of recurring-ical-events 2.0.1 over python-icalendar 4.0.3 (Debian 12), kept as they were given. A length of
// one day is left out: they take it for 24 hours, RFC 5545 §3.3.6 for the same time of the next day.
describe('random calendars, as another reader understands them', () => {
  const verdicts = JSON.parse(readFileSync(CALENDARS, 'utf8')) as CalendarVerdict[]

  it('are understood alike', () => {
    expect(verdicts.length).toBeGreaterThanOrEqual(150)
    for (const one of verdicts) expect(ownBusy(one), one.calendar).toEqual(one.busy)
  })

  it.runIf(readersAreHere())(
    'are still said to be so by that reader',
    () => {
      const said = askReaders(verdicts).map((one) => one['recurring-ical-events'])
      // On a busy machine the reader may be late for some; that is no other verdict.
      const inTime = verdicts.flatMap(({ busy }, i) => (said[i] === 'Late' ? [] : [[said[i], busy]]))
      expect(inTime.length).toBeGreaterThan(verdicts.length / 2)
      for (const [now, then] of inTime) expect(now).toEqual(then)
    },
    120_000,
  )
})

describe('zones', () => {
  it('are understood by their Windows names (CLDR), and by a path before their name', () => {
    const at = (name: string) =>
      starts(calendar(event('UID:1', `DTSTART;TZID=${name}:20261124T100000`, ...hour)))
    expect(at('"Pacific Standard Time"')).toEqual(['2026-11-24T18:00'])
    expect(at('W. Europe Standard Time')).toEqual(['2026-11-24T09:00'])
    expect(at('/example.org/20060101/Europe/Berlin')).toEqual(['2026-11-24T09:00'])
  })

  it('are listed where nobody knows them, and never taken for home', () => {
    const { entries, skipped } = read(
      calendar(event('UID:1', 'SUMMARY:Call', 'DTSTART;TZID=Nowhere:20261124T100000', ...hour)),
    )
    expect(entries).toEqual([])
    expect(skipped).toEqual(['the event “Call”: its time zone “Nowhere” is not known'])
  })

  it('of the calendar serve what has none', () => {
    const floating = event('UID:1', 'DTSTART:20261124T100000', ...hour)
    expect(starts(calendar('X-WR-TIMEZONE:America/New_York', floating))).toEqual(['2026-11-24T15:00'])
    expect(starts(calendar(floating))).toEqual(['2026-11-24T10:00'])
    expect(read(calendar('X-WR-TIMEZONE:Nowhere', floating)).entries).toEqual([])
  })
})

describe('rules', () => {
  const rule = (text: string, start: string, from: string, to: string): string[] =>
    starts(calendar(event('UID:1', `DTSTART:${start}`, ...hour, `RRULE:${text}`)), from, to)

  it('of 29 February come in leap years only', () => {
    expect(rule('FREQ=YEARLY', '20240229T100000Z', '2024-01-01T00:00Z', '2033-01-01T00:00Z')).toEqual([
      '2024-02-29T10:00',
      '2028-02-29T10:00',
      '2032-02-29T10:00',
    ])
  })

  it('that the standard does not have are listed with what is wrong', () => {
    const said = (text: string): string[] =>
      read(calendar(event('UID:1', 'DTSTART:20261124T100000Z', ...hour, `RRULE:${text}`))).skipped
    for (const [text, why] of [
      ['FREQ=WEEKLY;BYMONTHDAY=3', 'BYMONTHDAY with FREQ=WEEKLY'],
      ['FREQ=FORTNIGHTLY', 'FREQ=FORTNIGHTLY'],
      ['FREQ=DAILY;BYEASTER=1', 'BYEASTER'],
      ['FREQ=MONTHLY;BYMONTHDAY=0', 'BYMONTHDAY=0'],
      ['FREQ=DAILY;INTERVAL=0', 'INTERVAL=0'],
      ['INTERVAL=2', 'no FREQ'],
      ['FREQ=MONTHLY;BYSETPOS=1', 'BYSETPOS alone'],
    ])
      expect(said(text!), text).toEqual([`the event “1”: its repetition is not understood: ${why}`])
  })

  it('that take place more often than anybody means are listed, not silently free', () => {
    const { skipped } = read(
      calendar(event('UID:1', 'DTSTART:20261124T100000Z', 'DURATION:PT1S', 'RRULE:FREQ=SECONDLY')),
    )
    expect(skipped[0]).toMatch(/repetition is not understood: it takes place more than 20,000 times/)
  })

  it('are asked about the span alone, however long ago they began', () => {
    // Following four billion seconds would take minutes, and this test would not end in time.
    expect(
      rule('FREQ=SECONDLY;INTERVAL=3600', '19010101T000000Z', '2026-11-24T10:00Z', '2026-11-24T12:00Z'),
    ).toEqual(['2026-11-24T10:00', '2026-11-24T11:00'])
    expect(rule('FREQ=DAILY', '19010101T103000Z', '2026-11-24T00:00Z', '2026-11-26T00:00Z')).toHaveLength(2)
  })
})

describe('files that mean harm', () => {
  const all = (to: number): string => Array.from({ length: to }, (_, i) => i).join()
  const rules = [
    'FREQ=MONTHLY;BYMONTH=2;BYMONTHDAY=31',
    'FREQ=MONTHLY;BYMONTH=2;BYMONTHDAY=31;COUNT=5',
    'FREQ=YEARLY;BYYEARDAY=366;BYMONTH=1;COUNT=3',
    'FREQ=MONTHLY;BYDAY=1MO;BYSETPOS=300',
    'FREQ=SECONDLY;COUNT=999999999',
    'FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=MINUTELY;INTERVAL=999999999',
    `FREQ=YEARLY;BYWEEKNO=1,20,-1;BYHOUR=${all(24)};BYMINUTE=${all(60)};BYSECOND=${all(60)}`,
    `FREQ=YEARLY;BYYEARDAY=1,366;BYHOUR=${all(24)};BYMINUTE=${all(60)};BYSECOND=${all(60)};COUNT=999999999`,
    `FREQ=YEARLY;BYDAY=MO,TU,WE,TH,FR,SA,SU;BYHOUR=${all(24)};BYMINUTE=${all(60)};BYSETPOS=-1`,
    'FREQ=DAILY;UNTIL=99991231',
  ]
  const beginnings = ['01000101T000000', '19010101T000000', '20261101T000000', '99981231T235959']

  it.each(rules.map((rule) => [rule.slice(0, 60), rule] as const))('a rule: %s', (_, rule) => {
    for (const start of beginnings) {
      const { entries, skipped } = read(
        calendar(
          event('UID:1', `DTSTART:${start}Z`, 'DURATION:PT1S', `RRULE:${rule}`),
          event('UID:2', 'DTSTART:20261124T120000Z', ...hour),
        ),
      )
      // Whatever becomes of it, the other event is read; what was cut short is said.
      expect(entries.some((entry) => formatInstant(entry.start) === '2026-11-24T12:00:00Z')).toBe(true)
      if (entries.length > 20_000) expect(skipped).not.toEqual([])
    }
  })

  it('endless lines, endless lengths, thousands of exceptions', () => {
    const long = 'x'.repeat(3_000_000)
    expect(
      starts(calendar(event('UID:1', `DESCRIPTION:${long}`, 'DTSTART:20261124T120000Z', ...hour))),
    ).toHaveLength(1)
    const ever = read(calendar(event('UID:1', 'DTSTART:20200101T000000Z', 'DTEND:99991231T000000Z')))
    // Cut to what was asked for, so that nothing has to look back for thousands of years.
    expect(ever.entries.map(({ start, end }) => [formatInstant(start), formatInstant(end)])).toEqual([
      ['2026-11-01T00:00:00Z', '2027-01-01T00:00:00Z'],
    ])
    const many = Array.from({ length: 5_000 }, (_, i) =>
      event(
        'UID:r',
        `RECURRENCE-ID;RANGE=THISANDFUTURE:202611${String((i % 28) + 1).padStart(2, '0')}T140000Z`,
        'DTSTART:20261126T140000Z',
        ...hour,
      ),
    )
    expect(read(calendar(daily(), ...many)).entries.length).toBeGreaterThan(0)
    expect(
      read(calendar(event('UID:1', 'DTSTART:20261124T120000Z', `DURATION:P${'9'.repeat(40)}D`))).skipped[0],
    ).toMatch(/is no duration/)
  })
})

describe('what is odd costs only itself', () => {
  const good = event('UID:g', 'DTSTART:20261124T120000Z', ...hour)

  it('an event without end, a line that is none, a value that is none', () => {
    const { entries, skipped } = read(
      [
        'BEGIN:VCALENDAR',
        'BEGIN:VEVENT',
        'SUMMARY:Cut',
        good,
        'no line',
        event('UID:b', 'DTSTART:soon', ...hour),
        good,
        'END:VCALENDAR',
      ].join('\r\n'),
    )
    expect(entries.map((entry) => formatInstant(entry.start))).toEqual([
      '2026-11-24T12:00:00Z',
      '2026-11-24T12:00:00Z',
    ])
    expect(skipped).toEqual([
      'VEVENT “Cut”: its end is missing',
      'the line “no line”',
      'the event “b”: “soon” is no date',
    ])
  })

  it('in a stream of several calendars each is read, with zones of its own', () => {
    const other = calendar('X-WR-TIMEZONE:Asia/Tokyo', event('UID:o', 'DTSTART:20261124T120000', ...hour))
    expect(starts(`${calendar(good)}\r\n${other}`)).toEqual(['2026-11-24T03:00', '2026-11-24T12:00'])
  })

  it('busy periods without an end, and available times that are none', () => {
    const text = calendar(
      'BEGIN:VFREEBUSY',
      'FREEBUSY:20261124T100000Z',
      'FREEBUSY:20261124T150000Z/PT1H',
      'END:VFREEBUSY',
      good,
    )
    expect(starts(text)).toEqual(['2026-11-24T12:00', '2026-11-24T15:00'])
    expect(read(text).skipped).toEqual(['the busy time “20261124T100000Z”: it has no end'])
  })

  it('a file that is cut off is no calendar: what is missing could be busy', () => {
    expect(() => read(calendar(good).slice(0, -20))).toThrow('its end is missing')
  })
})
