import { createHmac } from 'node:crypto'
import type { LinkView, YoursView } from '@acolhida/core/contract'
import { accountOf } from '@acolhida/core/ledger'
import type { Path } from '@acolhida/core/practice'
import { DAY, duration, HOUR, instant, MINUTE, shift } from '@acolhida/core/time'
import { httpbis } from 'http-message-signatures'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { digestOf, isSigned, signedHeaders } from '../ground/signature.ts'
import { expiryIn, isCardNumber } from '../till/card.ts'
import { newCalled, openStartsOf } from './client.ts'
import { bookingsOf, changePractice, linkTo } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay, TILL_SECRET } from './setup.ts'

const PATH: Path = {
  ...{ id: 'ten-weeks', name: 'Ten weeks of voice', text: '', price: 60_000 },
  stations: [
    { id: 'pay', does: 'pay', parts: 3, after: duration('P10D'), every: duration('P20D') },
    { id: 'short', does: 'sessions', service: 'coaching', minutes: 50, many: 3 },
  ],
}

describe('a card’s number', () => {
  // Numbers that card schemes publish for trials, from memory; and each with its last figure another.
  it.each([
    '4111 1111 1111 1111',
    '4012888888881881',
    '5555-5555-5555-4444',
    '378282246310005',
    '6011111111111117',
    '30569309025904',
  ])('%s is one, and with another check figure it is none', (number) => {
    expect(isCardNumber(number)).toBe(true)
    const other = `${number.slice(0, -1)}${(Number(number.at(-1)) + 1) % 10}`
    expect(isCardNumber(other)).toBe(false)
  })

  it('has 12 to 19 figures and nothing else', () => {
    for (const odd of ['', '0', '41111111111', '4111x11111111111', '4'.repeat(20), '١٢٣٤٥٦٧٨٩٠١٢'])
      expect(isCardNumber(odd)).toBe(false)
  })

  it('is good until a month', () => {
    expect(expiryIn('05/28', 2026)).toBe('2028-05')
    expect(expiryIn('5 / 2028', 2026)).toBe('2028-05')
    for (const odd of ['', '13/28', '00/28', '0528', '05/8', '05/28/1'])
      expect(expiryIn(odd, 2026)).toBeUndefined()
  })
})

describe('a signature', () => {
  const now = instant(Date.parse('2026-11-24T11:00Z'))
  const body = Buffer.from('{"so":1}')
  const post = { method: 'POST', path: '/api/till' }
  const signed = async (at = now, secret = TILL_SECRET) => ({
    ...post,
    headers: await signedHeaders(post, body, secret, at),
  })

  it('is what RFC 9421 gives for its own example (B.2.5, HMAC with SHA-256)', async () => {
    const secret = Buffer.from(
      'uzvJfB4u3N0Jy4T7NZ75MDVcr8zSTInedJtkgcu46YW4XByzNJjxBdtjUkdJPBtbmHhIDi6pcl8jsasjlTMtDQ==',
      'base64',
    )
    const { headers } = await httpbis.signMessage(
      {
        key: {
          id: 'test-shared-secret',
          sign: async (data) => createHmac('sha256', secret).update(data).digest(),
        },
        name: 'sig-b25',
        fields: ['date', '@authority', 'content-type'],
        params: ['created', 'keyid'],
        paramValues: { created: new Date(1618884473_000) },
      },
      {
        method: 'POST',
        url: 'https://example.com/foo?param=Value&Pet=dog',
        headers: { date: 'Tue, 20 Apr 2021 02:07:55 GMT', 'content-type': 'application/json' },
      },
    )
    expect((headers as Record<string, string>).Signature).toBe(
      'sig-b25=:pxcQw6G3AjtMBQjwo8XzkZf/bws5LelbaMk5rGIGtE8=:',
    )
  })

  it('has the digest of RFC 9530', () => {
    // The example of its appendix B.1, with the line's end.
    expect(digestOf(Buffer.from('{"hello": "world"}\n'))).toBe(
      'sha-256=:RK/0qy18MlBSVnWgjwz6lZEWjP/lF5HF9bvEF8FabDg=:',
    )
  })

  it('holds for five minutes, for this body, path and secret alone', async () => {
    const good = await signed()
    expect(await isSigned(good, body, TILL_SECRET, now)).toBe(true)
    expect(await isSigned(good, body, TILL_SECRET, shift(now, 5 * MINUTE))).toBe(true)
    for (const away of [5 * MINUTE + 1_000, -5 * MINUTE - 1_000])
      expect(await isSigned(good, body, TILL_SECRET, shift(now, away))).toBe(false)
    expect(await isSigned(good, Buffer.from('{"so":2}'), TILL_SECRET, now)).toBe(false)
    expect(await isSigned({ ...good, path: '/api/other' }, body, TILL_SECRET, now)).toBe(false)
    expect(await isSigned({ ...good, method: 'PUT' }, body, TILL_SECRET, now)).toBe(false)
    expect(await isSigned(good, body, `${TILL_SECRET}!`, now)).toBe(false)
    for (const without of ['signature', 'signature-input', 'content-digest']) {
      const headers = Object.fromEntries(
        Object.entries(good.headers).filter(([name]) => name.toLowerCase() !== without),
      )
      expect(await isSigned({ ...good, headers }, body, TILL_SECRET, now)).toBe(false)
    }
  })
})

