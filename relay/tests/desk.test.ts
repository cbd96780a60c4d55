import type { Due } from '@acolhida/core/agenda'
import type { LinkView, RecordPage } from '@acolhida/core/contract'
import type { Backup } from '@acolhida/core/formats'
import { Doorkeeper } from '@acolhida/core/house'
import { DAY, HOUR, MINUTE, SECOND } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { Demo } from '../demo.ts'
import { newPairingCode } from '../desk/pairing.ts'
import { behind, openStartsOf, prove, request, sendIt } from './client.ts'
import { bookingsOf, linkTo, packOf } from './inside.ts'
import { ask, DEMO, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay({ memoryDays: 100 })
})
afterEach(() => house.close())

const record = (after = 0) =>
  ask<RecordPage>(`${house.desk}/api/record?after=${after}`, undefined, { bearer: house.key })
const command = (booking: string, what: object, key = freshKey()) =>
  ask<{ seq: number }>(`${house.desk}/api/command`, { booking, command: what }, { bearer: house.key, key })
const booking = (id: string) => bookingsOf(house.relay).find((booking) => booking.id === id)!
const mails = (address: string) => house.mailbox.received.filter((mail) => mail.to.includes(address))
const settle = async (ms: number): Promise<void> => {
  house.clock.forward(ms)
  const isMessage = ({ doing }: Due): boolean => doing.do === 'message'
  const { here, store, rounds } = house.relay
  await rounds.turn()
  // A round of before may have been on its way, and this one have joined it.
  await expect
    .poll(() => here.keeper.due(house.clock.now(), isMessage) ?? store.handed()[0], { timeout: 5_000 })
    .toBeUndefined()
}

