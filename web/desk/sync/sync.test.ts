import 'fake-indexeddb/auto'
import { type GiveBackBody, type RecordItem, SEALING, type SealKey } from '@acolhida/core/contract'
import type { Practice } from '@acolhida/core/practice'
import type { Answers } from '@acolhida/core/questions'
import { readBackup } from '@acolhida/core/schemas'
import { instant, parseInstant, shift } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { CompactEncrypt } from 'jose/jwe/compact/encrypt'
import { importJWK } from 'jose/key/import'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { newSealKeys, publicHalf } from '../../seal/open.ts'
import { seal } from '../../seal/seal.ts'
import { takeIn } from '../data/arrive.ts'
import { exportBackup, importBackup } from '../data/backup.ts'
import { changePractice } from '../data/change.ts'
import { connectionRow } from '../data/database.ts'
import { db } from '../data/db.ts'
import { answerEnquiry, decideFor, enterBooking, pairWith, sendQuote } from './acts.ts'
import { turn } from './sync.ts'
import { CLOSED_DAYS, callOffFor, decideEach, takeAllBack } from './together.ts'

const now = parseInstant('2026-11-24T11:00Z')
// The clock stands: what lapses in the demo does not depend on the day this runs.
vi.useFakeTimers({ toFake: ['Date'], now })

/** A relay that answers what it is told to, and writes down what it was asked. */
class FakeRelay {
  asked: { method: string; path: string; body: unknown; key: string | undefined }[] = []
  items: RecordItem[] = []
  /** How many lines of each booking it has. */
  has: Record<string, number> = {}
  first = 1
  revision = 0
  refuse: { status: number; code: string; message: string } | undefined
  down = false
  strict = false

  answer(path: string, method: string, body: { revision?: number } | undefined): [number, unknown] {
    if (path === '/api/holdings')
      return [200, { bookings: this.has, lines: {}, freed: {}, enquiries: {}, chain: '' }]
    if (path === '/api/give-back') return [200, { took: 1, differ: [] }]
    if (path.startsWith('/api/record')) {
      const after = Number(new URL(path, 'http://x').searchParams.get('after'))
      const last = this.items.at(-1)?.n ?? 0
      return [200, { items: this.items.filter((item) => item.n > after), first: this.first, last, now }]
    }
    if (path === '/api/package') {
      if (this.strict && (body?.revision ?? 0) <= this.revision)
        return [409, { code: 'older-package', message: 'older' }]
      this.revision = body?.revision ?? 0
      return [200, { revision: this.revision }]
    }
    if (path === '/api/status')
      return [200, { now, moved: false, paired: true, revision: this.revision, doorUrl: 'http://door/' }]
    if (path === '/api/calendars') return [200, []]
    if (path === '/api/pair') return [200, { key: 'key-of-this-desk' }]
    if (method === 'POST' && this.refuse) return [this.refuse.status, this.refuse]
    return [200, { seq: 3 }]
  }

  fetch = async (path: string, options: RequestInit = {}): Promise<Response> => {
    if (this.down) throw new TypeError('no network')
    const headers = options.headers as Record<string, string>
    const body = options.body ? JSON.parse(String(options.body)) : undefined
    const method = options.method ?? 'GET'
    this.asked.push({ method, path, body, key: headers?.['idempotency-key'] })
    const [status, answer] = this.answer(path, method, body)
    return new Response(JSON.stringify(answer), { status, headers: { 'x-relay-now': String(now) } })
  }

  to(path: string) {
    return this.asked.filter((call) => call.path === path)
  }
}

let relay: FakeRelay
const bookingOf = async (id: string) => (await db.bookings.get(id))!
beforeEach(async () => {
  relay = new FakeRelay()
  vi.stubGlobal('fetch', relay.fetch)
  await importBackup(db, demoBackup(now))
  await db.connection.put({ ...(await connectionRow(db)), key: 'key-of-this-desk' })
})

const lapsed = (n: number, id: string): RecordItem => ({
  n,
  at: now,
  kind: 'booking',
  subject: id,
  seq: 3,
  body: { type: 'lapsed', at: now },
})

