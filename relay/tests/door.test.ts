import type { DoorOpenings, DoorReading, DoorView, Kept, LinkView } from '@acolhida/core/contract'
import { MINUTE } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { behind, openStartsOf, request, sendIt } from './client.ts'
import { linkTo, packOf, publishTo } from './inside.ts'
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

/** What clients have made happen; news of the mail comes by itself. */
const recordLength = (): number =>
  (
    house.relay.store.db.prepare(`SELECT count(*) AS n FROM record WHERE kind <> 'mail'`).get() as {
      n: number
    }
  ).n
const starts = (): Promise<number[]> => openStartsOf(door, house.slug)

describe('what the door shows', () => {
  it('is what is offered, and never the rules', async () => {
    const { body } = await ask<DoorView>(api)
    expect(body.services.map((service) => service.id)).toEqual([
      'first-conversation',
      'voice-assessment',
      'reading-aloud',
    ])
    const text = JSON.stringify(body)
    for (const secret of [
      'doctor-first',
      'rules',
      'Teams need another kind',
      'Rua dos Oleiros',
      'answerTime',
    ]) {
      expect(text).not.toContain(secret)
    }
  })

  it('lets a client know only whether the way goes on', async () => {
    const { body } = await ask<DoorReading>(`${api}/read`, {
      visit: freshVisit(),
      service: 'voice-assessment',
      answers: { ...ANSWERS, price: 'parts' },
    })
    expect(body).toEqual({
      open: true,
      minutes: 75,
      price: 9_500,
      lines: [{ name: 'Voice assessment', quantity: 1, amount: 9_500 }],
      deposit: 0,
      shown: expect.any(String),
      enquiryInstead: false,
    })
    const closed = await ask<DoorReading>(`${api}/read`, {
      visit: freshVisit(),
      service: 'voice-assessment',
      answers: { ...ANSWERS, price: 'too-much' },
    })
    expect(closed.body).toMatchObject({
      open: false,
      closed: { services: [{ id: 'reading-aloud' }, { id: 'first-conversation' }], enquiry: true },
    })
  })

  it('offers no time to who does not qualify', async () => {
    const { status, body } = await ask(`${api}/openings`, {
      ...wanted(),
      days: 21,
      answers: { ...ANSWERS, price: 'too-much' },
    })
    expect([status, body.code]).toEqual([409, 'closed'])
  })

  it('lengthens by the answers', async () => {
    const short = await ask<DoorOpenings>(`${api}/openings`, { ...wanted(), days: 21 })
    const long = await ask<DoorOpenings>(`${api}/openings`, {
      ...wanted(),
      days: 21,
      answers: { ...ANSWERS, uses: ['singing'] },
    })
    expect([short.body.minutes, long.body.minutes]).toEqual([75, 90])
    expect(long.body.starts.length).toBeLessThan(short.body.starts.length)
  })

  it('shows a few well-chosen times where the practice says so, the same on every page', async () => {
    const pack = packOf(house.relay)
    const services = pack.practice.services.map((one) => ({ ...one, showAtMost: 5 }))
    publishTo(house.relay, { ...pack, practice: { ...pack.practice, services } })
    const page = (more: object) => ask<DoorOpenings>(`${api}/openings`, { ...wanted(), days: 21, ...more })
    const { body: all } = await page({ days: 62 })
    const { body: first } = await page({ days: 2 })
    publishTo(house.relay, pack)
    expect(all.starts).toHaveLength(5)
    expect(all.next).toBeUndefined()
    expect(first.next).toBeDefined()
    expect(all.starts.slice(0, first.starts.length)).toEqual(first.starts)
  })

  it('counts the seats of a group', async () => {
    const { body } = await ask<DoorOpenings>(`${api}/openings`, {
      visit: freshVisit(),
      service: 'reading-aloud',
      place: 'studio',
      answers: { 'to-whom': 'nobody', ease: 4 },
      days: 50,
    })
    expect(body.starts).toHaveLength(4)
    expect(Object.values(body.seats)).toEqual([2, 6, 6, 6])
  })
})

describe('keeping a start while one fills in', () => {
  it('lasts ten minutes, for one start at a time, and can be renewed once', async () => {
    const open = await starts()
    const first = open[0]!
    const second = open.at(-1)!
    const mine = wanted()
    const kept = await ask<Kept>(`${api}/keep`, { ...mine, start: first })
    expect(kept.body.until - kept.body.now).toBe(10 * MINUTE)
    expect((await ask(`${api}/keep`, { ...wanted(), start: first })).body.code).toBe('not-open')
    expect((await starts()).includes(first)).toBe(false)
    expect((await ask(`${api}/renew`, { visit: mine.visit })).status).toBe(200)
    expect((await ask(`${api}/renew`, { visit: mine.visit })).body.code).toBe('renewed-already')
    await ask(`${api}/keep`, { ...mine, start: second })
    expect((await starts()).includes(first)).toBe(true)
    await ask(`${api}/unkeep`, { visit: mine.visit })
    expect((await starts()).includes(second)).toBe(true)
    expect((await ask(`${api}/renew`, { visit: mine.visit })).body.code).toBe('not-kept')
  })
})

