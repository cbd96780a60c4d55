import type { BookingEvent } from '@acolhida/core/booking'
import type { DoorQuote, DoorReading, DoorView, Enquiry, EnquiryNews, LinkView } from '@acolhida/core/door'
import type { Practice } from '@acolhida/core/practice'
import type { Attached, Question } from '@acolhida/core/questions'
import { DAY, HOUR } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newCalled, openStartsOf, request, sendIt } from './client.ts'
import { ANSWERS, ask, freshKey, freshVisit, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let api: string
beforeAll(async () => {
  house = await startRelay()
  api = `${house.door}/api/door/${house.slug}`
  const { store } = house.relay
  const pack = store.package!
  store.act(() => store.savePackage({ ...pack, practice: withMore(pack.practice) }))
})
afterAll(() => house.close())

/** The demo with a recording to send, a private question, answers that may be read again, and price codes. */
function withMore(practice: Practice): Practice {
  const more: Question[] = [
    { id: 'part', kind: 'section', text: 'Two more things', required: false },
    {
      id: 'recording',
      kind: 'file',
      text: 'A recording?',
      required: false,
      accepts: ['sound'],
      mostBytes: 4_096,
    },
    { id: 'ill', kind: 'yesno', text: 'Are you ill?', required: false, private: true },
    { id: 'since', kind: 'short', text: 'What is new since?', required: true, when: { person: 'known' } },
    {
      id: 'mood',
      kind: 'one',
      text: 'How are you?',
      required: false,
      shownAgain: true,
      choices: [{ id: 'well', text: 'Well', points: 7 }],
    },
  ]
  return {
    ...practice,
    questionnaires: practice.questionnaires.map((one) =>
      one.id === 'voice-questions' ? { ...one, questions: [...one.questions, ...more] } : one,
    ),
    codes: [
      { id: 'once', code: 'ONCE', off: { kind: 'share', percent: 100 }, uses: 1 },
      { id: 'ten', code: 'TEN', off: { kind: 'amount', amount: 1_000 }, services: ['voice-assessment'] },
      { id: 'own', code: 'OWN', off: { kind: 'amount', amount: 500 }, people: ['nobody'] },
    ],
  }
}

const said = (change: object = {}) => ({
  visit: freshVisit(),
  service: 'voice-assessment',
  answers: ANSWERS,
  ...change,
})
const asked = (id: string): Extract<BookingEvent, { type: 'asked' }> => house.relay.store.booking(id)!.asked
const start = async (nth = 0): Promise<number> => (await openStartsOf(house.door, house.slug))[nth]!
const mails = (address: string) => house.mailbox.received.filter((mail) => mail.to.includes(address))
const posted = async (address: string) => {
  house.relay.rounds.turn()
  for (let i = 0; i < 200 && mails(address).length === 0; i++)
    await new Promise((done) => setTimeout(done, 20))
  return mails(address).at(-1)!
}

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

describe('what a client’s browser gets of questions', () => {
  it('is no points, no rules and no codes, only that there are some', async () => {
    const { body } = await ask<DoorView>(api)
    const text = JSON.stringify(body)
    expect(text).not.toMatch(/points|ONCE|"rules"/)
    expect(body.services.find((one) => one.id === 'voice-assessment')!.codes).toBe(true)
  })
})

describe('length and price while one answers', () => {
  const quote = async (change: object) => (await ask<DoorQuote>(`${api}/quote`, said(change))).body

  it('follow from the answers so far; what is missing or wrong is left out, and nothing is remembered', async () => {
    expect(await quote({ answers: {} })).toMatchObject({ minutes: 75, price: 9_500 })
    expect(await quote({ answers: { uses: ['singing'], summary: true } })).toMatchObject({
      minutes: 90,
      price: 11_300,
      lines: [{ name: 'Voice assessment' }, { name: 'Written summary', amount: 1_800 }],
    })
    expect(await quote({ answers: { uses: ['nonsense'], summary: true } })).toMatchObject({
      minutes: 75,
      price: 11_300,
    })
    const visit = freshVisit()
    await ask(`${api}/quote`, said({ visit, answers: { price: 'too-much' } }))
    expect(house.relay.store.attempts(visit)).toEqual([])
  })

  it('do not tell whether the way is closed', async () => {
    expect(Object.keys(await quote({ answers: { ...ANSWERS, price: 'too-much' } })).sort()).toEqual([
      'lines',
      'minutes',
      'price',
    ])
  })

  it('take a code, or say why not', async () => {
    expect(await quote({ code: ' ten ' })).toMatchObject({ price: 8_500 })
    expect(await quote({ code: 'nothing' })).toMatchObject({
      price: 9_500,
      codeProblem: 'This code is not known here. Please look at it once more.',
    })
    // Whose code it is can be told only once somebody has said who they are.
    expect(await quote({ code: 'OWN' })).toMatchObject({ price: 9_000 })
  })
})

describe('price codes', () => {
  it('go with the request, count once, and are looked at again on sending', async () => {
    const booking = await newCalled(house, { start: await start(), code: 'once' })
    expect(booking.asked).toMatchObject({ code: 'once', reading: { quote: { price: 0 } } })
    const { status, body } = await sendIt(
      house.door,
      house.slug,
      await request(house.door, house.slug, await start(1), { code: 'ONCE' }),
    )
    expect([status, body.code, body.message]).toEqual([422, 'code', 'This code has been used up.'])
    const other = await sendIt(
      house.door,
      house.slug,
      await request(house.door, house.slug, await start(1), { code: 'OWN' }),
    )
    expect(other.body.message).toBe('This code is for somebody else.')
    // Withdrawn, it can be used again.
    const { store } = house.relay
    const secret = store.act(() => store.addLink(booking.id, false))
    await ask(`${house.door}/api/link/${secret}/withdraw`, {}, { key: freshKey() })
    const again = await newCalled(house, { start: await start(1), code: 'ONCE' })
    expect(again.asked.code).toBe('once')
  })
})

describe('private answers', () => {
  it('reach the desk with the request, and are in no attempt, no mail and no page of the door', async () => {
    const visit = freshVisit()
    await ask(`${api}/read`, said({ visit, answers: { ...ANSWERS, price: 'parts', ill: true } }))
    const booking = await newCalled(house, {
      visit,
      start: await start(),
      answers: { ...ANSWERS, ill: true, mood: 'well' },
    })
    expect(asked(booking.id).answers.ill).toBe(true)
    expect(booking.asked.attempts).toHaveLength(1)
    expect(booking.asked.attempts[0]!.answers).not.toHaveProperty('ill')
    const mail = await posted(booking.asked.person.email)
    const secret = /\/my\/([A-Za-z0-9_-]+)/.exec(mail.text)![1]!
    expect(mail.text).not.toContain('ill')
    const { body } = await ask<LinkView>(`${house.door}/api/link/${secret}`)
    expect(body.answers).toEqual([{ question: expect.objectContaining({ id: 'mood' }), answer: 'well' }])
    expect(JSON.stringify(body)).not.toMatch(/"ill"|points/)
  })

  it('must come sealed where the desk has given its key, and are not missed before the request', async () => {
    const { store } = house.relay
    const pack = store.package!
    const must = (one: Question): Question => (one.id === 'ill' ? { ...one, required: true } : one)
    const practice = {
      ...pack.practice,
      questionnaires: pack.practice.questionnaires.map((one) => ({
        ...one,
        questions: one.questions.map(must),
      })),
    }
    const key = { kty: 'EC', crv: 'P-256', x: 'x'.repeat(43), y: 'y'.repeat(43) } as const
    store.act(() => store.savePackage({ ...pack, practice, seal: key }))
    try {
      expect((await ask<DoorView>(api)).body.seal).toEqual(key)
      expect((await ask(`${api}/read`, said())).status).toBe(200)
      const send = async (ill: unknown) =>
        sendIt(
          house.door,
          house.slug,
          await request(house.door, house.slug, await start(2), {
            answers: { ...ANSWERS, ...(ill === undefined ? {} : { ill }) } as never,
          }),
        )
      expect((await send(undefined)).body.problems).toEqual([
        { question: 'ill', message: 'Please answer this one.' },
      ])
      expect((await send(true)).body.problems?.[0]?.message).toContain('must come sealed')
      const sealed = { sealed: 'aGVhZA..aXY.dGV4dA.dGFn' }
      const { status, body } = await send(sealed)
      expect(status).toBe(201)
      const { booking } = store.link(body.link)!
      expect(asked(booking).answers.ill).toEqual(sealed)
      expect((await send({ sealed: 'not sealed' })).body.code).toBe('malformed')
    } finally {
      store.act(() => store.savePackage(pack))
    }
  })

  it('do not go along with a message instead of a booking', async () => {
    await ask(
      `${api}/enquire`,
      {
        visit: freshVisit(),
        service: 'voice-assessment',
        name: 'Ana',
        email: 'ana@example.org',
        message: 'Hello',
        answers: { ill: true, strain: 3 },
      },
      { key: freshKey() },
    )
    const [item] = house.relay.store
      .recordAfter(0, 1_000)
      .filter((one) => one.kind === 'enquiry')
      .slice(-1)
    expect((item!.body as Enquiry).answers).toEqual({ strain: 3 })
  })
})

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
      '“voice.mp3” is of a kind that can not be sent here.',
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
      [{ question: 'recording', message: 'This file has not arrived. Please choose it once more.' }],
    ])
  })
})

