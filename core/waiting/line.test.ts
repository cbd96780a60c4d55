import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  date,
  duration,
  HOUR,
  type Instant,
  instant,
  MINUTE,
  parseInstant,
  time,
  zone,
} from '../time/index.ts'
import { standsUntil } from './held-out.ts'
import {
  applyLine,
  isInLine,
  type LineEvent,
  lineAt,
  overFrom,
  type PlaceInLine,
  replayLine,
} from './line.ts'
import { stillToAsk, waitingAmong } from './to-ask.ts'

const NOW = parseInstant('2026-11-24T11:00Z')
const at = (minutes: number): Instant => instant(NOW + minutes * MINUTE)
const joined = (change: object = {}): LineEvent => ({
  ...{ type: 'joined', at: NOW, service: 'a', place: 'video', minutes: 60, price: 5_000 },
  person: { name: 'W', email: 'w@example.org', zone: 'Europe/Lisbon' },
  ...{ answers: {}, attempts: [], agreements: [], windows: [] },
  ...change,
})
const held = (freed: string, minutes: number, until = minutes + 360): LineEvent => ({
  ...{ type: 'held-out', at: at(minutes), freed, start: at(3_000), minutes: 60, price: 5_000 },
  until: at(until),
})
const lineOf = (...events: LineEvent[]): PlaceInLine => replayLine('l', [joined(), ...events])
const is = (line: PlaceInLine, minutes: number): string => lineAt(line, at(minutes)).is

describe('a place in line', () => {
  it('is nobody’s before its address is proved, and ends like a request that never was', () => {
    const open = replayLine('l', [joined({ until: at(30) })])
    expect([is(open, 0), is(open, 30)]).toEqual(['unproved', 'unproved'])
    expect(lineAt(open, instant(at(30) + 1))).toEqual({ is: 'ended', why: 'unproved' })
    const proved = applyLine(open, { type: 'proved', at: at(5) })
    expect(is(proved, 40)).toBe('waiting')
  })

  it('has a freed time held out until its last moment', () => {
    const line = lineOf(held('f', 10, 370))
    expect(is(line, 370)).toBe('offered')
    expect(lineAt(line, instant(at(370) + 1)).is).toBe('waiting')
    expect(line.tells).toMatchObject({ step: 'freed-time', seq: 2 })
  })

  it('remembers what became of the last one, and counts what went by in a row', () => {
    const gone = lineOf(held('f', 0), { type: 'let-go', at: at(361), freed: 'f' })
    expect(gone).toMatchObject({ letGo: 1, last: { how: 'let-go' }, had: ['f'] })
    expect(gone.tells).toBeUndefined()
    const twice = [
      held('g', 400),
      { type: 'let-go', at: at(761), freed: 'g', still: true } as LineEvent,
    ].reduce(applyLine, gone)
    expect([is(twice, 800), twice.tells?.step]).toEqual(['doubted', 'line-still'])
    expect(is(applyLine(twice, { type: 'still', at: at(900) }), 901)).toBe('waiting')
    const turned = lineOf(held('f', 0), { type: 'turned', at: at(5), freed: 'f' })
    expect(turned).toMatchObject({ letGo: 0, last: { how: 'turned' } })
  })

  it('is told that it went to somebody else only where it was held out', () => {
    const line = lineOf({ type: 'passed', at: at(5), freed: 'f', why: 'taken' })
    expect(line.last).toBeUndefined()
    const passed = lineOf(held('f', 0), { type: 'passed', at: at(5), freed: 'f', why: 'taken' })
    expect([passed.last?.how, passed.tells?.step]).toEqual(['taken', 'freed-passed'])
  })

  it('comes back whole when what ended it is taken back', () => {
    const before = lineOf(held('f', 0), { type: 'turned', at: at(5), freed: 'f' })
    const out: LineEvent = {
      ...{
        type: 'ended',
        at: at(10),
        by: 'practitioner',
        why: 'out',
        text: 'So.',
        settles: instant(at(10) + 8_000),
      },
    }
    const ended = applyLine(before, out)
    // Nothing is told before it can't be taken back any more.
    expect(ended.tells?.due).toBe(at(10) + 8_001)
    const back = applyLine(ended, { type: 'returned', at: at(10) })
    expect(back).toEqual({ ...before, seq: 5, latest: at(10) })
  })

  it('is over the day after its last window, and never where one has no end', () => {
    const to = (day: string) => ({ from: date('2026-11-24'), to: date(day) })
    const line = (windows: object[]) => replayLine('l', [joined({ windows })])
    expect(overFrom(line([to('2026-11-26'), to('2026-11-28')]))).toBe(
      zone('Europe/Lisbon').toInstant(20_786 as never, 0),
    )
    expect(overFrom(line([to('2026-11-26'), { weekdays: [1] }]))).toBeUndefined()
    expect(overFrom(line([]))).toBeUndefined()
  })

  it('stays one clear state, whatever happens to it in whatever order', () => {
    const some = fc.constantFrom<LineEvent>(
      ...([
        { type: 'proved', at: NOW },
        { type: 'paused', at: NOW, by: 'client' },
        { type: 'resumed', at: NOW, by: 'client' },
        { type: 'turned', at: NOW, freed: 'f' },
        { type: 'let-go', at: NOW, freed: 'f', still: true },
        { type: 'passed', at: NOW, freed: 'f', why: 'gone' },
        { type: 'taken', at: NOW, freed: 'f', booking: 'b' },
        { type: 'still', at: NOW },
        { type: 'ended', at: NOW, by: 'client', why: 'left', text: '' },
        { type: 'returned', at: NOW },
      ] as const),
      held('f', 0),
      held('g', 0),
    )
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), fc.nat({ max: 800 }), (events, minutes) => {
        const line = lineOf(...events)
        const state = lineAt(line, at(minutes))
        expect(line.seq).toBe(events.length + 1)
        // What is held out is held out of something they had, and only to somebody in line.
        if (state.is === 'offered') expect(line.had).toContain(state.offer.freed)
        expect(isInLine(state)).toBe(['waiting', 'paused', 'offered', 'doubted'].includes(state.is))
        if (line.status === 'taken' || line.status === 'ended') expect(line.offer).toBeUndefined()
      }),
    )
  })
})

