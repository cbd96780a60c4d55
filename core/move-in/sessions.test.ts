import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { amountTyped } from '../money/typed.ts'
import { type Entry, makeDiary } from '../openings/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { DAY, formatInstant, HOUR, type LocalDate, MINUTE, parseInstant, shift, zone } from '../time/index.ts'
import { NoPeople, readPeopleTable } from './index.ts'
import { readSessionsCalendar } from './session-calendar.ts'
import {
  type BesideSessions,
  guessServices,
  guessSessionColumns,
  inTheWay,
  type SessionRow,
  sessionsOfTable,
  siftSessions,
} from './sessions.ts'

const now = parseInstant('2026-11-24T11:00Z')
const practice = samplePractice({
  services: [
    sampleService({ id: 'lesson', name: 'Voice lesson', minutes: 50 }),
    sampleService({ id: 'talk' }),
  ],
})
const beside = (change: Partial<BesideSessions> = {}): BesideSessions => ({
  ...{ practice, now, today: '2026-11-24' as LocalDate, services: {}, usual: 'lesson', taken: [] },
  has: () => false,
  ...change,
})
const row = (change: Partial<SessionRow> = {}): SessionRow => ({
  ...{ row: 2, name: 'Ana Prova', email: 'ana@example.org', phone: '', start: '', date: '', time: '' },
  ...{ end: '', minutes: '', service: '', place: '', price: '', paid: '', left: '', owes: '' },
  ...change,
})
const at = (text: string) => parseInstant(text)

