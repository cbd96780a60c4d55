import type { PathPlan, Problem, YoursView } from '@acolhida/core/contract'
import { accountOf } from '@acolhida/core/ledger'
import type { Path } from '@acolhida/core/practice'
import { balanceOf, ledgerOfPath } from '@acolhida/core/preparing'
import { DAY, duration, HOUR, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openStartsOf } from './client.ts'
import { bookingOf, bookingsOf, changePractice, linkTo, packOf, publishTo } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

const PATH: Path = {
  ...{ id: 'ten-weeks', name: 'Ten weeks of voice', text: '', price: 60_000 },
  stations: [
    { id: 'pay', does: 'pay', parts: 3, after: duration('P10D'), every: duration('P1M') },
    { id: 'letter', does: 'prepare', preparation: 'letter' },
    { id: 'long', does: 'sessions', service: 'voice-assessment', minutes: 90, many: 1 },
    { id: 'short', does: 'sessions', service: 'coaching', minutes: 50, many: 3, least: 5 },
  ],
}
let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
  changePractice(house.relay, () => ({
    paths: [PATH],
    away: [],
    preparations: [
      { id: 'letter', is: 'read', name: 'A letter', due: { from: 'given', by: duration('P9D') }, text: [] },
    ],
  }))
})
afterEach(() => house.close())

const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'America/Toronto' }
const mails = () => house.mailbox.received.filter(({ to }) => to.includes(person.email))
const desk = (command: object, course = 'the-course') =>
  ask<{ seq: number } & Problem>(
    `${house.desk}/api/course`,
    { course, command },
    { bearer: house.key, key: freshKey() },
  )
const give = { do: 'give', person, preparations: [], path: 'ten-weeks', text: 'As we spoke about it.' }
const goOn = async (ms: number): Promise<void> => {
  house.clock.forward(ms)
  await house.relay.rounds.turn()
}
const course = () => house.relay.here.keeper.house.course('the-course')!
const balance = () => balanceOf(course(), (id) => bookingOf(house.relay, id), house.clock.now())
/** The path given, and the link to it that was mailed. */
const given = async (): Promise<string> => {
  expect((await desk(give)).status).toBe(200)
  await goOn(MINUTE)
  return /\/yours\/([\w-]{43})/.exec(mails()[0]!.text)![1]!
}
const call = <T>(secret: string, what: string, body: object) =>
  ask<T & Problem>(
    `${house.door}/api/yours/${secret}/${what}`,
    { course: 'the-course', place: 'studio', ...body },
    { key: freshKey() },
  )
const plan = (secret: string, more: object = {}) =>
  call<PathPlan>(secret, 'plan', { rhythm: 'week', first: '2026-12-01', time: '10:00', ...more })

