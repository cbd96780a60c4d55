import type { DayView, LinkView, WordView } from '@acolhida/core/contract'
import { HOUR, MINUTE } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { newCalled, openStartsOf } from './client.ts'
import { bookingOf, linkTo } from './inside.ts'
import { ask, freshKey, pairAnew, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
})
afterEach(() => house.close())

const who = { name: 'Ana Serrano', email: 'ana.serrano@example.org', zone: 'Europe/Madrid' }

/** Somebody asks, and the practitioner is mailed: the request, and the secret of the link in that mail. */
async function mailed() {
  const [start] = await openStartsOf(house.door, house.slug)
  const booking = await newCalled(house, { start: start as never, person: who })
  await house.relay.rounds.turn()
  const mail = house.mailbox.received.findLast(({ text }) => text.includes('/word#'))!
  const [, secret] = /\/word#([\w-]+)/.exec(mail.text)!
  return { id: booking.id, secret: secret!, mail }
}
const word = (secret: string) => ask<WordView>(`${house.desk}/api/word/${secret}`)
const decide = (secret: string, what: object, seen: string, key = freshKey()) =>
  ask<WordView>(`${house.desk}/api/word/${secret}`, { command: what, seen }, { key })

describe('a word link', () => {
  it('comes with the news of a request, tells what is needed, and decides it with one press', async () => {
    const { id, secret, mail } = await mailed()
    expect(mail.to).toContain('iria@montalvar.example.org')
    const { body } = await word(secret)
    expect(body).toMatchObject({ name: 'Ana Serrano', state: 'waiting', service: 'Voice assessment' })
    expect(body.answers.length).toBeGreaterThan(0)
    // Looking decides nothing, however often.
    await word(secret)
    expect(bookingOf(house.relay, id).status).toBe('requested')
    const { body: after } = await decide(secret, { do: 'welcome', text: 'Gladly.' }, body.shown)
    expect(after).toMatchObject({ state: 'booked', text: 'Gladly.', undo: { of: expect.any(Number) } })
    const { body: back } = await decide(secret, { do: 'take-back', of: after.undo!.of }, after.shown)
    expect(back).toMatchObject({ state: 'waiting' })
    await decide(secret, { do: 'decline', text: 'Not now.' }, back.shown)
    house.clock.forward(10_000)
    const { body: over } = await word(secret)
    expect(over).toMatchObject({ state: 'declined', text: 'Not now.', answers: [], reasons: [] })
    expect(over.undo).toBeUndefined()
    expect((await decide(secret, { do: 'welcome' }, over.shown)).body.code).toBe('word-used')
    const record = bookingOf(house.relay, id)
    expect(record.status).toBe('declined')
  })

  it('decides on what it shows, once however often it is said', async () => {
    const { secret } = await mailed()
    expect((await decide(secret, { do: 'welcome' }, 'a'.repeat(64))).body.code).toBe('changed')
    const { body } = await word(secret)
    const key = freshKey()
    const first = await decide(secret, { do: 'welcome' }, body.shown, key)
    const again = await decide(secret, { do: 'welcome' }, body.shown, key)
    expect([first.status, again.status]).toEqual([200, 200])
    expect((await decide(secret, { do: 'cancel', by: 'practitioner', text: '' }, body.shown)).status).toBe(
      400,
    )
  })

  it('is no client’s link, and a client’s is no word link', async () => {
    const { id, secret } = await mailed()
    expect((await ask(`${house.door}/api/link/${secret}`)).body.code).toBe('unknown-link')
    expect((await word(linkTo(house.relay, id))).body.code).toBe('unknown-word')
    const { body } = await ask<LinkView>(`${house.door}/api/door/${house.slug}?with=${secret}`)
    expect(body).not.toHaveProperty('visitor')
  })

  it('ends with a new pairing, and when the desk ends them', async () => {
    const one = await mailed()
    await ask(`${house.desk}/api/end`, { what: 'words' }, { bearer: house.key })
    expect((await word(one.secret)).body.code).toBe('unknown-word')
    const [start] = (await openStartsOf(house.door, house.slug)).slice(20)
    await newCalled(house, { start: start as never, person: { ...who, email: 'other@example.org' } })
    await house.relay.rounds.turn()
    const mail = house.mailbox.received.findLast(({ text }) => text.includes('/word#'))!
    const [, secret] = /\/word#([\w-]+)/.exec(mail.text)!
    expect((await word(secret!)).status).toBe(200)
    house.key = pairAnew(house.relay)
    const code = await ask<{ code: string }>(`${house.desk}/api/code`, {}, { bearer: house.key })
    const paired = { code: code.body.code, practice: 'iria-montalvar', replace: true }
    expect((await ask(`${house.desk}/api/pair`, paired)).status).toBe(200)
    expect((await word(secret!)).body.code).toBe('unknown-word')
  })

  it('offers other times that are open', async () => {
    const { id, secret } = await mailed()
    const { body } = await word(secret)
    const { body: times } = await ask<{ starts: number[] }>(`${house.desk}/api/word/${secret}/openings`, {
      days: 21,
    })
    expect(times.starts).not.toContain(body.start)
    const starts = times.starts.slice(3, 5).map((start) => ({ start, place: body.placeId }))
    await decide(secret, { do: 'offer', starts, text: 'Rather then?' }, body.shown)
    expect(bookingOf(house.relay, id).offers).toEqual(starts)
  })
})