describe('the desk’s key', () => {
  it('is needed for everything, and only the paired desk has it', async () => {
    for (const path of ['record', 'record/stream'])
      expect((await ask(`${house.desk}/api/${path}`)).status).toBe(401)
    expect((await ask(`${house.desk}/api/command`, {}, { bearer: 'x'.repeat(43) })).body.code).toBe(
      'not-paired',
    )
    expect((await ask(`${house.desk}/api/package`, {}, { method: 'PUT' })).status).toBe(401)
    expect((await record()).status).toBe(200)
  })

  it('comes from a one-time code, and a second desk cuts the first off after saying so', async () => {
    const code = newPairingCode(house.relay.store)
    const pair = (body: object) =>
      ask<{ key: string }>(`${house.desk}/api/pair`, { practice: DEMO, replace: false, ...body })
    expect((await pair({ code: 'AAAA-BBBB-CCCC' })).body.code).toBe('wrong-code')
    expect((await pair({ code })).body.code).toBe('paired-already')
    // However it was copied: small, with spaces, with another hyphen.
    const copied = ` ${code.toLowerCase().replace('-', ' – ').replace('-', ' ')} `
    const listening = await fetch(`${house.desk}/api/record/stream`, {
      headers: { authorization: `Bearer ${house.key}` },
    })
    const { body } = await pair({ code: copied, replace: true })
    expect((await record()).status).toBe(401)
    // Whoever listened before hears no more.
    expect(await listening.text()).toContain('retry:')
    house.key = body.key
    expect((await record()).status).toBe(200)
    expect((await pair({ code, replace: true })).body.code).toBe('wrong-code')
    // A code ends after an hour.
    const old = newPairingCode(house.relay.store, Date.now() - HOUR - 1_000)
    expect((await pair({ code: old, replace: true })).body.code).toBe('wrong-code')
  })

  it('of another practice empties the relay first, and only when that was said', async () => {
    const pair = (body: object) =>
      ask<{ key: string }>(`${house.desk}/api/pair`, {
        code: newPairingCode(house.relay.store),
        practice: 'own',
        replace: true,
        ...body,
      })
    const { relay } = house
    const before = await pair({})
    expect(before.body).toMatchObject({
      code: 'another-practice',
      message: expect.stringContaining('Iria Montalvar'),
    })
    expect((await record()).status).toBe(200)

    house.key = (await pair({ empty: 'others' })).body.key
    expect((await record()).body).toMatchObject({ items: [], last: 0 })
    expect(relay.here.keeper.house.practice).toBeUndefined()
    expect(relay.here.keeper.house.agenda()).toEqual([])
    expect((await ask(`${house.door}/api/door/${house.slug}`)).status).toBe(404)
    const rows = relay.store.db.prepare('SELECT count(*) AS n FROM bookings').get()
    expect(rows).toMatchObject({ n: 0 })

    // What a start would make of the file is what is in memory: nothing, and no demo either.
    const again = new Doorkeeper(relay.store)
    expect(again.house.practice).toBeUndefined()
    expect(new Demo(demoBackup, again, relay.store, () => house.clock.now()).id).toBe(DEMO)
    expect(again.house.practice).toBeUndefined()
  })

  it('with the demo, when all is to go, begins that anew', async () => {
    const { relay } = house
    await command('asks-tome', { do: 'decline', text: '' })
    expect(booking('asks-tome').status).toBe('declined')
    const { body } = await ask<{ key: string }>(`${house.desk}/api/pair`, {
      code: newPairingCode(relay.store),
      practice: DEMO,
      replace: true,
      empty: 'all',
    })
    house.key = body.key
    expect(booking('asks-tome').status).toBe('requested')
    const lent = await ask<Backup>(`${house.desk}/api/demo`)
    const { items } = (await record()).body
    const told = lent.body.bookings.flatMap(({ id, events }) => events.map((_, i) => `${id} ${i + 1}`))
    expect(
      items.flatMap((item) => (item.kind === 'booking' ? [`${item.subject} ${item.seq}`] : [])).sort(),
    ).toEqual(told.sort())
  })

  it('is not cut off by publishing another practice', async () => {
    const pack = packOf(house.relay)
    const { status, body } = await ask(
      `${house.desk}/api/package`,
      { ...pack, practice: { ...pack.practice, id: 'own' }, revision: pack.revision + 1 },
      { method: 'PUT', key: freshKey(), bearer: house.key },
    )
    expect([status, body.code]).toEqual([409, 'another-practice'])
  })

  it('can be given on with a code made at the desk', async () => {
    const asked = await ask<{ code: string }>(`${house.desk}/api/code`, {}, { bearer: house.key })
    const { body } = await ask<{ key: string }>(`${house.desk}/api/pair`, {
      code: asked.body.code,
      practice: DEMO,
      replace: true,
    })
    expect(body.key).toMatch(/^[\w-]{20,}$/)
    expect((await ask(`${house.desk}/api/code`, {}, { bearer: house.key })).body.code).toBe('not-paired')
  })
})

