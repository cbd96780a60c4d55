import type { BookingEvent } from '@acolhida/core/booking'
import type { DoorQuote, DoorReading, DoorView, Enquiry, LinkView } from '@acolhida/core/contract'
import type { Question } from '@acolhida/core/questions'
import { type Instant, instant } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { recordPage } from '../store/record.ts'
import { behind, newCalled, openStartsOf, request, sendIt } from './client.ts'
import { bookingOf, bookingsOf, linkTo, packOf, publishTo } from './inside.ts'
import { posted, said, startMore } from './more-questions.ts'
import { ANSWERS, ask, freshKey, freshVisit, type TestRelay } from './setup.ts'

let house: TestRelay
let api: string
beforeAll(async () => {
  house = await startMore()
  api = `${house.door}/api/door/${house.slug}`
})
afterAll(() => house.close())

const asked = (id: string): Extract<BookingEvent, { type: 'asked' }> => bookingOf(house.relay, id).asked
const start = async (nth = 0): Promise<Instant> => instant((await openStartsOf(house.door, house.slug))[nth]!)

describe('what a client’s browser gets of questions', () => {
  it('is no points, no rules and no codes, only that there are some', async () => {
    const { body } = await ask<DoorView>(api)
    const text = JSON.stringify(body)
    expect(text).not.toMatch(/points|ONCE|"rules"/)
    expect(body.services.find((service) => service.id === 'voice-assessment')!.codes).toBe(true)
  })
})

describe('length and price while one answers', () => {
  const quote = async (change: object) => (await ask<DoorQuote>(`${api}/so-far`, said(change))).body

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
    await ask(`${api}/so-far`, said({ visit, answers: { price: 'too-much' } }))
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
      codeProblem: 'I don’t know this code. Please look once more how it is written.',
    })
    // Whose code it is can be told only of who comes by a private link.
    expect(await quote({ code: 'OWN' })).toMatchObject({ price: 9_500, codeProblem: expect.any(String) })
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
    expect([status, body.code, body.message]).toEqual([
      422,
      'code',
      'This code has been used as often as it can be.',
    ])
    const other = await sendIt(
      house.door,
      house.slug,
      await request(house.door, house.slug, await start(1), { code: 'OWN' }),
    )
    expect(other.body.message).toMatch('is for one person')
    // Withdrawn, it can be used again.
    const secret = linkTo(house.relay, booking.id, false)
    await ask(`${house.door}/api/link/${secret}/withdraw`, {}, { key: freshKey() })
    const again = await newCalled(house, { start: await start(1), code: 'ONCE' })
    expect(again.asked.code).toBe('once')
  })

  it('count also for somebody booked in by hand, or say why not', async () => {
    const enter = async (code: string, nth: number) =>
      ask(
        `${house.desk}/api/enter`,
        {
          id: freshKey(),
          service: 'voice-assessment',
          place: 'studio',
          start: await start(nth),
          minutes: 75,
          clash: false,
          person: { name: 'By Hand', email: `${freshVisit()}@example.org`, zone: 'Europe/Lisbon' },
          code,
        },
        { bearer: house.key, key: freshKey() },
      )
    expect((await enter('ten', 4)).status).toBe(201)
    const entered = bookingsOf(house.relay).find((booking) => booking.asked.person.name === 'By Hand')!
    expect(entered.asked).toMatchObject({ code: 'ten', reading: { quote: { price: 8_500 } } })
    expect((await enter('nothing', 9)).body).toMatchObject({ code: 'code', where: 'code' })
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
    const mail = await posted(house, booking.asked.person.email)
    const secret = /\/my\/([A-Za-z0-9_-]+)/.exec(mail.text)![1]!
    expect(mail.text).not.toContain('ill')
    const { body } = await ask<LinkView>(`${house.door}/api/link/${secret}`)
    expect(body.answers).toEqual([{ question: expect.objectContaining({ id: 'mood' }), answer: 'well' }])
    expect(JSON.stringify(body)).not.toMatch(/"ill"|points/)
  })

  it('must come sealed where the desk has given its key, and are not missed before the request', async () => {
    const pack = packOf(house.relay)
    const must = (question: Question): Question =>
      question.id === 'ill' ? { ...question, required: true } : question
    const practice = {
      ...pack.practice,
      questionnaires: pack.practice.questionnaires.map((questionnaire) => ({
        ...questionnaire,
        questions: questionnaire.questions.map(must),
      })),
    }
    const key = { kty: 'EC', crv: 'P-256', x: 'x'.repeat(43), y: 'y'.repeat(43) } as const
    publishTo(house.relay, { ...pack, practice, seal: key })
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
        { question: 'ill', code: 'answer-this', message: 'Please answer this one.' },
      ])
      expect((await send(true)).body.problems?.[0]?.message).toContain('has to be locked')
      const sealed = { sealed: 'aGVhZA..aXY.dGV4dA.dGFn' }
      const { status, body } = await send(sealed)
      expect(status).toBe(201)
      expect(behind(house.relay, body.link).asked.answers.ill).toEqual(sealed)
      expect((await send({ sealed: 'not sealed' })).body.code).toBe('malformed')
    } finally {
      publishTo(house.relay, pack)
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
    const [item] = recordPage(house.relay.store.db, 0, house.clock.now(), 1_000)
      .items.filter((item) => item.kind === 'enquiry')
      .slice(-1)
    expect((item!.body as Enquiry).answers).toEqual({ strain: 3 })
  })
})

