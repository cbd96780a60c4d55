import { away, desk, door, type Endpoint } from '@acolhida/core/contract'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { freshKey, startRelay, type TestRelay, wanted } from './setup.ts'

/** How many malformed requests are tried; 100,000 in the soak. */
const TRIES = Number(process.env.MALFORMED ?? 3_000)

let house: TestRelay
beforeAll(async () => {
  // Answers that are put off take none of the test's time.
  house = await startRelay({ wait: async () => undefined })
})
afterAll(() => house.close())

const HOSTILE = [
  ...[
    '',
    ' ',
    '\u0000',
    '\ud800',
    '\u202e',
    '{link}',
    '../../etc/passwd',
    '%00',
    '%ff',
    "'; DROP TABLE record;--",
  ],
  ...[
    '<script>',
    '__proto__',
    'constructor',
    'toString',
    '9'.repeat(400),
    'a'.repeat(70_000),
    '\u00ad@\u00ad.x',
  ],
  ...['2026-02-31', '0000-00-00', '9999-99-99', '2026-13-01', '-1', '1e999', 'NaN', '٢٠٢٦-٠١-٠١'],
]

const deep = (open: string, close: string, n: number): string => open.repeat(n) + close.repeat(n)

const text = fc.oneof(fc.constantFrom(...HOSTILE), fc.string({ unit: 'binary', maxLength: 40 }))
const value: fc.Arbitrary<unknown> = fc.oneof(
  text,
  fc.constantFrom(null, true, false, 0, -1, 1.5, 1e308, -1e308, 2 ** 53, 8_640_000_000_000_001, [], {}),
  fc.array(text, { maxLength: 5 }),
  fc.dictionary(text, text, { maxKeys: 5 }),
  fc.jsonValue({ maxDepth: 4 }),
)

type Any = Endpoint<unknown, unknown>
const ENDPOINTS = [
  ...Object.values(door).map((endpoint) => ({ endpoint: endpoint as Any, at: 'door' as const })),
  ...[...Object.values(desk), ...Object.values(away)].map((endpoint) => ({
    endpoint: endpoint as Any,
    at: 'desk' as const,
  })),
]

/** What could be meant, as far as one can do harm with a part of it. */
const base = (): Record<string, unknown> => ({
  ...wanted(),
  ...{
    place: 'video',
    start: 1_795_000_000_000,
    days: 7,
    from: '2026-12-01',
    shown: 'a'.repeat(64),
    text: 'x',
  },
  ...{
    clock: house.relay.here.now(),
    agreed: [],
    windows: [],
    name: 'A',
    email: 'a@example.org',
    message: 'm',
  },
  person: { name: 'A', email: 'a@example.org', zone: 'Europe/Lisbon' },
  ...{ booking: 'some-booking', command: { do: 'welcome', text: '' }, upTo: 'brings', language: 'en' },
})

const body = fc.oneof(
  value.map((one) => JSON.stringify(one) ?? ''),
  fc.tuple(fc.nat(30), value).map(([n, one]) => {
    const whole = base()
    const name = Object.keys(whole)[n % Object.keys(whole).length]!
    return JSON.stringify({ ...whole, [name]: one })
  }),
  fc.constantFrom(
    ...['{', '[1,', '{"a":}', '\u0000', 'null', '"', deep('[', ']', 5_000), deep('{"a":', '}', 5_000)],
    `{"answers":${deep('[', ']', 2_000)}}`,
    `{"answers":${'{"a":'.repeat(2_000)}1${'}'.repeat(2_000)}}`,
    '{"__proto__":{"admin":true},"visit":"aaaaaaaaaaaaaaaa"}',
  ),
)

describe('whatever is sent', () => {
  it(`is answered without a fault of the relay’s own, ${TRIES} times`, { timeout: 7_200_000 }, async () => {
    const statuses = new Map<number, number>()
    const broken: string[] = []
    const one = async (
      n: number,
      content: string,
      segment: string,
      query: string,
      type: string,
    ): Promise<void> => {
      const { endpoint, at } = ENDPOINTS[n % ENDPOINTS.length]!
      const safe = (typed: string): string => encodeURIComponent(typed.replace(/\p{Cs}/gu, ''))
      const path = endpoint.path
        .replace(':slug', n % 3 ? house.slug : safe(segment) || 'x')
        .replace(/:(?:secret|id)/, safe(segment) || 'x')
      const url = `${at === 'door' ? house.door : house.desk}${path}${n % 4 ? '' : `?with=${safe(query)}&after=${safe(query)}&booking=${safe(query)}`}`
      const { method } = endpoint
      const answer = await fetch(url, {
        method,
        headers: {
          ...(method === 'GET' ? {} : { 'content-type': type }),
          'idempotency-key': freshKey(),
          ...(at === 'desk' && n % 5 ? { authorization: `Bearer ${house.key}` } : {}),
        },
        ...(method === 'GET' ? {} : { body: content }),
      })
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1)
      await answer.arrayBuffer()
      if (answer.status >= 500)
        broken.push(`${answer.status} ${method} ${url.slice(0, 200)} ${content.slice(0, 300)}`)
    }
    await fc.assert(
      fc.asyncProperty(
        fc.nat(1_000_000),
        body,
        text,
        text,
        fc.constantFrom(
          'application/json',
          'application/json; charset=utf-16',
          'text/plain',
          'application/x-www-form-urlencoded',
        ),
        async (n, content, segment, query, type) => {
          await one(n, content, segment, query, n % 7 ? 'application/json' : type)
          expect(broken).toEqual([])
        },
      ),
      { numRuns: TRIES, endOnFailure: true },
    )
    // It was let in sometimes, and refused mostly, or nothing was tried.
    expect(statuses.get(400) ?? 0).toBeGreaterThan(TRIES / 20)
    expect([...statuses.keys()].filter((status) => status >= 500)).toEqual([])
  })
})
