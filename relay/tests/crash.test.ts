import { type ChildProcess, fork } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type Booking, replay, type StoredEvent } from '@acolhida/core/booking'
import type { DoorView, Kept, LineView, LinkView } from '@acolhida/core/contract'
import { Doorkeeper } from '@acolhida/core/house'
import { type Practice, type SequenceStep, WAITLIST } from '@acolhida/core/practice'
import { brokenAt, chainHead } from '@acolhida/core/terms'
import { DAY, duration, HOUR, instant, MINUTE, SECOND } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { furnish } from '../demo.ts'
import { Mailbox } from '../standins/mailbox.ts'
import { StandinTexts } from '../standins/texts.ts'
import { openDatabase } from '../store/database.ts'
import { Secrets } from '../store/keys.ts'
import { SqliteStore } from '../store/sqlite-store.ts'
import { ANSWERS, ask, BEGINNING } from './setup.ts'

/** 25 in the suite; `npm run soak` kills more often. */
const ROUNDS = Number(process.env.KILLS ?? 15)
const folder = mkdtempSync(join(tmpdir(), 'acolhida-crash-'))
const file = join(folder, 'relay.sqlite')
const mailbox = new Mailbox()
let ahead = 0
const SECRET = 'shared-with-the-gateway-for-this-test'
const texts = new StandinTexts({ now: () => instant(BEGINNING + ahead) }, SECRET)
let smtp: string
let gateway: string
const SLUG = 'iria-montalvar'

/** Always the same choices, so that a failure can be looked at again. */
let state = Number(process.env.KILL_SEED ?? 20_261_124)
const random = (below: number): number => {
  state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
  return state % below
}

const shuffled = <T>(all: readonly T[]): T[] =>
  all
    .map((one) => ({ one, at: random(1_000_000) }))
    .toSorted((a, b) => a.at - b.at)
    .map(({ one }) => one)

const onceBooked = (channel: 'email' | 'text'): SequenceStep => ({
  ...{ id: `by-${channel}`, anchor: 'booked', before: false, by: duration('PT1M'), channel, text: 'once' },
})
beforeAll(async () => {
  smtp = await mailbox.start()
  gateway = await texts.start()
  const store = new SqliteStore(openDatabase(file), Secrets.beside(file))
  const backup = demoBackup(BEGINNING)
  const services = backup.practice.services.map((service) => {
    const { perDay: _, ...rest } = service
    return {
      ...rest,
      sequence: 'soon',
      clearBefore: 0,
      clearAfter: 0,
      reach: { kind: 'days' as const, days: 900 },
      // What is freed is held out to everybody who waits: many may take it at once, amid the kills.
      waitlist: { ...WAITLIST, ask: 'all' as const },
    }
  })
  const sequences = [{ id: 'soon', name: 'Soon', steps: [onceBooked('email'), onceBooked('text')] }]
  const own = [{ id: 'once', name: 'Once booked', subject: 'Well then', body: 'Until {when}: {link}' }]
  const practice: Practice = {
    ...{ ...backup.practice, services, sequences, texts: own },
    ...{ away: [], limits: { openRequests: 1_000 } },
  }
  furnish(new Doorkeeper(store), { ...backup, practice, bookings: [], enquiries: [] }, BEGINNING)
  store.db.close()
})
afterAll(async () => {
  await mailbox.stop()
  await texts.stop()
  rmSync(folder, { recursive: true, force: true })
})

interface Running {
  child: ChildProcess
  door: string
  desk: string
  key: string
}
const start = (): Promise<Running> =>
  new Promise((resolve, reject) => {
    const child = fork(
      join(import.meta.dirname, 'crash-child.ts'),
      [file, smtp, gateway, SECRET, String(ahead)],
      {
        execArgv: ['--import', 'tsx'],
      },
    )
    child.once('message', (said: Omit<Running, 'child'>) => resolve({ child, ...said }))
    child.once('exit', (code) => reject(new Error(`The relay ended with ${code}.`)))
  })
const kill = async ({ child }: Running): Promise<void> => {
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGKILL')
  await gone
}

/** One call, which can be made again under the same key. */
interface Call {
  name: string
  make(running: Running): Promise<{ status: number; body: unknown }>
  answer?: { status: number; body: unknown }
}
let names = 0
const calls: Call[] = []
const unique = (what: string): string => `${what}-${String(++names).padStart(16, '0')}`

function doorCall(name: string, path: string, body: unknown): Call {
  const key = unique('crash-key')
  return { name, make: ({ door }) => ask(`${door}${path}`, body, { key }) }
}
function deskCall(name: string, path: string, body: unknown, method = 'POST'): Call {
  const key = unique('crash-key')
  return { name, make: ({ desk, key: bearer }) => ask(`${desk}${path}`, body, { key, bearer, method }) }
}

