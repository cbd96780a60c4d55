import type { BringInBody } from '@acolhida/core/contract'
import { accountOf } from '@acolhida/core/ledger'
import { balanceOf } from '@acolhida/core/preparing'
import { DAY, HOUR, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openStartsOf } from './client.ts'
import { bookingOf } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let start: Instant
beforeEach(async () => {
  house = await startRelay()
  const open = (await openStartsOf(house.door, house.slug)) as Instant[]
  start = open.find((at) => at > house.clock.now() + 4 * DAY)!
})
afterEach(() => house.close())

const batch = '2026-11-24T11:00Z sessions.csv'
const person = (n: number) => ({ name: `Person ${n}`, email: `p${n}@example.org`, zone: 'Europe/Lisbon' })
const session = (n: number, more: Partial<BringInBody['sessions'][number]> = {}) => ({
  ...{ id: `brought-${String(n).padStart(4, '0')}`, service: 'coaching', place: 'video', minutes: 50 },
  ...{ start: shift(start, n * DAY), person: person(n) },
  ...more,
})
const bring = (body: Partial<BringInBody>) =>
  ask<{ sessions: number; standing: number }>(
    `${house.desk}/api/bring-in`,
    { batch, sessions: [], standing: [], ...body },
    { bearer: house.key, key: freshKey() },
  )
const takeOut = (bookings: string[], courses: string[] = [], of = batch) =>
  ask<{ sessions: number; standing: number }>(
    `${house.desk}/api/bring-in/out`,
    { batch: of, bookings, courses },
    { bearer: house.key, key: freshKey() },
  )
const goOn = async (ms: number): Promise<void> => {
  house.clock.forward(ms)
  await house.relay.rounds.turn()
}
const mailsTo = (email: string) => house.mailbox.received.filter(({ to }) => to.includes(email))

describe('sessions from elsewhere', () => {
  it('are booked as they were there, at their price, with what has come of it; only those are told who are to be', async () => {
    const { status, body } = await bring({
      sessions: [session(1, { price: 8_000, paid: 3_000 }), session(2, { tell: true }), session(3)],
    })
    expect([status, body]).toEqual([201, { sessions: 3, standing: 0 }])
    const first = bookingOf(house.relay, 'brought-0001')
    expect(first).toMatchObject({ status: 'booked', price: 8_000, start: shift(start, DAY) })
    expect(first.asked.broughtIn).toBe(batch)
    expect(first.unsettled).toBeUndefined()
    expect(accountOf(first)).toMatchObject({ paid: 3_000, open: 5_000 })
    // What is not said costs what it costs here.
    expect(bookingOf(house.relay, 'brought-0003').price).toBeGreaterThan(0)
    await goOn(MINUTE)
    expect(mailsTo('p2@example.org')).toHaveLength(1)
    expect(mailsTo('p1@example.org')).toEqual([])
    expect(mailsTo('p3@example.org')).toEqual([])
  })

  it('come in whole or not at all, also into what is taken, but never into the past', async () => {
    expect(
      (await bring({ sessions: [session(1), session(2, { start: shift(start, DAY + 10 * MINUTE) })] }))
        .status,
    ).toBe(201)
    const { status, body } = await bring({
      sessions: [session(5), session(6, { start: shift(house.clock.now(), -HOUR) })],
    })
    expect([status, body.code]).toEqual([409, 'not-open'])
    expect(house.relay.here.keeper.house.booking('brought-0005')).toBeUndefined()
    expect((await bring({ sessions: [session(7, { service: 'swimming' })] })).body.code).toBe(
      'unknown-service',
    )
  })

  it('are taken out again as a whole, but for what has gone on since; nobody hears of it', async () => {
    await bring({ sessions: [session(1, { paid: 2_000 }), session(2), session(3)] })
    await goOn(MINUTE)
    await ask(
      `${house.desk}/api/command`,
      { booking: 'brought-0002', command: { do: 'pay', amount: 100, way: 'cash' } },
      { bearer: house.key, key: freshKey() },
    )
    await goOn(MINUTE)
    const names = ['brought-0001', 'brought-0002', 'brought-0003']
    // Another moving in takes nothing of this one out.
    expect((await takeOut(names, [], 'another')).body).toEqual({ sessions: 0, standing: 0 })
    expect((await takeOut(names)).body).toEqual({ sessions: 2, standing: 0 })
    expect((await takeOut(names)).body).toEqual({ sessions: 0, standing: 0 })
    await goOn(MINUTE)
    const first = bookingOf(house.relay, 'brought-0001')
    expect([first.status, accountOf(first).open]).toEqual(['withdrawn', 0])
    expect(bookingOf(house.relay, 'brought-0002').status).toBe('booked')
    expect(house.mailbox.received.filter(({ to }) => /@example\.org/.test(to) && to.includes('p1@'))).toEqual(
      [],
    )
    // Its time is free again.
    expect((await bring({ sessions: [session(1, { id: 'brought-again' })] })).status).toBe(201)
  })

  it('are as many as a practice has for years, in one call', async () => {
    const sessions = Array.from({ length: 1_000 }, (_, n) =>
      session(n, { start: shift(start, n * 2 * HOUR) }),
    )
    const { status, body } = await bring({ sessions })
    expect([status, body.sessions]).toEqual([201, 1_000])
    expect((await takeOut(sessions.map(({ id }) => id))).body.sessions).toBe(1_000)
  })
})

describe('how people stand', () => {
  it('is a path of theirs: sessions left to plan, and what is owed, told by nobody yet', async () => {
    const owes = { amount: 12_000, due: shift(house.clock.now(), 30 * DAY) }
    const { status } = await bring({
      standing: [
        {
          id: 'standing-one',
          person: person(1),
          name: 'From before',
          left: { service: 'coaching', many: 4 },
        },
        { id: 'standing-two', person: person(2), name: 'From before', owes },
      ],
    })
    expect(status).toBe(201)
    const course = (id: string) => house.relay.here.keeper.house.course(id)!
    const now = house.clock.now()
    expect(balanceOf(course('standing-one'), () => undefined, now)).toMatchObject({
      left: 4,
      used: 0,
    })
    expect(course('standing-two').given.path?.pays).toEqual([{ id: 'owed', ...owes }])
    await goOn(HOUR)
    expect(mailsTo('p2@example.org')).toEqual([])
    expect((await takeOut([], ['standing-one', 'standing-two'])).body).toEqual({ sessions: 0, standing: 2 })
    expect(course('standing-one').ended).toBeDefined()
  })
})
