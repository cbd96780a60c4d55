import fc from 'fast-check'
import { DateTime } from 'luxon'
import { Temporal } from 'temporal-polyfill'
import { describe, expect, it } from 'vitest'
import { apply, type Booking, type BookingEvent, begin } from '../booking/index.ts'
import {
  aroundService,
  type MessageText,
  type Practice,
  type SequenceStep,
  withNewStep,
  withStep,
} from '../practice/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import type { Instant } from '../time/index.ts'
import {
  duration,
  formatInstant,
  HOUR,
  instant,
  isWithin,
  MINUTE,
  outsideStretch,
  parseInstant,
  shift,
  time,
  zone,
} from '../time/index.ts'
import { draftsAt, letterFor, outlookOf, plannedLetters, stepsOf } from './index.ts'

const text: MessageText = {
  id: 't',
  name: 'A reminder',
  subject: '{service}, {start}',
  body: 'It is {when}.',
}
const step = (change: Partial<SequenceStep> = {}): SequenceStep => ({
  ...{ id: 'one', anchor: 'start', before: true, by: duration('PT24H'), channel: 'email', text: 't' },
  ...change,
})
const practiceWith = (steps: SequenceStep[], change: Partial<Practice> = {}): Practice =>
  samplePractice({
    services: [sampleService({ sequence: 'q' })],
    sequences: [{ id: 'q', name: 'Q', steps }],
    texts: [text],
    ...change,
  })
const bookedAt = (
  start: string,
  worded: string,
  zoneName = 'Europe/Lisbon',
  events: BookingEvent[] = [],
): Booking => {
  const at = parseInstant(worded)
  const person = { name: 'Tomé Arrais', email: 'tome@example.org', zone: zoneName, phone: '+351912345678' }
  const asked = sampleAsked({ at: shift(at, -HOUR), start: parseInstant(start), person })
  const welcomed: BookingEvent = { type: 'welcomed', at, by: 'rules', settles: at }
  return [welcomed, ...events].reduce(apply, begin('b', asked))
}
const moments = (booking: Booking, practice: Practice): string[] =>
  stepsOf(booking, practice).map(({ at, skipped }) => skipped ?? formatInstant(at))

