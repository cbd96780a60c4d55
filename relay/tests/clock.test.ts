import { DAY, HOUR, type Instant, instant, MINUTE, parseInstant } from '@acolhida/core/time'
import { afterEach, describe, expect, it } from 'vitest'
import { type Clock, HouseClock } from '../ground/clock.ts'
import { bookingOf } from './inside.ts'
import { ask, startRelay, type TestRelay } from './setup.ts'

const BEGIN = parseInstant('2026-11-24T11:00Z')

/** A wall clock and a machine's count of time, each moved by hand. */
function clocks(newest: Instant = BEGIN) {
  let wall: number = BEGIN
  let steady = 5_000
  const outside: Clock = { now: () => instant(wall), moved: false }
  return {
    house: new HouseClock(outside, newest, () => steady),
    /** Time passes for both. */
    pass: (ms: number) => {
      wall += ms
      steady += ms
    },
    /** Somebody sets the wall clock. */
    set: (ms: number) => {
      wall += ms
    },
  }
}

describe('the clock of the house', () => {
  it('never goes back: behind the newest moment seen it counts as that', () => {
    const { house, set, pass } = clocks()
    set(-3 * HOUR)
    expect(house.now()).toBe(BEGIN)
    pass(2 * HOUR)
    expect(house.now()).toBe(BEGIN)
    pass(HOUR + MINUTE)
    expect(house.now()).toBe(BEGIN + MINUTE)
    expect(clocks(instant(BEGIN + DAY)).house.now()).toBe(BEGIN + DAY)
  })

  it('takes no passing of time for a leap, and no small step', () => {
    const { house, pass, set } = clocks()
    pass(10 * DAY)
    set(HOUR)
    expect(house.now()).toBe(BEGIN + 10 * DAY + HOUR)
    expect(house.leapt).toBeUndefined()
  })

  it('knows a leap of over an hour, and after a pause of over two days', () => {
    const { house, set } = clocks()
    set(HOUR + 1)
    house.now()
    expect(house.leapt).toEqual({ from: BEGIN, to: BEGIN + HOUR + 1 })
    expect(clocks(instant(BEGIN - 2 * DAY)).house.leapt).toBeUndefined()
    expect(clocks(instant(BEGIN - 2 * DAY - 1)).house.leapt).toEqual({ from: BEGIN - 2 * DAY - 1, to: BEGIN })
  })

  it('goes on when it is right, or from where it is set back to', () => {
    const right = clocks()
    right.set(30 * DAY)
    right.house.now()
    expect(right.house.release(false)).toBe(BEGIN + 30 * DAY)
    expect(right.house.leapt).toBeUndefined()
    const wrong = clocks()
    wrong.set(30 * DAY)
    wrong.house.now()
    wrong.set(-30 * DAY)
    wrong.pass(MINUTE)
    expect(wrong.house.now()).toBe(BEGIN + 30 * DAY)
    expect(wrong.house.release(true)).toBe(BEGIN + MINUTE)
    expect(wrong.house.leapt).toBeUndefined()
  })
})

describe('a relay whose clock has leapt', () => {
  let house: TestRelay
  afterEach(() => house.close())

  it('lets nothing lapse, go or be forgotten until the desk says that it is right', async () => {
    // The machine's own count stands still: moving the clock is a leap.
    house = await startRelay({ steady: () => 0, memoryDays: 30 })
    const { relay, clock } = house
    const status = () => ask<{ leapt?: object }>(`${house.desk}/api/status`)
    const sent = house.mailbox.received.length
    expect((await status()).body.leapt).toBeUndefined()
    clock.forward(300 * DAY)
    await relay.rounds.turn()
    expect((await status()).body.leapt).toEqual({ from: BEGIN, to: BEGIN + 300 * DAY })
    expect(bookingOf(relay, 'asks-tome').status).toBe('requested')
    expect(house.mailbox.received.length).toBe(sent)

    expect((await ask(`${house.desk}/api/release`, { back: false })).status).toBe(401)
    const { status: said } = await ask(`${house.desk}/api/release`, { back: false }, { bearer: house.key })
    expect(said).toBe(200)
    await relay.rounds.turn()
    expect((await status()).body.leapt).toBeUndefined()
    expect(relay.here.keeper.house.booking('asks-tome')?.status ?? 'forgotten').not.toBe('requested')
  })
})
