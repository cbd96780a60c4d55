import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newcomer, readAnswers } from '../questions/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { about, asked, events, fresh, lisbon, now, refusal, step } from '../tests/deciding.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  duration,
  formatInstant,
  HOUR,
  type Instant,
  instant,
  MINUTE,
  parseInstant,
  shift,
} from '../time/index.ts'
import {
  apply,
  type Booking,
  type BookingEvent,
  begin,
  blockingMove,
  bookingEntries,
  type Command,
  callingOff,
  callOff,
  costOf,
  counts,
  deadlinesOf,
  decide,
  freeUntil,
  holdUntil,
  isTold,
  leastDates,
  readiness,
  replay,
  stateAt,
  takes,
  UNDO,
  wordNeeded,
} from './index.ts'

describe('holds', () => {
  const { answering } = samplePractice()
  const until = (start: string, at = '2026-11-25T12:00Z') =>
    formatInstant(holdUntil(answering, parseInstant(at), parseInstant(start), lisbon))

  it('is the later of the usual and the least answer time, never past the start', () => {
    expect(until('2026-11-30T10:00Z')).toBe('2026-11-26T12:00:00Z')
    expect(until('2026-11-26T10:00Z')).toBe('2026-11-26T08:00:00Z')
    expect(until('2026-11-25T13:00Z')).toBe('2026-11-25T12:30:00Z')
    expect(until('2026-11-25T12:10Z')).toBe('2026-11-25T12:10:00Z')
  })

  it('lapses at once when a decision that stood in its way is taken back after its end', () => {
    const booking = begin('b', asked)
    const late = shift(asked.until, -1)
    const welcomed = step(booking, { do: 'welcome' }, late)
    const undone = step(welcomed, { do: 'take-back', of: 2 }, shift(asked.until, 3))
    expect(stateAt(undone, shift(asked.until, 3)).is).toBe('lapsed')
    const [lapsed] = events(decide(undone, { do: 'lapse' }, about(shift(asked.until, 4))))
    // The record stays in order of time.
    expect(lapsed).toEqual({ type: 'lapsed', at: shift(asked.until, 3) })
  })

  it('counts a word at the very last moment, and lapses after it with the stamp of that moment', () => {
    expect(refusal(fresh, { do: 'welcome' }, asked.until)).toBe('done')
    expect(refusal(fresh, { do: 'welcome' }, shift(asked.until, 1))).toBe('not-waiting')
    expect(refusal(fresh, { do: 'lapse' }, asked.until)).toBe('hold-stands')
    const late = shift(asked.until, 90 * HOUR)
    expect(events(decide(fresh, { do: 'lapse' }, about(late)))).toEqual([{ type: 'lapsed', at: asked.until }])
    expect(step(fresh, { do: 'lapse' }, late).status).toBe('lapsed')
  })
})

describe('deadlines', () => {
  const rules = {
    ...asked.houseRules,
    cancel: [
      { until: duration('PT24H'), share: 0 },
      { until: duration('PT4H'), share: 50 },
    ],
  }

  it('are real moments by the rules of the day one asked', () => {
    const { deadlines, missedFrom } = deadlinesOf(rules, asked.start, lisbon)
    expect(
      deadlines.map((deadline) => [deadline.kind, deadline.share, formatInstant(deadline.until)]),
    ).toEqual([
      ['cancel', 0, '2026-11-26T10:00:00Z'],
      ['move', undefined, '2026-11-26T10:00:00Z'],
      ['cancel', 50, '2026-11-27T06:00:00Z'],
    ])
    expect(formatInstant(missedFrom)).toBe('2026-11-27T10:15:00Z')
    expect(formatInstant(freeUntil(rules, asked.start, lisbon)!)).toBe('2026-11-26T10:00:00Z')
    expect(freeUntil({ ...rules, cancel: [] }, asked.start, lisbon)).toBeUndefined()
  })

  it('are still in time at the deadline itself', () => {
    const at = (text: string) =>
      costOf({ start: asked.start, asked: { houseRules: rules } }, lisbon, parseInstant(text))
    expect([
      at('2026-11-26T10:00Z'),
      at('2026-11-26T10:00:00.001Z'),
      at('2026-11-27T06:00Z'),
      at('2026-11-27T06:01Z'),
    ]).toEqual([0, 50, 50, 100])
  })
})