describe('a sequence', () => {
  const quiet = { from: time('21:00'), to: time('07:00') }

  it('keeps the check value: 24 h, 4 h and 1 h before a morning on which the clocks change', () => {
    // docs/reckoning.md, "Sequences": a session on 2027-03-28 at 09:30 in Lisbon, quiet from 21:00 to 07:00.
    const practice = practiceWith(
      ['PT24H', 'PT4H', 'PT1H'].map((by, i) => step({ id: `s${i}`, by: duration(by) })),
      { messaging: { quiet } },
    )
    const booking = bookedAt('2027-03-28T08:30Z', '2027-03-01T12:00Z')
    expect(moments(booking, practice)).toEqual([
      '2027-03-27T08:30:00Z',
      '2027-03-27T21:00:00Z',
      '2027-03-28T07:30:00Z',
    ])
  })

  it('keeps the wall time of a nominal offset, and one of the day before', () => {
    const practice = practiceWith([
      step({ id: 'nominal', by: duration('P1D') }),
      step({ id: 'evening', by: duration('P1D'), at: time('18:00') }),
    ])
    expect(moments(bookedAt('2027-03-28T09:00Z', '2027-03-01T12:00Z'), practice)).toEqual([
      '2027-03-27T10:00:00Z',
      '2027-03-27T18:00:00Z',
    ])
  })

  it('counts times of day by the client’s clock by video, and by that of the place where both meet', () => {
    const evening = [step({ by: duration('P1D'), at: time('18:00') })]
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z', 'America/Sao_Paulo')
    expect(moments(booking, practiceWith(evening))).toEqual(['2026-12-02T21:00:00Z'])
    const places = samplePractice().places.map((place) => ({ ...place, kind: 'studio' as const }))
    expect(moments(booking, practiceWith(evening, { places }))).toEqual(['2026-12-02T18:00:00Z'])
  })

  it('skips what is late, but for what must go: at once, and with the confirmation', () => {
    const booking = bookedAt('2026-11-26T10:00Z', '2026-11-25T20:00Z')
    const practice = practiceWith([
      step(),
      step({ id: 'must', must: true }),
      step({ id: 'hour', by: duration('PT1H') }),
    ])
    expect(moments(booking, practice)).toEqual(['past', '2026-11-25T20:00:00Z', '2026-11-26T09:00:00Z'])
    expect(stepsOf(booking, practice)[1]).toMatchObject({ late: true, joins: 'state' })
    expect(plannedLetters(booking, practice).map(({ step: name }) => name)).toEqual(['step:hour'])
    const which = { step: 'confirmation' as const, anchor: booking.tells!.seq }
    const letter = letterFor(practice, booking, which, booking.tells!.due)
    expect(letter?.text).toContain('It is Thursday 26 November, 10:00')
    // A text has no letter to join: it goes at once, by itself.
    const texts = practiceWith([step({ must: true, channel: 'text' })])
    expect(stepsOf(booking, texts)[0]).toMatchObject({ late: true, at: parseInstant('2026-11-25T20:00Z') })
    expect(plannedLetters(booking, texts)[0]).toMatchObject({ step: 'step:one', channel: 'text' })
  })

  it('lets late texts of one hour become one', () => {
    const booking = bookedAt('2026-11-26T10:00Z', '2026-11-26T08:30Z')
    const practice = practiceWith([
      step({ id: 'a', must: true, channel: 'text' }),
      step({ id: 'b', channel: 'text', by: duration('PT1H') }),
    ])
    expect(stepsOf(booking, practice)[0]).toMatchObject({ joins: 'step:b' })
    const [only, ...others] = plannedLetters(booking, practice)
    expect(others).toEqual([])
    const letter = letterFor(practice, booking, only!, instant(only!.at))
    expect(letter?.text.match(/It is/g)).toHaveLength(2)
  })

  it('never goes at the start of the session or after it, nor before the session was booked', () => {
    const early = practiceWith([step({ by: duration('PT2H') })], { messaging: { quiet } })
    // 04:00 in Lisbon; the evening before is the last allowed moment, and it was booked after that.
    expect(moments(bookedAt('2026-11-26T06:00Z', '2026-11-25T22:00Z'), early)).toEqual(['quiet'])
    expect(moments(bookedAt('2026-11-26T06:00Z', '2026-11-25T12:00Z'), early)).toEqual([
      '2026-11-25T21:00:00Z',
    ])
    const zero = practiceWith([step({ by: duration('PT0S') })])
    expect(moments(bookedAt('2026-11-26T10:00Z', '2026-11-25T12:00Z'), zero)).toEqual(['begun'])
    const after = practiceWith([step({ anchor: 'end', before: false, by: duration('PT2H') })], {
      messaging: { quiet },
    })
    expect(moments(bookedAt('2026-11-26T18:30Z', '2026-11-25T12:00Z'), after)).toEqual([
      '2026-11-27T07:00:00Z',
    ])
  })

  it('answers an act at once, also in quiet hours', () => {
    const practice = practiceWith([step({ anchor: 'booked', before: false, by: duration('PT0S') })], {
      messaging: { quiet },
    })
    expect(moments(bookedAt('2026-12-03T10:00Z', '2026-11-25T23:30Z'), practice)).toEqual([
      '2026-11-25T23:30:00Z',
    ])
  })

  it('is planned anew after moving, under another name, and not at all after cancelling', () => {
    const practice = practiceWith([step()])
    const at = parseInstant('2026-11-25T13:00Z')
    const to = { place: 'video', minutes: 75, text: '', settles: at }
    const move = (start: string): BookingEvent => ({ type: 'moved', at, start: parseInstant(start), ...to })
    const once = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const away = apply(once, move('2026-12-04T10:00Z'))
    const back = apply(away, move('2026-12-03T10:00Z'))
    const names = [once, away, back].map((one) => plannedLetters(one, practice)[0]!)
    expect(new Set(names.map(({ anchor }) => anchor)).size).toBe(3)
    expect(names.map((one) => formatInstant(instant(one.at)))).toEqual([
      '2026-12-02T10:00:00Z',
      '2026-12-03T10:00:00Z',
      '2026-12-02T10:00:00Z',
    ])
    const gone = apply(back, { type: 'cancelled', at, by: 'client', share: 0, text: '', settles: at })
    expect(stepsOf(gone, practice)).toEqual([])
  })

  it('moved into the quiet hours, goes at the last moment before them, and one after at the first', () => {
    const steps = [
      step({ by: duration('PT4H') }),
      step({ id: 'two', anchor: 'end', before: false, by: duration('PT10H') }),
    ]
    const practice = practiceWith(steps, { messaging: { quiet } })
    const at = parseInstant('2026-11-25T13:00Z')
    const to = { place: 'video', minutes: 75, text: '', settles: at }
    const booking = bookedAt('2026-12-03T14:00Z', '2026-11-25T12:00Z')
    // Four hours before and, after 75 minutes, ten hours on: 01:15 at night waits for seven in the morning.
    expect(moments(booking, practice)).toEqual(['2026-12-03T10:00:00Z', '2026-12-04T07:00:00Z'])
    const early = apply(booking, { type: 'moved', at, start: parseInstant('2026-12-03T08:00Z'), ...to })
    expect(moments(early, practice)).toEqual(['2026-12-02T21:00:00Z', '2026-12-03T19:15:00Z'])
  })

  it('does not go for a moment before it was written, nor for what was due while all were paused', () => {
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const since = parseInstant('2026-12-02T12:00Z')
    expect(moments(booking, practiceWith([step({ since })]))).toEqual(['past'])
    expect(moments(booking, practiceWith([step()], { messaging: { paused: true } }))).toEqual(['paused'])
    expect(moments(booking, practiceWith([step()], { messaging: { resumed: since } }))).toEqual(['past'])
  })

  it('comes around a service from now on: nothing goes for moments that have passed, whatever must go', () => {
    const since = parseInstant('2026-12-01T12:00Z')
    const steps = [
      ...[step({ by: duration('P1W') }), step({ id: 'must', by: duration('P1W'), must: true })],
      ...[
        step({ id: 'next' }),
        step({ id: 'at-once', anchor: 'booked', before: false, by: duration('PT0S') }),
      ],
    ]
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const bare = sampleService()
    const around = (now: Instant) => practiceWith(steps, { services: [aroundService(bare, 'q', now)] })
    expect(moments(booking, around(since))).toEqual(['past', 'past', '2026-12-02T10:00:00Z', 'past'])
    // Whoever books afterwards is written to as ever: late, but what must go goes at once.
    expect(moments(bookedAt('2026-12-03T10:00Z', '2026-12-01T13:00Z'), around(since))).toEqual([
      ...['past', '2026-12-01T13:00:00Z', '2026-12-02T10:00:00Z', '2026-12-01T13:00:00Z'],
    ])
    // A step that is changed in any way counts from then on, too.
    const all = around(parseInstant('2026-11-01T12:00Z'))
    const changed = withStep(
      all,
      'q',
      'next',
      (one) => ({ ...one, channel: 'text' }),
      parseInstant('2026-12-02T11:00Z'),
    )
    expect(moments(booking, changed)[2]).toBe('past')
    expect(
      moments(
        booking,
        withNewStep(all, { sequence: 'q', step: 'new', text: 't', now: parseInstant('2026-12-02T19:00Z') }),
      ).at(-1),
    ).toBe('past')
  })

  it('looks at what must hold: first time, place, what is to pay, what was said, tags', () => {
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const goes = (when: SequenceStep['when']): boolean =>
      stepsOf(booking, practiceWith([step(when ? { when } : {})]))[0]?.skipped === undefined
    expect(goes([{ if: 'first-time' }])).toBe(true)
    expect(goes([{ if: 'first-time', not: true }])).toBe(false)
    expect(goes([{ if: 'place', is: ['video'] }])).toBe(true)
    expect(goes([{ if: 'place', is: ['studio'] }])).toBe(false)
    expect(goes([{ if: 'outcome', is: ['fits'] }])).toBe(true)
    expect(goes([{ if: 'tag', is: ['urgent'] }])).toBe(false)
    expect(goes([{ if: 'unconfirmed' }])).toBe(true)
    expect(goes([{ if: 'to-pay' }])).toBe(booking.price > 0)
    expect(goes([{ if: 'unprepared' }])).toBe(false)
  })

  it('asks nobody who has said already that they will be there', () => {
    const practice = practiceWith([step({ asks: true }), step({ id: 'tells', by: duration('PT4H') })])
    const comes = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z', 'Europe/Lisbon', [
      { type: 'coming', at: parseInstant('2026-11-26T12:00Z') },
    ])
    expect(moments(comes, practice)).toEqual(['confirmed', '2026-12-03T06:00:00Z'])
  })

  it('lays a draft before the practitioner, who sends it, rewrites it or puts it away', () => {
    const practice = practiceWith([step({ draft: true })])
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const due = parseInstant('2026-12-02T10:00Z')
    expect(plannedLetters(booking, practice)).toEqual([])
    expect(draftsAt(booking, practice, shift(due, -1))).toEqual([])
    const [draft] = draftsAt(booking, practice, due)
    const message = `step:one/email/${draft!.anchor}`
    const steer = (how: 'hold' | 'now' | 'edit', words = {}): BookingEvent => ({
      ...{ type: 'steered', at: due, message, how },
      ...words,
    })
    expect(draftsAt(apply(booking, steer('hold')), practice, due)).toEqual([])
    const sent = [steer('edit', { text: 'Just this, {firstName}.' }), steer('now')].reduce(apply, booking)
    expect(plannedLetters(sent, practice)).toMatchObject([{ step: 'step:one', at: due }])
    const letter = letterFor(practice, sent, { step: 'step:one', anchor: draft!.anchor }, due)
    expect(letter?.text).toContain('Just this, Tomé.')
  })

  it('tells what keeps one from going by what else is known of them, unless it is sent', () => {
    const follow = { anchor: 'end', before: false, by: duration('P4W') } as const
    const practice = practiceWith([
      step({ ...follow, when: [{ if: 'nothing-booked' }] }),
      step({ id: 'text', channel: 'text' }),
    ])
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const other: Booking = { ...bookedAt('2026-12-20T10:00Z', '2026-12-01T12:00Z'), id: 'other' }
    const now = parseInstant('2026-11-26T12:00Z')
    const why = (of: Booking, them: Parameters<typeof outlookOf>[3]) =>
      outlookOf(of, practice, now, them).flatMap(({ step: name, why: reason }) =>
        name.startsWith('step:') ? [reason] : [],
      )
    expect(why(booking, { theirs: [booking] })).toEqual([undefined, undefined])
    expect(why(booking, { theirs: [booking, other] })).toEqual([undefined, 'booked-again'])
    const earlier: Booking = { ...other, start: parseInstant('2026-11-20T10:00Z') }
    expect(why(booking, { theirs: [booking, earlier] })).toEqual([undefined, undefined])
    const off: BookingEvent = { type: 'cancelled', at: now, by: 'client', share: 0, text: '', settles: now }
    expect(why(booking, { theirs: [booking, apply(other, off)] })).toEqual([undefined, undefined])
    const unwanting = { ...other, unwanted: ['texts' as const] }
    expect(why(booking, { theirs: [booking, unwanting] })).toEqual(['unwanted', 'booked-again'])
    expect(why(booking, { hushed: true, theirs: [booking] })).toEqual(['hushed', 'hushed'])
    const message = outlookOf(booking, practice, now)[0]!.message
    const sent = apply(booking, { type: 'steered', at: now, message, how: 'now' })
    expect(why(sent, { hushed: true, theirs: [sent] })).toEqual([undefined, 'hushed'])
  })

  it('tells for every message whether it goes, and why not', () => {
    const practice = practiceWith([
      step(),
      step({ id: 'text', channel: 'text', by: duration('PT2H') }),
      step({ id: 'draft', draft: true }),
      step({ id: 'never', when: [{ if: 'place', is: ['elsewhere'] }] }),
    ])
    const booking = bookedAt('2026-12-03T10:00Z', '2026-11-25T12:00Z')
    const now = parseInstant('2026-11-26T12:00Z')
    const said = (one: Booking, of = {}) =>
      outlookOf(one, practice, now, of).map(({ step: name, is, why, fails }) =>
        `${name} ${is} ${why ?? fails ?? ''}`.trim(),
      )
    expect(said(booking)).toEqual([
      'step:draft draft',
      'step:never skipped condition',
      'step:one planned',
      'step:text planned',
    ])
    const { phone: _, ...person } = booking.asked.person
    const without = { ...booking, asked: { ...booking.asked, person } }
    expect(said(without)).toContain('step:text planned no-phone')
    expect(said(booking, { bounced: true })).toContain('step:one planned bounced')
    expect(said(booking, { hushed: true })).toContain('step:one skipped hushed')
    const held = apply(booking, {
      ...{ type: 'steered', at: now, how: 'hold' },
      message: `step:one/email/${booking.placed}`,
    })
    expect(said(held)).toContain('step:one held')
  })
})

