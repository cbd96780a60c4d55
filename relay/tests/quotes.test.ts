import type { DoorReading, EnquiryNews } from '@acolhida/core/contract'
import type { Attached } from '@acolhida/core/questions'
import { DAY, HOUR, type Instant, instant } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { recordPage } from '../store/record.ts'
import { newCalled, openStartsOf } from './client.ts'
import { packOf, publishTo } from './inside.ts'
import { posted, said, startMore } from './more-questions.ts'
import { ANSWERS, ask, freshKey, freshVisit, type TestRelay } from './setup.ts'

let house: TestRelay
let api: string
beforeAll(async () => {
  house = await startMore()
  api = `${house.door}/api/door/${house.slug}`
})
afterAll(() => house.close())

const start = async (nth = 0): Promise<Instant> => instant((await openStartsOf(house.door, house.slug))[nth]!)
const mails = (address: string) => house.mailbox.received.filter((mail) => mail.to.includes(address))

/** Gives a file to the question that asks for a recording. */
const give = async (bytes: Uint8Array, change: Record<string, string> = {}) => {
  const about = new URLSearchParams({
    visit: freshVisit(),
    service: 'voice-assessment',
    question: 'recording',
    name: 'voice.mp3',
    ...change,
  })
  const response = await fetch(`${api}/files?${about}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: bytes as BodyInit,
  })
  return {
    status: response.status,
    body: (await response.json()) as Attached & { code: string; message: string },
  }
}
const sound = (size: number): Uint8Array => {
  const bytes = new Uint8Array(size)
  bytes.set([0x49, 0x44, 0x33, 4])
  return bytes
}

describe('files', () => {
  it('are taken by what they are, come with the request, and are given to the desk alone', async () => {
    const visit = freshVisit()
    const { status, body } = await give(sound(900), { visit })
    expect([status, body.type, body.size]).toEqual([201, 'sound', 900])
    const booking = await newCalled(house, {
      visit,
      start: await start(),
      answers: { ...ANSWERS, recording: body },
    })
    expect(booking.asked.answers.recording).toEqual(body)
    const fetched = await fetch(`${house.desk}/api/files/${body.file}`, {
      headers: { authorization: `Bearer ${house.key}` },
    })
    expect(new Uint8Array(await fetched.arrayBuffer())).toEqual(sound(900))
    expect(fetched.headers.get('content-type')).toBe('application/octet-stream')
    expect((await fetch(`${house.desk}/api/files/${body.file}`)).status).toBe(401)
    expect((await fetch(`${house.door}/api/files/${body.file}`)).status).toBe(404)
  })

  it.each([
    [
      'of another kind',
      () => give(new TextEncoder().encode('%PDF-1.7 hello')),
      '“voice.mp3” is a PDF; asked for is a recording (MP3, M4A, Ogg, WAV).',
    ],
    [
      'that is a program',
      () => give(Uint8Array.from([0x4d, 0x5a, 0, 3])),
      '“voice.mp3” is a kind of file that can’t be sent here.',
    ],
    ['that is too large', () => give(sound(4_097)), '“voice.mp3” has 4 KB; at most 4 KB can be sent.'],
    ['that is empty', () => give(new Uint8Array()), '“voice.mp3” is empty.'],
    [
      'to a question that asks for none',
      () => give(sound(9), { question: 'brings' }),
      'No file is asked for here.',
    ],
  ])('%s are refused beside their question', async (_, giving, message) => {
    const { status, body } = await giving()
    expect([status, body.code, body.message]).toEqual([422, 'file', message])
  })

  it('of another visit, or changed on the way, do not count as answers', async () => {
    const { body } = await give(sound(50))
    const { status, body: refused } = await ask(
      `${api}/read`,
      said({ answers: { ...ANSWERS, recording: body } }),
    )
    expect([status, refused.problems]).toEqual([
      422,
      [
        {
          question: 'recording',
          code: 'not-arrived',
          message: 'This file has not arrived. Please choose it once more.',
        },
      ],
    ])
  })
})

describe('enquiries and quotes', () => {
  const post = (path: string, body: object, key = freshKey()) =>
    ask<{ seq: number }>(`${house.desk}/api/${path}`, body, { bearer: house.key, key })
  const news = (id: string): EnquiryNews[] =>
    recordPage(house.relay.store.db, 0, house.clock.now(), 1_000)
      .items.filter((item) => item.kind === 'enquiry' && item.subject === id && 'news' in item.body)
      .map((item) => item.body as EnquiryNews)
  const person = { name: 'Dara Okoye', email: 'dara@example.org', zone: 'Europe/Lisbon' }
  const quoteBody = (change: object = {}) => ({
    enquiry: `phone-${freshVisit()}`,
    service: 'voice-assessment',
    person,
    answers: { ...ANSWERS, summary: true },
    until: house.clock.now() + 2 * DAY,
    text: 'As we said on the phone.',
    ...change,
  })

  it('are answered by mail, once', async () => {
    await ask(
      `${api}/enquire`,
      { visit: freshVisit(), name: 'Rui', email: 'rui@example.org', message: 'May I bring my dog?' },
      { key: freshKey() },
    )
    const enquiry = recordPage(house.relay.store.db, 0, house.clock.now(), 1_000)
      .items.filter((item) => item.kind === 'enquiry')
      .at(-1)!
    const key = freshKey()
    const body = { enquiry: enquiry.subject, text: 'Of course.' }
    expect((await post('enquiry', body, key)).status).toBe(200)
    await post('enquiry', body, key)
    const mail = await posted(house, 'rui@example.org')
    expect(mails('rui@example.org')).toHaveLength(1)
    expect(mail.text).toBe('Hello Rui,\n\nOf course.\n\nIria Montalvar')
    expect(news(enquiry.subject)).toMatchObject([{ news: 'answered', text: 'Of course.' }])
    expect((await post('enquiry', { enquiry: 'unknown-enquiry', text: 'x' })).body.code).toBe(
      'unknown-enquiry',
    )
    expect((await fetch(`${house.desk}/api/enquiry`, { method: 'POST' })).status).toBe(401)
  })

  it('become a quote that stands for a time, and is accepted and booked through its link', async () => {
    const body = quoteBody()
    expect((await post('quote', body)).status).toBe(201)
    expect(news(body.enquiry)[0]).toMatchObject({ news: 'quoted', quote: { price: 11_300, minutes: 75 } })
    const mail = await posted(house, 'dara@example.org')
    expect(mail.text).toContain('  Written summary: €18.00\n  Total: €113.00')
    const [, link] = /with=([A-Za-z0-9_-]+)&quote=/.exec(mail.text)!
    const with_ = { with: link!, quote: link! }
    const read = await ask<DoorReading>(`${api}/read`, said({ answers: {}, ...with_ }))
    expect(read.body).toMatchObject({
      open: true,
      price: 11_300,
      quote: { text: 'As we said on the phone.', person: { name: 'Dara Okoye' } },
    })
    const at = await start()
    const booking = await newCalled(house, { start: at, answers: {}, person, ...with_ })
    // Whoever accepts a quote has been looked at by whoever sent it: it is booked at once.
    expect(booking).toMatchObject({
      status: 'booked',
      asked: { answers: { summary: true }, reading: { quote: { price: 11_300 } } },
    })
    expect(news(body.enquiry).at(-1)).toMatchObject({ news: 'booked', booking: booking.id })
    const used = await ask(`${api}/read`, said({ answers: {}, ...with_ }))
    expect(used.body.code).toBe('quote-used')
  })

  it('stand until their moment, that moment included', async () => {
    const body = quoteBody({
      person: { ...person, email: 'late@example.org' },
      until: house.clock.now() + HOUR,
    })
    await post('quote', body)
    const [, link] = /with=([A-Za-z0-9_-]+)&quote=/.exec((await posted(house, 'late@example.org')).text)!
    const read = () => ask<DoorReading>(`${api}/read`, said({ answers: {}, with: link!, quote: link! }))
    expect((await read()).status).toBe(200)
    house.clock.forward(2 * HOUR)
    expect((await read()).body.code).toBe('quote-over')
  })

  it('reckon how far to travel, and are for no other place at a client’s', async () => {
    const pack = packOf(house.relay)
    const zone = (id: string, surcharge: number) => ({ id, name: id, surcharge, clear: 20, postalCodes: [] })
    const home = {
      id: 'home',
      kind: 'client',
      name: 'at yours',
      told: 'door',
      travel: [zone('near', 500), zone('far', 900)],
    }
    const practice = {
      ...pack.practice,
      places: [...pack.practice.places, home as never],
      services: pack.practice.services.map((service) =>
        service.id === 'voice-assessment' ? { ...service, places: [...service.places, 'home'] } : service,
      ),
    }
    publishTo(house.relay, { ...pack, practice })
    try {
      await post('quote', quoteBody({ person: { ...person, email: 'far@example.org' }, travel: 'near' }))
      const mail = await posted(house, 'far@example.org')
      expect(mail.text).toContain('  near: €5.00')
      const [, link] = /with=([A-Za-z0-9_-]+)&quote=/.exec(mail.text)!
      const openings = (travel: string) =>
        ask(
          `${api}/openings`,
          said({ answers: {}, with: link!, quote: link!, place: 'home', travel, days: 21 }),
        )
      expect((await openings('near')).status).toBe(200)
      expect((await openings('far')).body.code).toBe('travel')
    } finally {
      publishTo(house.relay, pack)
    }
  })

  it.each([
    ['for a service that is not there', { service: 'none' }, 'unknown-service'],
    ['that has ended already', { until: 5 }, 'until'],
    ['with a code that is not known', { code: 'nothing' }, 'code'],
  ])('%s are refused', async (_, change, code) => {
    expect((await post('quote', quoteBody(change))).body.code).toBe(code)
  })
})

describe('what the relay forgets of files', () => {
  it('is those that nobody sends, after a day, and the others with their request', async () => {
    const visit = freshVisit()
    const sent = await give(sound(60), { visit })
    await newCalled(house, { visit, start: await start(), answers: { ...ANSWERS, recording: sent.body } })
    const { body } = await give(sound(60))
    const { store, rounds } = house.relay
    const after = (ms: number): void => {
      house.clock.forward(ms)
      void rounds.turn()
    }
    after(DAY)
    expect(store.file(body.file)).toBeDefined()
    after(HOUR)
    expect([store.file(body.file), store.file(sent.body.file)?.name]).toEqual([undefined, 'voice.mp3'])
    after(500 * DAY)
    expect(store.file(sent.body.file)).toBeUndefined()
  })
})