it('writes every answer through to the disk before it is given', () => {
  // Killing the process says nothing about the disk; these settings do.
  const db = openDatabase(join(folder, 'other.sqlite'))
  expect(db.prepare('PRAGMA journal_mode').get()).toMatchObject({ journal_mode: 'wal' })
  expect(db.prepare('PRAGMA synchronous').get()).toMatchObject({ synchronous: 2 })
  db.close()
})

/** The bookings in the file, as their records tell. */
function bookingsIn(db: ReturnType<typeof openDatabase>): Booking[] {
  const rows = db
    .prepare(`SELECT subject, body FROM record WHERE kind = 'booking' ORDER BY subject, seq`)
    .all() as { subject: string; body: string }[]
  const records = new Map<string, StoredEvent[]>()
  for (const { subject, body } of rows)
    records.set(subject, [...(records.get(subject) ?? []), JSON.parse(body) as StoredEvent])
  return [...records].map(([id, record]) => replay(id, record))
}

const wanted = (visit: string) => ({
  visit,
  service: 'voice-assessment',
  place: 'studio',
  answers: ANSWERS,
})

/** Requests for starts that do not touch, each kept by a visit of its own. */
async function requests(running: Running, many: number): Promise<Call[]> {
  const api = `${running.door}/api/door/${SLUG}`
  const { body: view } = await ask<DoorView>(api)
  const service = view.services.find((service) => service.id === 'voice-assessment')!
  const { body } = await ask<{ starts: number[] }>(`${api}/openings`, {
    ...wanted(unique('crash-visit')),
    days: 62,
  })
  const apart: number[] = []
  for (const start of body.starts) if (start - (apart.at(-1) ?? 0) >= 75 * MINUTE) apart.push(start)
  const made: Call[] = []
  for (let i = 0; i < many; i++) {
    const start = apart.splice(random(Math.min(40, apart.length)), 1)[0]
    if (start === undefined) break
    const visit = unique('crash-visit')
    const { body: kept } = await ask<Kept>(`${api}/keep`, { ...wanted(visit), start })
    if (kept.shown === undefined) continue
    made.push(
      doorCall('send', `/api/door/${SLUG}/send`, {
        ...wanted(visit),
        start,
        clock: view.now,
        shown: kept.shown,
        agreed: service.terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint })),
        person: {
          ...{ name: 'Elske Vos', email: `${unique('elske')}@example.org`, zone: 'Europe/Amsterdam' },
          phone: '+44 7700 900123',
        },
      }),
    )
  }
  return made
}

/** What those who wait do, by the links that came to them: they take what is held out to them, or turn it down. */
async function waiting(running: Running): Promise<Call[]> {
  const made: Call[] = []
  const found = mailbox.received.flatMap(({ text }) => /\/in-line\/([\w-]+)/.exec(text)?.[1] ?? [])
  for (const secret of [...new Set(found)].slice(-6)) {
    const { status, body } = await ask<LineView>(`${running.door}/api/line/${secret}`)
    const { offer } = body
    if (status !== 200 || !offer) continue
    const agreed = offer.toAgree.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint }))
    const { freed, shown } = offer
    made.push(
      random(3) === 0
        ? doorCall('turn', `/api/line/${secret}`, { do: 'turn', freed })
        : doorCall('take', `/api/line/${secret}/take`, { freed, shown, agreed }),
    )
  }
  const person = { name: 'Nadia Kern', email: `${unique('nadia')}@example.org`, zone: 'Europe/Lisbon' }
  const join = { do: 'join', service: 'voice-assessment', place: 'studio', windows: [], person }
  made.push(
    deskCall('wait', '/api/waiting', { line: unique('waits'), command: { ...join, answers: ANSWERS } }),
  )
  return made
}