describe('deciding', () => {
  it('sends the message once the undo has passed, and not when it was used', async () => {
    const { body } = await command('asks-tome', { do: 'decline', text: 'Not now.' })
    await settle(0)
    expect(mails('tome.arrais')).toEqual([])
    await command('asks-tome', { do: 'take-back', of: body.seq })
    await settle(MINUTE)
    expect(mails('tome.arrais')).toEqual([])
    expect(booking('asks-tome').status).toBe('requested')
    await command('asks-tome', { do: 'welcome' })
    await settle(MINUTE)
    expect(mails('tome.arrais').map((mail) => mail.subject.slice(0, 9))).toEqual(['Confirmed'])
    expect((await command('asks-tome', { do: 'take-back', of: 5 })).body.code).toBe('nothing-to-take-back')
  })

  it('keeps a turned-down time from others until it can not be undone any more', async () => {
    const { start } = booking('asks-tome')
    await command('asks-tome', { do: 'decline', text: '' })
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
    house.clock.forward(9_000)
    expect(await openStartsOf(house.door, house.slug)).toContain(start)
  })

  it('does a command once', async () => {
    const key = freshKey()
    const answers = [
      await command('asks-tome', { do: 'welcome' }, key),
      await command('asks-tome', { do: 'welcome' }, key),
    ]
    expect(answers.map((answer) => [answer.status, answer.body.seq])).toEqual([
      [200, 3],
      [200, 3],
    ])
    expect((await command('asks-tome', { do: 'welcome' })).body).toMatchObject({
      code: 'not-waiting',
      message: 'It is booked already.',
    })
    expect((await command('nobody-there', { do: 'welcome' })).status).toBe(404)
    expect((await command('asks-tome', { do: 'explode' })).status).toBe(400)
  })

  it('refuses an offer of a time that is taken', async () => {
    const taken = booking('next-odile').start
    const { body } = await command('asks-tome', {
      do: 'offer',
      text: '',
      starts: [{ start: taken, place: 'studio' }],
    })
    expect(body.code).toBe('not-open')
  })

  it('shows a client nothing that can still be undone', async () => {
    const [start] = await openStartsOf(house.door, house.slug)
    const { body } = await sendIt(house.door, house.slug, await request(house.door, house.slug, start!))
    const view = async () => (await ask<LinkView>(`${house.door}/api/link/${body.link}`)).body.state
    const { id } = behind(house.relay, body.link)
    expect(await view()).toBe('unproved')
    expect((await command(id, { do: 'welcome' })).body.code).toBe('not-proved')
    await prove(house, id)
    await command(id, { do: 'welcome' })
    expect(await view()).toBe('waiting')
    house.clock.forward(9_000)
    expect(await view()).toBe('booked')
  })

  it('sends no answer to a request that was withdrawn before the answer was out', async () => {
    await command('asks-tome', { do: 'welcome' })
    const secret = linkTo(house.relay, 'asks-tome', true)
    const { body } = await ask<LinkView>(`${house.door}/api/link/${secret}/withdraw`, {}, { key: freshKey() })
    expect(body.state).toBe('withdrawn')
    await settle(MINUTE)
    expect(mails('tome.arrais').map((mail) => mail.subject.split(':')[0])).toEqual(['Withdrawn'])
  })

  it('reminds the practitioner before a hold runs out, once, and not when the word was given', async () => {
    await command('asks-tome', { do: 'welcome' })
    const [start] = (await openStartsOf(house.door, house.slug)).slice(20)
    await sendIt(house.door, house.slug, await request(house.door, house.slug, start!))
    await settle(23 * HOUR + MINUTE)
    const reminders = () =>
      mails('iria@montalvar').filter((mail) => mail.subject.includes('needs your answer'))
    expect(reminders()).toHaveLength(1)
    await settle(2 * HOUR)
    expect(reminders()).toHaveLength(1)
    expect(mails('iria@montalvar').map((mail) => mail.subject.split(':')[0])).toContain(
      'A request has run out',
    )
  })
})

