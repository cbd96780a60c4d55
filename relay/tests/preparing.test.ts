import { readiness } from '@acolhida/core/booking'
import type { CourseView, StationDoes, StationView, YoursView } from '@acolhida/core/contract'
import type { Preparation } from '@acolhida/core/practice'
import { versionFingerprint } from '@acolhida/core/terms'
import { DAY, duration, HOUR, type Instant, MINUTE, SECOND, shift } from '@acolhida/core/time'
import { CompactEncrypt, exportJWK, generateKeyPair } from 'jose'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openStartsOf } from './client.ts'
import { bookingOf, changePractice, linkTo, packOf, publishTo } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

const before = (by: string) => ({ from: 'start', by: duration(by) }) as const
const PREPARATIONS: Preparation[] = [
  {
    ...{ id: 'reach-me', is: 'read', name: 'How to reach me', minutes: 2, due: before('P1D'), once: true },
    text: [{ p: [{ text: 'By mail, on working days.' }] }],
  },
  { id: 'consent', is: 'sign', name: 'That I may record us', due: before('P1D'), terms: 'recording-consent' },
  {
    id: 'asked',
    is: 'answer',
    name: 'Before the group',
    due: before('P2D'),
    questionnaire: 'reading-questions',
  },
  { id: 'page', is: 'bring', name: 'A page read aloud', due: before('P1D'), text: 'Two minutes are plenty.' },
  {
    id: 'after',
    is: 'tick',
    name: 'Practise',
    due: { from: 'end', by: duration('P3D') },
    text: 'Every day.',
  },
]

let house: TestRelay
let deskKey: CryptoKey
let start: Instant
beforeEach(async () => {
  house = await startRelay()
  const pair = await generateKeyPair('ECDH-ES', { crv: 'P-256', extractable: true })
  deskKey = pair.publicKey as CryptoKey
  const { kty, crv, x, y } = await exportJWK(pair.publicKey)
  const seal = { kty, crv, x, y } as NonNullable<ReturnType<typeof packOf>['seal']>
  publishTo(house.relay, { ...packOf(house.relay), seal })
  changePractice(house.relay, ({ services }) => ({
    preparations: PREPARATIONS,
    services: services.map((one) =>
      one.id === 'coaching' ? { ...one, prepares: PREPARATIONS.map(({ id }) => id) } : one,
    ),
  }))
  const open = (await openStartsOf(house.door, house.slug)) as Instant[]
  start = open.find((at) => at > house.clock.now() + 4 * DAY)!
})
afterEach(() => house.close())

const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'America/Toronto' }
const enter = (id: string, at = start, more: object = {}) =>
  ask<{ seq: number }>(
    `${house.desk}/api/enter`,
    { id, service: 'coaching', place: 'video', minutes: 50, person, start: at, clash: true, ...more },
    { bearer: house.key, key: freshKey() },
  )
const desk = (course: string, command: object) =>
  ask<{ seq: number }>(
    `${house.desk}/api/course`,
    { course, command },
    { bearer: house.key, key: freshKey() },
  )
const look = async (secret: string): Promise<YoursView> =>
  (await ask<YoursView>(`${house.door}/api/yours/${secret}`)).body as YoursView
const does = (secret: string, { course }: CourseView, station: string, what: StationDoes, key = freshKey()) =>
  ask<YoursView>(`${house.door}/api/yours/${secret}`, { course, station, does: what }, { key })
const stationIn = (view: YoursView, id: string): StationView =>
  view.courses.flatMap(({ stations }) => stations).find((one) => one.id === id)!
const sealed = async (question: string, value: unknown) => ({
  sealed: await new CompactEncrypt(new TextEncoder().encode(JSON.stringify({ question, value })))
    .setProtectedHeader({ alg: 'ECDH-ES', enc: 'A256GCM' })
    .encrypt(deskKey),
})
const mailsTo = (email: string) => house.mailbox.received.filter(({ to }) => to.includes(email))
const goOn = async (ms: number): Promise<void> => {
  house.clock.forward(ms)
  await house.relay.rounds.turn()
}
const petal = (id: string) => readiness(bookingOf(house.relay, id)).preparation
/** The course that goes with a booking, and a private link to it. */
const given = async (id = 'for-a-session') => {
  expect((await enter(id)).status).toBe(201)
  const secret = linkTo(house.relay, id)
  const { course: of } = bookingOf(house.relay, id)
  const course = (await look(secret)).courses.find(({ course }) => course === of?.id)
  return { secret, course: course!, id }
}