describe('decisions', () => {
  it('can be taken back within seconds, as if they had not been', () => {
    const welcomed = step(fresh, { do: 'welcome' }, now)
    expect(welcomed).toMatchObject({ status: 'booked', seq: 2 })
    expect(refusal(welcomed, { do: 'take-back', of: 2 }, shift(now, UNDO + 1))).toBe('nothing-to-take-back')
    expect(refusal(welcomed, { do: 'take-back', of: 1 }, now)).toBe('nothing-to-take-back')
    const back = step(welcomed, { do: 'take-back', of: 2 }, shift(now, UNDO))
    expect({ ...back, seq: 1, latest: fresh.latest }).toEqual(fresh)
    expect(step(back, { do: 'decline', text: 'no' }, shift(now, UNDO)).status).toBe('declined')
  })

  it('keeps what a client proved meanwhile when a decision is taken back', () => {
    const proved = step(step(fresh, { do: 'welcome' }, now), { do: 'prove' }, shift(now, 1_000))
    expect(step(proved, { do: 'take-back', of: 2 }, shift(now, 2_000))).toMatchObject({
      status: 'requested',
      mailProved: true,
    })
    expect(decide(proved, { do: 'prove' }, about(now))).toEqual({ events: [] })
  })

  it('offers other times, and books the one that is taken', () => {
    const starts = [
      { start: instant(asked.start + HOUR), place: 'video' },
      { start: instant(asked.start + 5 * HOUR), place: 'video' },
    ]
    const offered = step(fresh, { do: 'offer', starts, text: 'Perhaps?' }, now)
    expect(offered).toMatchObject({ status: 'requested', until: shift(now, 20 * HOUR) })
    expect(refusal(offered, { do: 'welcome' }, now)).toBe('not-waiting')
    expect(refusal(offered, { do: 'accept', start: asked.start, place: 'video' }, now)).toBe('not-offered')
    expect(step(offered, { do: 'accept', ...starts[1]! }, offered.until)).toMatchObject({
      status: 'booked',
      start: starts[1]!.start,
    })
    expect(refusal(offered, { do: 'accept', ...starts[1]! }, shift(offered.until, 1))).toBe('not-waiting')
    const told = shift(now, UNDO + 1)
    expect(refusal(offered, { do: 'refuse', text: '' }, now)).toBe('not-offered')
    expect(step(offered, { do: 'refuse', text: '' }, told).status).toBe('withdrawn')
  })

  it('refuses offers that are none', () => {
    const start = { start: asked.start, place: 'video' }
    expect(refusal(fresh, { do: 'offer', starts: [], text: '' }, now)).toBe('too-many-offers')
    expect(refusal(fresh, { do: 'offer', starts: [start, start], text: '' }, now)).toBe('too-many-offers')
    const taken = decide(fresh, { do: 'offer', starts: [start], text: '' }, about(now, ['overlap']))
    expect('refused' in taken && taken.refused.code).toBe('not-open')
  })

  it('lets the client out, before the word and after it', () => {
    expect(step(fresh, { do: 'withdraw' }, now).status).toBe('withdrawn')
    const booked = step(fresh, { do: 'welcome' }, now)
    const cancel = { do: 'cancel', by: 'client', text: '' } as const
    expect(refusal(booked, { do: 'withdraw' }, shift(now, UNDO + 1))).toBe('not-waiting')
    // A word that can still be undone has not been said: the client sees a request, and can withdraw it.
    expect(step(booked, { do: 'withdraw' }, shift(now, UNDO)).status).toBe('withdrawn')
    expect(step(booked, cancel, shift(asked.start, -HOUR))).toMatchObject({
      status: 'cancelled',
      share: 100,
      sequence: 1,
    })
    expect(step(booked, { ...cancel, by: 'practitioner' }, shift(asked.start, -HOUR)).share).toBe(0)
    expect(refusal(booked, cancel, shift(asked.start, 1))).toBe('too-late')
    expect(refusal(fresh, cancel, now)).toBe('not-booked')
  })

  it('moves a booking, keeps both times while that can be undone, and keeps the rules of the day one asked', () => {
    const booked = step(fresh, { do: 'welcome' }, now)
    const settled = shift(now, UNDO + 1)
    const to = {
      do: 'move',
      start: shift(asked.start, 5 * HOUR),
      place: 'video',
      minutes: 90,
      text: '',
      clash: false,
    } as const
    const moved = step(booked, to, settled)
    expect(moved).toMatchObject({
      status: 'booked',
      start: to.start,
      sequence: 1,
      minutes: 90,
      asked: { minutes: 75, houseRules: asked.houseRules },
    })
    expect(takes(moved, settled).map((take) => take.start)).toEqual([to.start, asked.start])
    expect(takes(moved, shift(settled, UNDO + 1)).map((take) => take.start)).toEqual([to.start])
    expect(step(moved, { do: 'take-back', of: moved.seq }, settled)).toMatchObject({
      start: asked.start,
      minutes: 75,
      sequence: 0,
    })
    expect(decide(booked, { ...to, start: asked.start, minutes: 75 }, about(settled))).toEqual({ events: [] })
    expect(refusal(fresh, to, now)).toBe('not-booked')
    const taken = decide(booked, to, about(settled, ['overlap']))
    expect('refused' in taken && taken.refused.code).toBe('not-open')
  })

  it('lets the practitioner override all but the past, and another session only as a clash', () => {
    const overlap = { rule: 'overlap', entry: {} as never } as const
    const notice = { rule: 'notice', service: 's', from: now, week: false } as const
    expect(blockingMove([notice, overlap], false)).toEqual([overlap])
    expect(blockingMove([notice, overlap], true)).toEqual([])
    expect(blockingMove([{ rule: 'past' }], true)).toHaveLength(1)
  })

  it('never leaves the record and the state apart, whatever is tried in whatever order', () => {
    const start = fc.constantFrom(
      ...[0, 1, 2].map((i) => ({ start: instant(asked.start + i * HOUR), place: 'video' })),
    )
    const command: fc.Arbitrary<Command> = fc.oneof(
      fc.constantFrom<Command>({ do: 'welcome' }, { do: 'withdraw' }, { do: 'prove' }, { do: 'lapse' }),
      fc.constantFrom<Command>({ do: 'decline', text: 'x' }, { do: 'refuse', text: '' }),
      fc.constantFrom<Command>(
        { do: 'cancel', by: 'client', text: '' },
        { do: 'cancel', by: 'practitioner', text: '' },
      ),
      start.map((start): Command => ({ do: 'accept', ...start })),
      fc
        .uniqueArray(start, { minLength: 1, maxLength: 3 })
        .map((starts): Command => ({ do: 'offer', starts, text: '' })),
      fc.integer({ min: 1, max: 6 }).map((of): Command => ({ do: 'take-back', of })),
      start.map((start): Command => ({ do: 'move', ...start, minutes: 60, text: '', clash: true })),
    )
    fc.assert(
      fc.property(
        fc.array(fc.tuple(command, fc.constantFrom(0, 3_000, UNDO + 1, HOUR, 30 * HOUR)), { maxLength: 12 }),
        (tries) => {
          let booking = fresh
          const record: BookingEvent[] = [asked]
          let at = now
          const final = new Set(['declined', 'lapsed', 'withdrawn', 'cancelled'])
          for (const [what, later] of tries) {
            at = shift(at, later)
            const before = booking
            const decision = decide(booking, what, about(at))
            if ('refused' in decision) continue
            record.push(...decision.events)
            booking = decision.events.reduce(apply, booking)
            if (final.has(before.status) && booking.status !== before.status)
              expect([
                ...['take-back', 'withdraw', 'cancel', 'refuse', 'accept'],
                // What has run out can still be answered.
                ...(before.status === 'lapsed' ? ['welcome', 'offer'] : []),
              ]).toContain(what.do)
          }
          expect(replay('b', record)).toEqual(booking)
          expect(booking.seq).toBe(record.length)
          expect(takes(booking, at).length).toBeLessThanOrEqual(4)
        },
      ),
      { numRuns: 500 },
    )
  })

  it('refuses records that do not begin with asking, or begin twice', () => {
    expect(() => replay('b', [])).toThrow('begins with asking')
    expect(() => replay('b', [asked, asked])).toThrow('asked once only')
    expect(() => replay('b', [asked, { type: 'taken-back', at: now, of: 1 }])).toThrow('nothing to take back')
  })
})

