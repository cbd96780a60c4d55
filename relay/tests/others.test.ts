import { othersOf, readiness } from '@acolhida/core/booking'
import type { LinkView, YoursView } from '@acolhida/core/contract'
import { printOfBooking } from '@acolhida/core/request'
import { DAY, duration, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openStartsOf, request, sendIt } from './client.ts'
import { bookingOf, changePractice, linkTo, packOf } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let start: Instant
beforeEach(async () => {
  house = await startRelay()
  changePractice(house.relay, ({ services }) => ({
    preparations: [
      {
        ...{ id: 'reach-me', is: 'read', name: 'How to reach me' },
        due: { from: 'start', by: duration('P1D') },
        text: [{ p: [{ text: 'By mail, on working days.' }] }],
      },
    ],
    texts: [{ id: 'soon', name: 'Soon', subject: 'Soon', body: 'Dear {firstName}, see you {when}. {link}' }],
    sequences: [
      {
        ...{ id: 'around', name: 'Around' },
        steps: [
          {
            ...{ id: 'soon', text: 'soon', anchor: 'start', before: true, by: duration('P1D') },
            channel: 'email',
          },
        ],
      },
    ],
    services: services.map((one) =>
      one.id === 'coaching' ? { ...one, sequence: 'around', prepares: ['reach-me'] } : one,
    ),
  }))
  const open = (await openStartsOf(house.door, house.slug)) as Instant[]
  start = open.find((at) => at > house.clock.now() + 4 * DAY)!
})
afterEach(() => house.close())

const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'America/Toronto' }
const mia = { name: 'Mia Maas', email: 'mia@example.org' }
const firm = { name: 'Maas Bakery', email: 'books@example.org' }

const enter = async (id: string, others: object) => {
  const { status, body } = await ask(
    `${house.desk}/api/enter`,
    {
      ...{ id, service: 'coaching', place: 'video', minutes: 50, start, clash: true },
      person: { ...person, others },
    },
    { bearer: house.key, key: freshKey() },
  )
  expect([status, body.message]).toEqual([201, undefined])
  await goOn(MINUTE)
}
const command = (booking: string, does: object) =>
  ask(
    `${house.desk}/api/command`,
    { booking, command: does, seen: printOfBooking(bookingOf(house.relay, booking)) },
    { bearer: house.key, key: freshKey() },
  )
const goOn = async (ms: number): Promise<void> => {
  house.clock.forward(ms)
  await house.relay.rounds.turn()
}
const mailsTo = (email: string) => house.mailbox.received.filter(({ to }) => to.includes(email))
const secretIn = (mail: { text: string } | undefined, of: 'my' | 'yours') =>
  new RegExp(`/${of}/([\\w-]{43})`).exec(mail?.text ?? '')?.[1] ?? ''