describe('what goes out with a booking', () => {
  it('is told by the confirmation, once, with one link to one page', async () => {
    const { id } = await given()
    expect(petal(id)).toBe('waiting')
    await goOn(MINUTE)
    const [mail] = mailsTo(person.email)
    expect(mailsTo(person.email)).toHaveLength(1)
    expect(mail!.text).toMatch(/there are 4 things to do:\s+– How to reach me \(about 2 min\)/)
    const [, secret = '', half = ''] = /\/yours\/([\w-]{43})#([\w-]{43})/.exec(mail!.text) ?? []
    const view = await look(secret)
    expect(view.courses[0]!.stations.map(({ id }) => id)).toEqual(PREPARATIONS.map(({ id }) => id))
    // By the clock of the place: a day before.
    expect(stationIn(view, 'consent').due).toBe(shift(start, -DAY))
    expect(stationIn(view, 'after').due).toBe(shift(start, 3 * DAY + 50 * MINUTE))
    // The key to what is half done is of this person, and no link leads anywhere by it.
    expect(half).not.toBe(secret)
    expect((await ask(`${house.door}/api/yours/${half}`)).body.code).toBe('unknown-link')
  })

  it('has a PDF with its letter, for whoever has the link of it', async () => {
    const bytes = Buffer.from('%PDF-1.7\nA letter.')
    const document = { name: 'My house', data: `data:application/pdf;base64,${bytes.toString('base64')}` }
    const pack = packOf(house.relay)
    const put = (own: object) =>
      ask(
        `${house.desk}/api/package`,
        {
          ...pack,
          revision: packOf(house.relay).revision + 1,
          practice: {
            ...pack.practice,
            preparations: PREPARATIONS.map((one) => (one.is === 'read' ? { ...one, document: own } : one)),
          },
        },
        { method: 'PUT', bearer: house.key, key: freshKey() },
      )
    const page = { name: 'A page', data: `data:text/html;base64,${Buffer.from('<b>').toString('base64')}` }
    expect((await put(page)).body.message).toMatch(/is no PDF/)
    expect((await put(document)).status).toBe(200)
    const { secret, course } = await given()
    expect(stationIn(await look(secret), 'reach-me').document).toEqual({
      name: 'My house',
      size: bytes.length,
    })
    const at = (link: string, station: string) =>
      fetch(`${house.door}/api/yours/${link}/documents/${course.course}/${station}`)
    const found = await at(secret, 'reach-me')
    expect(found.headers.get('content-type')).toBe('application/pdf')
    expect(found.headers.get('content-disposition')).toBe('attachment; filename="My house.pdf"')
    expect(Buffer.from(await found.arrayBuffer())).toEqual(bytes)
    expect((await at(secret, 'consent')).status).toBe(404)
    expect((await at('x'.repeat(43), 'reach-me')).status).toBe(404)
  })

  it('gives once what is given once, and nothing where its word is taken back', async () => {
    await given()
    const { course } = await given('the-next-one')
    expect(course.stations.map(({ id }) => id)).not.toContain('reach-me')
    const { body } = await enter('taken-back', start)
    await ask(
      `${house.desk}/api/command`,
      { booking: 'taken-back', command: { do: 'take-back', of: body.seq } },
      { bearer: house.key, key: freshKey() },
    )
    const view = await look(linkTo(house.relay, 'taken-back'))
    expect(
      view.courses.some(({ course: id }) => id === bookingOf(house.relay, 'taken-back').course?.id),
    ).toBe(false)
  })

  it('follows a session that is moved, and ends with one that is cancelled', async () => {
    const { secret, id } = await given()
    const later = shift(start, 7 * DAY)
    const moved = { do: 'move', start: later, place: 'video', minutes: 50, text: '', clash: true }
    const command = (what: object) =>
      ask(`${house.desk}/api/command`, { booking: id, command: what }, { bearer: house.key, key: freshKey() })
    expect((await command(moved)).status).toBe(200)
    await goOn(MINUTE)
    expect(stationIn(await look(secret), 'consent').due).toBe(shift(later, -DAY))
    // Asked for once more two days before the first of it is due, and only then.
    const asked = () => mailsTo(person.email).filter(({ subject }) => subject.startsWith('Due soon'))
    await goOn(later - 4 * DAY - house.clock.now() - MINUTE)
    expect(asked()).toEqual([])
    await goOn(2 * MINUTE)
    expect(asked()).toHaveLength(1)
    expect(asked()[0]!.text).toContain('Before the group')
    expect((await command({ do: 'cancel', by: 'practitioner', text: '' })).status).toBe(200)
    await goOn(MINUTE)
    expect((await look(secret)).courses).toEqual([])
    expect(
      [...house.relay.here.keeper.house.agenda()].filter(({ subject }) => subject.kind === 'course'),
    ).toEqual([])
  })
})