describe('a table of sessions', () => {
  it('is read by its headings, sifted, and comes in by the clock of its place', () => {
    const table = readPeopleTable(
      [
        'Client;E-mail;Date;Time;Duration;Service;Price;Paid;Sessions left',
        'Ana Prova;Ana@Example.org;01/12/2026;14:30;50;Voice lessons;95,00;20;',
        'Bo Prova;bo@example.org;5 July 2027;9h15;;Voice lesson;;;',
        'Cy Prova;cy@example.org;;;;voice lesson;;;7',
        'Di Prova;di@example.org;24/11/2026;10:00;;Voice lesson;;;',
        'Ed Prova;ed@example.org;31/02/2027;10:00;;Voice lesson;;;',
        'Fi Prova;;01/12/2026;10:00;;Voice lesson;;;',
        'Gu Prova;gu@example.org;01/12/2026;25:00;;Voice lesson;;;',
        'Ha Prova;ha@example.org;01/12/2026;15:00;;Swimming;;;',
      ].join('\n'),
    )
    const columns = guessSessionColumns(table.headings)
    expect(columns).toEqual(['name', 'email', 'date', 'time', 'minutes', 'service', 'price', 'paid', 'left'])
    const rows = sessionsOfTable(table, columns)
    const services = guessServices(
      rows.map(({ service }) => service),
      practice.services,
    )
    expect(services).toEqual({ 'voice lessons': 'lesson', 'voice lesson': 'lesson' })
    const { come, past, wrong } = siftSessions(rows, beside({ services, usual: undefined as never }))
    const place = practice.services[0]!.places[0]!
    expect(come).toEqual([
      {
        row: 2,
        person: { name: 'Ana Prova', email: 'ana@example.org' },
        session: {
          ...{ service: 'lesson', place, minutes: 50, start: at('2026-12-01T14:30Z') },
          ...{ price: 9_500, paid: 2_000 },
        },
      },
      {
        row: 3,
        person: { name: 'Bo Prova', email: 'bo@example.org' },
        // In summer, an hour before UTC.
        session: { service: 'lesson', place, minutes: 50, start: at('2027-07-05T08:15Z') },
      },
      { row: 4, person: { name: 'Cy Prova', email: 'cy@example.org' }, left: { service: 'lesson', many: 7 } },
    ])
    expect(past).toBe(1)
    expect(wrong.map(({ row: line, why }) => [line, why])).toEqual([
      [6, expect.stringContaining('“31/02/2027” is not a date')],
      [7, 'There is no mail address: people are known by theirs.'],
      [8, '“25:00” is not a time of day; write it as 9:30.'],
      [9, '“Swimming” is none of your services.'],
    ])
  })

  it('begins on a day, and not at its end', () => {
    const { wrong } = siftSessions([row({ date: '2026-12-01', time: '24:00' })], beside())
    expect(wrong[0]?.why).toMatch(/“24:00” is not a time of day/)
  })

  it('says what is here, what stands there twice, and what would lie in something else', () => {
    const rows = [
      row({ row: 2, start: '2026-12-01 10:00' }),
      row({ row: 3, start: '2026-12-01 10:00', email: 'ANA@example.org' }),
      row({ row: 4, start: '2026-12-01 10:30', email: 'bo@example.org', name: 'Bo' }),
      row({ row: 5, start: '2026-12-02T09:00:00+01:00', email: 'cy@example.org', name: 'Cy' }),
      row({ row: 6, start: '2026-12-03 10:00', end: '11:15' }),
      row({ row: 7, start: '2026-12-04 10:00', email: 'di@example.org', name: 'Di' }),
    ]
    const cy = at('2026-12-02T08:00Z')
    const { come, twice, here, clash } = siftSessions(
      rows,
      beside({
        taken: [{ start: shift(cy, 49 * MINUTE), end: shift(cy, HOUR), name: 'Away' }],
        has: (email, start) => email === 'di@example.org' && start === at('2026-12-04T10:00Z'),
      }),
    )
    expect(come.map(({ row: line, session }) => [line, session!.minutes])).toEqual([
      [2, 50],
      [4, 50],
      [5, 50],
      [6, 75],
    ])
    expect(twice).toEqual([{ row: 3, name: 'Ana Prova', first: 2 }])
    expect(here.map(({ row: line }) => line)).toEqual([7])
    expect(clash.map(({ row: line, with: what }) => [line, what])).toEqual([
      [2, 'Bo'],
      [4, 'Ana Prova'],
      [5, 'Away'],
    ])
  })

  it('finds the same clashes as looking at each pair, also where they only touch', () => {
    const stretch = fc.record({ hour: fc.nat({ max: 30 }), quarters: fc.integer({ min: 1, max: 12 }) })
    fc.assert(
      fc.property(
        fc.array(stretch, { maxLength: 8 }),
        fc.array(stretch, { maxLength: 8 }),
        (mine, theirs) => {
          const begin = at('2026-12-01T00:00Z')
          const span = ({ hour, quarters }: { hour: number; quarters: number }) => ({
            start: shift(begin, hour * HOUR),
            end: shift(begin, hour * HOUR + quarters * 15 * MINUTE),
          })
          const rows = mine.map((one, i) =>
            row({
              ...{ row: i + 2, email: `p${i}@example.org`, start: `${formatInstant(span(one).start)}` },
              minutes: String(one.quarters * 15),
            }),
          )
          const taken = theirs.map((one) => ({ ...span(one), name: 'Taken' }))
          const { clash } = siftSessions(rows, beside({ taken }))
          const meets = (a: ReturnType<typeof span>, b: ReturnType<typeof span>) =>
            a.start < b.end && b.start < a.end
          const plain = mine.flatMap((one, i) =>
            taken.some((other) => meets(span(one), other)) ||
            mine.some((other, j) => j !== i && meets(span(one), span(other)))
              ? [i + 2]
              : [],
          )
          expect(clash.map(({ row: line }) => line)).toEqual(plain)
        },
      ),
      { numRuns: 500 },
    )
  })

  it('finds nobody in the way of those who come to the same group', () => {
    const groups = samplePractice({
      services: [sampleService({ id: 'lesson', seats: 6, minutes: 60 }), sampleService({ id: 'talk' })],
    })
    const place = groups.services[0]!.places[0]!
    const start = at('2026-12-01T10:00Z')
    const rows = ['a', 'b', 'c'].map((who, i) =>
      row({ ...{ row: i + 2, name: who, email: `${who}@example.org` }, start: '2026-12-01 10:00' }),
    )
    const entry = (taken: number, service = 'lesson'): Entry => ({
      ...{
        id: `e-${service}`,
        kind: 'session',
        start,
        end: shift(start, HOUR),
        clearBefore: 0,
        clearAfter: 0,
      },
      ...{ service, place, seats: 6, taken },
    })
    const clashes = (entries: Entry[]) => {
      const taken = inTheWay(groups, makeDiary(groups, entries), [now, shift(now, 60 * DAY)], ({ id }) => id)
      return siftSessions(rows, beside({ practice: groups, taken })).clash.map(
        ({ row: line, with: what }) => [line, what],
      )
    }
    expect(clashes([])).toEqual([])
    expect(clashes([entry(2)])).toEqual([])
    // Another group at that time is in everybody's way, unless nobody comes to it yet.
    expect(clashes([entry(0, 'talk')])).toEqual([])
    expect(clashes([entry(1, 'talk')])).toEqual([2, 3, 4].map((line) => [line, 'e-talk']))
  })

  it('lets nothing in that is no session, whatever the file holds', () => {
    const text = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 20 }),
      fc.constantFrom(
        '',
        '2026-12-01 10:00',
        '2026-12-01',
        '10:00',
        '50',
        '-1',
        '1e9',
        'a@b.org',
        'Ana',
        '∞',
      ),
    )
    fc.assert(
      fc.property(
        fc.record({
          ...{ name: text, email: text, phone: text, start: text, date: text, time: text, end: text },
          ...{ minutes: text, service: text, place: text, price: text, paid: text, left: text, owes: text },
        }),
        (cells) => {
          const { come, past, wrong } = siftSessions([{ row: 2, ...cells }], beside())
          expect(come.length + past + wrong.length).toBe(1)
          for (const { session } of come) {
            if (!session) continue
            expect(session.start).toBeGreaterThan(now)
            expect(Number.isInteger(session.minutes) && session.minutes > 0).toBe(true)
            expect(session.price ?? 0).toBeGreaterThanOrEqual(0)
          }
        },
      ),
      { numRuns: 2_000 },
    )
  })
})