const view = async (secret: string) => (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body

describe('a session for somebody else', () => {
  it('reminds who comes and has them prepare, and tells who asked that it is booked', async () => {
    await enter('for-mia-maas', { comes: { ...mia, reminded: true, agrees: true } })
    expect(mailsTo(person.email)).toHaveLength(1)
    expect(mailsTo(person.email)[0]!.text).toContain('Ilse Maas')
    // What is to be prepared and agreed to is told to Mia alone.
    expect(mailsTo(person.email)[0]!.text).not.toMatch(/How to reach me|\/yours\//)
    const told = mailsTo(mia.email).map(({ text }) => text)
    expect(told).toHaveLength(2)
    expect(told.join('\n')).toMatch(/Mia Maas[\s\S]*How to reach me/)
    expect(told.join('\n')).toMatch(/agree/i)
    const soon = start - DAY - house.clock.now()
    await goOn(soon + MINUTE)
    const reminder = mailsTo(mia.email).find(({ subject }) => subject === 'Soon')
    expect(reminder?.text).toContain('Dear Mia,')
    expect(mailsTo(person.email).some(({ subject }) => subject === 'Soon')).toBe(false)
  })

  it('is not agreed to by who asked, where who comes agrees themselves', async () => {
    await enter('for-mia-maas', { comes: { ...mia, reminded: true, agrees: true } })
    await goOn(start - DAY - house.clock.now() + MINUTE)
    const secret = secretIn(
      mailsTo(mia.email).find(({ subject }) => subject === 'Soon'),
      'my',
    )
    const seen = await view(secret)
    expect(seen).toMatchObject({ as: 'comes', comes: 'Mia Maas', name: 'Ilse Maas' })
    expect(seen).not.toHaveProperty('answers')
    expect(seen.others).toEqual([])
    expect(seen.agreements).toEqual([])
    for (const part of ['money', 'move', 'answers']) expect(seen).not.toHaveProperty(part)
    // Whoever asked decides; who comes says that they will be there.
    const does = async (what: string, body: object) =>
      (await ask(`${house.door}/api/link/${secret}/${what}`, body, { key: freshKey() })).body.code
    expect(await does('cancel', { text: '', shown: seen.shown })).toBe('asks-decides')
    expect(await does('speak', { language: 'pt' })).toBe('asks-decides')
    expect(await does('come', {})).toBeUndefined()
    expect(bookingOf(house.relay, 'for-mia-maas').coming).toBeDefined()
    const agreed = seen.toAgree!.map(({ id, number, fingerprint, language }) => ({
      ...{ terms: id, number, fingerprint, language },
    }))
    const { status } = await ask(
      `${house.door}/api/link/${secret}/agree`,
      { name: 'Mia Maas', agreed },
      { key: freshKey() },
    )
    expect(status).toBe(200)
    expect(bookingOf(house.relay, 'for-mia-maas').agreed?.map(({ name }) => name)).toContain('Mia Maas')
    expect((await view(secret)).toAgree).toBeUndefined()
    // On their own page, too, stands what they have agreed to themselves, and no invoice.
    const { body: own } = await ask<YoursView>(`${house.door}/api/yours/${secret}`)
    expect(own.agreements.map(({ name }) => name)).toEqual(seen.toAgree!.map(() => 'Mia Maas'))
    expect([own.sessions.length, own.invoices]).toEqual([1, []])
  })

  it('proves nothing of who asked to who comes: their page shows this alone', async () => {
    await enter('for-mia-maas', { comes: { ...mia, agrees: true } })
    await enter('another-one', {})
    await command('for-mia-maas', { do: 'write', channel: 'email', subject: 'So', text: 'So {link}' })
    await goOn(MINUTE)
    // What is written by hand goes to who asked.
    expect(mailsTo(mia.email).map(({ subject }) => subject)).not.toContain('So')
    const { body: given } = await ask<{ seq: number }>(
      `${house.desk}/api/course`,
      {
        course: 'a-letter-for-mia',
        command: {
          ...{ do: 'give', booking: 'for-mia-maas', preparations: ['reach-me'] },
          person: { ...person, others: { comes: { ...mia, agrees: true } } },
        },
      },
      { bearer: house.key, key: freshKey() },
    )
    expect(given.seq).toBeGreaterThan(0)
    await goOn(MINUTE)
    const secret = secretIn(mailsTo(mia.email).at(-1), 'yours')
    const { body } = await ask<YoursView>(`${house.door}/api/yours/${secret}`)
    expect(body.name).toBe('Mia Maas')
    expect(body.courses.map(({ course }) => course)).toEqual(['a-letter-for-mia'])
    expect(body.sessions).toEqual([])
    expect(body.agreements).toEqual([])
  })

  it('goes to who asked where there is no way to who comes', async () => {
    await enter('for-tom-maas', { comes: { name: 'Tom Maas', reminded: true, agrees: true } })
    await goOn(start - DAY - house.clock.now() + MINUTE)
    const reminder = mailsTo(person.email).find(({ subject }) => subject === 'Soon')
    expect(reminder?.text).toContain('Dear Ilse,')
  })
})

describe('who pays', () => {
  it('gets the invoice, made out to them, behind a link that decides nothing', async () => {
    changePractice(house.relay, () => ({ invoicing: {} }))
    await enter('paid-by-firm', { pays: firm })
    await command('paid-by-firm', { do: 'invoice' })
    await goOn(MINUTE)
    const [invoice] = bookingOf(house.relay, 'paid-by-firm').invoices!
    expect(invoice!.to).toEqual(firm)
    const mail = mailsTo(firm.email).at(-1)
    expect(mail?.text).toContain('Maas Bakery')
    const secret = secretIn(mail, 'my')
    // Whoever asked finds it on the page of all that is theirs.
    const theirs = linkTo(house.relay, 'paid-by-firm')
    const { body: all } = await ask<YoursView>(`${house.door}/api/yours/${theirs}`)
    expect(all.invoices.flatMap(({ invoices }) => invoices.map(({ number }) => number))).toEqual([
      invoice!.number,
    ])
    const seen = await view(secret)
    expect(seen).toMatchObject({ as: 'pays', pays: 'Maas Bakery', text: '', agreements: [] })
    for (const part of ['answers', 'answersBefore', 'move', 'toAgree', 'toDo', 'coming', 'before'])
      expect(seen).not.toHaveProperty(part)
    const cancel = await ask(
      `${house.door}/api/link/${secret}/cancel`,
      { text: '', shown: seen.shown },
      { key: freshKey() },
    )
    expect([cancel.status, cancel.body.code]).toEqual([409, 'asks-decides'])
    const yours = await ask(`${house.door}/api/yours/${secret}`)
    expect(yours.body.code).toBe('asks-decides')
    expect(bookingOf(house.relay, 'paid-by-firm').status).toBe('booked')
  })

  it('is said at the desk, too, and taken back', async () => {
    await enter('said-later', {})
    const { status, body } = await command('said-later', { do: 'concern', others: { pays: firm } })
    expect([status, body.message]).toEqual([200, undefined])
    const booking = bookingOf(house.relay, 'said-later')
    expect(othersOf(booking)).toEqual({ pays: firm })
    await command('said-later', { do: 'take-back', of: booking.seq })
    expect(othersOf(bookingOf(house.relay, 'said-later'))).toEqual({})
  })
})

describe('at the door', () => {
  it('is asked for with who comes and pays, and agreed to by who asks alone', async () => {
    const body = await request(house.door, house.slug, (await openStartsOf(house.door, house.slug))[3]!, {
      person: { ...person, others: { comes: { ...mia, agrees: true }, pays: { name: 'Maas Bakery' } } },
    })
    const { status } = await sendIt(house.door, house.slug, body)
    expect(status).toBe(201)
    const booking = [...house.relay.here.keeper.house.bookingsOf(person.email)][0]!
    expect(othersOf(booking)).toEqual({ comes: { ...mia, agrees: true }, pays: { name: 'Maas Bakery' } })
    // Agreed by who asks, it lacks the word of who comes.
    expect(booking.asked.agreements.length).toBeGreaterThan(0)
    expect(readiness(booking, true).terms).toBe('waiting')
    expect(packOf(house.relay).practice.terms.length).toBeGreaterThan(0)
    expect(shift(booking.asked.at, 0)).toBe(booking.asked.at)
  })

  it.each([
    ['a name that is none', { comes: { name: 'see www.example.org' } }],
    ['an address that is none', { pays: { name: 'Firm', email: 'firm' } }],
    ['a part that is none', { owns: { name: 'Firm' } }],
  ])('refuses %s', async (_, others) => {
    const body = await request(house.door, house.slug, (await openStartsOf(house.door, house.slug))[3]!, {
      person: { ...person, others } as never,
      shown: '0'.repeat(64),
    })
    const { status, body: problem } = await sendIt(house.door, house.slug, body)
    expect([status, (problem as unknown as { code: string }).code]).toEqual([400, 'malformed'])
  })
})