describe('a round with the relay', () => {
  it('does nothing without a key', async () => {
    const { key: _, ...alone } = await connectionRow(db)
    await db.connection.put(alone)
    await turn()
    expect(relay.asked).toEqual([])
  })

  it('publishes once, and again only when something the door shows has changed', async () => {
    await turn()
    await turn()
    expect(relay.to('/api/package')).toHaveLength(1)
    await changePractice(db, 'the name', (p) => ({ ...p, profile: { ...p.profile, name: 'I. M.' } }))
    await turn()
    expect(relay.to('/api/package')).toHaveLength(2)
    expect((await connectionRow(db)).revision).toBe(relay.revision)
  })

  it('publishes no names of people and no notes of its own', async () => {
    await turn()
    const sent = JSON.stringify(relay.to('/api/package')[0]?.body)
    for (const secret of ['Tomé', 'arrais', 'choir week', 'example.org"],"'])
      expect(sent).not.toContain(secret)
    expect(sent).toContain('mailHashes')
  })

  it('publishes nothing of private rules, drafts and the library, and lets nobody straight in where it matters', async () => {
    const row = (await db.practice.get('practice'))!
    const [first, ...rest] = row.practice.questionnaires
    const questionnaire = {
      ...first!,
      questions: [
        ...first!.questions,
        { id: 'ill', kind: 'yesno' as const, text: 'Ill?', required: false, private: true },
      ],
      rules: [
        ...first!.rules,
        {
          id: 'when-ill',
          name: 'A hidden rule',
          when: { question: 'ill', is: '=' as const, value: true },
          effect: { do: 'look' as const, note: '' },
        },
      ],
      draft: { questions: [], rules: [], bands: [] },
    }
    const library = [{ id: 'kept', kind: 'short' as const, text: 'A kept question', required: false }]
    const practice = { ...row.practice, questionnaires: [questionnaire, ...rest], library }
    await db.practice.put({ ...row, practice })
    await turn()
    const [sent] = relay.to('/api/package').slice(-1)
    expect(JSON.stringify(sent!.body)).not.toMatch(/A hidden rule|draft|A kept question/)
    const { services } = (sent!.body as { practice: typeof practice }).practice
    const approval = services.find((service) => service.questionnaire === first!.id)!.approval
    expect(approval).toEqual({ new: 'ask', known: 'ask' })
    const other = (list: typeof services) =>
      list.find((service) => service.questionnaire !== first!.id)!.approval
    expect(other(services)).toEqual(other(practice.services))
  })

  it('does not publish what can not work', async () => {
    await turn()
    const row = (await db.practice.get('practice'))!
    const services = row.practice.services.map((service) => ({ ...service, places: ['moon'] }))
    await db.practice.put({ ...row, practice: { ...row.practice, services } })
    await turn()
    expect(relay.to('/api/package')).toHaveLength(1)
  })

  it('goes on from the relay’s revision when it was restored from an older file', async () => {
    relay.strict = true
    relay.revision = 40
    await turn()
    expect(relay.revision).toBe(41)
    expect((await connectionRow(db)).revision).toBe(41)
  })

  it('takes in the record from its own cursor, once', async () => {
    relay.items = [lapsed(1, 'asks-tome'), lapsed(2, 'asks-wanda')]
    await turn()
    expect((await db.bookings.get('asks-tome'))?.status).toBe('lapsed')
    expect((await connectionRow(db)).cursor).toBe(2)
    await turn()
    expect(relay.asked.filter((call) => call.path === '/api/record?after=0')).toHaveLength(1)
  })

  it('shows a gap, and fetches what is left, when the relay has forgotten or begun anew', async () => {
    await db.connection.put({ ...(await connectionRow(db)), cursor: 5 })
    relay.first = 20
    relay.items = [lapsed(20, 'asks-tome')]
    await turn()
    expect(await connectionRow(db)).toMatchObject({ cursor: 20, gap: true })
    expect((await db.bookings.get('asks-tome'))?.status).toBe('lapsed')
    // Of somebody who was forgotten nothing is left but this.
    const invoice = { number: 'IM-41', at: now, lines: [], total: 100 }
    await db.forgotten.add({
      ...{ id: 'forgotten-one', hashes: [], at: now, agreements: [] },
      invoices: [invoice],
    })
    relay.first = 1
    relay.items = [lapsed(1, 'asks-wanda')]
    const { bookings } = demoBackup(now)
    relay.has = Object.fromEntries(bookings.slice(1).map(({ id, events }) => [id, events.length]))
    await turn()
    expect(await connectionRow(db)).toMatchObject({ cursor: 1, gap: true })
    // What the new file lacks, and nothing else, it is given back.
    const given = relay.asked.filter(({ path }) => path === '/api/give-back')
    expect(given.length).toBeGreaterThan(0)
    const ids = given.flatMap(({ body }) => (body as GiveBackBody).bookings.map(({ id }) => id))
    expect(ids).toContain(bookings[0]!.id)
    // The desk knows one line more of whoever has lapsed than its file had.
    expect(ids.sort()).toEqual([bookings[0]!.id, 'asks-tome'].sort())
    // Its invoices go on after the last one made, never with a number that was given.
    expect(given.map(({ body }) => (body as GiveBackBody).numbered).at(-1)).toBe(41)
  })
})