describe('by hand', () => {
  const enter = (body: object) =>
    ask<{ seq: number }>(`${house.desk}/api/enter`, body, { bearer: house.key, key: freshKey() })
  const body = (start: number, more: object = {}) => ({
    id: `by-hand-${freshKey()}`,
    service: 'coaching',
    place: 'video',
    start,
    minutes: 40,
    clash: false,
    person: { name: 'Ulla Brandt', email: 'ulla.brandt@example.org', zone: 'Europe/Berlin' },
    ...more,
  })

  it('books somebody in against every rule but the past and another session', async () => {
    const taken = booking('next-odile').start
    const midnight = taken - (taken % DAY) + 4 * DAY + 3 * HOUR
    const done = await enter(body(midnight))
    expect(done.status).toBe(201)
    await settle(0)
    expect(mails('ulla.brandt')).toEqual([])
    await settle(9 * SECOND)
    expect(mails('ulla.brandt').map((mail) => mail.subject.split(':')[0])).toEqual(['Confirmed'])
    expect((await enter(body(taken + 5 * MINUTE))).body.code).toBe('not-open')
    expect((await enter(body(taken + 5 * MINUTE, { clash: true }))).status).toBe(201)
    expect((await enter(body(1_000, { clash: true }))).body.code).toBe('not-open')
    expect((await enter(body(midnight, { service: 'none' }))).status).toBe(404)
    expect((await enter(body(midnight, { person: { name: '', email: 'x', zone: 'UTC' } }))).status).toBe(400)
  })

  it('takes a word with it, which goes with the confirmation', async () => {
    const at = booking('next-odile').start + 5 * DAY
    expect((await enter(body(at - (at % DAY) + 11 * HOUR, { text: 'Bring the score.' }))).status).toBe(201)
    await settle(9 * SECOND)
    expect(mails('ulla.brandt').map((mail) => mail.text)).toEqual([
      expect.stringContaining('Bring the score.'),
    ])
  })

  it('can be undone: nobody hears of it, and the time is free again', async () => {
    const at = booking('next-odile').start + 5 * DAY
    const start = at - (at % DAY) + 11 * HOUR
    const entered = body(start)
    await enter(entered)
    const { unsettled } = booking(entered.id)
    await command(entered.id, { do: 'take-back', of: unsettled?.seq })
    expect(booking(entered.id)).toMatchObject({ status: 'withdrawn' })
    expect(booking(entered.id).tells).toBeUndefined()
    await settle(DAY)
    expect(mails('ulla.brandt')).toEqual([])
    expect((await enter(body(start))).status).toBe(201)
  })

  it('moves what was booked in a service that is gone, but into no other session', async () => {
    const { start } = booking('next-odile')
    const at = start - (start % DAY) + 5 * DAY + 11 * HOUR
    const one = body(at)
    await enter(one)
    await settle(9 * SECOND)
    const pack = packOf(house.relay)
    const services = pack.practice.services.filter(({ id }) => id !== 'coaching')
    await ask(
      `${house.desk}/api/package`,
      { ...pack, practice: { ...pack.practice, services }, revision: pack.revision + 1 },
      { method: 'PUT', key: freshKey(), bearer: house.key },
    )
    const move = (to: number) => ({
      do: 'move',
      start: to,
      place: 'video',
      minutes: 40,
      text: '',
      clash: false,
    })
    expect((await command(one.id, move(start + 5 * MINUTE))).body.code).toBe('not-open')
    expect((await command(one.id, move(at + HOUR))).status).toBe(200)
  })

  it('moves a session with its invitation, and back within the undo without a word', async () => {
    const { start } = booking('next-odile')
    const to = {
      do: 'move',
      start: start - (start % DAY) + 5 * DAY + 4 * HOUR,
      place: 'studio',
      minutes: 55,
      text: 'I have to be elsewhere.',
      clash: false,
    }
    const { body: moved } = await command('next-odile', to)
    await command('next-odile', { do: 'take-back', of: moved.seq })
    await settle(MINUTE)
    expect(mails('odile.ferrand')).toEqual([])
    await command('next-odile', to)
    await settle(MINUTE)
    const [mail] = mails('odile.ferrand')
    expect(mail?.subject).toMatch(/^Moved/)
    expect(mail?.text).toContain('I have to be elsewhere.')
    expect(mail?.calendar).toContain('SEQUENCE:1')
    expect(booking('next-odile')).toMatchObject({ start: to.start, place: 'studio', minutes: 55 })
  })
})

describe('lapsing', () => {
  it('happens by itself, stamped with the moment it was due', async () => {
    const { until } = booking('asks-tome')
    await settle(2 * DAY)
    const { body } = await record()
    const lapsed = body.items.filter((item) => item.kind === 'booking' && item.body.type === 'lapsed')
    expect(lapsed.map((item) => item.subject).sort()).toEqual(['asks-lucjan', 'asks-tome', 'asks-wanda'])
    expect(lapsed.find((item) => item.subject === 'asks-tome')?.at).toBe(until)
    expect(mails('tome.arrais')[0]?.subject).toContain('has run out')
  })
})

