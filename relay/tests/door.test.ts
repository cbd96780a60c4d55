import type { DoorOpenings, DoorReading, DoorView, Kept, LinkView } from '@acolhida/core/contract'
import { MINUTE } from '@acolhida/core/time'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openStartsOf, request, sendIt } from './client.ts'
import { packOf, publishTo, recordLength } from './inside.ts'
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
    const services = pack.practice.services.map((service) => ({ ...service, showAtMost: 5 }))
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
    const before = recordLength(house.relay)
    const answers = await Promise.all([1, 2, 3].map(() => sendIt(door, house.slug, body, key)))
    expect(new Set(answers.map((answer) => answer.body.link)).size).toBe(1)
    expect(recordLength(house.relay)).toBe(before + 1)
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