describe('decisions', () => {
  it('are passed on in order, each under its own key', async () => {
    relay.down = true
    await decideFor(await bookingOf('asks-tome'), { do: 'welcome' })
    await decideFor(await bookingOf('asks-wanda'), { do: 'decline', text: 'no' })
    expect(await db.intentions.count()).toBe(2)
    relay.down = false
    await turn()
    expect(relay.to('/api/command').map((call) => call.body)).toEqual([
      { booking: 'asks-tome', command: { do: 'welcome' }, seen: expect.any(String) },
      { booking: 'asks-wanda', command: { do: 'decline', text: 'no' }, seen: expect.any(String) },
    ])
    expect(new Set(relay.to('/api/command').map((call) => call.key)).size).toBe(2)
    expect(await db.intentions.count()).toBe(0)
  })

  it('about a whole session are kept together, or none of them', async () => {
    relay.down = true
    const here = await Promise.all(['asks-tome', 'asks-wanda', 'next-benat'].map(bookingOf))
    const failing = {
      what: 'Called off',
      change: (): never => {
        throw new Error('The disk is full.')
      },
    }
    await expect(callOffFor(here, { text: 'No heating.' }, failing)).rejects.toThrow('The disk is full.')
    expect(await db.intentions.count()).toBe(0)
    await callOffFor(
      here,
      { text: 'No heating.' },
      {
        what: 'Called off',
        change: (practice) => ({ ...practice, profile: { ...practice.profile, name: 'Other' } }),
      },
    )
    expect((await db.intentions.toArray()).map(({ booking, command }) => [booking, command.do])).toEqual([
      ['asks-tome', 'decline'],
      ['asks-wanda', 'decline'],
      ['next-benat', 'cancel'],
    ])
    expect((await db.practice.get('practice'))?.practice.profile.name).toBe('Other')
  })

  it('for a day one can’t keep are taken back at once, with the days that were closed, or only they', async () => {
    relay.down = true
    const undoing = async () => {
      const here = await Promise.all(['asks-tome', 'next-benat'].map(bookingOf))
      return here.map((row) => ({
        ...row,
        unsettled: { seq: row.seq, until: shift(now, 8_000), before: row, what: 'offered' },
      }))
    }
    const days = {
      what: CLOSED_DAYS,
      change: (p: Practice): Practice => ({ ...p, profile: { ...p.profile, greeting: 'Away.' } }),
    }
    await decideEach([], days)
    await takeAllBack(await undoing())
    expect((await db.practice.get('practice'))?.practice.profile.greeting).not.toBe('Away.')
    expect((await db.intentions.toArray()).map(({ booking, command }) => [booking, command.do])).toEqual([
      ['asks-tome', 'take-back'],
      ['next-benat', 'take-back'],
    ])
    // What was changed since, or otherwise, stays.
    await decideEach([], days)
    await changePractice(db, 'the name', (p) => ({ ...p, profile: { ...p.profile, name: 'I. M.' } }))
    await takeAllBack(await undoing())
    expect((await db.practice.get('practice'))?.practice.profile.greeting).toBe('Away.')
  })

  it('keep their key however often they are tried', async () => {
    relay.refuse = { status: 502, code: 'failed', message: 'gateway' }
    await decideFor(await bookingOf('asks-tome'), { do: 'welcome' })
    await turn()
    relay.refuse = undefined
    await turn()
    const keys = relay.to('/api/command').map((call) => call.key)
    expect(keys.length).toBeGreaterThan(1)
    expect(new Set(keys).size).toBe(1)
  })

  it('come back with their reason when the relay refuses, and do not hold up the others', async () => {
    relay.refuse = { status: 409, code: 'not-waiting', message: 'The client has withdrawn the request.' }
    await decideFor(await bookingOf('asks-tome'), { do: 'welcome' })
    await turn()
    relay.refuse = undefined
    await decideFor(await bookingOf('asks-wanda'), { do: 'welcome' })
    await turn()
    const left = await db.intentions.toArray()
    expect(left).toMatchObject([
      {
        booking: 'asks-tome',
        refused: { code: 'not-waiting', message: 'The client has withdrawn the request.' },
      },
    ])
  })

  it('wait when this desk is cut off or too quick', async () => {
    for (const status of [401, 429]) {
      relay.refuse = { status, code: 'x', message: 'y' }
      await decideFor(await bookingOf('asks-tome'), { do: 'welcome' })
      await turn()
      expect((await db.intentions.toArray()).every((intention) => !intention.refused)).toBe(true)
    }
  })

  it('book somebody in by hand under an id of the desk’s own', async () => {
    await enterBooking({
      service: 'coaching',
      place: 'video',
      start: instant(now + 86_400_000),
      minutes: 50,
      person: { name: 'U', email: 'u@example.org', zone: 'UTC' },
      clash: false,
    })
    await turn()
    const [entered] = relay.to('/api/enter')
    expect((entered!.body as { id: string }).id).toMatch(/^[A-Za-z0-9_-]{22}$/)
    expect(await db.intentions.count()).toBe(0)
  })
})