const ZONES = [
  ...['Europe/Lisbon', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'America/Scoresbysund'],
  ...['Pacific/Apia', 'Africa/Casablanca', 'America/Santiago', 'Europe/London', 'Asia/Gaza'],
]

describe('offsets and quiet hours', () => {
  const instants = fc
    .integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2028, 0, 1) })
    .map((ms) => ms - (ms % MINUTE))
  const sources = fc.constantFrom('PT24H', 'P1D', 'PT4H', 'P1W', 'PT90M', 'P1M')

  it('agree with Temporal in ten zones, over all their clock changes', () => {
    // Temporal (proposal of TC39, by temporal-polyfill): `subtract` is exact for hours, nominal for days.
    fc.assert(
      fc.property(instants, sources, fc.constantFrom(...ZONES), (start, by, name) => {
        const practice = practiceWith([step({ by: duration(by) })])
        const booking = { ...bookedAt('2028-06-01T10:00Z', '2025-01-01T12:00Z', name), start: instant(start) }
        const zoned = Temporal.Instant.fromEpochMilliseconds(start).toZonedDateTimeISO(name)
        expect(stepsOf(booking, practice)[0]?.at).toBe(zoned.subtract(by).epochMilliseconds)
      }),
      { numRuns: 400 },
    )
  })

  it('agree with luxon where it does not resolve a doubled hour by today’s offset', () => {
    fc.assert(
      fc.property(instants, fc.constantFrom(...ZONES), (start, name) => {
        const practice = practiceWith([step({ by: duration('P1D') })])
        const booking = { ...bookedAt('2028-06-01T10:00Z', '2025-01-01T12:00Z', name), start: instant(start) }
        const there = DateTime.fromMillis(start, { zone: name }).minus({ days: 1 })
        // Away from changes of the clocks, within a day.
        fc.pre([-1, 0, 1].every((d) => there.plus({ days: d }).offset === there.offset))
        expect(stepsOf(booking, practice)[0]?.at).toBe(there.toMillis())
      }),
      { numRuns: 200 },
    )
  })

  it('find the last allowed moment before and the first after, as a minute-by-minute look does', () => {
    const times = fc
      .integer({ min: 0, max: 1_439 })
      .map((m) => time(`${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`))
    const allowed = (at: number, stretch: { from: string; to: string }, name: string): boolean => {
      const clock = Temporal.Instant.fromEpochMilliseconds(at)
        .toZonedDateTimeISO(name)
        .toPlainTime()
        .toString()
        .slice(0, 5)
      const { from, to } = stretch
      if (from === to) return true
      return from < to ? !(clock > from && clock < to) : !(clock > from || clock < to)
    }
    fc.assert(
      fc.property(
        instants,
        times,
        times,
        fc.constantFrom(...ZONES),
        fc.constantFrom('back' as const, 'on' as const),
        (at, from, to, name, way) => {
          const stretch = { from, to }
          let slow = at
          while (!allowed(slow, stretch, name)) slow += way === 'back' ? -MINUTE : MINUTE
          expect(outsideStretch(instant(at), stretch, zone(name), way)).toBe(slow)
          expect(isWithin(instant(at), stretch, zone(name))).toBe(!allowed(at, stretch, name))
        },
      ),
      { numRuns: 300 },
    )
  })

  it('never send what goes before a session at its start or after it, nor before it was booked', () => {
    const steps = fc.record({
      by: fc.constantFrom('PT0S', 'PT1H', 'PT4H', 'P1D', 'P2D', 'P1W'),
      at: fc.option(fc.constantFrom('00:00', '07:00', '18:00', '23:59'), { nil: undefined }),
      must: fc.boolean(),
    })
    fc.assert(
      fc.property(
        fc.array(steps, { maxLength: 6 }),
        instants,
        fc.integer({ min: 1, max: 14 * 24 * 60 }),
        fc.constantFrom(...ZONES),
        (wanted, start, lead, name) => {
          const practice = practiceWith(
            wanted.map(({ by, at, must }, i) =>
              step({ id: `s${i}`, by: duration(by), must, ...(at ? { at: time(at) } : {}) }),
            ),
            { messaging: { quiet: { from: time('21:00'), to: time('07:00') } } },
          )
          const made = instant(start - lead * MINUTE)
          const booking = {
            ...bookedAt('2028-06-01T10:00Z', '2025-01-01T12:00Z', name),
            start: instant(start),
            worded: made,
          }
          for (const { at, skipped } of stepsOf(booking, practice)) {
            if (skipped) continue
            expect(at).toBeGreaterThanOrEqual(made)
            expect(at).toBeLessThan(start)
          }
        },
      ),
      { numRuns: 300 },
    )
  })
})
