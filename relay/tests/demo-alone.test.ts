import { request as call } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { StandinCalendar } from '../standins/calendar.ts'
import { startLetterbox } from '../standins/letterbox.ts'
import { startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let letterbox: Awaited<ReturnType<typeof startLetterbox>>
beforeAll(async () => {
  house = await startRelay()
  const { mailbox, clock } = house
  letterbox = await startLetterbox({ mailbox }, clock, new StandinCalendar(clock.now()), () => undefined)
})
afterAll(async () => {
  letterbox.server.close()
  letterbox.server.closeAllConnections()
  await house.close()
})

/** Asks under a name, and as a page from somewhere; `fetch` would say its own. */
function ask(url: string, headers: Record<string, string>, method = 'GET', body = ''): Promise<number> {
  return new Promise((resolve, reject) => {
    const { hostname, port, pathname } = new URL(url)
    const asking = call({ hostname, port, path: pathname, method, headers }, (answer) => {
      answer.resume()
      answer.on('end', () => resolve(answer.statusCode ?? 0))
    })
    asking.on('error', reject)
    asking.end(body)
  })
}

describe('the demo', () => {
  it.each(['door', 'desk', 'letterbox'] as const)('answers no page from elsewhere: its %s', async (which) => {
    const url = which === 'letterbox' ? letterbox.url : house[which]
    const { port } = new URL(url)
    expect(await ask(`${url}/`, { host: `localhost:${port}` })).toBeLessThan(405)
    expect(await ask(`${url}/`, { host: `127.0.0.1:${port}` })).toBeLessThan(405)
    // A foreign name that leads here (DNS rebinding), and a foreign page that asks in one’s own name.
    expect(await ask(`${url}/`, { host: `evil.example:${port}` })).toBe(421)
    expect(await ask(`${url}/`, { host: `localhost:${port}`, origin: 'https://evil.example' })).toBe(421)
    const own = { host: `localhost:${port}`, origin: 'null' }
    expect(await ask(`${url}/`, own)).toBe(421)
    expect(await ask(`${url}/`, { ...own, 'sec-fetch-site': 'cross-site' })).toBe(421)
    expect(await ask(`${url}/`, { ...own, 'sec-fetch-site': 'same-origin' })).toBeLessThan(405)
    expect(
      await ask(`${url}/`, { host: `localhost:${port}`, origin: `http://localhost:${port}` }),
    ).toBeLessThan(405)
  })

  it('lets no foreign page move its clock', async () => {
    const before = house.clock.now()
    const { port } = new URL(letterbox.url)
    const headers = { host: `localhost:${port}`, 'content-type': 'application/x-www-form-urlencoded' }
    const foreign = { ...headers, origin: 'https://evil.example' }
    expect(await ask(`${letterbox.url}/clock`, foreign, 'POST', 'forward=86400000')).toBe(421)
    expect(house.clock.now()).toBe(before)
  })

  it('makes no code over the net for whoever has none', async () => {
    expect((await fetch(`${house.desk}/api/demo/code`)).status).toBe(404)
    expect((await fetch(`${house.desk}/api/code`, { method: 'POST', body: '{}' })).status).toBe(401)
  })
})