describe('what a booking keeps from others', () => {
  const kept = (booking: Booking, at: Instant) => takes(booking, at).map((take) => take.start)

  it('holds its start until the very end of its hold', () => {
    expect(kept(fresh, asked.until)).toEqual([asked.start])
    expect(kept(fresh, shift(asked.until, 1))).toEqual([])
  })

  it('keeps a start that was given up as long as that can be undone', () => {
    const declined = step(fresh, { do: 'decline', text: '' }, now)
    expect(kept(declined, shift(now, UNDO))).toEqual([asked.start])
    expect(kept(declined, shift(now, UNDO + 1))).toEqual([])
    const other = { start: instant(asked.start + HOUR), place: 'video' }
    const offered = step(fresh, { do: 'offer', starts: [other], text: '' }, now)
    expect(kept(offered, now)).toEqual([asked.start, other.start])
    expect(kept(offered, shift(now, UNDO + 1))).toEqual([other.start])
  })

  it('makes diary entries with the clear time of the service, and counts seats together', () => {
    const practice = samplePractice({ services: [sampleService({ seats: 3, groupAt: 'any' })] })
    const [entry, ...more] = bookingEntries(practice, [fresh, begin('c', sampleAsked())], now)
    expect(more).toEqual([])
    expect(entry).toMatchObject({ taken: 2, seats: 3, clearBefore: 15, end: shift(asked.start, 75 * MINUTE) })
  })
})