describe('a start that a client took while the desk was offline', () => {
  it('is entered all the same, as a clash', async () => {
    const before = relay.answer.bind(relay)
    relay.answer = (path, method, body) => {
      if (path !== '/api/enter') return before(path, method, body)
      return (body as { clash?: boolean }).clash
        ? [201, { seq: 2 }]
        : [409, { code: 'not-open', message: 'That time is not free any more.' }]
    }
    await enterBooking({
      service: 'coaching',
      place: 'video',
      start: instant(now + 86_400_000),
      minutes: 50,
      person: { name: 'U', email: 'u@example.org', zone: 'UTC' },
      clash: false,
    })
    await turn()
    expect(relay.to('/api/enter').map((call) => (call.body as { clash: boolean }).clash)).toEqual([
      false,
      true,
    ])
    expect(await db.intentions.count()).toBe(0)
  })
})

describe('private answers', () => {
  it('are opened on arrival with the key whose public half was published', async () => {
    await turn()
    const { seal: key } = relay.to('/api/package')[0]!.body as { seal: SealKey }
    expect(Object.keys(key).sort()).toEqual(['crv', 'kty', 'x', 'y'])
    const [booking] = await db.bookings.toArray()
    const { asked } = booking!
    const answers = { ...asked.answers, health: await seal('health', 'asthma', key) }
    relay.items = [
      { n: 1, at: now, kind: 'booking', subject: 'sealed-one', seq: 1, body: { ...asked, answers } },
    ]
    await turn()
    expect((await db.bookings.get('sealed-one'))!.asked.answers.health).toBe('asthma')
    // What the relay has sealed since comes back to where it was; another desk's stays as it came.
    const part = { answers: { ...asked.answers }, reasons: asked.reading.reasons }
    const sealedFor = async (one: SealKey): Promise<string> =>
      new CompactEncrypt(new TextEncoder().encode(JSON.stringify(part)))
        .setProtectedHeader(SEALING)
        .encrypt(await importJWK(one, SEALING.alg))
    const cleared = { ...asked, answers: { health: answers.health }, attempts: [] }
    const reading = { ...asked.reading, reasons: [] }
    const strange = await sealedFor(publicHalf(await newSealKeys()))
    const line = { at: now, kind: 'booking' as const, seq: 1 }
    const left = (sealed: string) => ({ ...cleared, reading, sealed: [sealed] })
    relay.items = [
      { n: 2, ...line, subject: 'sealed-later', body: left(await sealedFor(key)) },
      { n: 3, ...line, subject: 'sealed-elsewhere', body: left(strange) },
    ]
    await turn()
    expect((await db.bookings.get('sealed-later'))!.asked).toEqual({
      ...cleared,
      answers: { ...asked.answers, health: 'asthma' },
      reading: asked.reading,
    })
    // What is whole here stays so when the relay tells its record again, sealed for a key that this desk has not.
    relay.items = [{ n: 4, ...line, subject: 'sealed-later', body: left(strange) }]
    await turn()
    expect((await db.bookings.get('sealed-later'))!.asked.reading).toEqual(asked.reading)
    expect((await db.bookings.get('sealed-elsewhere'))!.asked).toEqual({
      ...left(strange),
      answers: { health: 'asthma' },
    })
    // The key stays: a second round publishes none other, and a backup takes it along.
    const backup = readBackup(await exportBackup(db))
    expect(backup.seal).toMatchObject(key)
    expect(JSON.stringify(relay.asked)).not.toContain(backup.seal!.d)
  })

  it('of somebody on the phone are sealed before the relay gets them', async () => {
    await sendQuote({
      enquiry: 'phone-0123456789',
      service: 'first-conversation',
      person: { name: 'U', email: 'u@example.org', zone: 'UTC' },
      answers: { brings: 'A wish to sing.', health: 'asthma' },
      until: shift(now, 86_400_000),
      text: '',
    })
    await turn()
    const [sent] = relay.to('/api/quote')
    expect((sent!.body as { answers: Answers }).answers).toEqual({
      brings: 'A wish to sing.',
      health: { sealed: expect.stringMatching(/^[\w-]+\.\./) },
    })
  })
})