describe('what there is to do', () => {
  it('is done one by one; its booking knows when all of it before the session is', async () => {
    const { secret, course, id } = await given()
    const letter = stationIn(await look(secret), 'reach-me')
    expect(letter.letter).toEqual(PREPARATIONS[0]!.is === 'read' ? PREPARATIONS[0]!.text : [])
    expect((await does(secret, course, 'reach-me', { do: 'done' })).status).toBe(200)
    const terms = stationIn(await look(secret), 'consent').terms!
    const agreed = [{ terms: terms.id, number: terms.number, fingerprint: terms.fingerprint }]
    const wrong = [
      { ...agreed[0]!, fingerprint: versionFingerprint('x', { number: 1, title: '', text: '' }) },
    ]
    const sign = (what: typeof agreed) =>
      does(secret, course, 'consent', { do: 'sign', name: 'Ilse Maas', agreed: what })
    expect((await sign(wrong)).body.code).toBe('terms-changed')
    const { chain } = house.relay.here.keeper.house
    expect((await sign(agreed)).status).toBe(200)
    expect(house.relay.here.keeper.house.chain).not.toBe(chain)
    const answers = { ease: await sealed('ease', 6) }
    const sent = { do: 'answer', answers, answered: 1, of: 3 } as const
    const key = freshKey()
    expect((await does(secret, course, 'asked', sent, key)).status).toBe(200)
    expect((await does(secret, course, 'asked', sent, key)).status).toBe(200)
    expect(petal(id)).toBe('waiting')
    const form = await fetch(
      `${house.door}/api/yours/${secret}/files?${new URLSearchParams({ course: course.course, station: 'page', name: 'page.txt' })}`,
      {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream', 'x-acolhida-contract': '4' },
        body: 'Once upon a time',
      },
    )
    const file = (await form.json()) as { file: string; name: string; type: 'text'; size: number }
    expect(form.status).toBe(201)
    expect((await does(secret, course, 'page', { do: 'bring', files: [file] })).status).toBe(200)
    // What comes after the session is no part of getting ready for it.
    expect(petal(id)).toBe('done')
    expect((await does(secret, course, 'reach-me', { do: 'undone' })).status).toBe(200)
    expect(petal(id)).toBe('waiting')
    const { progress } = house.relay.here.keeper.house.course(course.course)!
    expect(progress.asked).toMatchObject({ filled: { answered: 1, of: 3 }, answers })
    const data = await fetch(`${house.desk}/api/files/${file.file}`, {
      headers: { authorization: `Bearer ${house.key}` },
    })
    expect(await data.text()).toBe('Once upon a time')
  })

  it('takes no answer in clear, nothing in another way, and nothing of somebody else', async () => {
    const { secret, course } = await given()
    const clear = { do: 'answer', answers: { ease: 6 }, answered: 1, of: 3 } as const
    expect((await does(secret, course, 'asked', clear)).body.code).toBe('not-sealed')
    expect((await does(secret, course, 'asked', { do: 'done' })).body.code).toBe('not-so')
    expect((await does(secret, course, 'nothing', { do: 'done' })).body.code).toBe('unknown-course')
    await enter('somebody-else', start, { person: { ...person, email: 'else@example.org' } })
    const other = linkTo(house.relay, 'somebody-else')
    expect((await does(other, course, 'reach-me', { do: 'done' })).body.code).toBe('unknown-course')
    const stolen = { file: 'a-file-of-somebody-else', name: 'x', type: 'text', size: 3 } as const
    expect((await does(secret, course, 'page', { do: 'bring', files: [stolen] })).body.code).toBe(
      'unknown-file',
    )
    // A link that proves no address shows its own booking alone.
    await enter('my-second', shift(start, DAY))
    const weak = await look(linkTo(house.relay, 'my-second', false))
    expect(weak.sessions.map(({ booking }) => booking)).toEqual(['my-second'])
  })

  it('keeps what is half done, sealed; two pages can’t lose each other’s answers', async () => {
    const { secret, course } = await given()
    const half = (n: number, sealedText: string) =>
      ask<{ n: number }>(
        `${house.door}/api/yours/${secret}/half`,
        { course: course.course, station: 'asked', n, sealed: sealedText, answered: 2, of: 3 },
        { key: freshKey() },
      )
    expect((await half(0, 'e30..aa.bb.cc')).body.n).toBe(1)
    expect((await half(0, 'e30..aa.dd.cc')).body.code).toBe('half-elsewhere')
    expect(stationIn(await look(secret), 'asked')).toMatchObject({
      state: 'begun',
      filled: { answered: 2, of: 3 },
      half: { n: 1, sealed: 'e30..aa.bb.cc' },
    })
    expect((await half(1, 'e30..aa.ee.cc')).body.n).toBe(2)
    expect((await half(2, 'in clear')).body.code).toBe('malformed')
    await does(secret, course, 'asked', {
      do: 'answer',
      answers: { ease: await sealed('ease', 1) },
      answered: 1,
      of: 3,
    })
    expect(house.relay.here.keeper.house.half(course.course, 'asked')).toBeUndefined()
    expect((await half(2, 'e30..aa.ff.cc')).body.code).toBe('course-over')
  })

  it('asks in the version in which it was given, whatever is published after half of it', async () => {
    const { secret, course } = await given()
    const asked = stationIn(await look(secret), 'asked').questions!.map(({ id }) => id)
    changePractice(house.relay, ({ questionnaires }) => ({
      questionnaires: questionnaires.map((one) =>
        one.id === 'reading-questions'
          ? {
              ...one,
              version: one.version + 1,
              past: [...(one.past ?? []), { version: one.version, questions: one.questions }],
              questions: one.questions.slice(0, 1),
            }
          : one,
      ),
    }))
    expect(stationIn(await look(secret), 'asked').questions!.map(({ id }) => id)).toEqual(asked)
    // What is taken out of the practice need not be done any more.
    changePractice(house.relay, () => ({ preparations: PREPARATIONS.slice(0, 2) }))
    expect((await look(secret)).courses[0]!.stations.map(({ id }) => id)).toEqual(['reach-me', 'consent'])
    expect((await does(secret, course, 'page', { do: 'done' })).body.code).toBe('course-over')
  })
})

