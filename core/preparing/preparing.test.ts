import fc from 'fast-check'
import { DateTime, Duration as Long } from 'luxon'
import { describe, expect, it } from 'vitest'
import { type Preparation, preparationDue } from '../practice/index.ts'
import { samplePractice } from '../tests/sample.ts'
import { duration, type Instant, instant, parseInstant, shift, zone } from '../time/index.ts'
import {
  applyCourse,
  type Course,
  type CourseEvent,
  courseAt,
  remindedAt,
  replayCourse,
  stationOf,
  stillToDo,
} from './index.ts'

const LISBON = zone('Europe/Lisbon')
const at = (text: string): Instant => parseInstant(text)
const PREPARATIONS: Preparation[] = [
  { id: 'letter', is: 'read', name: 'A letter', due: { from: 'given', by: duration('P2D') }, text: [] },
  { id: 'tick', is: 'tick', name: 'To tick', due: { from: 'given', by: duration('P5D') }, text: '' },
  { id: 'later', is: 'bring', name: 'To bring', due: { from: 'start', by: duration('P1D') }, text: '' },
]
const practice = samplePractice({ preparations: PREPARATIONS })
const given = at('2027-03-25T10:00Z')
const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'Europe/Lisbon' }
const begin: CourseEvent = {
  ...{ type: 'given', at: given, person },
  stations: PREPARATIONS.map((one) => stationOf(practice, one, one.id)),
}

describe('by when something is to be done', () => {
  const start = at('2027-03-29T09:00Z')
  const end = shift(start, 3_600_000)
  it('is counted in days of the place, over a change of clocks (checked by hand)', () => {
    // Clocks go forward in Lisbon on 28 March 2027: the day before at ten is 24 hours less one earlier.
    expect(preparationDue({ from: 'start', by: duration('P2D') }, { given, start, end }, LISBON)).toBe(
      at('2027-03-27T10:00Z'),
    )
    expect(preparationDue({ from: 'start', by: duration('PT48H') }, { given, start, end }, LISBON)).toBe(
      at('2027-03-27T09:00Z'),
    )
    expect(preparationDue({ from: 'end', by: duration('P3D') }, { given, start, end }, LISBON)).toBe(
      at('2027-04-01T10:00Z'),
    )
  })
  it('is the start itself where it was given too late for more, and none without a session', () => {
    const late = shift(start, -3_600_000)
    expect(preparationDue({ from: 'start', by: duration('P2D') }, { given: late, start, end }, LISBON)).toBe(
      start,
    )
    expect(preparationDue({ from: 'start', by: duration('P2D') }, { given }, LISBON)).toBeUndefined()
    expect(preparationDue({ from: 'end', by: duration('P2D') }, { given }, LISBON)).toBeUndefined()
  })
  it('agrees with luxon, another library, at random moments', () => {
    const zones = ['Europe/Lisbon', 'America/Toronto', 'Australia/Lord_Howe', 'Asia/Tokyo']
    fc.assert(
      fc.property(
        fc.integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2030, 0, 1) }),
        fc.constantFrom(...zones),
        fc.constantFrom('P1D', 'P2W', 'PT36H', 'P1M', 'PT0S'),
        fc.constantFrom('given' as const, 'end' as const),
        (ms, zoneName, by, from) => {
          const moment = instant(ms - (ms % 60_000))
          const wanted = DateTime.fromMillis(moment, { zone: zoneName }).plus(Long.fromISO(by))
          // Of an hour that is there twice, each library takes another: such are left out.
          const twice = wanted.getPossibleOffsets().length > 1
          const moments = { given: moment, start: moment, end: moment }
          const due = preparationDue({ from, by: duration(by) }, moments, zone(zoneName))
          expect(twice || due === wanted.toMillis()).toBe(true)
        },
      ),
    )
  })
})