describe('what is typed in tables', () => {
  it.each([
    ['95', 9_500],
    ['95.5', 9_550],
    ['€ 95,00', 9_500],
    ['1.234,50 EUR', 123_450],
    ['1,234.50', 123_450],
    ['1,234', 123_400],
    ['1.234.567', 123_456_700],
    ['0', 0],
  ])('reads the amount %s', (typed, minor) => {
    expect(amountTyped(typed, 'EUR')).toBe(minor)
  })

  it('reads amounts of a currency without decimals, and refuses what is none', () => {
    expect(amountTyped('9500', 'JPY')).toBe(9_500)
    for (const typed of ['', '-5', 'free', '1/2', '9'.repeat(15)])
      expect(() => amountTyped(typed, 'EUR')).toThrow(/is no amount/)
  })
})

describe('a calendar of sessions (RFC 5545)', () => {
  const lisbon = zone('Europe/Lisbon')
  const event = (...lines: string[]) => ['BEGIN:VEVENT', 'DTSTAMP:20261101T000000Z', ...lines, 'END:VEVENT']
  const calendar = (...events: string[][]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//example//EN', ...events.flat(), 'END:VCALENDAR', ''].join(
      '\r\n',
    )

  it('is a table of what is to come: repeated ones one by one, without those left out and those of whole days', () => {
    const text = calendar(
      event(
        ...['UID:weekly', 'SUMMARY:Voice lesson with Ana', 'DTSTART;TZID=Europe/Lisbon:20261117T100000'],
        ...['DTEND;TZID=Europe/Lisbon:20261117T105000', 'RRULE:FREQ=WEEKLY;COUNT=4'],
        'EXDATE;TZID=Europe/Lisbon:20261201T100000',
        ...['ORGANIZER:mailto:me@example.org', 'ATTENDEE:mailto:me@example.org'],
        'ATTENDEE;CN="Ana Prova":mailto:ana@example.org',
        ...['LOCATION:Studio\\, first floor'],
      ),
      event(
        ...['UID:once', 'SUMMARY:Bo', 'DTSTART:20261203T090000Z', 'DURATION:PT1H'],
        'DESCRIPTION:Please call bo@example.org',
      ),
      event(...['UID:day', 'SUMMARY:Holiday', 'DTSTART;VALUE=DATE:20261204']),
    )
    const table = readSessionsCalendar(text, now, lisbon)
    expect(table.rows).toEqual([
      ['Bo', 'bo@example.org', '2026-12-03T09:00:00Z', '60', 'Bo', ''],
      ...[
        [
          'Ana Prova',
          'ana@example.org',
          '2026-12-08T10:00:00Z',
          '50',
          'Voice lesson with Ana',
          'Studio, first floor',
        ],
      ],
    ])
    const rows = sessionsOfTable(table, guessSessionColumns(table.headings))
    const { come, wrong } = siftSessions(rows, beside())
    expect(wrong).toEqual([])
    expect(come.map(({ session }) => session!.start)).toEqual([
      at('2026-12-03T09:00Z'),
      at('2026-12-08T10:00Z'),
    ])
  })

  it('is refused with a sentence where nothing is to come', () => {
    const over = calendar(event('UID:over', `DTSTART:20260101T090000Z`, 'DURATION:PT1H'))
    expect(() => readSessionsCalendar(over, shift(now, DAY), lisbon)).toThrow(NoPeople)
    expect(() => readSessionsCalendar('name;email', now, lisbon)).toThrow(/VCALENDAR/)
  })
})