/** What can be done with what there is: through links that came by mail, and at the desk. */
async function decisions(running: Running): Promise<Call[]> {
  const made: Call[] = []
  const links = [...new Set(mailbox.received.flatMap(({ text }) => /\/my\/([\w-]+)/.exec(text)?.[1] ?? []))]
  for (const secret of links.slice(-14)) {
    const at = `/api/link/${secret}`
    const { status, body } = await ask<LinkView>(`${running.door}${at}`)
    if (status !== 200) continue
    const { state, shown, offers } = body
    if (state === 'unproved') made.push(doorCall('prove', `${at}/prove`, {}))
    if (state === 'waiting' && random(4) === 0) made.push(doorCall('withdraw', `${at}/withdraw`, {}))
    if (state === 'booked' && random(4) === 0)
      made.push(doorCall('cancel', `${at}/cancel`, { text: '', shown }))
    const [offer] = offers
    if (state === 'offered' && offer)
      made.push(
        random(3) === 0
          ? doorCall('refuse', `${at}/refuse`, { text: '' })
          : doorCall('accept', `${at}/accept`, { start: offer.start, place: offer.place, shown }),
      )
  }
  made.push(...(await waiting(running)))
  const db = openDatabase(file)
  const bookings = bookingsIn(db)
  db.close()
  const { body: times } = await ask<{ starts: number[] }>(`${running.door}/api/door/${SLUG}/openings`, {
    ...wanted(unique('crash-visit')),
    days: 62,
  })
  const free = (): { start: number; place: string } => ({
    start: times.starts.splice(random(times.starts.length), 1)[0] ?? 0,
    place: 'studio',
  })
  const decide = (name: string, booking: string, more: object = {}): Call =>
    deskCall(name, '/api/command', { booking, command: { do: name, ...more } })
  const now = BEGINNING + ahead
  for (const booking of bookings.slice(-20)) {
    if (booking.status === 'requested' && !booking.unproved && booking.until >= now) {
      const kind = random(5)
      if (kind === 0) made.push(decide('decline', booking.id, { text: 'No.' }))
      else if (kind === 1) made.push(decide('offer', booking.id, { text: '', starts: [free()] }))
      else if (kind === 2) made.push(decide('overrule', booking.id, { outcome: 'look', text: 'So.' }))
      else made.push(decide('welcome', booking.id))
    }
    if (booking.unsettled && booking.unsettled.until >= now && random(3) === 0)
      made.push(decide('take-back', booking.id, { of: booking.unsettled.seq }))
    if (booking.status === 'booked' && booking.start > now && random(3) === 0)
      made.push(
        random(2) === 0
          ? decide('move', booking.id, { ...free(), minutes: 75, text: '', clash: false })
          : deskCall('cancel by desk', '/api/command', {
              booking: booking.id,
              command: { do: 'cancel', by: 'practitioner', text: '' },
            }),
      )
  }
  const person = {
    ...{ name: 'Rui Sá', email: `${unique('rui')}@example.org`, zone: 'Europe/Lisbon' },
    phone: '+44 7700 900124',
  }
  const enquiry = unique('crash-enquiry')
  made.push(
    deskCall('enter', '/api/enter', {
      id: unique('entered'),
      service: 'voice-assessment',
      ...free(),
      minutes: 75,
      person,
      clash: false,
    }),
    deskCall('quote', '/api/quote', {
      enquiry,
      service: 'voice-assessment',
      person,
      answers: ANSWERS,
      until: now + 3 * DAY,
      text: 'As we said.',
    }),
    deskCall('answer', '/api/enquiry', { enquiry, text: 'Gladly.' }),
    doorCall('enquire', `/api/door/${SLUG}/enquire`, {
      visit: unique('crash-visit'),
      name: 'Ana',
      email: `${unique('ana')}@example.org`,
      message: 'Hello.',
    }),
    doorCall('read', `/api/door/${SLUG}/read`, {
      visit: unique('crash-visit'),
      service: 'voice-assessment',
      answers: ANSWERS,
    }),
  )
  return made
}

/** What has to have been done at least once. */
const NEEDED = ['send', 'prove', 'welcome', 'enter', 'quote', 'answer', 'enquire', 'wait', 'take']

const later = (running: Running, forward: number): Promise<{ idle: boolean }> => {
  ahead += forward
  return new Promise((resolve, reject) => {
    running.child.once('message', resolve)
    running.child.send({ forward }, (error) => error && reject(error))
  })
}
/** Waits until everything that is due has been handed over. */
async function idle(running: Running): Promise<void> {
  await expect.poll(async () => (await later(running, 0)).idle, { timeout: 20_000 }).toBe(true)
}