describe('approval and readiness', () => {
  const reading = (outcome: 'fits' | 'look') => ({
    ...readAnswers(sampleService(), undefined, {}, newcomer),
    outcome,
  })
  const service = sampleService({ approval: { new: 'unsure', known: 'straight' } })

  it('asks the practitioner always, when unsure, or never for those who fit', () => {
    expect(wordNeeded(service, 'new', reading('fits'))).toBeUndefined()
    expect(wordNeeded(service, 'new', reading('look'))).toBe('Your rules ask you to look.')
    expect(wordNeeded(service, 'known', reading('look'))).toBe('Your rules ask you to look.')
    expect(wordNeeded(sampleService(), 'new', reading('fits'))).toMatch('newcomer')
  })

  it('tells which parts are done', () => {
    expect(readiness(fresh)).toEqual({
      questions: 'none',
      terms: 'none',
      word: 'waiting',
      deposit: 'none',
      preparation: 'none',
    })
    expect(readiness(step(fresh, { do: 'decline', text: '' }, now)).word).toBe('blocked')
    expect(readiness(begin('b', sampleAsked({ questionnaire: { id: 'q', version: 1 } }))).questions).toBe(
      'done',
    )
  })
})

describe('another service', () => {
  it('can be moved to, which is undone like any move', () => {
    const booked = step(fresh, { do: 'welcome' }, now)
    const later = shift(now, HOUR)
    const to: Command = {
      do: 'move',
      start: asked.start,
      place: asked.place,
      minutes: asked.minutes,
      text: '',
      clash: false,
      service: 'longer',
    }
    const moved = step(booked, to, later)
    expect([moved.service, moved.asked.service]).toEqual(['longer', asked.service])
    expect(step(moved, to, later).seq).toBe(moved.seq)
    expect(step(moved, { do: 'take-back', of: moved.seq }, later).service).toBe(asked.service)
  })
})

describe('a group date with a least number', () => {
  const start = parseInstant('2026-12-05T11:00Z')
  const group = sampleService({
    id: 'group',
    seats: 6,
    groupDates: [{ id: 'g', start: '2026-12-05T11:00' as never, place: 'video' }],
    least: { people: 2, by: duration('P2D') },
  })
  const practice = samplePractice({ services: [group] })
  const seat = (change: Partial<Booking> = {}): Booking => ({
    ...begin('a', sampleAsked({ service: 'group', start, until: parseInstant('2026-12-04T00:00Z') })),
    ...change,
  })
  const later = parseInstant('2026-12-03T11:01Z')

  it('is judged at its last moment, counting who has a seat or waits for one and can be reached', () => {
    expect(leastDates(practice)).toMatchObject([{ start, by: parseInstant('2026-12-03T11:00Z'), people: 2 }])
    expect(leastDates(samplePractice())).toEqual([])
    expect(counts(seat({ status: 'booked' }), later)).toBe(true)
    expect(counts(seat(), later)).toBe(true)
    expect(counts(seat(), shift(seat().until, 1))).toBe(false)
    expect(counts(seat({ status: 'cancelled' }), later)).toBe(false)
    expect(counts(seat({ unproved: true }), later)).toBe(false)
  })

  it('is called off for everybody in it', () => {
    const off = (booking: Booking) => callOff(booking, 'Too few.', later).map(({ type }) => type)
    expect(off(seat({ status: 'booked' }))).toEqual(['cancelled'])
    expect(off(seat())).toEqual(['declined'])
    expect(off(seat({ unproved: true }))).toEqual(['declined'])
    expect(off(seat({ status: 'withdrawn' }))).toEqual([])
  })

  it('is called off by hand with a word to everybody who can be reached', () => {
    const said = (booking: Booking) => callingOff(booking, { text: 'No heating.' }, later)?.do
    expect(said(seat({ status: 'booked' }))).toBe('cancel')
    expect(said(seat())).toBe('decline')
    expect(said(seat({ unproved: true }))).toBeUndefined()
    expect(said(seat({ status: 'attended' }))).toBeUndefined()
  })
})

describe('the place', () => {
  const place = { id: 'p', kind: 'studio', name: 'at the studio', address: 'Rua 1' } as const
  const told = (rule: 'door' | 'confirmation' | 'last-reminder', status: Booking['status'], hours: number) =>
    isTold(
      { ...place, told: rule },
      stateAt({ ...fresh, status }, now),
      asked.start,
      shift(asked.start, -hours * HOUR),
    )

  it('is told at the door, once confirmed, or a day before', () => {
    expect(told('door', 'requested', 100)).toBe(true)
    expect([told('confirmation', 'requested', 1), told('confirmation', 'booked', 100)]).toEqual([false, true])
    expect([told('last-reminder', 'booked', 24.01), told('last-reminder', 'booked', 24)]).toEqual([
      false,
      true,
    ])
    expect(told('last-reminder', 'cancelled', 1)).toBe(false)
  })
})