describe('answers of an earlier time', () => {
  it('are brought along by whoever books once more, but for those that are private or asked each time', async () => {
    const booking = await newCalled(house, { start: await start(), answers: { ...ANSWERS, ill: true } })
    const view = (await ask<LinkView>(`${house.door}/api/link/${linkTo(house.relay, booking.id, false)}`))
      .body
    expect(view.answersBefore).toBeUndefined()
    await ask(
      `${house.desk}/api/command`,
      { booking: booking.id, command: { do: 'welcome' } },
      { bearer: house.key, key: freshKey() },
    )
    house.clock.forward(60_000)
    const secret = linkTo(house.relay, booking.id, false)
    const booked = (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body
    expect(booked.again).toBe('voice-assessment')
    expect(booked.answersBefore).toEqual(ANSWERS)
  })
})

describe('questions for those who are known', () => {
  it('are asked of who comes by the link of a booking, and not missed from who could not see them', async () => {
    const known = bookingsOf(house.relay).find(
      (booking) => booking.status === 'booked' && booking.start < house.clock.now(),
    )!
    const email = known.asked.person.email
    // Whatever address is typed: without a link one is read as a newcomer.
    const booking = await newCalled(house, {
      start: await start(),
      person: { name: 'K', email, zone: 'UTC' },
    })
    expect(booking.asked.asking.standing).toBe('new')

    // Nor does the link that a page got at sending show who holds it: anybody can have typed the address.
    const page = linkTo(house.relay, known.id, false)
    expect((await ask<DoorView>(`${api}?with=${page}`)).body.visitor).toBeUndefined()
    const link = linkTo(house.relay, known.id)
    const view = await ask<DoorView>(`${api}?with=${link}`)
    expect(view.body.visitor).toMatchObject({ standing: 'known' })
    expect((await ask<DoorView>(api)).body.visitor).toBeUndefined()
    const read = (more: object) =>
      ask<DoorReading>(`${api}/read`, said({ answers: { ...ANSWERS, ...more }, with: link }))
    expect((await read({})).body.problems).toEqual([
      { question: 'since', code: 'answer-this', message: 'Please answer this one.' },
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
    expect(bookingOf(house.relay, booking.id)).toMatchObject({
      status: 'requested',
      overruled: { outcome: 'fits', text: 'We have spoken about it.' },
      asked: { reading: { outcome: 'look' } },
    })
    const before = bookingOf(house.relay, booking.id).seq
    await judge('Again.')
    expect(bookingOf(house.relay, booking.id).seq).toBe(before)
  })
})