describe('a path', () => {
  it('reaches its client in one message, with sessions, dates and money', async () => {
    const secret = await given()
    const [mail] = mails()
    expect(mail!.subject).toBe('Ten weeks of voice: everything about it')
    for (const said of [
      'As we spoke about it.',
      'one session: Voice assessment, 90 min',
      '3 sessions: Coaching',
      '€200.00',
      'A letter',
    ])
      expect(mail!.text).toContain(said)
    const { body } = await ask<YoursView>(`${house.door}/api/yours/${secret}`)
    const { path, stations } = (body as YoursView).courses[0]!
    expect(stations.map(({ id }) => id)).toEqual(['letter'])
    expect(path).toMatchObject({ left: 4, planned: 0, used: 0, price: 60_000, open: 60_000 })
    expect(path!.order).toEqual([
      'pay-1',
      'pay-2',
      'pay-3',
      'letter',
      'long',
      'short-1',
      'short-2',
      'short-3',
    ])
    expect(path!.transfer?.reference).toMatch(/^RF/)
  })

  it('is booked in its order and at its distances, and moved by its client within them', async () => {
    const secret = await given()
    const { body: planned } = await plan(secret)
    const [long, first, second, third] = planned.sessions.map(({ session, start }) => ({
      session,
      start: start!,
    }))
    const book = (sessions: object[]) => call(secret, 'book', { sessions })
    // What is offered of a day is within the order, too: never nearer than five days to the one before.
    for (const [i, { others }] of planned.sessions.entries())
      for (const other of i === 0 ? [] : others)
        expect(other - planned.sessions[i - 1]!.start!).toBeGreaterThan(4 * DAY)
    const swapped = [
      { ...long, start: first!.start },
      { ...first, start: long!.start },
    ]
    expect((await book(swapped)).body.code).toBe('path-order')
    expect(
      (await book([long!, { ...first, start: second!.start }, { ...second, start: first!.start }])).body.code,
    ).toBe('path-order')
    expect(balance()).toMatchObject({ planned: 0, left: 4 })
    expect((await book([long!, first!, second!, third!])).status).toBe(200)
    // Moved by its client, the second stays between its neighbours.
    const { session } = first!
    const booking = course().booked![session]!
    const moves = await ask<{ starts: number[] }>(
      `${house.door}/api/link/${linkTo(house.relay, booking)}/openings`,
      { days: 60, from: '2026-11-25' },
    )
    expect(moves.body.starts.length).toBeGreaterThan(0)
    for (const start of moves.body.starts) {
      expect(start - long!.start).toBeGreaterThanOrEqual(0)
      expect(second!.start - start).toBeGreaterThan(4 * DAY)
    }
  })

  it('is planned and booked by its client, whole or not at all, the long session before the short ones', async () => {
    const secret = await given()
    const { body: planned } = await plan(secret)
    expect(planned.sessions.map(({ session, minutes }) => [session, minutes])).toEqual([
      ['long', 90],
      ['short-1', 50],
      ['short-2', 50],
      ['short-3', 50],
    ])
    const starts = planned.sessions.map(({ start }) => start!)
    starts.slice(1).forEach((start, i) => {
      expect(start - starts[i]!).toBeGreaterThan(4 * DAY)
    })
    const sessions = planned.sessions.map(({ session, start }) => ({ session, start }))
    // Somebody is quicker with one of them: nothing is booked, and that one is named.
    const rival = { id: 'somebody-quicker', service: 'coaching', place: 'studio', minutes: 50, clash: true }
    await ask(
      `${house.desk}/api/enter`,
      { ...rival, start: starts[2], person: { ...person, email: 'quick@example.org' } },
      { bearer: house.key, key: freshKey() },
    )
    const refused = await call(secret, 'book', { sessions })
    expect([refused.status, refused.body.code, refused.body.data?.many]).toEqual([409, 'series-taken', 1])
    expect(balance()).toMatchObject({ planned: 0, left: 4 })
    const { body: again } = await plan(secret)
    const others = again.sessions.map(({ session, start }) => ({ session, start }))
    expect((await call(secret, 'book', { sessions: others })).status).toBe(200)
    expect(balance()).toMatchObject({ planned: 4, left: 0 })
    const bookings = balance().sessions.map(({ booking }) => booking!)
    expect(bookings.map(({ status, service }) => [status, service])).toEqual([
      ['booked', 'voice-assessment'],
      ...[1, 2, 3].map(() => ['booked', 'coaching']),
    ])
    // By minutes: 90 of 240 of 600.00, and three of 50.
    expect(bookings.map(({ price }) => price)).toEqual([22_500, 12_500, 12_500, 12_500])
    // They are paid with the path, each owes nothing.
    expect(bookings.map((one) => accountOf(one).open)).toEqual([0, 0, 0, 0])
    await goOn(MINUTE)
    const confirmed = mails().filter(({ subject }) => subject.startsWith('Confirmed'))
    expect(confirmed).toHaveLength(1)
    expect(confirmed[0]!.text.match(/^– /gm)).toHaveLength(4)
    expect(confirmed[0]!.text).toContain('It is part of “Ten weeks of voice”; its share of that is €225.00.')
    // The same again: nothing of it is left.
    expect((await call(secret, 'book', { sessions: others })).body.code).toBe('not-left')
    expect((await plan(secret)).body.code).toBe('course-over')
  })

  it('takes an entry of a statement once, and its ledger adds up', async () => {
    await given()
    const entry = { do: 'pay', amount: 20_000, way: 'transfer', source: 'entry one' }
    expect((await desk(entry)).status).toBe(200)
    const { seq } = course()
    expect((await desk(entry)).body.seq).toBe(seq)
    expect((await desk({ do: 'pay', amount: -5_000, way: 'cash' })).status).toBe(200)
    const lines = ledgerOfPath(course())
    expect(lines.map(({ what, amount }) => [what, amount])).toEqual([
      ['paid', -20_000],
      ['given-back', 5_000],
      ...[1, 2, 3].map(() => ['price', 20_000]),
    ])
    const sum = lines.reduce((all, { amount }) => all + amount, 0)
    expect(sum).toBe(balance().open)
  })

  it('is booked as far ahead as it is planned, whatever reach its services have', async () => {
    const secret = await given()
    changePractice(house.relay, ({ services }) => ({
      services: services.map((one) => ({ ...one, reach: { kind: 'days' as const, days: 7 } })),
    }))
    const { body: planned } = await plan(secret)
    const sessions = planned.sessions.map(({ session, start }) => ({ session, start }))
    expect(sessions.at(-1)!.start! - house.clock.now()).toBeGreaterThan(21 * DAY)
    expect((await call(secret, 'book', { sessions })).status).toBe(200)
    expect(balance()).toMatchObject({ planned: 4, left: 0 })
  })

  it('is planned by the practitioner as well, and what is cancelled in time is there once more', async () => {
    await given()
    const open = (await openStartsOf(house.door, house.slug)) as Instant[]
    const start = open.find((at) => at > house.clock.now() + 5 * DAY)!
    const series = (session: string, id: string, at = start) =>
      ask<Problem>(
        `${house.desk}/api/series`,
        {
          ...{
            service: 'coaching',
            place: 'studio',
            minutes: 50,
            person,
            course: 'the-course',
            silent: true,
          },
          sessions: [{ id, start: at, session }],
        },
        { bearer: house.key, key: freshKey() },
      )
    expect((await series('long', 'path-booking-1')).status).toBe(201)
    expect(bookingOf(house.relay, 'path-booking-1')).toMatchObject({
      service: 'voice-assessment',
      minutes: 90,
    })
    expect((await series('long', 'path-booking-2', shift(start, DAY))).body.code).toBe('not-left')
    expect((await series('none', 'path-booking-2', shift(start, DAY))).body.code).toBe('not-left')
    await ask(
      `${house.desk}/api/command`,
      { booking: 'path-booking-1', command: { do: 'cancel', by: 'practitioner', text: '' } },
      { bearer: house.key, key: freshKey() },
    )
    expect(balance()).toMatchObject({ planned: 0, left: 4 })
  })

  it('rests, goes on, is longer, and ends', async () => {
    const secret = await given()
    expect((await desk({ do: 'pause', text: 'Until you are well again.' })).status).toBe(200)
    expect((await plan(secret)).body.code).toBe('path-rests')
    expect((await desk({ do: 'pause', text: '' })).body.code).toBe('course-over')
    expect((await desk({ do: 'resume' })).status).toBe(200)
    expect((await desk({ do: 'extend', like: 'short-1', many: 2, price: 25_000 })).status).toBe(200)
    expect(balance()).toMatchObject({ left: 6, price: 85_000 })
    expect((await desk({ do: 'extend', like: 'none', many: 2, price: 0 })).body.code).toBe('not-left')
    expect((await desk({ do: 'extend', like: 'short-1', many: 60, price: 0 })).status).toBe(200)
    expect((await desk({ do: 'extend', like: 'short-1', many: 60, price: 0 })).body.code).toBe(
      'path-impossible',
    )
    // No more is given back than has come; what is given back with the end is, in one act.
    expect((await desk({ do: 'pay', amount: -1, way: 'cash' })).body.code).toBe('not-paid')
    expect((await desk({ do: 'pay', amount: 5_000, way: 'cash' })).status).toBe(200)
    expect((await desk({ do: 'end', back: 5_001 })).body.code).toBe('not-paid')
    const { body: end } = await desk({ do: 'end', back: 3_000 })
    expect(balance().paid).toBe(2_000)
    expect((await desk({ do: 'take-back', of: end.seq })).status).toBe(200)
    expect(balance()).toMatchObject({ paid: 5_000, left: 66 })
    expect((await desk({ do: 'end', back: 3_000 })).status).toBe(200)
    expect((await plan(secret)).body.code).toBe('course-over')
    expect((await desk({ do: 'pay', amount: 100, way: 'cash' })).status).toBe(200)
    await desk({ do: 'give', person, preparations: ['letter'] }, 'no-path-at-all')
    expect((await desk({ do: 'pay', amount: 100, way: 'cash' }, 'no-path-at-all')).body.code).toBe('no-path')
  })

  it('tells of each part of its price three days before, and of none that has come', async () => {
    await given()
    const told = () => mails().filter(({ subject }) => subject.includes('a part of the price is due'))
    await goOn(7 * DAY - 2 * HOUR)
    expect(told()).toEqual([])
    await goOn(3 * HOUR)
    expect(told()).toHaveLength(1)
    expect(told()[0]!.text).toContain('€200.00')
    expect(told()[0]!.text).toContain('PT50 0002')
    expect((await desk({ do: 'pay', amount: 40_000, way: 'transfer', text: 'two at once' })).status).toBe(200)
    await goOn(35 * DAY)
    expect(told()).toHaveLength(1)
    expect(balance()).toMatchObject({ paid: 40_000, open: 20_000, overdue: 0 })
    await goOn(31 * DAY)
    expect(told()).toHaveLength(2)
  })

  it('has invoices of its parts, with running numbers among all others, each told by mail and on their page', async () => {
    changePractice(house.relay, ({ profile }) => ({
      profile: { ...profile, tax: { name: 'VAT', rate: 2_300 } },
    }))
    const secret = await given()
    // The price it had when it was given holds the tax of that day.
    changePractice(house.relay, ({ profile }) => ({
      profile: { ...profile, tax: { name: 'VAT', rate: 600 } },
    }))
    expect((await desk({ do: 'invoice', parts: ['pay-1'] })).status).toBe(200)
    expect((await desk({ do: 'invoice', parts: ['pay-1', 'pay-2'] })).body.code).toBe('invoiced-already')
    expect((await desk({ do: 'invoice', parts: ['pay-9'] })).body.code).toBe('invoiced-already')
    expect((await desk({ do: 'invoice', parts: ['pay-2', 'pay-3'] })).status).toBe(200)
    expect((await desk({ do: 'correct-invoice', number: 'IM-1', text: 'Of another part.' })).status).toBe(200)
    expect((await desk({ do: 'correct-invoice', number: 'IM-1', text: 'Again.' })).body.code).toBe(
      'no-invoice',
    )
    expect(course().invoices).toMatchObject([
      { number: 'IM-1', total: 20_000, parts: ['pay-1'], tax: { rate: 2_300, amount: 3_740 } },
      { number: 'IM-2', total: 40_000 },
      { number: 'IM-3', total: -20_000, corrects: 'IM-1', text: 'Of another part.' },
    ])
    await goOn(MINUTE)
    const told = mails().filter(({ subject }) => subject.startsWith('Invoice '))
    expect(told.map(({ subject }) => subject)).toEqual([
      'Invoice IM-1: Ten weeks of voice',
      'Invoice IM-2: Ten weeks of voice',
      'Invoice IM-3: Ten weeks of voice',
    ])
    expect(told[1]!.text).toContain('Ten weeks of voice, part 2 of 3: €200.00')
    expect(told[1]!.text).toContain('€400.00 is open.')
    expect(told[2]!.text).not.toContain('is open')
    const { body } = await ask<YoursView>(`${house.door}/api/yours/${secret}`)
    const { invoices } = (body as YoursView).invoices[0]!
    expect(invoices.map(({ number }) => number)).toEqual(['IM-1', 'IM-2', 'IM-3'])
    expect(invoices[0]).not.toHaveProperty('parts')
    // No more is told of it, and a booking's invoice has the next number.
    const before = mails().length
    await goOn(MINUTE)
    expect(mails()).toHaveLength(before)
    const owes = bookingsOf(house.relay).find(({ status, price }) => status === 'booked' && price > 0)!
    const command = { booking: owes.id, command: { do: 'invoice' } }
    await ask(`${house.desk}/api/command`, command, { bearer: house.key, key: freshKey() })
    expect(bookingOf(house.relay, owes.id)!.invoices!.map(({ number }) => number)).toEqual(['IM-4'])
  })

  it('can’t be given as it can never be, nor by one that is none', async () => {
    changePractice(house.relay, () => ({ paths: [{ ...PATH, stations: [] }] }))
    expect((await desk(give)).body.code).toBe('path-impossible')
    expect((await desk({ ...give, path: 'nothing' })).body.code).toBe('unknown-path')
    const pack = packOf(house.relay)
    publishTo(house.relay, pack)
    const secret = 'x'.repeat(43)
    expect((await plan(secret)).body.code).toBe('unknown-link')
  })
})