describe('who is still to be asked for a freed time', () => {
  const practice = samplePractice()
  const line = (id: string, ...events: LineEvent[]): PlaceInLine => replayLine(id, [joined(), ...events])

  it('waits, did not have it yet, and is not left out', () => {
    const lines = [
      line('new'),
      line('had', held('f', 1), { type: 'turned', at: at(2), freed: 'f' }),
      line('other', held('g', 1), { type: 'turned', at: at(2), freed: 'g' }),
      line('busy', held('g', 1)),
      line('out'),
      line('paused', { type: 'paused', at: at(1), by: 'client' }),
    ]
    const ids = (freed: Parameters<typeof stillToAsk>[1]): string[] =>
      stillToAsk(lines, freed, at(3)).map(({ id }) => id)
    expect(ids({ id: 'f', skipped: ['out'] })).toEqual(['new', 'other'])
    expect(ids({})).toEqual(['new', 'had', 'other', 'out'])
  })

  it('looks for what lies before the time they have, and for nothing once that is gone', () => {
    const earlier = replayLine('e', [joined({ instead: 'b' })])
    const among = (start: Instant | undefined) =>
      waitingAmong(practice, [line('w'), earlier], (id) => (id === 'b' ? start : undefined))
    expect(among(at(600)).map(({ id, earlier }) => [id, earlier])).toEqual([
      ['w', undefined],
      ['e', at(600)],
    ])
    expect(among(undefined).map(({ id }) => id)).toEqual(['w'])
  })
})

describe('until when a freed time stands', () => {
  const service = (change: object) =>
    sampleService({
      id: 'a',
      waitlist: {
        ...{ door: true, ask: 1, prefer: 'longest-wait', letGo: 3 },
        ...{ stands: duration('PT6H'), least: duration('PT2H') },
        ...change,
      },
    })
  const practice = (change: object = {}) => ({
    ...samplePractice({ services: [service({})] }),
    messaging: { quiet: { from: time('22:00'), to: time('08:00') } },
    ...change,
  })
  const of = { place: 'video', zone: 'Europe/Lisbon' }
  const until = (change: object, start: Instant, now: Instant, more: object = {}) =>
    standsUntil(practice(), service(change), { ...of, ...more }, start, now)
  const two = parseInstant('2026-11-24T14:00Z')

  it('is its time, but never later than what the service and they need', () => {
    // Common practice, no source; a check value of this trade's own: six hours from 14:00 end at 20:00.
    expect(until({}, instant(two + 48 * HOUR), two)).toBe(two + 6 * HOUR)
    expect(until({}, instant(two + 5 * HOUR), two)).toBe(two + 3 * HOUR)
    expect(until({}, instant(two + 48 * HOUR), two, { notice: duration('P2D') })).toBe(two)
    expect(until({ least: duration('PT44H') }, instant(two + 48 * HOUR), two)).toBe(two + 4 * HOUR)
  })

  it('stands still in the quiet hours of whoever it is held out to, where the practice says so', () => {
    const start = instant(two + 96 * HOUR)
    const eight = instant(two + 6 * HOUR)
    // From 20:00: two hours until 22:00, then four from 08:00 on.
    expect(until({ quiet: true }, start, eight)).toBe(parseInstant('2026-11-25T12:00Z'))
    expect(until({ quiet: true }, start, eight, { zone: 'Asia/Tokyo' })).toBe(
      // In Tokyo it is five in the morning: nothing runs before eight there.
      parseInstant('2026-11-25T05:00Z'),
    )
    expect(until({}, start, eight)).toBe(eight + 6 * HOUR)
  })
})