describe('files that came as answers', () => {
  it('are fetched once, and kept', async () => {
    const file = { file: 'file-0123456789abcdef', name: 'v.mp3', type: 'sound' as const, size: 3 }
    const [booking] = await db.bookings.toArray()
    const asked = { ...booking!.asked, answers: { ...booking!.asked.answers, recording: file } }
    const { name, type } = file
    await db.bookings.put({ ...booking!, asked })
    await db.wanted.put({ id: file.file, name, type })
    const before = relay.fetch
    let fetched = 0
    vi.stubGlobal('fetch', async (path: string, options?: RequestInit) => {
      if (!path.startsWith('/api/files/')) return before(path, options)
      fetched++
      return new Response(Uint8Array.from([1, 2, 3]))
    })
    await turn()
    await turn()
    expect(fetched).toBe(1)
    expect(await db.files.toArray()).toEqual([
      { id: file.file, name: 'v.mp3', type: 'sound', data: Uint8Array.from([1, 2, 3]) },
    ])
  })
})

describe('answers and quotes', () => {
  it('are passed on, each under its own key', async () => {
    await answerEnquiry('message-yusra', 'Yes.')
    await sendQuote({
      enquiry: 'phone-0123456789',
      service: 'coaching',
      person: { name: 'U', email: 'u@example.org', zone: 'UTC' },
      until: shift(now, 86_400_000),
      text: '',
    })
    await turn()
    expect(relay.to('/api/enquiry').map((call) => call.body)).toEqual([
      { enquiry: 'message-yusra', text: 'Yes.' },
    ])
    expect(relay.to('/api/quote')).toHaveLength(1)
    expect(relay.to('/api/enquiry')[0]!.key).not.toBe(relay.to('/api/quote')[0]!.key)
    expect(await db.intentions.count()).toBe(0)
  })
})

describe('pairing', () => {
  it('keeps the key, and says when another desk is paired', async () => {
    expect(await pairWith('CODE')).toBeUndefined()
    const { practice } = (await db.practice.get('practice'))!
    expect(relay.to('/api/pair')[0]!.body).toEqual({ code: 'CODE', practice: practice.id, replace: false })
    expect((await connectionRow(db)).key).toBe('key-of-this-desk')
    relay.answer = () => [409, { code: 'paired-already', message: 'Another desk' }]
    expect(await pairWith('CODE')).toEqual({ agree: 'replace', said: 'Another desk' })
    relay.answer = () => [409, { code: 'another-practice', message: 'Another practice' }]
    expect(await pairWith('CODE', { replace: true })).toEqual({ agree: 'empty', said: 'Another practice' })
    relay.answer = () => [403, { code: 'wrong-code', message: 'This code is not right' }]
    await expect(pairWith('CODE')).rejects.toThrow('not right')
  })

  it('brings nothing in that was fetched for another practice', async () => {
    const page = { items: [lapsed(900, 'asks-tome')], first: 1, last: 900, now, before: '', print: '' }
    await takeIn(db, page, 'the key of before')
    expect((await bookingOf('asks-tome')).status).toBe('requested')
    expect((await connectionRow(db)).cursor).toBe(0)
    await takeIn(db, page, 'key-of-this-desk')
    expect((await bookingOf('asks-tome')).status).toBe('lapsed')
  })
})