describe('what somebody was given', () => {
  const day = (n: number): Instant => shift(given, n * 86_400_000)
  const record = (...events: CourseEvent[]): Course => replayCourse('one', [begin, ...events])
  const stateOn = (course: Course, n: number) => courseAt(practice, course, undefined, day(n))

  it('is open, begun, overdue, and done', () => {
    const course = record()
    expect(stateOn(course, 1).stations.map(({ is }) => is)).toEqual(['open', 'open', 'open'])
    expect(stateOn(course, 3).stations.map(({ is }) => is)).toEqual(['overdue', 'open', 'open'])
    // At the very moment it is still in time.
    expect(courseAt(practice, course, undefined, day(2)).stations[0]!.is).toBe('open')
    const filled = record({ type: 'filled', at: day(1), station: 'letter', answered: 0, of: 9 })
    expect(stateOn(filled, 1).stations[0]!.is).toBe('open')
    const begun = applyCourse(filled, { type: 'filled', at: day(1), station: 'letter', answered: 4, of: 9 })
    expect(stateOn(begun, 1).stations[0]).toMatchObject({
      is: 'begun',
      progress: { filled: { answered: 4, of: 9 } },
    })
    const done = applyCourse(begun, { type: 'done', at: day(1), station: 'letter', by: 'client' })
    expect(stateOn(done, 9)).toMatchObject({ done: 1, of: 3, over: false, next: at('2027-03-30T09:00Z') })
  })

  it('need not be done once it has ended or its booking is known no more, nor what is gone from the practice', () => {
    expect(stillToDo(stateOn(record({ type: 'ended', at: day(1) }), 1))).toEqual([])
    const forBooking = replayCourse('one', [{ ...begin, booking: 'forgotten' } as CourseEvent])
    expect(courseAt(practice, forBooking, undefined, day(1)).over).toBe(true)
    const less = { ...practice, preparations: PREPARATIONS.slice(1) }
    expect(courseAt(less, record(), undefined, day(9))).toMatchObject({ done: 0, of: 2 })
  })

  it('takes back what was done last, and keeps what its client did meanwhile', () => {
    const settles = shift(day(1), 8_000)
    const chased = record({ type: 'chased', at: day(1), text: 'Please.', settles })
    expect(chased.tells).toMatchObject({ step: 'prepare-chased', text: 'Please.', due: settles + 1 })
    const read = applyCourse(chased, { type: 'done', at: day(1), station: 'letter', by: 'client' })
    const back = applyCourse(read, { type: 'taken-back', at: day(1), of: chased.seq })
    expect(back.tells?.step).toBe('to-prepare')
    expect(back.progress.letter?.done).toBeDefined()
    expect(back.seq).toBe(4)
    // Only that, and only once.
    expect(applyCourse(back, { type: 'taken-back', at: day(1), of: 2 })).toMatchObject({ ...back, seq: 5 })
    const whole = replayCourse('one', [{ ...begin, settles: shift(given, 8_000) } as CourseEvent])
    expect(applyCourse(whole, { type: 'taken-back', at: given, of: 1 })).toMatchObject({ ended: given })
  })

  it('is said once more two days before the first date, and not right after it was said', () => {
    const long = [{ ...PREPARATIONS[0]!, due: { from: 'given', by: duration('P10D') } } as Preparation]
    const other = { ...practice, preparations: long }
    const course = replayCourse('one', [
      { ...begin, stations: long.map((one) => stationOf(other, one, one.id)) } as CourseEvent,
    ])
    expect(remindedAt(other, course, undefined)).toEqual({
      // Over the change of clocks on 28 March.
      at: at('2027-04-02T09:00Z'),
      anchor: at('2027-04-04T09:00Z'),
    })
    expect(remindedAt(practice, record(), undefined)).toBeUndefined()
    const chased = applyCourse(course, {
      ...{ type: 'chased', at: at('2027-04-01T12:00Z'), text: '', settles: at('2027-04-01T12:00Z') },
    })
    expect(remindedAt(other, chased, undefined)).toBeUndefined()
  })

  it('counts its lines, whatever happens in whichever order', () => {
    const station = fc.constantFrom('letter', 'tick', 'later', 'none')
    const event: fc.Arbitrary<CourseEvent> = fc.oneof(
      station.map((one): CourseEvent => ({ type: 'done', at: given, station: one, by: 'client' })),
      station.map((one): CourseEvent => ({ type: 'undone', at: given, station: one, by: 'practitioner' })),
      fc.constant<CourseEvent>({ type: 'opened', at: given }),
      fc.constant<CourseEvent>({ type: 'chased', at: given, text: '', settles: given }),
      fc.constant<CourseEvent>({ type: 'ended', at: given, settles: given }),
      fc.integer({ min: 1, max: 9 }).map((of): CourseEvent => ({ type: 'taken-back', at: given, of })),
    )
    fc.assert(
      fc.property(fc.array(event, { maxLength: 12 }), (events) => {
        const course = replayCourse('one', [begin, ...events])
        expect(course.seq).toBe(1 + events.length)
        const last = new Map(
          events.flatMap((one): [string, boolean][] =>
            one.type === 'done' || one.type === 'undone' ? [[one.station, one.type === 'done']] : [],
          ),
        )
        const state = courseAt(practice, course, undefined, given)
        expect(state.done).toBe(PREPARATIONS.filter(({ id }) => last.get(id)).length)
        expect(state.done + state.stations.filter(({ is }) => is !== 'done').length).toBe(state.of)
      }),
    )
  })
})