describe('asking back', () => {
  it('holds the time longer, once, and brings the answer into the same request', async () => {
    const { id, secret } = await mailed()
    const { until } = bookingOf(house.relay, id)
    house.clock.forward(2 * HOUR)
    const { body } = await word(secret)
    const { body: asked } = await decide(secret, { do: 'ask', text: 'Which low notes?' }, body.shown)
    expect(asked).toMatchObject({ state: 'waiting', question: { text: 'Which low notes?' } })
    expect(asked.until).toBeGreaterThan(until)
    const mine = linkTo(house.relay, id)
    const view = async () => (await ask<LinkView>(`${house.door}/api/link/${mine}`)).body
    // Until it can't be taken back, it has not been asked.
    expect((await view()).question).toBeUndefined()
    house.clock.forward(10_000)
    await house.relay.rounds.turn()
    await expect.poll(() => house.mailbox.received.at(-1)?.to).toContain('ana.serrano')
    expect((await view()).question).toEqual({ text: 'Which low notes?' })
    const reply = () =>
      ask<LinkView>(`${house.door}/api/link/${mine}/reply`, { text: 'Below G.' }, { key: freshKey() })
    expect((await reply()).body.question?.reply).toBe('Below G.')
    expect((await reply()).body.code).toBe('not-asked')
    await expect.poll(() => house.mailbox.received.at(-1)?.subject).toContain('has been answered')
    const later = (await word(secret)).body
    expect(later.question).toEqual({ text: 'Which low notes?', reply: 'Below G.' })
    house.clock.forward(HOUR)
    const { body: twice } = await decide(secret, { do: 'ask', text: 'And now?' }, later.shown)
    expect(twice.until).toBe(asked.until)
  })
})

describe('an exception', () => {
  it('is asked for through the link once the rules say no, and lets one cancel free of charge', async () => {
    const mine = linkTo(house.relay, 'next-odile')
    const booking = () => bookingOf(house.relay, 'next-odile')
    const view = async () => (await ask<LinkView>(`${house.door}/api/link/${mine}`)).body
    house.clock.forward(booking().start - 2 * HOUR - house.relay.here.now())
    const before = await view()
    expect(before).toMatchObject({ canPlead: true, state: 'booked' })
    const plead = () =>
      ask<LinkView>(`${house.door}/api/link/${mine}/plead`, { text: 'My child is ill.' }, { key: freshKey() })
    expect((await plead()).body.plea).toEqual({ text: 'My child is ill.' })
    expect((await plead()).body.code).toBe('not-asked')
    const command = (what: object) =>
      ask(
        `${house.desk}/api/command`,
        { booking: 'next-odile', command: what },
        { bearer: house.key, key: freshKey() },
      )
    expect((await command({ do: 'except', granted: true, text: 'Get well.' })).status).toBe(200)
    house.clock.forward(10_000)
    const after = await view()
    expect(after).toMatchObject({ plea: { granted: true }, shareNow: 0 })
    const { body } = await ask<LinkView>(
      `${house.door}/api/link/${mine}/cancel`,
      { text: '', shown: after.shown },
      { key: freshKey() },
    )
    expect(body).toMatchObject({ state: 'cancelled', share: 0 })
    expect((await command({ do: 'except', granted: true, text: '' })).body.code).toBe('not-booked')
  })
})

describe('the day on a phone', () => {
  const day = (key: string) => ask<DayView>(`${house.desk}/api/day`, undefined, { bearer: key })
  const act = (key: string, booking: string, what: object, seen: string) =>
    ask<DayView>(`${house.desk}/api/day`, { booking, command: what, seen }, { bearer: key, key: freshKey() })
  async function paired(): Promise<string> {
    const { body } = await ask<{ url: string }>(`${house.desk}/api/phone`, {}, { bearer: house.key })
    return /\/day#([\w-]+)$/.exec(body.url)![1]!
  }

  it('shows what is on and who waits, and takes what was decided', async () => {
    const key = await paired()
    expect((await day(key)).body.waiting.length).toBeGreaterThan(0)
    const { start } = bookingOf(house.relay, 'next-odile')
    house.clock.forward(start - 20 * MINUTE - house.relay.here.now())
    const { body } = await day(key)
    const amara = body.sessions.find(({ booking }) => booking === 'next-odile')!
    expect(amara).toMatchObject({ state: 'booked', begun: false })
    const late = await act(key, 'next-odile', { do: 'run-late', minutes: 10 }, amara.shown)
    expect(late.body.sessions.find(({ booking }) => booking === 'next-odile')).toMatchObject({ late: 10 })
    house.clock.forward(10_000)
    await house.relay.rounds.turn()
    await expect.poll(() => house.mailbox.received.at(-1)?.subject).toContain('10 minutes late')
    const mine = linkTo(house.relay, 'next-odile')
    expect((await ask<LinkView>(`${house.door}/api/link/${mine}`)).body.late).toBe(10)
    house.clock.forward(HOUR)
    const { body: then } = await day(key)
    const now = then.sessions.find(({ booking }) => booking === 'next-odile')!
    const said = await act(key, 'next-odile', { do: 'attend' }, now.shown)
    expect(said.body.sessions.find(({ booking }) => booking === 'next-odile')?.state).toBe('attended')
    expect((await act(key, 'no-such-booking', { do: 'attend' }, now.shown)).body.code).toBe('unknown-booking')
  })

  it('is one phone’s: another pairing, a new desk or the desk’s word ends it; and it is no desk', async () => {
    const first = await paired()
    const second = await paired()
    expect((await day(first)).body.code).toBe('no-phone-key')
    expect((await day(second)).status).toBe(200)
    expect((await ask(`${house.desk}/api/record`, undefined, { bearer: second })).status).toBe(401)
    expect((await day(house.key)).status).toBe(401)
    await ask(`${house.desk}/api/end`, { what: 'phone' }, { bearer: house.key })
    expect((await day(second)).status).toBe(401)
  })
})