describe('sending a request', () => {
  it('holds the start, begins a record and gives a private link', async () => {
    const [start] = (await starts()) as [number]
    const sent = await sendIt(door, house.slug, await request(door, house.slug, start))
    expect(sent.status).toBe(201)
    expect(Buffer.from(sent.body.link, 'base64url')).toHaveLength(32)
    expect((await starts()).includes(start)).toBe(false)
    const { body } = await ask<LinkView>(`${door}/api/link/${sent.body.link}`)
    expect(body).toMatchObject({ state: 'unproved', mailProved: false, start })
    expect(body.address).toBeUndefined()
    const proving = await ask<LinkView>(`${door}/api/link/${sent.body.link}/prove`, {}, { key: freshKey() })
    expect(proving.body.mailProved).toBe(false)
  })

  it('says the same thing once, however often it is sent', async () => {
    const [start] = (await starts()) as [number]
    const body = await request(door, house.slug, start)
    const key = freshKey()
    const before = recordLength()
    const answers = await Promise.all([1, 2, 3].map(() => sendIt(door, house.slug, body, key)))
    expect(new Set(answers.map((one) => one.body.link)).size).toBe(1)
    expect(recordLength()).toBe(before + 1)
    // Whoever tries again does so a little later, by their clock, too.
    const later = await sendIt(door, house.slug, { ...body, clock: body.clock + 5_000 }, key)
    expect(later.body.link).toBe(answers[0]!.body.link)
    const other = await sendIt(door, house.slug, { ...body, start: start + 1 }, key)
    expect([other.status, other.body.code]).toEqual([422, 'key-reused'])
  })

  it('keeps no secret in plain sight', async () => {
    const [start] = (await starts()) as [number]
    const { body } = await sendIt(door, house.slug, await request(door, house.slug, start))
    const dump =
      JSON.stringify(house.relay.store.db.prepare('SELECT * FROM links').all()) +
      house.relay.store.setting('desk-key')
    expect(dump).not.toContain(body.link)
    expect(dump).not.toContain(house.key)
  })
})

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
    [
      'missing answers',
      async (start) => sendIt(door, house.slug, await request(door, house.slug, start, { answers: {} })),
      422,
      'answers',
    ],
    [
      'answers that do not qualify',
      async (start) =>
        sendIt(
          door,
          house.slug,
          await request(door, house.slug, start, { answers: { ...ANSWERS, price: 'too-much' } }),
        ),
      409,
      'closed',
    ],
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
    [
      'no agreement',
      async (start) => sendIt(door, house.slug, await request(door, house.slug, start, { agreed: [] })),
      422,
      'not-agreed',
    ],
    [
      'an old version of the terms',
      async (start) => {
        const body = await request(door, house.slug, start)
        return sendIt(door, house.slug, {
          ...body,
          agreed: body.agreed.map((one) => ({ ...one, number: 2 })),
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
      async (start) =>
        sendIt(
          door,
          house.slug,
          await request(door, house.slug, start, {
            person: { name: '<b>A</b>', email: 'a@example.org', zone: 'UTC' },
          }),
        ),
      400,
      'malformed',
    ],
    [
      'HTML in an answer',
      async (start) =>
        sendIt(
          door,
          house.slug,
          await request(door, house.slug, start, {
            answers: { ...ANSWERS, brings: '<img src=x onerror=alert(1)> and four more words' },
          }),
        ),
      422,
      'answers',
    ],
    [
      'a name of two lines',
      async (start) =>
        sendIt(
          door,
          house.slug,
          await request(door, house.slug, start, {
            person: { name: 'A\nB', email: 'a@example.org', zone: 'UTC' },
          }),
        ),
      400,
      'malformed',
    ],
    [
      'a zone that is none',
      async (start) =>
        sendIt(
          door,
          house.slug,
          await request(door, house.slug, start, {
            person: { name: 'A', email: 'a@example.org', zone: 'Mars/Olympus' },
          }),
        ),
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
    const before = recordLength()
    const answer = await work(start)
    expect([answer.status, answer.body.code]).toEqual([status, code])
    expect(answer.body.message).toMatch(/^[A-Z“a-z].+[.!]?$/)
    expect(recordLength()).toBe(before)
  })

  it('a service switched off meanwhile', async () => {
    const [start] = (await starts()) as [number]
    const body = await request(door, house.slug, start)
    const pack = packOf(house.relay)
    const off = { ...pack.practice, services: pack.practice.services.map((one) => ({ ...one, on: false })) }
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
    const [first, second, third] = [await sent(3), await sent(4, 'many@EXAMPLE.org'), await sent(5)]
    expect((await proved(first)).body.state).toBe('waiting')
    expect((await proved(second)).body.state).toBe('waiting')
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
    expect(answers.filter((one) => one.status === 429)).toHaveLength(3)
    expect(answers.find((one) => one.status === 429)?.body.code).toBe('too-many')
  })
})