describe('the record', () => {
  it('is fetched from a cursor, and asking deletes nothing', async () => {
    const all = (await record()).body
    const rest = (await record(all.items[4]!.n)).body
    expect(rest.items[0]).toEqual(all.items[5])
    expect((await record()).body.items).toHaveLength(all.items.length)
    expect((await record(all.last)).body.items).toEqual([])
  })

  it('forgets by age, and says from where on it is whole', async () => {
    const before = (await record()).body
    expect(before.first).toBe(1)
    house.clock.forward(200 * DAY)
    await house.relay.rounds.turn()
    const after = (await record()).body
    expect(after.items.filter((item) => item.kind === 'booking')).toEqual([])
    expect(after.first).toBeGreaterThan(1)
    expect(bookingsOf(house.relay)).toEqual([])
  })
})

describe('publishing', () => {
  const publish = (pack: object) =>
    ask<{ revision: number }>(`${house.desk}/api/package`, pack, {
      method: 'PUT',
      bearer: house.key,
      key: freshKey(),
    })

  it('shows at the door at once', async () => {
    const pack = packOf(house.relay)
    const practice = { ...pack.practice, profile: { ...pack.practice.profile, greeting: 'Good evening.' } }
    expect((await publish({ ...pack, practice, revision: 2 })).status).toBe(200)
    const { body } = await ask<{ practice: { greeting: string } }>(`${house.door}/api/door/${house.slug}`)
    expect(body.practice.greeting).toBe('Good evening.')
  })

  it('refuses older, malformed and unworkable packages, and keeps what it has', async () => {
    const pack = packOf(house.relay)
    expect((await publish({ ...pack, revision: 0 })).body.code).toBe('older-package')
    expect(
      (await publish({ ...pack, revision: 2, practice: { ...pack.practice, space: 'x' } })).body.where,
    ).toBe('practice.space')
    const services = pack.practice.services.map((service) => ({ ...service, places: ['moon'] }))
    expect(
      (await publish({ ...pack, revision: 2, practice: { ...pack.practice, services } })).body.where,
    ).toBe('practice.services[0].places[0]')
    expect(packOf(house.relay)).toEqual(pack)
  })
})

describe('mail', () => {
  const so = () =>
    house.relay.store.db
      .prepare(`SELECT * FROM messages WHERE step = 'confirmation' AND tries > 0`)
      .all() as {
      subject: string
      tries: number
      state: string
      due: number
    }[]
  const tome = () => so().find((due) => due.subject === 'asks-tome')

  it('is tried again when the host does not answer', async () => {
    await house.mailbox.stop()
    await command('asks-tome', { do: 'welcome' })
    house.clock.forward(10_000)
    await house.relay.rounds.turn()
    await expect.poll(() => tome()?.state, { timeout: 10_000 }).toBe('again')
    expect(tome()).toMatchObject({ tries: 1, due: house.clock.now() + MINUTE })
  })

  it('tells only the newest state, however the one before has fared', async () => {
    await house.mailbox.stop()
    await command('asks-tome', { do: 'welcome' })
    house.clock.forward(10_000)
    await house.relay.rounds.turn()
    await expect.poll(() => tome()?.state, { timeout: 10_000 }).toBe('again')
    await command('asks-tome', { do: 'cancel', by: 'practitioner', text: 'I am ill.' })
    const dues = house.relay.here.keeper.house.dues({ kind: 'booking', id: 'asks-tome' })
    expect(dues.flatMap(({ doing }) => (doing.do === 'message' ? [doing.step] : []))).toEqual(['cancelled'])
  })

  it('leaves in the record what went, without the private link', async () => {
    await command('asks-tome', { do: 'welcome' })
    await settle(10_000)
    await expect.poll(async () => (await record()).body.items.at(-1)?.kind).toBe('mail')
    const { body } = await record()
    const [item] = body.items.slice(-1)
    expect(item?.body).toMatchObject({ step: 'confirmation', state: 'sent', to: 'tome.arrais@example.org' })
    const { text = '' } = (item?.body ?? {}) as { text?: string }
    expect(text).toContain('Your time is confirmed')
    expect(text).not.toContain('/my/')
    expect(mails('tome.arrais')[0]?.text).toContain('/my/')
  })
})
