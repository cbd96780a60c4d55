import type { LinkView } from '@acolhida/core/contract'
import { MINUTE } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { behind, openStartsOf, request, sendIt } from './client.ts'
import { linkTo, packOf, publishTo, recordLength } from './inside.ts'
import { ANSWERS, ask, freshKey, freshVisit, startRelay, type TestRelay, wanted } from './setup.ts'

let house: TestRelay
let door: string
let api: string
beforeAll(async () => {
  house = await startRelay()
  door = house.door
  api = `${door}/api/door/${house.slug}`
})
afterAll(() => house.close())

const starts = (): Promise<number[]> => openStartsOf(door, house.slug)

/** A request like any other, but for this. */
const asking =
  (parts: Parameters<typeof request>[3]) =>
  async (start: number): ReturnType<typeof sendIt> =>
    sendIt(door, house.slug, await request(door, house.slug, start, parts))

describe('what is turned away', () => {
  const cases: [
    string,
    (start: number) => Promise<{ status: number; body: { code?: string; message?: string; where?: string } }>,
    number,
    string,
  ][] = [
    [
      'a body that is no JSON',
      () => ask(`${api}/send`, undefined, { raw: '{', key: freshKey() }),
      400,
      'malformed',
    ],
    [
      'a body that is too large',
      () => ask(`${api}/send`, { x: 'y'.repeat(300_000) }, { key: freshKey() }),
      413,
      'too-large',
    ],
    [
      'a body of the wrong shape',
      () => ask(`${api}/send`, { visit: 1 }, { key: freshKey() }),
      400,
      'malformed',
    ],
    [
      'a request without a key',
      async (start) => ask(`${api}/send`, await request(door, house.slug, start)),
      400,
      'no-key',
    ],
    ['an unknown slug', () => ask(`${door}/api/door/nobody`), 404, 'unknown-door'],
    ['an unknown link', () => ask(`${door}/api/link/AAAAAAAAAAAAAAAAAAAAAA`), 404, 'unknown-link'],
    ['an unknown path', () => ask(`${door}/api/nothing`), 404, 'unknown'],
    [
      'an unknown act',
      async () => ask(`${door}/api/link/AAAAAAAAAAAAAAAAAAAAAA/explode`, {}, { key: freshKey() }),
      404,
      'unknown',
    ],
    [
      'an unknown service',
      () => ask(`${api}/read`, { visit: freshVisit(), service: 'none', answers: {} }),
      404,
      'unknown-service',
    ],
    [
      'an unknown place',
      () => ask(`${api}/openings`, { ...wanted(), days: 21, place: 'moon' }),
      422,
      'unknown-place',
    ],
    ['missing answers', asking({ answers: {} }), 422, 'answers'],
    ['answers that do not qualify', asking({ answers: { ...ANSWERS, price: 'too-much' } }), 409, 'closed'],
    [
      'a start that is no opening',
      async (start) => sendIt(door, house.slug, await request(door, house.slug, start + MINUTE)),
      409,
      'not-open',
    ],
    [
      'a start in the past',
      async () => sendIt(door, house.slug, await request(door, house.slug, 1_000)),
      409,
      'not-open',
    ],
    ['no agreement', asking({ agreed: [] }), 422, 'not-agreed'],
    [
      'an old version of the terms',
      async (start) => {
        const body = await request(door, house.slug, start)
        return sendIt(door, house.slug, {
          ...body,
          agreed: body.agreed.map((agreed) => ({ ...agreed, number: 2 })),
        })
      },
      409,
      'terms-changed',
    ],
    [
      'a clock that differs',
      async (start) => {
        const body = await request(door, house.slug, start)
        return sendIt(door, house.slug, { ...body, clock: body.clock - 2 * MINUTE })
      },
      409,
      'clock-differs',
    ],
    [
      'HTML in a name',
      asking({
        person: { name: '<b>A</b>', email: 'a@example.org', zone: 'UTC' },
      }),
      400,
      'malformed',
    ],
    [
      'HTML in an answer',
      asking({
        answers: { ...ANSWERS, brings: '<img src=x onerror=alert(1)> and four more words' },
      }),
      422,
      'answers',
    ],
    [
      'a name of two lines',
      asking({
        person: { name: 'A\nB', email: 'a@example.org', zone: 'UTC' },
      }),
      400,
      'malformed',
    ],
    [
      'a zone that is none',
      asking({
        person: { name: 'A', email: 'a@example.org', zone: 'Mars/Olympus' },
      }),
      400,
      'malformed',
    ],
    [
      'an enquiry without a message',
      () =>
        ask(
          `${api}/enquire`,
          { visit: freshVisit(), name: 'A', email: 'a@example.org', message: ' ' },
          { key: freshKey() },
        ),
      400,
      'malformed',
    ],
  ]
  it.each(cases)('%s: a code and a sentence, and nothing stored', async (_, work, status, code) => {
    const [start] = (await starts()) as [number]
    const before = recordLength(house.relay)
    const answer = await work(start)
    expect([answer.status, answer.body.code]).toEqual([status, code])
    expect(answer.body.message).toMatch(/^[A-Z“a-z].+[.!]?$/)
    expect(recordLength(house.relay)).toBe(before)
  })

  it('a service switched off meanwhile', async () => {
    const [start] = (await starts()) as [number]
    const body = await request(door, house.slug, start)
    const pack = packOf(house.relay)
    const off = {
      ...pack.practice,
      services: pack.practice.services.map((service) => ({ ...service, on: false })),
    }
    publishTo(house.relay, { ...pack, practice: off })
    const answer = await sendIt(door, house.slug, body)
    publishTo(house.relay, pack)
    expect([answer.status, answer.body.code]).toEqual([409, 'service-off'])
  })

  it('more open requests than the practice allows, until one of them is withdrawn', async () => {
    const open = await starts()
    const person = { name: 'Many', email: 'Many@example.org', zone: 'UTC' }
    // The assessment is limited to two a day: take starts of three days.
    const days = [
      ...new Map(open.map((start) => [Math.floor(start / 86_400_000), start])).values(),
    ] as number[]
    const sent = async (day: number, email = person.email) => {
      const body = await request(door, house.slug, days[day]!, { person: { ...person, email } })
      return (await sendIt(door, house.slug, body)).body.link
    }
    const proved = async (link: string) => {
      const secret = linkTo(house.relay, behind(house.relay, link).id)
      return ask<LinkView>(`${door}/api/link/${secret}/prove`, {}, { key: freshKey() })
    }
    // Anybody can type an address: how many it has open counts once it has proved true.
    const first = await sent(3)
    expect((await proved(first)).body.state).toBe('waiting')
    const second = await sent(4, 'many+other@EXAMPLE.org')
    expect((await proved(second)).body.state).toBe('waiting')
    const third = await sent(5)
    const refused = await proved(third)
    expect([refused.status, refused.body.code]).toEqual([409, 'too-many-open'])
    await ask(`${door}/api/link/${first}/withdraw`, {}, { key: freshKey() })
    expect((await proved(third)).body.state).toBe('waiting')
  })

  it('too many requests from one address', async () => {
    const small = await startRelay({ requestsPerMinute: 5 })
    const answers = await Promise.all(
      Array.from({ length: 8 }, () => ask(`${small.door}/api/door/${small.slug}`)),
    )
    await small.close()
    expect(answers.filter((answer) => answer.status === 429)).toHaveLength(3)
    expect(answers.find((answer) => answer.status === 429)?.body.code).toBe('too-many')
  })
})
