import type { DoorReading, Kept, LinkView, RecordPage } from '@acolhida/core/contract'
import { DAY, HOUR, MINUTE } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { behind, openStartsOf, prove, request, sendIt } from './client.ts'
import { bookingOf, bookingsOf, changePractice, linkTo, packOf } from './inside.ts'
import { ANSWERS, ask, freshKey, freshVisit, startRelay, type TestRelay, wanted } from './setup.ts'

let house: TestRelay
let api: string
beforeEach(async () => {
  house = await startRelay()
  api = `${house.door}/api/door/${house.slug}`
})
afterEach(() => house.close())

const starts = () => openStartsOf(house.door, house.slug)
const keep = async (visit: string, start: number) =>
  (await ask<Kept>(`${api}/keep`, { ...wanted(visit), start })).body
const view = async (secret: string) => (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body
const command = (id: string, what: object, more: object = {}) =>
  ask<{ seq: number }>(
    `${house.desk}/api/command`,
    { booking: id, command: what, ...more },
    { bearer: house.key, key: freshKey() },
  )
const record = async () =>
  (await ask<RecordPage>(`${house.desk}/api/record?after=0`, undefined, { bearer: house.key })).body

/** Another price for the service that the tests ask for. */
const raise = (amount: number): void =>
  changePractice(house.relay, ({ services }) => ({
    services: services.map((service) =>
      service.id === 'voice-assessment' ? { ...service, price: { kind: 'fixed' as const, amount } } : service,
    ),
  }))

describe('what was shown is what is sent', () => {
  it('a price raised after a start was kept is told, and nobody is booked at it unseen', async () => {
    const visit = freshVisit()
    const [start] = (await starts()) as [number]
    const kept = await keep(visit, start)
    const before = bookingsOf(house.relay).length
    raise(50_000)
    const body = await request(house.door, house.slug, start, { visit, shown: kept.shown })
    const refused = await sendIt(house.door, house.slug, body)
    expect([refused.status, refused.body.code]).toEqual([409, 'changed'])
    expect(refused.body.quote?.price).toBeGreaterThanOrEqual(50_000)
    expect(bookingsOf(house.relay)).toHaveLength(before)
    // The start stays kept while they look; what they have then seen is what they get.
    expect(await starts()).not.toContain(start)
    const again = await keep(visit, start)
    const { status, body: sent } = await sendIt(house.door, house.slug, { ...body, shown: again.shown })
    expect(status).toBe(201)
    expect(behind(house.relay, sent.link).price).toBe(refused.body.quote!.price)
  })

  it('nor at rules for cancelling that they have not seen', async () => {
    const visit = freshVisit()
    const [start] = (await starts()) as [number]
    const { shown } = await keep(visit, start)
    changePractice(house.relay, ({ houseRules }) => ({ houseRules: { ...houseRules, cancelAfter: 90 } }))
    const body = await request(house.door, house.slug, start, { visit, shown })
    expect((await sendIt(house.door, house.slug, body)).body.code).toBe('changed')
  })

  it('a deposit asked by a rule is in the request, in the mail, on their page, and in the desk’s record', async () => {
    changePractice(house.relay, ({ questionnaires }) => ({
      questionnaires: questionnaires.map((questionnaire) => ({
        ...questionnaire,
        rules: [
          ...questionnaire.rules,
          {
            id: 'beforehand',
            name: 'Something beforehand',
            when: { person: 'new' } as const,
            effect: { do: 'deposit', amount: 2_000 } as const,
          },
        ],
      })),
    }))
    const visit = freshVisit()
    const [start] = (await starts()) as [number]
    const kept = await keep(visit, start)
    const { place: _, ...wish } = wanted(visit)
    const said = await ask<DoorReading>(`${api}/read`, wish)
    expect([said.body.deposit, kept.deposit]).toEqual([2_000, 2_000])
    const body = await request(house.door, house.slug, start, { visit, shown: kept.shown })
    const { body: sent } = await sendIt(house.door, house.slug, body)
    expect((await view(sent.link)).deposit).toBe(2_000)
    expect(behind(house.relay, sent.link).deposit).toBe(2_000)
    const asked = (await record()).items.findLast((item) => item.kind === 'booking')
    expect(JSON.stringify(asked)).toContain('"deposit":2000')
  })

  it('cancelling costs what was shown: over a deadline, it is shown anew first', async () => {
    const secret = linkTo(house.relay, 'next-odile')
    const { start } = bookingOf(house.relay, 'next-odile')
    house.clock.forward(start - 24 * HOUR - MINUTE - house.clock.now())
    const before = await view(secret)
    expect(before.shareNow).toBe(0)
    house.clock.forward(2 * MINUTE)
    const cancel = (shown: string) =>
      ask<LinkView>(`${house.door}/api/link/${secret}/cancel`, { text: '', shown }, { key: freshKey() })
    expect((await cancel(before.shown)).body.code).toBe('changed')
    const now = await view(secret)
    expect(now.shareNow).toBe(50)
    expect((await cancel(now.shown)).body.state).toBe('cancelled')
  })

  it('while a move can be undone the client is shown all of what was before', async () => {
    const secret = linkTo(house.relay, 'next-odile')
    const before = await view(secret)
    const [start] = (await starts()).slice(30) as [number]
    const moved = await command('next-odile', {
      do: 'move',
      start,
      place: 'video',
      service: 'voice-assessment',
      minutes: 75,
      text: '',
      clash: false,
    })
    expect(moved.status).toBe(200)
    const same = ({ start: at, minutes, place, service, price }: LinkView) => [
      at,
      minutes,
      place,
      service,
      price,
    ]
    expect(same(await view(secret))).toEqual(same(before))
    house.clock.forward(9_000)
    expect((await view(secret)).start).toBe(start)
  })

  it('the desk’s decision on something that has changed meanwhile comes back', async () => {
    const { body } = await command('asks-tome', { do: 'welcome' }, { seen: '0'.repeat(64) })
    expect(body.code).toBe('changed')
    expect(bookingOf(house.relay, 'asks-tome').status).toBe('requested')
  })
})

describe('questions published while somebody is choosing', () => {
  it('are named, wherever on the way they are found missing', async () => {
    const visit = freshVisit()
    const [start] = (await starts()) as [number]
    const { shown } = await keep(visit, start)
    changePractice(house.relay, ({ questionnaires }) => ({
      questionnaires: questionnaires.map((questionnaire) => ({
        ...questionnaire,
        questions: [
          ...questionnaire.questions,
          { id: 'new-one', kind: 'short' as const, text: 'One thing more?', required: true },
        ],
      })),
    }))
    const missing = [{ question: 'new-one' }]
    for (const path of ['read', 'openings', 'keep']) {
      const more = path === 'keep' ? { start } : path === 'openings' ? { days: 7 } : {}
      const { place: _, ...wish } = wanted(visit)
      const { body } = await ask(`${api}/${path}`, path === 'read' ? wish : { ...wanted(visit), ...more })
      expect([path, body.code]).toEqual([path, 'answers'])
      expect(body.problems).toMatchObject(missing)
    }
    const sent = await sendIt(
      house.door,
      house.slug,
      await request(house.door, house.slug, start, { visit, shown }),
    )
    expect(sent.body).toMatchObject({ code: 'answers', problems: missing })
    const answers = { ...ANSWERS, 'new-one': 'No.' }
    const { place: _, ...wish } = { ...wanted(visit), answers }
    expect((await ask<DoorReading>(`${api}/read`, wish)).body.open).toBe(true)
  })
})

describe('a request that is refused for good', () => {
  it('keeps its start from nobody', async () => {
    const email = 'three.times@example.org'
    const person = { name: 'Three Times', email, zone: 'Europe/Lisbon' }
    const open = await starts()
    for (const start of [open[5]!, open[25]!]) {
      const { body } = await sendIt(
        house.door,
        house.slug,
        await request(house.door, house.slug, start, { person }),
      )
      await prove(house, behind(house.relay, body.link).id)
    }
    const visit = freshVisit()
    const start = (await starts()).at(-1)!
    const { shown } = await keep(visit, start)
    expect(await starts()).not.toContain(start)
    changePractice(house.relay, ({ services }) => ({
      services: services.map((service) =>
        service.id === 'voice-assessment' ? { ...service, on: false } : service,
      ),
    }))
    const body = await request(house.door, house.slug, start, { visit, shown, person })
    expect((await sendIt(house.door, house.slug, body)).status).toBe(409)
    changePractice(house.relay, ({ services }) => ({
      services: services.map((service) =>
        service.id === 'voice-assessment' ? { ...service, on: true } : service,
      ),
    }))
    expect(await starts()).toContain(start)
  })
})

describe('forgetting somebody who has written', () => {
  it('leaves no trace of them', async () => {
    const body = {
      visit: freshVisit(),
      name: 'Quill Sandrow',
      email: 'quill.sandrow@example.org',
      message: 'Do you also teach on Saturdays?',
    }
    const key = freshKey()
    expect((await ask(`${api}/enquire`, body, { key })).status).toBe(201)
    const [{ subject }] = house.relay.store.db
      .prepare(`SELECT subject FROM record WHERE kind = 'enquiry' ORDER BY n DESC LIMIT 1`)
      .all() as [{ subject: string }]
    const answered = await ask(
      `${house.desk}/api/enquiry`,
      { enquiry: subject, text: 'On some of them.' },
      { bearer: house.key, key: freshKey() },
    )
    expect(answered.status).toBe(200)
    await house.relay.rounds.turn()
    expect(everything()).toContain('quill.sandrow')
    house.clock.forward(401 * DAY)
    await house.relay.rounds.turn()
    expect(everything()).not.toContain('quill.sandrow')
    expect(everything()).not.toContain('Quill Sandrow')
    expect(everything()).not.toContain(subject)
  })
})

/** Every row of every table. */
function everything(): string {
  const { db } = house.relay.store
  const tables = db.prepare(`SELECT name FROM sqlite_master WHERE type = 'table'`).all() as { name: string }[]
  return JSON.stringify(tables.map(({ name }) => db.prepare(`SELECT * FROM "${name}"`).all()))
}

describe('what is told while it happens', () => {
  it('reaches those who listen at most so often, and nothing of it is lost', async () => {
    const { door, slug } = house
    const aborted = new AbortController()
    const response = await fetch(`${door}/api/door/${slug}/changes`, { signal: aborted.signal })
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
    let heard = ''
    const listen = (async () => {
      for (;;) {
        const { value, done } = await reader.read()
        if (done) return
        heard += value
      }
    })().catch(() => {})
    const [a, b] = (await starts()) as [number, number]
    for (let i = 0; i < 50; i++) await keep('test-visit-restless', i % 2 ? a : b)
    await expect.poll(() => heard.match(/event: openings/g)?.length ?? 0).toBeGreaterThan(0)
    await keep('test-visit-last-one', a)
    const so = heard.match(/event: openings/g)?.length ?? 0
    await expect.poll(() => heard.match(/event: openings/g)?.length ?? 0).toBeGreaterThanOrEqual(so)
    expect(heard.match(/event: openings/g)!.length).toBeLessThan(50)
    expect(heard).not.toContain('event: record')
    aborted.abort()
    await listen
  })

  it('an older page is told to load itself anew, and a newer desk’s package stays', async () => {
    const response = await fetch(`${api}/read`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-acolhida-contract': '1' },
      body: '{}',
    })
    expect(response.status).toBe(409)
    expect(((await response.json()) as { code: string }).code).toBe('older-page')
    expect(packOf(house.relay).revision).toBeGreaterThan(0)
  })
})