describe('enquiries and quotes', () => {
  const post = (path: string, body: object, key = freshKey()) =>
    ask<{ seq: number }>(`${house.desk}/api/${path}`, body, { bearer: house.key, key })
  const news = (id: string): EnquiryNews[] =>
    house.relay.store
      .recordAfter(0, 1_000)
      .filter((one) => one.kind === 'enquiry' && one.subject === id && 'news' in one.body)
      .map((one) => one.body as EnquiryNews)
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
    const enquiry = house.relay.store
      .recordAfter(0, 1_000)
      .filter((one) => one.kind === 'enquiry')
      .at(-1)!
    const key = freshKey()
    const body = { enquiry: enquiry.subject, text: 'Of course.' }
    expect((await post('enquiry', body, key)).status).toBe(200)
    await post('enquiry', body, key)
    const mail = await posted('rui@example.org')
    expect(mails('rui@example.org')).toHaveLength(1)
    expect(mail.text).toBe('Hello Rui,\n\nOf course.\n\nIria Montalvar\n')
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
    const mail = await posted('dara@example.org')
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
    const [, link] = /with=([A-Za-z0-9_-]+)&quote=/.exec((await posted('late@example.org')).text)!
    const read = () => ask<DoorReading>(`${api}/read`, said({ answers: {}, with: link!, quote: link! }))
    expect((await read()).status).toBe(200)
    house.clock.forward(2 * HOUR)
    expect((await read()).body.code).toBe('quote-over')
  })

  it.each([
    ['for a service that is not there', { service: 'none' }, 'unknown-service'],
    ['that has ended already', { until: 5 }, 'until'],
    ['with a code that is not known', { code: 'nothing' }, 'code'],
  ])('%s are refused', async (_, change, code) => {
    expect((await post('quote', quoteBody(change))).body.code).toBe(code)
  })
})

