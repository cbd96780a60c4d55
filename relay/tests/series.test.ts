import type { Problem } from '@acolhida/core/contract'
import { printOfBooking } from '@acolhida/core/request'
import { letIn } from '@acolhida/core/schemas'
import { DAY, HOUR, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { bookingEvent } from '../../core/schemas/record.ts'
import { recordPage } from '../store/record.ts'
import { openStartsOf } from './client.ts'
import { bookingOf, bookingsOf, recordLength } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let starts: Instant[]
beforeEach(async () => {
  house = await startRelay()
  const open = (await openStartsOf(house.door, house.slug)) as Instant[]
  // The first start of each of four days that lie apart.
  starts = open.filter((start, i) => i === 0 || start - open[i - 1]! > 12 * HOUR).slice(1, 5)
})
afterEach(() => house.close())

const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'America/Toronto' }
const book = (change: object = {}, key = freshKey()) => {
  const sessions = starts.map((start, i) => ({ id: `series-${i}`, start }))
  const body = { service: 'coaching', place: 'video', minutes: 50, person, sessions, ...change }
  return ask<{ seq: number } & Problem>(`${house.desk}/api/series`, body, { bearer: house.key, key })
}

describe('several sessions at once', () => {
  it('are booked whole, and one message tells of all of them by the client’s clock', async () => {
    const key = freshKey()
    const { status } = await book({ text: 'Gladly.' }, key)
    expect(status).toBe(201)
    expect((await book({ text: 'Gladly.' }, key)).status).toBe(201)
    const own = bookingsOf(house.relay).filter(({ id }) => id.startsWith('series-'))
    expect(own.map(({ status, start, minutes }) => [status, start, minutes])).toEqual(
      starts.map((start) => ['booked', start, 50]),
    )
    house.clock.forward(MINUTE)
    await house.relay.rounds.turn()
    const mails = house.mailbox.received.filter(({ to }) => to.includes(person.email))
    expect(mails).toHaveLength(1)
    expect(mails[0]!.text).toContain('Gladly.')
    const times = starts.map((start) =>
      new Intl.DateTimeFormat('en-GB', {
        timeZone: person.zone,
        hour: '2-digit',
        minute: '2-digit',
      }).format(start),
    )
    for (const time of times) expect(mails[0]!.text).toContain(time)
    expect(mails[0]!.text.match(/^– /gm)).toHaveLength(starts.length)
  })

  it('are not booked at all where one is taken, and all that are taken are named', async () => {
    expect((await book({ sessions: [{ id: 'first-of-all', start: starts[1] }] })).status).toBe(201)
    const before = recordLength(house.relay)
    const { status, body } = await book()
    expect([status, body.code, body.data?.many]).toEqual([409, 'series-taken', 1])
    expect(body.message).toMatch(/not free any more: .*Nothing was booked/)
    expect(recordLength(house.relay)).toBe(before)
    expect(bookingOf(house.relay, 'series-0')).toBeUndefined()
  })

  it('are not in each other’s way', async () => {
    const start = starts[0]!
    const sessions = [start, shift(start, 20 * MINUTE), shift(start, DAY)].map((at, i) => ({
      id: `close-by-${i}`,
      start: at,
    }))
    expect((await book({ sessions })).body).toMatchObject({ code: 'series-taken', data: { many: 1 } })
  })

  it('are taken in silence, and refused where there are too many or none', async () => {
    expect((await book({ silent: true })).status).toBe(201)
    house.clock.forward(MINUTE)
    await house.relay.rounds.turn()
    expect(house.mailbox.received.filter(({ to }) => to.includes(person.email))).toEqual([])
    expect((await book({ sessions: [] })).body.code).toBe('malformed')
    const many = Array.from({ length: 61 }, (_, i) => ({
      id: `many-${i}`,
      start: shift(starts[0]!, i * DAY),
    }))
    expect((await book({ sessions: many })).body.code).toBe('malformed')
    expect((await book({ service: 'nothing' })).body.code).toBe('unknown-service')
    expect((await book()).body.code).toBe('id-taken')
  })

  it('are cancelled whole or not at all; the first message tells of all, and those not told of before stay quiet', async () => {
    expect((await book()).status).toBe(201)
    house.clock.forward(MINUTE)
    await house.relay.rounds.turn()
    const seen = (id: string) => ({ booking: id, seen: printOfBooking(bookingOf(house.relay, id)) })
    const end = (bookings: object[], more: object = {}) =>
      ask<{ seq: number } & Problem>(
        `${house.desk}/api/series/end`,
        { bookings, ...more },
        { bearer: house.key, key: freshKey() },
      )
    const before = recordLength(house.relay)
    const stale = { booking: 'series-3', seen: 'e'.repeat(64) }
    expect((await end([seen('series-1'), stale])).body.code).toBe('changed')
    expect((await end([seen('series-1'), { ...stale, booking: 'nobody-knows-it' }])).body.code).toBe(
      'unknown-booking',
    )
    expect(recordLength(house.relay)).toBe(before)
    const both = [seen('series-2'), seen('series-3')]
    expect((await end(both, { text: 'A pity.' })).status).toBe(200)
    const status = (id: string) => bookingOf(house.relay, id).status
    expect([0, 1, 2, 3].map((n) => status(`series-${n}`))).toEqual([
      'booked',
      'booked',
      'cancelled',
      'cancelled',
    ])
    house.clock.forward(MINUTE)
    await house.relay.rounds.turn()
    const mails = house.mailbox.received.filter(
      ({ to, subject }) => to.includes(person.email) && /^Cancelled/.test(subject),
    )
    expect(mails).toHaveLength(1)
    expect(mails[0]!.text).toContain('A pity.')
    expect(mails[0]!.text).toContain('These sessions are cancelled (Toronto time):')
    expect(mails[0]!.text.match(/^– /gm)).toHaveLength(2)
    expect((await end([seen('series-0'), seen('series-2')])).body.code).toBe('not-booked')
    expect(status('series-0')).toBe('booked')
  })

  it('are moved whole or not at all, also into one another’s times; the first message tells of all', async () => {
    expect((await book()).status).toBe(201)
    house.clock.forward(MINUTE)
    await house.relay.rounds.turn()
    const at = (n: number) => bookingOf(house.relay, `series-${n}`).start
    const to = (n: number, start: number) => ({
      ...{ booking: `series-${n}`, seen: printOfBooking(bookingOf(house.relay, `series-${n}`)), start },
    })
    const move = (bookings: object[], more: object = {}) =>
      ask<{ seq: number } & Problem>(
        `${house.desk}/api/series/move`,
        { bookings, ...more },
        { bearer: house.key, key: freshKey() },
      )
    const [first, second, third] = [at(1), at(2), at(3)]
    // Two to one time; one into what is left where it was; one into the past; one seen otherwise.
    expect((await move([to(1, third), to(2, third)])).body.code).toBe('series-taken')
    expect((await move([to(1, third)])).body.message).toMatch(/not free: .*Nothing was moved/)
    expect((await move([to(1, house.clock.now() - DAY)])).body.code).toBe('series-taken')
    expect((await move([{ ...to(1, third), seen: 'e'.repeat(64) }, to(3, first)])).body.code).toBe('changed')
    expect([at(1), at(2), at(3)]).toEqual([first, second, third])
    // In a ring, and the last a day on.
    const later = shift(first, 10 * DAY)
    expect((await move([to(1, second), to(2, third), to(3, later)], { text: 'A new rhythm.' })).status).toBe(
      200,
    )
    expect([at(1), at(2), at(3)]).toEqual([second, third, later])
    // None of them can go back alone: it would lie where another is now.
    expect([1, 2, 3].map((n) => bookingOf(house.relay, `series-${n}`).unsettled)).toEqual([
      undefined,
      undefined,
      undefined,
    ])
    house.clock.forward(MINUTE)
    await house.relay.rounds.turn()
    const mails = house.mailbox.received.filter(
      ({ to: whom, subject }) => whom.includes(person.email) && /^(?:Moved|New time)/.test(subject),
    )
    expect(mails).toHaveLength(1)
    expect(mails[0]!.text).toContain('A new rhythm.')
    expect(mails[0]!.text.match(/^– /gm)).toHaveLength(3)
  })

  it('keep to what a record holds, however much is written with them', async () => {
    expect((await book({ text: 'x'.repeat(3_001) })).body.code).toBe('malformed')
    expect((await book({ text: 'x'.repeat(3_000) })).status).toBe(201)
    for (const { body } of recordPage(house.relay.store.db, 0, house.relay.here.now(), 100_000).items)
      if ('type' in body && body.type === 'welcomed') letIn(bookingEvent, body, 'It')
  })
})