describe('what the practitioner gives by hand', () => {
  const give = { do: 'give', person, preparations: ['reach-me', 'consent'], text: 'Gladly.' }

  it('goes out in one message after its moment of undoing, and not at all when it is taken back', async () => {
    expect((await desk('course-one', give)).status).toBe(200)
    expect((await desk('course-two', give)).status).toBe(200)
    expect((await desk('course-two', { do: 'take-back', of: 1 })).status).toBe(200)
    await goOn(20 * SECOND)
    const mails = mailsTo(person.email)
    expect(mails).toHaveLength(1)
    expect(mails[0]!.text).toContain('Gladly.')
    expect(mails[0]!.subject).toBe('To prepare: How to reach me, and 1 more')
    const secret = /\/yours\/([\w-]{43})/.exec(mails[0]!.text)![1]!
    const view = await look(secret)
    expect(view.courses.map(({ course }) => course)).toEqual(['course-one'])
    expect(view.name).toBe('Ilse Maas')
  })

  it('is asked for again by one key, with what is still open alone', async () => {
    await desk('course-one', { ...give, silent: true })
    await goOn(MINUTE)
    expect(mailsTo(person.email)).toEqual([])
    await desk('course-one', { do: 'done', station: 'consent' })
    expect((await desk('course-one', { do: 'chase', text: 'Please.' })).status).toBe(200)
    await goOn(MINUTE)
    const [mail] = mailsTo(person.email)
    expect(mail!.subject).toBe('Still open: How to reach me')
    expect(mail!.text).toContain('Please.')
    await desk('course-one', { do: 'done', station: 'reach-me' })
    expect((await desk('course-one', { do: 'chase', text: '' })).body.code).toBe('nothing-left')
    await desk('course-one', { do: 'undone', station: 'reach-me' })
    expect((await desk('course-one', { do: 'end' })).status).toBe(200)
    expect((await desk('course-one', { do: 'end' })).body.code).toBe('course-over')
  })

  it('is refused with the reason', async () => {
    expect((await desk('course-one', { ...give, preparations: ['nothing'] })).body.code).toBe(
      'unknown-preparation',
    )
    expect((await desk('course-one', { ...give, preparations: [] })).body.code).toBe('unknown-preparation')
    expect((await desk('course-one', { ...give, booking: 'no-such-booking' })).body.code).toBe(
      'unknown-booking',
    )
    expect((await desk('course-none', { do: 'end' })).body.code).toBe('unknown-course')
    expect((await desk('course-one', give)).status).toBe(200)
    expect((await desk('course-one', give)).body.code).toBe('id-taken')
    const { seal: _, ...open } = packOf(house.relay)
    publishTo(house.relay, open)
    expect((await desk('course-two', { ...give, preparations: ['asked'] })).body.code).toBe('no-seal')
  })

  it('is forgotten with its time, once nothing of it is open', async () => {
    await desk('course-one', { ...give, silent: true })
    await desk('course-one', { do: 'done', station: 'consent' })
    await desk('course-one', { do: 'done', station: 'reach-me' })
    await desk('course-two', { ...give, silent: true })
    const { house: inside } = house.relay.here.keeper
    house.clock.forward(2 * 365 * DAY)
    house.relay.clock.release(false)
    await house.relay.rounds.turn()
    await goOn(2 * HOUR)
    expect(inside.course('course-one')).toBeUndefined()
    expect(inside.course('course-two')).toBeDefined()
  })
})