describe('the till', () => {
  let house: TestRelay
  beforeEach(async () => {
    house = await startRelay({ withTill: true })
  })
  afterEach(() => house.close())

  const booking = (id = 'next-odile') => bookingsOf(house.relay).find((one) => one.id === id)!
  const secret = (id = 'next-odile') => linkTo(house.relay, id)
  const view = async (of = secret()) => (await ask<LinkView>(`${house.door}/api/link/${of}`)).body
  const command = (id: string, what: object) =>
    ask<{ seq: number }>(
      `${house.desk}/api/command`,
      { booking: id, command: what },
      { bearer: house.key, key: freshKey() },
    )
  const pay = (of: string, body: object) => ask<{ to: string }>(`${house.door}/api/link/${of}/pay`, body)
  const cameBack = (of: string) =>
    ask<LinkView>(`${house.door}/api/link/${of}/came-back`, {}, { key: freshKey() })
  /** Types a card on the till's page. */
  const type = async (to: string, number: string, more: Record<string, string> = {}) => {
    const form = new URLSearchParams({ number, expires: '05/28', code: '123', ...more })
    return (await fetch(to, { method: 'POST', body: form })).text()
  }
  /** Waits for what the till tells by itself. */
  const until = async (is: () => boolean): Promise<void> => {
    while (!is()) await new Promise((resolve) => setImmediate(resolve))
  }
  const turn = () => house.relay.rounds.turn()

  it('takes a payment once, however often it is asked for and told', async () => {
    const link = secret()
    const { money } = await view(link)
    const first = await pay(link, { what: 'pay', amount: money!.byCard })
    const again = await pay(link, { what: 'pay', amount: money!.byCard })
    expect(again.body.to).toBe(first.body.to)
    // The page, and what the till is told, say nothing of who pays or of their link.
    const [of] = [...house.till.payments.values()]
    expect(JSON.stringify({ ...of, backs: [] })).not.toMatch(/Odile|@|Coaching/)
    expect(of!.back).not.toContain(link)
    await type(first.body.to, '3056 930902 5904')
    await until(() => of!.told >= 2)
    expect(await house.till.tell(of!.payment)).toBe(200)
    expect(booking().payments).toMatchObject([{ amount: money!.byCard, way: 'card' }])
    expect((await view(link)).money).toMatchObject({ open: 0 })
    expect((await pay(link, { what: 'pay', amount: money!.byCard })).body.code).toBe('nothing-to-pay')
  })

  it('is asked in doubt: coming back proves nothing, and what was never told is found', async () => {
    const link = secret()
    const amount = (await view(link)).money!.byCard!
    const { body } = await pay(link, { what: 'pay', amount })
    expect((await cameBack(link)).body).toMatchObject({ till: { is: 'open' }, money: { open: amount } })
    await type(body.to, '6011 1111 1111 1117')
    expect((await view(link)).money!.open).toBe(amount)
    expect((await cameBack(link)).body.money!.open).toBe(0)
    // Another, of which nobody comes back: the relay asks by itself.
    await command('next-odile', { do: 'adjust', amount: 500, text: 'A recording.' })
    house.clock.forward(MINUTE)
    const more = await pay(link, { what: 'pay', amount: 500 })
    await type(more.body.to, '6011 1111 1111 1117')
    house.clock.forward(11 * MINUTE)
    await turn()
    expect((await view(link)).money!.open).toBe(0)
    expect(booking().payments).toHaveLength(2)
  })

  it('takes what is asked for on asking before the word, and gives it back if the answer is no', async () => {
    const pack = house.relay.here.keeper.house.pack!
    const line = { id: 'l', much: { kind: 'share', percent: 30 }, due: { kind: 'asking' } } as const
    const services = pack.practice.services.map((one) =>
      one.id === 'voice-assessment' ? { ...one, payment: [line] } : one,
    )
    const next = { ...pack, revision: pack.revision + 1, practice: { ...pack.practice, services } }
    await ask(`${house.desk}/api/package`, next, { bearer: house.key, key: freshKey(), method: 'PUT' })
    const open = await openStartsOf(house.door, house.slug)
    const { id, price } = await newCalled(house, { start: instant(open.at(-1)!) })
    const amount = Math.round(price * 0.3)
    const link = secret(id)
    expect(await view(link)).toMatchObject({ state: 'waiting', money: { byCard: amount, open: amount } })
    const { body } = await pay(link, { what: 'pay', amount })
    await type(body.to, '4111 1111 1111 1111')
    await cameBack(link)
    expect((await view(link)).money?.byCard).toBeUndefined()
    await command(id, { do: 'decline', text: '' })
    house.clock.forward(10_000)
    await turn()
    expect(await view(link)).toMatchObject({ state: 'declined', money: { open: 0, back: amount } })
  })

  it('takes a payment for a booking of any name', async () => {
    const open = await openStartsOf(house.door, house.slug)
    const person = { name: 'D', email: 'd@example.org', zone: 'Europe/Lisbon' }
    const start = open.at(-1)!
    // A name is made by chance, and can begin with a dash.
    const id = '-_begins-with-a-dash'
    const body = {
      id,
      service: 'voice-assessment',
      place: 'studio',
      start,
      minutes: 75,
      person,
      clash: false,
    }
    const entered = await ask(`${house.desk}/api/enter`, body, { bearer: house.key, key: freshKey() })
    expect(entered.status).toBe(201)
    house.clock.forward(10_000)
    const link = secret(id)
    const amount = (await view(link)).money!.byCard!
    const { body: answer } = await pay(link, { what: 'pay', amount })
    await type(answer.to, '4111 1111 1111 1111')
    expect((await cameBack(link)).body.money).toMatchObject({ open: 0, paid: amount })
  })

  it('begins nothing beside what may have been paid, also when its page has run out', async () => {
    const link = secret()
    const amount = (await view(link)).money!.byCard!
    const { body } = await pay(link, { what: 'pay', amount })
    await type(body.to, '6011 1111 1111 1117')
    house.clock.forward(31 * MINUTE)
    // Whoever presses once more has paid: the till is asked before anything is begun.
    expect((await pay(link, { what: 'pay', amount })).body.code).toBe('nothing-to-pay')
    expect(house.till.payments.size).toBe(1)
    expect(booking().payments).toHaveLength(1)
  })

  it('says when it failed, ran out, or asks for a second step', async () => {
    const link = secret()
    const amount = (await view(link)).money!.byCard!
    const refused = await pay(link, { what: 'pay', amount })
    expect(await type(refused.body.to, '4111 1111 1111 1112')).toContain('not the number of a card')
    expect(await type(refused.body.to, '4111 1111 1111 1111', { expires: '10/26' })).toContain('expired')
    await type(refused.body.to, '5555 5555 5555 4444')
    await cameBack(link)
    expect((await view(link)).till).toMatchObject({ is: 'failed', text: 'The card was refused.' })
    // No answer from the bank, and nobody comes back: its page runs out.
    const silent = await pay(link, { what: 'pay', amount })
    await type(silent.body.to, '3782 822463 10005')
    expect((await pay(link, { what: 'pay', amount })).body.to).toBe(silent.body.to)
    house.clock.forward(31 * MINUTE)
    await turn()
    expect((await view(link)).till).toMatchObject({ is: 'over' })
    const stepped = await pay(link, { what: 'pay', amount })
    expect(await type(stepped.body.to, '4012 8888 8888 1881')).toContain('Is it you?')
    expect((await cameBack(link)).body.money!.open).toBe(amount)
    await type(stepped.body.to, '4012 8888 8888 1881', { step: '1' })
    expect((await cameBack(link)).body.money!.open).toBe(0)
  })

  it('takes what is due of a path, or its next part, once; also what is told late, or never', async () => {
    changePractice(house.relay, () => ({ paths: [PATH] }))
    const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'Europe/Lisbon' }
    const give = { do: 'give', person, preparations: [], path: PATH.id }
    const desk = (command: object) =>
      ask(
        `${house.desk}/api/course`,
        { course: 'the-course', command },
        { bearer: house.key, key: freshKey() },
      )
    expect((await desk(give)).status).toBe(200)
    house.clock.forward(MINUTE)
    await turn()
    const mail = house.mailbox.received.findLast(({ to }) => to.includes(person.email))!
    const link = /\/yours\/([\w-]{43})/.exec(mail.text)![1]!
    const path = async () => (await ask<YoursView>(`${house.door}/api/yours/${link}`)).body.courses[0]!.path!
    const payPath = (amount: number) =>
      ask<{ to: string }>(`${house.door}/api/yours/${link}/pay`, { course: 'the-course', amount })
    const back = () => ask<YoursView>(`${house.door}/api/yours/${link}/came-back`, {}, { key: freshKey() })
    expect(await path()).toMatchObject({ byCard: 20_000, open: 60_000 })
    expect((await payPath(60_000)).body.code).toBe('changed')
    const first = await payPath(20_000)
    expect((await payPath(20_000)).body.to).toBe(first.body.to)
    const [of] = [...house.till.payments.values()]
    expect(JSON.stringify({ ...of, backs: [] })).not.toMatch(/Ilse|@|weeks/)
    expect(of!.back).not.toContain(link)
    await type(first.body.to, '5555 5555 5555 4444')
    await back()
    expect((await path()).till).toMatchObject({ is: 'failed', text: 'The card was refused.' })
    // Paid, and told twice: it has come once.
    const again = await payPath(20_000)
    await type(again.body.to, '3056 930902 5904')
    const paid = [...house.till.payments.values()].at(-1)!
    await until(() => paid.told >= 2)
    expect((await path()).till).toBeUndefined()
    expect(await path()).toMatchObject({ paid: 20_000, byCard: 20_000, open: 40_000 })
    // Two parts are due by now, and are paid at once; nothing is told of it, and nobody comes back.
    house.clock.forward(60 * DAY)
    await turn()
    expect(await path()).toMatchObject({ byCard: 40_000 })
    const rest = await payPath(40_000)
    await type(rest.body.to, '6011 1111 1111 1117')
    house.clock.forward(11 * MINUTE)
    await turn()
    expect(await path()).toMatchObject({ paid: 60_000, open: 0 })
    expect((await payPath(40_000)).body.code).toBe('nothing-to-pay')
    // Nothing is told of what the till was not asked for, and no link of somebody else's pays for it.
    expect(
      (await ask(`${house.door}/api/yours/${secret()}/pay`, { course: 'the-course', amount: 1 })).body,
    ).toMatchObject({ code: 'unknown-course' })
  })

  it('is believed only when it signs, about what was asked for', async () => {
    const link = secret()
    const amount = (await view(link)).money!.byCard!
    await pay(link, { what: 'pay', amount })
    const [of] = [...house.till.payments.values()]
    const said = {
      id: 'x',
      payment: of!.payment,
      booking: 'next-odile',
      amount,
      currency: 'EUR',
      live: false,
      is: 'paid',
      text: '',
    }
    const tell = async (body: object, by = TILL_SECRET, at = house.relay.here.now()) => {
      const bytes = Buffer.from(JSON.stringify(body))
      const headers = await signedHeaders({ method: 'POST', path: '/api/till' }, bytes, by, at)
      return (await fetch(`${house.door}/api/till`, { method: 'POST', headers, body: bytes })).status
    }
    expect(
      (await fetch(`${house.door}/api/till`, { method: 'POST', body: JSON.stringify(said) })).status,
    ).toBe(401)
    expect(await tell(said, 'another secret, which is long as well')).toBe(401)
    expect(await tell(said, TILL_SECRET, shift(house.relay.here.now(), -6 * MINUTE))).toBe(401)
    expect(await tell({ ...said, amount: amount - 1 })).toBe(409)
    expect(await tell({ ...said, currency: 'USD' })).toBe(409)
    expect(await tell({ ...said, live: true })).toBe(409)
    expect(await tell({ ...said, booking: 'asks-lucjan' })).toBe(404)
    expect(await tell({ ...said, payment: 'another-payment-of-nobody' })).toBe(404)
    expect(await tell({ ...said, is: 'more' })).toBe(409)
    // A payment is no card that is kept.
    expect(await tell({ ...said, is: 'kept', card: { ends: '1111', expires: '2028-05' } })).toBe(409)
    expect(booking().payments).toBeUndefined()
    expect(await tell(said)).toBe(200)
    expect(booking().payments).toHaveLength(1)
  })

  it('gives back in full what came for a time that ran out, once, also when asked again', async () => {
    const link = secret()
    const amount = (await view(link)).money!.byCard!
    const { body } = await pay(link, { what: 'pay', amount })
    await type(body.to, '4111 1111 1111 1111')
    await cameBack(link)
    await command('next-odile', { do: 'cancel', by: 'practitioner', text: '' })
    await turn()
    const [of] = [...house.till.payments.values()]
    // Until it can't be undone any more, nothing goes back.
    expect(of!.backs.size).toBe(0)
    house.clock.forward(9_000)
    await turn()
    await turn()
    expect([...of!.backs.values()]).toEqual([amount])
    expect(accountOf(booking())).toMatchObject({ open: 0, givenBack: amount })
    expect((await view(link)).money).toMatchObject({ open: 0, back: amount })
    const { email } = booking().asked.person
    const told = house.mailbox.received.filter(
      ({ to, subject }) => to.includes(email) && /goes back to you/.test(subject),
    )
    expect(told).toHaveLength(1)
  })

  it('gives back what is paid after the time has run out; the time stays free', async () => {
    const pack = house.relay.here.keeper.house.pack!
    const first = { id: 'l', much: { kind: 'rest' }, due: { kind: 'word' }, first: true } as const
    const { practice } = pack
    const next = {
      ...pack,
      revision: pack.revision + 1,
      practice: {
        ...practice,
        answering: { ...practice.answering, payTime: 'PT10M' },
        services: practice.services.map((one) =>
          one.id === 'voice-assessment' ? { ...one, payment: [first] } : one,
        ),
      },
    }
    await ask(`${house.desk}/api/package`, next, { bearer: house.key, key: freshKey(), method: 'PUT' })
    const open = await openStartsOf(house.door, house.slug)
    const { id, price } = await newCalled(house, { start: instant(open.at(-1)!) })
    await command(id, { do: 'welcome' })
    house.clock.forward(10_000)
    const link = secret(id)
    expect(await view(link)).toMatchObject({ state: 'unpaid', money: { byCard: price } })
    const { body } = await pay(link, { what: 'pay', amount: price })
    house.clock.forward(15 * MINUTE)
    expect(await view(link)).toMatchObject({ state: 'lapsed', lapsedUnpaid: true })
    expect(await openStartsOf(house.door, house.slug)).toContain(open.at(-1))
    await type(body.to, '4111 1111 1111 1111')
    await cameBack(link)
    await turn()
    expect([...house.till.payments.get(booking(id).till![0]!.payment)!.backs.values()]).toEqual([price])
    expect(await view(link)).toMatchObject({ state: 'lapsed', money: { open: 0, back: price } })
    expect(await openStartsOf(house.door, house.slug)).toContain(open.at(-1))
  })

  it('lets a stranger leave a card, which is charged within what was agreed, once, or taken back in time', async () => {
    const { practice } = house.relay.here.keeper.house.pack!
    const publish = (cards: object) =>
      ask(
        `${house.desk}/api/package`,
        {
          ...house.relay.here.keeper.house.pack!,
          revision: house.relay.here.keeper.house.pack!.revision + 1,
          practice: { ...practice, cards },
        },
        { bearer: house.key, key: freshKey(), method: 'PUT' },
      )
    expect((await publish({ ask: 'keep' })).status).toBe(200)
    const link = secret()
    expect((await view(link)).card).toEqual({ asked: 'keep' })
    expect(
      (await command('next-odile', { do: 'charge', payment: freshKey(), amount: 100, text: 'So.' })).body
        .code,
    ).toBe('no-card')
    const { body } = await pay(link, { what: 'card', amount: 0 })
    await type(body.to, '4111 1111 1111 1111')
    await cameBack(link)
    expect((await view(link)).card).toEqual({ ends: '1111', expires: '2028-05', kept: true })
    // Nothing here has more of the number than its end.
    const all = JSON.stringify(house.relay.store.db.prepare('SELECT body FROM record').all())
    expect(all).not.toContain('4111')
    const open = accountOf(booking()).open
    expect(
      (await command('next-odile', { do: 'charge', payment: freshKey(), amount: open + 1, text: 'So.' })).body
        .code,
    ).toBe('more-than-owed')
    const payment = freshKey()
    await command('next-odile', { do: 'charge', payment, amount: open, text: 'As agreed.' })
    await command('next-odile', { do: 'charge', payment, amount: open, text: 'As agreed.' })
    await turn()
    expect(accountOf(booking()).open).toBe(open)
    await command('next-odile', { do: 'take-back', of: booking().seq })
    house.clock.forward(10_000)
    await turn()
    expect(accountOf(booking()).open).toBe(open)
    await command('next-odile', { do: 'charge', payment: freshKey(), amount: open, text: 'As agreed.' })
    house.clock.forward(10_000)
    await turn()
    await turn()
    expect(accountOf(booking()).open).toBe(0)
    expect(booking().till?.at(-1)).toMatchObject({
      what: 'charge',
      is: 'paid',
      agreed: expect.stringMatching(/^[0-9a-f]{64}$/),
    })
    // Only looked at, no key to it is kept.
    await publish({ ask: 'check' })
    expect((await view(secret('next-ruben'))).card).toBeUndefined()
  })

  it('that does not answer leaves nothing half done', async () => {
    const link = secret()
    const amount = (await view(link)).money!.byCard!
    await house.till.stop()
    const away = await pay(link, { what: 'pay', amount })
    expect(away.status).toBe(503)
    expect(away.body.message).toContain('Nothing has been charged')
    house.clock.forward(31 * MINUTE)
    await turn()
    expect(booking().till).toMatchObject([{ is: 'open' }])
    // It was never asked for there: once the till answers again, it is over.
    await house.till.start({ port: Number(new URL(house.relay.settings.till!.url).port) })
    house.clock.forward(6 * HOUR)
    await turn()
    expect(booking().till).toMatchObject([{ is: 'over' }])
    expect((await pay(link, { what: 'pay', amount })).status).toBe(200)
  })
})