describe('answers of an earlier time', () => {
  it('are brought along by whoever books once more, but for those that are private or asked each time', async () => {
    const { store } = house.relay
    const booking = await newCalled(house, { start: await start(), answers: { ...ANSWERS, ill: true } })
    const view = (
      await ask<LinkView>(`${house.door}/api/link/${store.act(() => store.addLink(booking.id, false))}`)
    ).body
    expect(view.answersBefore).toBeUndefined()
    await ask(
      `${house.desk}/api/command`,
      { booking: booking.id, command: { do: 'welcome' } },
      { bearer: house.key, key: freshKey() },
    )
    house.clock.forward(60_000)
    const secret = store.act(() => store.addLink(booking.id, false))
    const booked = (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body
    expect(booked.again).toBe('voice-assessment')
    expect(booked.answersBefore).toEqual(ANSWERS)
  })
})

describe('questions for those who are known', () => {
  it('are asked of who comes by the link of a booking, and not missed from who could not see them', async () => {
    const { store } = house.relay
    const known = [...store.bookings()].find(
      (one) => one.status === 'booked' && one.start < house.clock.now(),
    )!
    const email = known.asked.person.email
    // By mail address alone it shows on sending only, when it is too late to ask.
    const booking = await newCalled(house, {
      start: await start(),
      person: { name: 'K', email, zone: 'UTC' },
    })
    expect(booking.asked.standing).toBe('known')

    const link = store.act(() => store.addLink(known.id, false))
    const view = await ask<DoorView>(`${api}?with=${link}`)
    expect(view.body.visitor).toMatchObject({ standing: 'known' })
    expect((await ask<DoorView>(api)).body.visitor).toBeUndefined()
    const read = (more: object) =>
      ask<DoorReading>(`${api}/read`, said({ answers: { ...ANSWERS, ...more }, with: link }))
    expect((await read({})).body.problems).toEqual([
      { question: 'since', message: 'Please answer this one.' },
    ])
    expect((await read({ since: 'My voice is lower.' })).status).toBe(200)
  })
})

describe('the practitioner’s own judgement', () => {
  it('is kept with its reason, and needs one', async () => {
    const booking = await newCalled(house, { start: await start(), answers: { ...ANSWERS, price: 'parts' } })
    const judge = (text: string, outcome = 'fits') =>
      ask(
        `${house.desk}/api/command`,
        { booking: booking.id, command: { do: 'overrule', outcome, text } },
        { bearer: house.key, key: freshKey() },
      )
    expect((await judge('  ')).body.code).toBe('malformed')
    expect((await judge('We have spoken about it.')).status).toBe(200)
    expect(house.relay.store.booking(booking.id)).toMatchObject({
      status: 'requested',
      overruled: { outcome: 'fits', text: 'We have spoken about it.' },
      asked: { reading: { outcome: 'look' } },
    })
    const before = house.relay.store.booking(booking.id)!.seq
    await judge('Again.')
    expect(house.relay.store.booking(booking.id)!.seq).toBe(before)
  })
})

describe('what the relay forgets of files', () => {
  it('is those that nobody sends, after a day, and the others with their request', async () => {
    const visit = freshVisit()
    const sent = await give(sound(60), { visit })
    await newCalled(house, { visit, start: await start(), answers: { ...ANSWERS, recording: sent.body } })
    const { body } = await give(sound(60))
    const { store } = house.relay
    const now = house.clock.now()
    store.act(() => store.forgetFiles((now - DAY) as never))
    expect(store.file(body.file)).toBeDefined()
    store.act(() => store.forgetFiles((now + 1) as never))
    expect([store.file(body.file), store.file(sent.body.file)?.name]).toEqual([undefined, 'voice.mp3'])
    store.act(() => store.forgetRecord((now + 400 * DAY) as never))
    expect(store.file(sent.body.file)).toBeUndefined()
  })
})
