import type { DoorOpenings, DoorView, Kept, LinkView } from '@acolhida/core/contract'
import { DAY, HOUR } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { request } from './client.ts'
import { type Answer, ask, freshKey, freshVisit, startRelay, type TestRelay, wanted } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
})
afterEach(() => house.close())

const ORIGIN = 'http://localhost:4181'

async function open(body: object, bearer = house.key): Promise<Answer<{ url: string; until: number }>> {
  const response = await fetch(`${house.desk}/api/trial`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${bearer}`, origin: ORIGIN },
    body: JSON.stringify(body),
  })
  return { status: response.status, body: await response.json() }
}
const slugOf = (url: string): string => url.split('/').at(-1)!
/** Everything the relay's own file holds, but for the clock of the demo. */
const trace = (): string =>
  ['record', 'links', 'attempts', 'keeps', 'done', 'answered', 'messages', 'agenda', 'bookings', 'settings']
    .map((table) => JSON.stringify(house.relay.store.db.prepare(`SELECT * FROM ${table}`).all()))
    .join('\n')

describe('a door to try', () => {
  it('is opened by the desk alone', async () => {
    expect((await open({ as: 'new' }, 'x'.repeat(30))).status).toBe(401)
    expect((await open({ as: 'somebody' })).status).toBe(400)
    expect((await open({ as: 'new' })).status).toBe(201)
    expect((await ask(`${house.door}/api/door/try_nothing`)).body.code).toBe('trial-over')
  })

  it('shows what the door shows, and lets everything be done without a trace', async () => {
    const before = trace()
    const { url } = (await open({ as: 'new' })).body
    const slug = slugOf(url)
    const { body: view } = await ask<DoorView>(`${house.door}/api/door/${slug}`)
    expect(view.trial).toEqual({ as: 'new' })
    const { body: real } = await ask<DoorView>(`${house.door}/api/door/${house.slug}`)
    expect(view.services).toEqual(real.services)

    const visit = freshVisit()
    const api = `${house.door}/api/door/${slug}`
    const times = (await ask<DoorOpenings>(`${api}/openings`, { ...wanted(visit), days: 30 })).body
    const theirs = (
      await ask<DoorOpenings>(`${house.door}/api/door/${house.slug}/openings`, { ...wanted(), days: 30 })
    ).body
    expect(times.starts).toEqual(theirs.starts)
    const start = times.starts[2]!
    expect((await ask<Kept>(`${api}/keep`, { ...wanted(visit), start })).status).toBe(200)
    const body = await request(house.door, slug, start, { visit })
    const sent = await ask<{ link: string }>(`${api}/send`, body, { key: freshKey() })
    expect(sent.status).toBe(201)
    const { body: my } = await ask<LinkView>(`${house.door}/api/link/${sent.body.link}`)
    expect(my).toMatchObject({ slug, state: 'waiting', start })
    const withdrawn = await ask<LinkView>(
      `${house.door}/api/link/${sent.body.link}/withdraw`,
      {},
      { key: freshKey() },
    )
    expect(withdrawn.body.state).toBe('withdrawn')
    await house.relay.rounds.turn()
    expect(trace()).toBe(before)
    expect(house.mailbox.received).toEqual([])
    // The start was never taken for anybody else.
    const after = await ask<DoorOpenings>(`${house.door}/api/door/${house.slug}/openings`, {
      ...wanted(),
      days: 30,
    })
    expect(after.body.starts).toContain(start)
  })

  it('is entered as somebody known, who is invited to everything and booked by their rules', async () => {
    const { url } = (await open({ as: 'known' })).body
    const slug = slugOf(url)
    const { body: view } = await ask<DoorView>(`${house.door}/api/door/${slug}`)
    expect(view.services.map((service) => service.id)).toContain('coaching')
    const visit = freshVisit()
    const api = `${house.door}/api/door/${slug}`
    const want = { visit, service: 'coaching', place: 'video', answers: {} }
    const { body: times } = await ask<DoorOpenings>(`${api}/openings`, { ...want, days: 30 })
    const start = times.starts[0]!
    const { body: kept } = await ask<Kept>(`${api}/keep`, { ...want, start })
    const body = await request(house.door, slug, start, { ...want, shown: kept.shown })
    const service = view.services.find((service) => service.id === 'coaching')!
    const agreed = service.terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint }))
    const sent = await ask<{ link: string }>(`${api}/send`, { ...body, agreed }, { key: freshKey() })
    // Known people go straight in to a coaching session.
    const { body: my } = await ask<LinkView>(`${house.door}/api/link/${sent.body.link}`)
    expect(my.state).toBe('booked')
  })

  it('follows the clock one has set', async () => {
    const at = house.clock.now() + 5 * DAY
    const { url } = (await open({ as: 'new', at })).body
    const response = await fetch(`${house.door}/api/door/${slugOf(url)}`)
    expect(Math.abs(Number(response.headers.get('x-relay-now')) - at)).toBeLessThan(5_000)
    const { body: times } = await ask<DoorOpenings>(`${house.door}/api/door/${slugOf(url)}/openings`, {
      ...wanted(),
      days: 30,
    })
    // The notice of an assessment is a day.
    expect(times.starts[0]).toBeGreaterThanOrEqual(at + DAY - 60_000)
  })

  it('knows nobody’s name', async () => {
    const { url } = (await open({ as: 'new' })).body
    const { house: tried } = house.relay.trials.of(slugOf(url))!.here.keeper
    expect(JSON.stringify(tried.pack)).not.toMatch(/Arrais|Amara|@example\.org/)
    expect([...tried.openBookings()]).toEqual([])
  })

  it('ends after an hour, and when four others have been opened', async () => {
    const first = slugOf((await open({ as: 'new' })).body.url)
    house.clock.forward(HOUR + 1_000)
    expect((await ask(`${house.door}/api/door/${first}`)).body.code).toBe('trial-over')
    const slugs: string[] = []
    for (let i = 0; i < 5; i++) slugs.push(slugOf((await open({ as: 'new' })).body.url))
    const codes = await Promise.all(
      slugs.map(async (slug) => (await ask(`${house.door}/api/door/${slug}`)).status),
    )
    expect(codes).toEqual([404, 200, 200, 200, 200])
  })
})
