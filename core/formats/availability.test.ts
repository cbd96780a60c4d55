import fc from 'fast-check'
import ICAL from 'ical.js'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import type { Booking } from '../booking/index.ts'
import { begin } from '../booking/index.ts'
import type { Block, Hours } from '../practice/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  addDays,
  DAY,
  date,
  formatInstant,
  HOUR,
  type Instant,
  instant,
  type LocalDateTime,
  MINUTE,
  parseInstant,
  shift,
  wallTime,
  zone,
} from '../time/index.ts'
import { availabilityIn, joined, type Stretch, without } from './availability.ts'
import { uidOf, writeBookings } from './bookings.ts'
import { busyTimes } from './busy.ts'
import { calendarsIn } from './content.ts'
import { readHoursFile, writeHoursFile } from './hours-file.ts'
import { momentsIn } from './moments.ts'
import { vtimezone } from './timezone.ts'

const utc = zone('UTC')
const calendar = (...lines: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test', ...lines, 'END:VCALENDAR'].join('\r\n')
const said = (stretches: readonly Stretch[]): string[] =>
  stretches.map((stretche) => `${formatInstant(stretche.from)}/${formatInstant(stretche.to)}`)
const read = (text: string, from: string, to: string, skipped: string[] = []) => {
  const [calendar] = calendarsIn(text, 'It', skipped)
  return availabilityIn(
    calendar!,
    momentsIn(calendar!, utc, skipped),
    parseInstant(from),
    parseInstant(to),
    skipped,
  )
}
const free = (text: string, from: string, to: string): string[] => said(read(text, from, to).free)

const available = (summary: string, start: string, end: string, rule: string, tz = 'America/Montreal') => [
  'BEGIN:AVAILABLE',
  `UID:${summary}`,
  `SUMMARY:${summary}`,
  `DTSTART;TZID=${tz}:${start}`,
  `DTEND;TZID=${tz}:${end}`,
  ...(rule ? [`RRULE:${rule}`] : []),
  'END:AVAILABLE',
]

// The examples of RFC 7953, written from memory; Montreal was four hours behind UTC in October 2011, Denver six.
describe('availability, by the examples of RFC 7953', () => {
  const week = ['2011-10-03T00:00Z', '2011-10-10T00:00Z'] as const
  const usual = [
    'BEGIN:VAVAILABILITY',
    'UID:0428C7D2-688E-4D2E-AC52-CD112E2469DF',
    'DTSTAMP:20111005T133225Z',
    ...available('Weekdays', '20111002T090000', '20111002T170000', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR'),
    'END:VAVAILABILITY',
  ]

  it('Monday to Friday from 9:00 to 17:00, without end', () => {
    const days = [3, 4, 5, 6, 7].map((d) => `2011-10-0${d}T13:00:00Z/2011-10-0${d}T21:00:00Z`)
    // Its start on a Sunday counts as the first occurrence (RFC 5545 §3.8.5.3) but lies before this week.
    expect(free(calendar(...usual), ...week)).toEqual(days)
  })

  it('Monday to Thursday until 17:00, Friday until noon, within bounds', () => {
    const text = calendar(
      'BEGIN:VAVAILABILITY',
      'UID:84D0F948-7FC6-4C1D-BBF3-BA9827B424B5',
      'DTSTART;TZID=America/Montreal:20111004T000000',
      'DTEND;TZID=America/Montreal:20111008T000000',
      ...available('Mo-Th', '20111003T090000', '20111003T170000', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH'),
      ...available('Fr', '20111007T090000', '20111007T120000', 'FREQ=WEEKLY;BYDAY=FR'),
      'END:VAVAILABILITY',
    )
    expect(free(text, ...week)).toEqual([
      '2011-10-04T13:00:00Z/2011-10-04T21:00:00Z',
      '2011-10-05T13:00:00Z/2011-10-05T21:00:00Z',
      '2011-10-06T13:00:00Z/2011-10-06T21:00:00Z',
      '2011-10-07T13:00:00Z/2011-10-07T16:00:00Z',
    ])
  })

  it('a week elsewhere, of higher priority, takes the place of the usual', () => {
    const denver = [
      'BEGIN:VAVAILABILITY',
      'UID:A1FF55E3-555C-433A-8548-BF4864B5621E',
      'DTSTART:20111005T000000Z',
      'DTEND:20111007T000000Z',
      'PRIORITY:1',
      ...available('Denver', '20111005T100000', '20111005T120000', 'FREQ=DAILY;COUNT=2', 'America/Denver'),
      'END:VAVAILABILITY',
    ]
    for (const text of [calendar(...usual, ...denver), calendar(...denver, ...usual)]) {
      expect(free(text, ...week)).toEqual([
        '2011-10-03T13:00:00Z/2011-10-03T21:00:00Z',
        '2011-10-04T13:00:00Z/2011-10-04T21:00:00Z',
        '2011-10-05T16:00:00Z/2011-10-05T18:00:00Z',
        '2011-10-06T16:00:00Z/2011-10-06T18:00:00Z',
        '2011-10-07T13:00:00Z/2011-10-07T21:00:00Z',
      ])
    }
  })

  it('makes busy what is not available, beside the events', () => {
    const event = ['BEGIN:VEVENT', 'UID:e', 'DTSTART:20111003T150000Z', 'DURATION:PT1H', 'END:VEVENT']
    const { entries } = busyTimes(
      calendar(...usual, ...event),
      parseInstant('2011-10-03T00:00Z'),
      parseInstant('2011-10-04T00:00Z'),
      utc,
    )
    expect(entries.map((entry) => said([{ from: entry.start, to: entry.end }])[0])).toEqual([
      '2011-10-03T00:00:00Z/2011-10-03T13:00:00Z',
      '2011-10-03T15:00:00Z/2011-10-03T16:00:00Z',
      '2011-10-03T21:00:00Z/2011-10-04T00:00:00Z',
    ])
  })

  it('lists what in it can not be understood, and reads the rest', () => {
    const broken = ['BEGIN:AVAILABLE', 'UID:x', 'SUMMARY:Broken', 'DTSTART:when', 'END:AVAILABLE']
    const skipped: string[] = []
    const text = calendar('BEGIN:VAVAILABILITY', ...broken, ...usual.slice(3))
    const found = read(text, ...week, skipped)
    expect(found.free).toHaveLength(5)
    expect(skipped[0]).toMatch(/^the availability “Broken”/)
  })
})

// RFC 5545 §3.6.4, the example of a published busy time, from memory.
it('takes in free/busy components, and leaves what they call free', () => {
  const text = calendar(
    'BEGIN:VFREEBUSY',
    'UID:19970901T115957Z-76A912@example.com',
    'DTSTAMP:19970901T120000Z',
    'DTSTART:19980313T141711Z',
    'DTEND:19980410T141711Z',
    'FREEBUSY:19980314T233000Z/19980315T003000Z',
    'FREEBUSY:19980316T153000Z/PT1H,19980318T030000Z/19980318T040000Z',
    'FREEBUSY;FBTYPE=FREE:19980319T000000Z/PT5H',
    'FREEBUSY;FBTYPE=BUSY-TENTATIVE:19980320T000000Z/PT5H',
    'END:VFREEBUSY',
  )
  const { entries } = busyTimes(
    text,
    parseInstant('1998-03-15T00:00Z'),
    parseInstant('1998-04-01T00:00Z'),
    utc,
  )
  expect(entries.map((entry) => said([{ from: entry.start, to: entry.end }])[0])).toEqual([
    // Cut to what was asked for.
    '1998-03-15T00:00:00Z/1998-03-15T00:30:00Z',
    '1998-03-16T15:30:00Z/1998-03-16T16:30:00Z',
    '1998-03-18T03:00:00Z/1998-03-18T04:00:00Z',
    '1998-03-20T00:00:00Z/1998-03-20T05:00:00Z',
  ])
})

it('joins and takes away stretches as a minute-by-minute look would', () => {
  const stretch = fc
    .tuple(fc.nat(200), fc.nat(60))
    .map(([from, length]): Stretch => ({ from: from as Instant, to: (from + length) as Instant }))
  const inside = (list: readonly Stretch[], at: number) =>
    list.some((stretch) => at >= stretch.from && at < stretch.to)
  fc.assert(
    fc.property(fc.array(stretch, { maxLength: 6 }), fc.array(stretch, { maxLength: 6 }), (a, b) => {
      const all = joined(a)
      const left = without(a, b)
      for (let at = 0; at < 270; at++) {
        expect(inside(all, at)).toBe(inside(a, at))
        expect(inside(left, at)).toBe(inside(a, at) && !inside(b, at))
      }
      for (const list of [all, left]) {
        for (let i = 1; i < list.length; i++) expect(list[i]!.from).toBeGreaterThan(list[i - 1]!.to - 1)
      }
    }),
  )
})

const block = (from: number, to: number): Block => ({ from: wallTime(from), to: wallTime(to) })
/** Blocks of a day that neither overlap nor touch: as a file gives them back. */
const dayArb = fc
  .uniqueArray(fc.integer({ min: 0, max: 96 }), { maxLength: 6 })
  .map((quarters) => quarters.sort((a, b) => a - b))
  .map((q) =>
    Array.from({ length: Math.floor(q.length / 2) }, (_, i) => block(q[2 * i]! * 15, q[2 * i + 1]! * 15)),
  )

describe('hours in a file', () => {
  const now = parseInstant('2026-11-24T11:00Z')
  const today = date('2026-11-24')

  it('come back as they went out, in any zone, changed days and all', () => {
    fc.assert(
      fc.property(
        fc.array(dayArb, { minLength: 7, maxLength: 7 }),
        fc.dictionary(fc.integer({ min: 1, max: 300 }).map(String), dayArb, { maxKeys: 4 }),
        fc.constantFrom('Europe/Lisbon', 'America/New_York', 'Asia/Kathmandu', 'UTC', 'Pacific/Auckland'),
        (weekly, changed, name) => {
          const hours: Hours = {
            weekly: weekly as Hours['weekly'],
            changedDays: Object.entries(changed)
              .map(([later, blocks]) => ({ date: addDays(today, Number(later)), blocks }))
              .filter((day) => {
                const usual = weekly[(new Date(day.date).getUTCDay() + 6) % 7]!
                return JSON.stringify(usual) !== JSON.stringify(day.blocks)
              })
              .sort((a, b) => (a.date < b.date ? -1 : 1)),
          }
          const practice = samplePractice()
          const file = writeHoursFile(practice, hours, zone(name), now)
          const back = readHoursFile(file, zone(name), now)
          expect(back.skipped).toEqual([])
          expect(back.hours.weekly).toEqual(hours.weekly)
          // On a day whose clocks change, hours that fall into the change may come back as a changed day.
          const odd = (day: string) =>
            DateTime.fromISO(day, { zone: name }).plus({ days: 1 }).toMillis() -
              DateTime.fromISO(day, { zone: name }).toMillis() !==
            DAY
          const plain = (days: Hours['changedDays']) => days.filter((day) => !odd(day.date))
          expect(plain(back.hours.changedDays)).toEqual(plain(hours.changedDays))
        },
      ),
      { numRuns: 40 },
    )
  }, 60_000)

  it('end when the clock on the wall says so where clocks change', () => {
    // Lisbon leaps from 01:00 to 02:00 on Sunday 2027-03-28, and goes back on 2027-10-31.
    const weekly = Array.from({ length: 7 }, (_, i) => (i === 6 ? [block(0, 23 * 60 + 15)] : []))
    const hours: Hours = { weekly: weekly as unknown as Hours['weekly'], changedDays: [] }
    for (const now of ['2026-11-24T11:00Z', '2027-03-28T11:00Z', '2027-10-31T11:00Z'].map(parseInstant)) {
      const back = readHoursFile(
        writeHoursFile(samplePractice(), hours, zone('Europe/Lisbon'), now),
        zone('Europe/Lisbon'),
        now,
      )
      expect(back).toMatchObject({ hours, skipped: [] })
    }
  })

  it('leave out time away, which is of higher priority', () => {
    const practice = {
      ...samplePractice(),
      away: [
        {
          id: 'a',
          from: '2026-11-26T10:00' as LocalDateTime,
          to: '2026-11-26T12:00' as LocalDateTime,
          note: 'a secret',
        },
      ],
    }
    const file = writeHoursFile(practice, practice.hours, zone('Europe/Lisbon'), now)
    expect(file).not.toContain('a secret')
    const { hours } = readHoursFile(file, zone('Europe/Lisbon'), now)
    expect(hours.changedDays).toEqual([
      { date: '2026-11-26', blocks: [block(540, 600), block(720, 780), block(840, 1080)] },
    ])
  })

  it('say what is no such file', () => {
    expect(() => readHoursFile('hello', utc, now)).toThrow('The file: holds no VCALENDAR')
    expect(() => readHoursFile(calendar(), utc, now)).toThrow(
      'The file: says nothing of when somebody is available (VAVAILABILITY, RFC 7953)',
    )
  })

  it('keep to lines of 75 octets', () => {
    const file = writeHoursFile(samplePractice(), samplePractice().hours, zone('Europe/Lisbon'), now)
    const bytes = file.split('\r\n').map((line) => Buffer.byteLength(line))
    expect(Math.max(...bytes)).toBeLessThanOrEqual(75)
    expect(file.endsWith('END:VCALENDAR\r\n')).toBe(true)
  })
})

it('describes a zone so that another library reads the same instants from it', () => {
  const from = parseInstant('2026-01-01T00:00Z')
  const to = parseInstant('2028-01-01T00:00Z')
  for (const name of [
    'Europe/Lisbon',
    'America/St_Johns',
    'Australia/Lord_Howe',
    'Asia/Tokyo',
    'Africa/Casablanca',
  ]) {
    const here = zone(name)
    const theirs = new ICAL.Timezone(vtimezone(here, from, to))
    for (let at = from + 3 * DAY; at < to - 3 * DAY; at += 17 * HOUR) {
      const wall = new Date(at + here.offsetAt(at as Instant))
      const time = ICAL.Time.fromJSDate(wall, true)
      time.zone = theirs
      // Where the clocks are set back an hour exists twice, and libraries differ on which is meant.
      const near = here.offsetAt((at - 3 * HOUR) as Instant) !== here.offsetAt((at + 3 * HOUR) as Instant)
      if (!near) expect(time.toUnixTime() * 1000, `${name} ${wall.toISOString()}`).toBe(at)
    }
  }
})

describe('bookings in a file', () => {
  const now = parseInstant('2026-11-25T13:00Z')
  const service = sampleService({ name: 'Voice, long; and "loud"' })
  const practice = samplePractice({ services: [service] })
  const booked = (id: string, change: Partial<Booking> = {}): Booking => ({
    ...begin(id, sampleAsked({ person: { name: 'Tomé\nArrais', email: 't@example.org', zone: 'UTC' } })),
    status: 'booked',
    ...change,
  })
  const events = (list: Booking[]): ICAL.Event[] =>
    new ICAL.Component(ICAL.parse(writeBookings(practice, list, now)))
      .getAllSubcomponents('vevent')
      .map((getAllSubcomponent) => new ICAL.Event(getAllSubcomponent))

  it('are read back by another library, with what would break a line escaped', () => {
    const [event] = events([booked('a')])
    expect(event?.uid).toBe('a@sample.acolhida')
    expect(event?.startDate.toString()).toBe('2026-11-27T10:00:00Z')
    expect(event?.duration.toSeconds()).toBe(75 * 60)
    expect(event?.summary).toBe('Tomé\nArrais, Voice, long; and "loud"')
  })

  it('have a UID that stays when the door’s name and address change', () => {
    const booking = { ...booked('a'), asked: sampleAsked({ shown: 'f'.repeat(64) }) }
    const moved = { ...practice, profile: { ...practice.profile, slug: 'elsewhere', name: 'Another name' } }
    expect(uidOf(moved, booking)).toBe(uidOf(practice, booking))
    expect(uidOf(practice, { ...booking, id: 'b' })).not.toBe(uidOf(practice, booking))
  })

  it('hold what is booked or held, and nothing that has ended or lies far away', () => {
    const held = booked('h', { status: 'requested', until: shift(now, HOUR) })
    const list = [
      held,
      booked('gone', { status: 'cancelled' }),
      booked('lapsed', { status: 'requested', until: shift(now, -MINUTE) }),
      booked('old', { start: instant(now - 100 * DAY) }),
    ]
    expect(events(list).map((event) => [event.uid, event.component.getFirstPropertyValue('status')])).toEqual(
      [['h@sample.acolhida', 'TENTATIVE']],
    )
  })
})

it('reports how far it is, to the end', () => {
  const event = (i: number) =>
    `BEGIN:VEVENT\r\nUID:${i}\r\nDTSTART:20261124T100000Z\r\nDURATION:PT1H\r\nEND:VEVENT`
  const text = calendar(...Array.from({ length: 450 }, (_, i) => event(i)))
  const told: [number, number][] = []
  busyTimes(text, parseInstant('2026-11-01T00:00Z'), parseInstant('2026-12-01T00:00Z'), utc, {
    onProgress: (done, total) => told.push([done, total]),
  })
  expect(told).toEqual([
    [0, 450],
    [200, 450],
    [400, 450],
    [450, 450],
  ])
})
