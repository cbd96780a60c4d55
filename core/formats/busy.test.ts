import { describe, expect, it } from 'vitest'
import { formatInstant, parseInstant, zone } from '../time/index.ts'
import { busyTimes } from './busy.ts'

const event = (...lines: string[]): string => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'].join('\r\n')
const calendar = (...parts: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test', ...parts, 'END:VCALENDAR'].join('\r\n')
const busy = (text: string, from = '2026-11-01T00:00Z', to = '2027-01-01T00:00Z') =>
  busyTimes(text, parseInstant(from), parseInstant(to), zone('Europe/Lisbon')).entries.map(
    (entry) => `${formatInstant(entry.start)}/${formatInstant(entry.end)}`,
  )

describe('busy times of a calendar', () => {
  it('reads times in UTC, in a named zone, floating and all day', () => {
    expect(
      busy(
        calendar(
          event('UID:1', 'DTSTART:20261124T100000Z', 'DTEND:20261124T110000Z'),
          event('UID:2', 'DTSTART;TZID=America/New_York:20261124T100000', 'DURATION:PT30M'),
          event('UID:3', 'DTSTART:20261125T090000', 'DTEND:20261125T100000'),
          event('UID:4', 'DTSTART;VALUE=DATE:20261126'),
        ),
      ),
    ).toEqual([
      '2026-11-24T10:00:00Z/2026-11-24T11:00:00Z',
      '2026-11-24T15:00:00Z/2026-11-24T15:30:00Z',
      '2026-11-25T09:00:00Z/2026-11-25T10:00:00Z',
      '2026-11-26T00:00:00Z/2026-11-27T00:00:00Z',
    ])
  })

  it('takes transparent and cancelled events as free', () => {
    const at = ['DTSTART:20261124T100000Z', 'DTEND:20261124T110000Z']
    expect(
      busy(calendar(event('UID:1', ...at, 'TRANSP:TRANSPARENT'), event('UID:2', ...at, 'STATUS:CANCELLED'))),
    ).toEqual([])
  })

  it('takes what its owner has declined as free, and nothing that somebody else has', () => {
    const at = ['DTSTART:20261124T100000Z', 'DTEND:20261124T110000Z']
    const said = (who: string, what: string) => `ATTENDEE;PARTSTAT=${what};CN=Iria:mailto:${who}`
    const text = (...lines: string[]) => calendar(event('UID:1', ...at, ...lines))
    const read = (source: string, owners: string[]) =>
      busyTimes(source, parseInstant('2026-11-01T00:00Z'), parseInstant('2026-12-01T00:00Z'), zone('UTC'), {
        owners,
      }).entries.length
    const no = text(said('Iria@Example.org', 'DECLINED'), said('other@example.org', 'ACCEPTED'))
    expect(read(no, ['iria@example.org'])).toBe(0)
    expect(read(no, ['other@example.org'])).toBe(1)
    expect(read(no, [])).toBe(1)
    expect(read(text(said('iria@example.org', 'TENTATIVE')), ['iria@example.org'])).toBe(1)
    // Many programs name a calendar after its owner's address.
    expect(
      read(
        calendar(
          'X-WR-CALNAME:iria@example.org',
          event('UID:1', ...at, said('iria@example.org', 'DECLINED')),
        ),
        [],
      ),
    ).toBe(0)
  })

  // RFC 5545 §3.8.5.3: "Daily for 10 occurrences", cut to a span and with an exception of each kind.
  it('repeats events, with exceptions left out and moved', () => {
    const text = calendar(
      event(
        'UID:r',
        'DTSTART;TZID=America/New_York:20261124T090000',
        'DURATION:PT1H',
        'RRULE:FREQ=DAILY;COUNT=10',
        'EXDATE;TZID=America/New_York:20261125T090000',
      ),
      event(
        'UID:r',
        'RECURRENCE-ID;TZID=America/New_York:20261126T090000',
        'DTSTART;TZID=America/New_York:20261126T150000',
        'DURATION:PT1H',
      ),
    )
    expect(busy(text, '2026-11-24T00:00Z', '2026-11-28T00:00Z')).toEqual([
      '2026-11-24T14:00:00Z/2026-11-24T15:00:00Z',
      '2026-11-26T20:00:00Z/2026-11-26T21:00:00Z',
      '2026-11-27T14:00:00Z/2026-11-27T15:00:00Z',
    ])
    expect(busy(text, '2026-11-24T00:00Z', '2027-01-01T00:00Z')).toHaveLength(9)
  })

  it('reads a zone of the file’s own', () => {
    const zones = [
      'BEGIN:VTIMEZONE',
      'TZID:Somewhere',
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:+0330',
      'TZOFFSETTO:+0330',
      'END:STANDARD',
      'END:VTIMEZONE',
    ].join('\r\n')
    expect(
      busy(calendar(zones, event('UID:1', 'DTSTART;TZID=Somewhere:20261124T100000', 'DURATION:PT1H'))),
    ).toEqual(['2026-11-24T06:30:00Z/2026-11-24T07:30:00Z'])
  })

  it('reads a calendar with errors as far as possible, and lists what it skipped', () => {
    const text = calendar(
      event('UID:1', 'SUMMARY:Broken', 'DTSTART:2026-11-24', 'DTEND:20261124T110000Z'),
      'this line is none',
      event('UID:2', 'DTSTART:20261124T120000Z', 'DTEND:20261124T130000Z'),
    )
    const { entries, skipped } = busyTimes(
      text,
      parseInstant('2026-11-01T00:00Z'),
      parseInstant('2027-01-01T00:00Z'),
      zone('UTC'),
    )
    expect(entries).toHaveLength(1)
    expect(skipped[0]).toBe('the line “this line is none”')
    expect(skipped[1]).toMatch(/^the event “Broken”/)
  })

  it('says what is no calendar', () => {
    expect(() => busy('hello')).toThrow('The calendar: holds no VCALENDAR')
    expect(() => busy('BEGIN:VCALENDAR\r\nBEGIN:VEVENT')).toThrow('The calendar: is not iCalendar')
    expect(() => busy('BEGIN:VCARD\r\nEND:VCARD')).toThrow('holds no VCALENDAR')
  })
})
