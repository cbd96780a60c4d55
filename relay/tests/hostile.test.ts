import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { CalendarState } from '@acolhida/core/contract'
import { parseInstant } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openStartsOf, request, sendIt } from './client.ts'
import { bookingsOf, changePractice } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

/**
 * What one request can do to stop the relay. Each used to take from half a minute to for ever; the bound is far above
 * what they take now on a busy machine, and far below that.
 */
const MOST_CPU = 4_000_000

let house: TestRelay
let other: Server | undefined
beforeEach(async () => {
  house = await startRelay({ privateCalendars: true })
})
afterEach(async () => {
  other?.closeAllConnections()
  other?.close()
  other = undefined
  await house.close()
})

/** Does something, and sees that it has cost little of the processor. */
async function cheaply<T>(what: () => Promise<T>): Promise<T> {
  const before = process.cpuUsage()
  const done = await what()
  const { user, system } = process.cpuUsage(before)
  expect(user + system).toBeLessThan(MOST_CPU)
  return done
}
const send = async (change: object) => {
  const [start] = (await openStartsOf(house.door, house.slug)) as [number]
  const body = await request(house.door, house.slug, start, { shown: '0'.repeat(64) })
  return cheaply(() => sendIt(house.door, house.slug, { ...body, ...change }))
}

describe('a request at the door', () => {
  it('with a name of 40,000 angle brackets is refused by its length', async () => {
    const person = { name: '<a'.repeat(40_000), email: 'a@example.org', zone: 'Europe/Lisbon' }
    const { status, body } = await send({ person })
    expect([status, body.code, body.where]).toEqual([400, 'malformed', 'person.name'])
  })

  it('with 12,000 agreements is refused by their number, not by each', async () => {
    const { status, body } = await send({ agreed: Array(12_000).fill({}) })
    expect([status, body.code, body.where]).toEqual([400, 'malformed', 'agreed'])
    expect(JSON.stringify(body).length).toBeLessThan(2_000)
  })

  it('with thousands of answers, each wrong, says so briefly', async () => {
    const answers = Object.fromEntries(Array.from({ length: 6_000 }, (_, i) => [`a${i}`, { b: i }]))
    const { status, body } = await send({ answers })
    expect([status, body.code]).toEqual([400, 'malformed'])
    expect(JSON.stringify(body).length).toBeLessThan(4_000)
  })

  it('that is deep, or larger than its endpoint takes, is refused as such', async () => {
    const url = `${house.door}/api/door/${house.slug}/send`
    const deep = `${'['.repeat(60_000)}${']'.repeat(60_000)}`
    const first = await cheaply(() => ask(url, undefined, { method: 'POST', raw: deep, key: freshKey() }))
    expect([400, 422]).toContain(first.status)
    const raw = JSON.stringify({ visit: 'x'.repeat(300_000) })
    const second = await cheaply(() => ask(url, undefined, { method: 'POST', raw, key: freshKey() }))
    expect([second.status, second.body.code]).toEqual([413, 'too-large'])
  })
})

describe('a request at the desk', () => {
  it('of 8 MB without a key is not even read', async () => {
    const raw = `{"a":${'['.repeat(4_000_000)}${']'.repeat(4_000_000)}}`
    for (const bearer of [undefined, 'x'.repeat(43)]) {
      const { status, body } = await cheaply(() =>
        ask(`${house.desk}/api/package`, undefined, {
          method: 'PUT',
          raw,
          key: freshKey(),
          ...(bearer ? { bearer } : {}),
        }),
      )
      expect([status, body.code]).toEqual([401, 'not-paired'])
    }
  })

  it('guessing at pairing codes is slowed down', async () => {
    const waits: number[] = []
    const slow = await startRelay({ wait: async (ms) => waits.push(ms) })
    const guess = () =>
      ask(`${slow.desk}/api/pair`, { code: 'AAAA-BBBB-CCCC', practice: 'own', replace: true })
    const codes: (string | undefined)[] = []
    for (let i = 0; i < 21; i++) codes.push((await guess()).body.code)
    await slow.close()
    expect(codes.at(-1)).toBe('too-many')
    expect(codes.slice(0, 20).every((code) => code === 'wrong-code')).toBe(true)
    // Five go wrong at once; then each answer waits twice as long as the one before.
    expect(waits.slice(0, 5)).toEqual([1_000, 2_000, 4_000, 8_000, 15_000])
    expect(waits).toHaveLength(15)
  })
})

describe('another calendar', () => {
  const of = (...lines: string[]): string =>
    `${['BEGIN:VCALENDAR', 'VERSION:2.0', 'BEGIN:VEVENT', 'UID:a', ...lines, 'END:VEVENT', 'END:VCALENDAR'].join('\r\n')}\r\n`

  it.each([
    ['a line that no pattern should look through', of('DTSTART:20261201T090000Z', `X${'-a'.repeat(30)};:x`)],
    [
      'a rule that never comes true',
      of('DTSTART:20261201T090000Z', 'DURATION:PT1H', 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30'),
    ],
    ['a rule of each second', of('DTSTART:20161201T090000Z', 'DURATION:PT1S', 'RRULE:FREQ=SECONDLY')],
  ])(
    'with %s never stops the door, nor a restart',
    async (_, text) => {
      other = createServer((_req, res) => res.end(text))
      await new Promise<void>((resolve) => other!.listen(0, '127.0.0.1', resolve))
      const url = `http://127.0.0.1:${(other.address() as AddressInfo).port}/a.ics`
      changePractice(house.relay, () => ({ calendars: [{ id: 'phone', name: 'My phone', url }] }))
      const reading = house.relay.calendars.round()
      // Understood in a thread of its own: the door answers meanwhile.
      const starts = await openStartsOf(house.door, house.slug)
      expect(starts.length).toBeGreaterThan(0)
      await reading
      const { body } = await ask<CalendarState[]>(`${house.desk}/api/calendars`, undefined, {
        bearer: house.key,
      })
      expect((body as CalendarState[]).map(({ id }) => id)).toEqual(['phone'])
      expect((await openStartsOf(house.door, house.slug)).length).toBeGreaterThan(0)
    },
    90_000,
  )
})

describe('a practice', () => {
  it('with time away that never comes true is not published, and does no harm where it is already', async () => {
    const away = [
      {
        id: 'never',
        from: '2026-12-01T09:00',
        to: '2026-12-01T10:00',
        repeat: 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
      },
    ]
    const { pack } = house.relay.here.keeper.house
    const next = { ...pack!, revision: pack!.revision + 1, practice: { ...pack!.practice, away } }
    const { status, body } = await cheaply(() =>
      ask(`${house.desk}/api/package`, next, { method: 'PUT', bearer: house.key, key: freshKey() }),
    )
    expect([status, body.code, body.where]).toEqual([422, 'practice', 'practice.away[0]'])
    changePractice(house.relay, (practice) => ({ away: next.practice.away as typeof practice.away }))
    const starts = await cheaply(() => openStartsOf(house.door, house.slug))
    expect(starts).not.toContain(parseInstant('2026-12-01T09:00Z'))
    expect(starts.length).toBeGreaterThan(0)
    expect(bookingsOf(house.relay).length).toBeGreaterThan(0)
  })
})