it(`loses nothing that was answered and doubles nothing, killed ${ROUNDS} times amid every kind of act`, {
  timeout: 60_000 + 3 * ROUNDS * 12_000,
}, async () => {
  const counts = new Map<string, number>()
  let cut = 0
  const lacking = (): boolean => NEEDED.some((name) => !counts.get(name))
  // On a busy machine mails come late, and with them what can be done with their links: it goes on until all was done.
  for (let round = 0; round < ROUNDS || (round < 3 * ROUNDS && lacking()); round++) {
    const running = await start()
    // What the relay could not say before it was killed is said again; what it has said, it says again.
    for (const call of calls.splice(0)) {
      const again = await call.make(running)
      // A refusal is not remembered: what it rested on may have come meanwhile.
      const taken = call.answer !== undefined && call.answer.status < 400
      if (call.answer && taken) expect([call.name, again.status]).toEqual([call.name, call.answer.status])
      if (call.name === 'send' && call.answer?.status === 201) expect(again.body).toEqual(call.answer.body)
    }
    const steps = [SECOND, 9 * SECOND, 11 * MINUTE, 31 * MINUTE, 3 * HOUR, 26 * HOUR]
    await later(running, steps[random(steps.length)]!)
    if (round % 2) await idle(running)
    // In any order: what was always said last would seldom be answered before the axe falls.
    const burst = shuffled([...(await requests(running, 5)), ...(await decisions(running))])
    calls.push(...burst)
    // The axe falls while the others are under way, or while what is due is carried out.
    let left = 1 + random(burst.length)
    const gone = new Promise((resolve) => running.child.once('exit', resolve))
    const strike = (): void => {
      if (--left === 0) running.child.kill('SIGKILL')
    }
    if (random(3) === 0) later(running, 9 * SECOND).catch(() => undefined)
    await Promise.all(
      burst.map((call) =>
        call.make(running).then(
          (answer) => {
            call.answer = answer
            counts.set(call.name, (counts.get(call.name) ?? 0) + Number(answer.status < 300))
            strike()
          },
          () => cut++,
        ),
      ),
    )
    running.child.kill('SIGKILL')
    await gone
  }
  const last = await start()
  for (const call of calls.splice(0)) await call.make(last)
  await later(last, 9 * SECOND)
  await idle(last)
  await kill(last)

  const db = openDatabase(file)
  const bookings = bookingsIn(db)
  // One booking for each request, however often it was said; its agreement in the one chain.
  const emails = bookings.map((booking) => booking.asked.person.email)
  expect(new Set(emails).size).toBe(emails.length)
  const chain = bookings.flatMap((booking) => booking.asked.agreements)
  const ordered: typeof chain = []
  const { value: head = '' } = (db.prepare(`SELECT value FROM settings WHERE name = 'chain-head'`).get() ??
    {}) as { value?: string }
  const after = new Map(chain.map((agreement) => [agreement.previous, agreement]))
  for (let agreement = after.get(''); agreement; agreement = after.get(chainHead(agreement)))
    ordered.push(agreement)
  expect(ordered).toHaveLength(chain.length)
  expect(brokenAt(ordered, head)).toBe(-1)
  // No time for two.
  const starts = bookings
    .filter((booking) => booking.status === 'booked' && booking.service === 'voice-assessment')
    .map((booking) => booking.start)
  expect(new Set(starts).size).toBe(starts.length)
  // No message twice; what is noted as sent has arrived, what has arrived is noted as sent or not known.
  const ids = mailbox.received.map((mail) => mail.messageId)
  expect(ids.filter((id, i) => ids.indexOf(id) !== i)).toEqual([])
  const rows = db.prepare('SELECT key, state FROM messages').all() as { key: string; state: string }[]
  const idOf = (key: string): string => `<${key.replaceAll(/[^A-Za-z0-9._-]/g, '.')}@${SLUG}.acolhida>`
  const noted = new Map(rows.map(({ key, state: how }) => [idOf(key), how]))
  const byText = (key: string): boolean => key.includes('/text/')
  for (const { key, state: how } of rows) {
    if (how !== 'sent') continue
    if (byText(key)) expect(texts.asked).toContain(key)
    else expect(ids).toContain(idOf(key))
  }
  // The gateway was asked for each text once, though it would have taken a second asking as the same.
  expect(texts.asked.filter((id, i) => texts.asked.indexOf(id) !== i)).toEqual([])
  const howOf = new Map(rows.map(({ key, state: how }) => [key, how]))
  for (const id of texts.asked) expect(['sent', 'unknown']).toContain(howOf.get(id))
  for (const id of ids) expect(['sent', 'unknown']).toContain(noted.get(id))
  db.close()
  const unknown = rows.filter((row) => row.state === 'unknown').length
  const said = [...counts].sort().map(([name, n]) => `${name} ${n}`)
  console.log(
    `      ${ROUNDS} kills, ${cut} calls cut off, ${bookings.length} bookings, ${ids.length} mails, ${texts.asked.length} texts, ${unknown} unknown: ${said.join(', ')}`,
  )
  expect(cut).toBeGreaterThan(ROUNDS / 2)
  expect(texts.asked.length).toBeGreaterThan(0)
  for (const name of NEEDED) expect([name, (counts.get(name) ?? 0) > 0]).toEqual([name, true])
})
