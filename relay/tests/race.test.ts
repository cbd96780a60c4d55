import { HOUR } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openStartsOf, request } from './client.ts'
import { bookingsOf, packOf, publishTo, recordLength } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let door: string
beforeAll(async () => {
  // Each comes from an address of their own, through a proxy that is named.
  house = await startRelay({ proxies: ['loopback'], held: { byOne: 4, inAll: 24 } })
  door = house.door
})
afterAll(() => house.close())

const starts = (): Promise<number[]> => openStartsOf(door, house.slug)

describe('200 clients racing for 20 starts', () => {
  it('gives 20 holds, tells 180, and no server error', async () => {
    const pack = packOf(house.relay)
    const services = pack.practice.services.map((service) => ({
      ...service,
      perDay: 99,
      clearBefore: 0,
      clearAfter: 0,
    }))
    publishTo(house.relay, { ...pack, practice: { ...pack.practice, services, limits: { openRequests: 2 } } })
    const open = await starts()
    // Twenty starts that do not touch each other.
    const chosen: number[] = []
    for (const start of open) if (start - (chosen.at(-1) ?? 0) >= 2 * HOUR) chosen.push(start)
    expect(chosen.length).toBeGreaterThanOrEqual(20)
    const bodies = await Promise.all(
      Array.from({ length: 200 }, (_, i) => request(door, house.slug, chosen[i % 20]!)),
    )
    const before = recordLength(house.relay)
    const answers = await Promise.all(
      bodies.map((body, i) =>
        ask<{ link: string }>(`${door}/api/door/${house.slug}/send`, body, {
          key: freshKey(),
          from: `198.51.${Math.floor(i / 200)}.${i % 200}`,
        }),
      ),
    )
    const by = (status: number) => answers.filter((answer) => answer.status === status)
    expect([by(201).length, by(409).length]).toEqual([20, 180])
    expect(
      by(409).every(
        (answer) => answer.body.code === 'not-open' && (answer.body.openings?.starts.length ?? 0) > 0,
      ),
    ).toBe(true)
    expect(recordLength(house.relay)).toBe(before + 20)
    const held = bookingsOf(house.relay).filter(
      (booking) => booking.status === 'requested' && chosen.includes(booking.start),
    )
    expect(new Set(held.map((booking) => booking.start)).size).toBe(held.length)
  })
})
