import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { type Booking, replay, type StoredEvent } from '@acolhida/core/booking'
import type { DoorPackage } from '@acolhida/core/contract'
import { Doorkeeper, MapStore } from '@acolhida/core/house'
import { mailHash } from '@acolhida/core/people'
import { WAITLIST } from '@acolhida/core/practice'
import { duration } from '@acolhida/core/time'
import fc from 'fast-check'
import { afterAll, expect, it } from 'vitest'
import { samplePractice, sampleService } from '../../core/tests/sample.ts'
import { openDatabase } from '../store/database.ts'
import type { Db } from '../store/db.ts'
import { Secrets } from '../store/keys.ts'
import { SqliteStore } from '../store/sqlite-store.ts'
import { agendas, overlaps, portrait } from './alike.ts'
import { PATH, PREPARATIONS } from './course-tries.ts'
import { FIRST, furnished, History, type Tried } from './histories.ts'
import { BEGINNING } from './setup.ts'
import { tries } from './tries.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-histories-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** A small practice in which everything can happen: a word needed and not, groups judged, places told late. */
function practice(): DoorPackage {
  const salt = 'salt-of-histories'
  const base = samplePractice({
    services: [
      sampleService({
        id: 'a',
        price: { kind: 'fixed', amount: 5_000 },
        minutes: 60,
        clearBefore: 0,
        clearAfter: 0,
        notice: duration('PT0S'),
        questionnaire: 'q',
        sequence: 'around',
        before: { text: 'Read it.', tick: true },
        waitlist: { ...WAITLIST, letGo: 2 },
        prepares: ['tick', 'sign'],
      }),
      sampleService({
        id: 'b',
        questionnaire: 'q',
        seats: 3,
        groupDates: [{ id: 'g', start: '2026-12-02T15:00' as never, place: 'video' }],
        least: { people: 2, by: duration('P2D') },
      }),
    ],
    questionnaires: [
      {
        id: 'q',
        name: 'Q',
        version: 1,
        questions: [{ id: 'q', kind: 'short', text: 'What?', required: false }],
        rules: [
          {
            id: 'r',
            name: 'More',
            when: { question: 'q', is: '=', value: 'more' },
            effect: { do: 'look', note: '' },
          },
        ],
        bands: [],
      },
    ],
    terms: [{ id: 't', versions: [{ number: 1, title: 'T', text: 'Be kind.' }] }],
    limits: { openRequests: 3, perDay: 6 },
    preparations: PREPARATIONS,
    paths: [PATH],
    texts: [{ id: 'so', name: 'So', subject: 'So', body: '{service}: {coming}' }],
    sequences: [
      {
        id: 'around',
        name: 'Around',
        steps: [
          ...(['asked', 'booked', 'moved', 'cancelled', 'end'] as const).map((anchor) => ({
            ...{ id: `at-${anchor}`, anchor, by: duration('PT0S'), text: 'so' },
            ...{ channel: anchor === 'moved' ? ('text' as const) : ('email' as const) },
          })),
          {
            ...{
              id: 'day-before',
              anchor: 'start',
              before: true,
              by: duration('P1D'),
              must: true,
              asks: true,
            },
            ...{ channel: 'email', text: 'so', when: [{ if: 'unprepared' }] },
          },
        ],
      },
    ],
  })
  const houseRules = {
    ...base.houseRules,
    mine: { within: duration('P7D'), cancelled: 50, grace: 10, late: 20 },
  }
  const services = base.services.map((service) => ({
    ...service,
    terms: service.id === 'a' ? ['t'] : [],
    ...(service.id === 'a' ? { payment: [FIRST] } : {}),
    approval: { new: 'unsure' as const, known: 'straight' as const },
  }))
  const places = base.places.map((place) => ({ ...place, told: 'last-reminder' as const, address: 'Rua 1' }))
  return {
    revision: 1,
    practice: {
      ...{ ...base, houseRules, services, places },
      transfer: { name: 'S', iban: 'PT50000201231234567890154' },
      cards: {},
    },
    sessions: [],
    people: [
      {
        id: 'blocked',
        mailHashes: [mailHash('s1@example.org', salt)],
        standing: 'known',
        invited: [],
        blocked: true,
      },
      {
        id: 'known',
        mailHashes: [mailHash('s2@example.org', salt)],
        standing: 'known',
        invited: [],
        blocked: false,
      },
    ],
    salt,
    seal: { kty: 'EC', crv: 'P-256', x: 'x', y: 'y' },
  }
}

const secrets = new Secrets(Buffer.alloc(32, 7))
const secretOf = (link: string): string => secrets.of(link)
const pack = practice()
const { changes, begun } = furnished(pack, BEGINNING, secretOf)
const template = join(folder, 'template.sqlite')
{
  const db = openDatabase(template)
  new SqliteStore(db, secrets).write(changes)
  db.pragma('wal_checkpoint(TRUNCATE)')
  db.close()
}

/** The machine with no file at all. */
function machine(): Tried {
  const store = new MapStore(secretOf)
  store.write(changes)
  return { keeper: new Doorkeeper(store), secretOf }
}

/** The relay's, on a copy of a file; how sure the disk is of it does not matter here. */
function onFile(file: string): Tried & { db(): Db; end(): void } {
  copyFileSync(template, file)
  let db: Db
  const open = (): Doorkeeper => {
    db = openDatabase(file)
    db.pragma('synchronous = OFF')
    return new Doorkeeper(new SqliteStore(db, secrets))
  }
  return {
    keeper: open(),
    secretOf,
    restart: () => {
      db.close()
      return open()
    },
    db: () => db,
    end: () => {
      db.close()
      for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true })
    },
  }
}

/** What has come, gone back and been changed, booking by booking. */
const moneyNoted = (bookings: readonly Booking[]): Record<string, unknown> =>
  Object.fromEntries(
    bookings.flatMap(({ id, payments, adjusted }) =>
      payments || adjusted ? [[id, { payments, adjusted }]] : [],
    ),
  )

const pick = (noted: Record<string, unknown>, of: readonly Booking[]): Record<string, unknown> =>
  Object.fromEntries(of.flatMap(({ id }) => (id in noted ? [[id, noted[id]]] : [])))

/** Files stay open until the statements prepared on them have been collected: thousands would be too many. */
setFlagsFromString('--expose_gc')
const collect = runInNewContext('gc') as () => void
async function letGo(): Promise<void> {
  collect()
  await new Promise((resolve) => setImmediate(resolve))
}

/** `npm run soak` tries more. */
const RUNS = Number(process.env.HISTORIES ?? 1_200)
const SEED = process.env.HISTORIES_SEED ? { seed: Number(process.env.HISTORIES_SEED) } : {}

it(`gives ${RUNS} histories the same end in memory and on a file, ended and started again at any point`, {
  timeout: 60_000 + RUNS * 100,
}, async () => {
  let count = 0
  const done = new Map<string, number>()
  await fc.assert(
    fc.asyncProperty(fc.array(tries, { minLength: 4, maxLength: 14 }), async (list) => {
      if (count % 200 === 199) await letGo()
      const file = onFile(join(folder, `run-${++count}.sqlite`))
      try {
        const here = new History(machine(), begun)
        const there = new History(file, begun)
        const clashes = new Set<string>()
        const waited = new Set<string>()
        for (const attempt of list) {
          const known = new Set(here.bookings.map(({ id }) => id))
          const noted = moneyNoted(here.bookings)
          here.do(attempt)
          there.do(attempt)
          // What money is noted, nobody changes but the practitioner; long over, it leaves the memory whole.
          const left = here.bookings.filter(({ id }) => known.has(id))
          if (attempt.who !== 'desk' && attempt.who !== 'word' && attempt.who !== 'till')
            expect(moneyNoted(left)).toEqual(pick(noted, left))
          const name = `${attempt.who} ${'does' in attempt ? attempt.does : ''}`.trim()
          const said = here.said.at(-1)
          // What found nobody, or nothing to do, was not carried out.
          if (typeof said === 'object' && said !== null && !('refused' in said))
            done.set(name, (done.get(name) ?? 0) + 1)
          for (const { id, owes, status } of here.bookings) {
            if (owes && status === 'requested') waited.add(id)
            else if (status === 'booked' && waited.has(id))
              done.set('paid first', (done.get('paid first') ?? 0) + 1)
            if (status !== 'requested') waited.delete(id)
          }
          // Where the practitioner has wished for a clash, two may have one time.
          if (
            'nth' in attempt &&
            attempt.who === 'desk' &&
            (attempt.does === 'enter' || attempt.does === 'move')
          )
            for (const { id } of here.bookings) if (!known.has(id) || attempt.does === 'move') clashes.add(id)
        }
        expect(there.said).toEqual(here.said)
        expect(portrait(there.keeper, there.now)).toEqual(portrait(here.keeper, here.now))
        const { kept, anew } = agendas(here.keeper)
        expect(kept).toEqual(anew)
        expect(overlaps(here.keeper, clashes)).toEqual([])
        // Started again, it is what it was; and each record, replayed, is the booking that is remembered.
        there.do({ who: 'restart' })
        expect(portrait(there.keeper, there.now)).toEqual(portrait(here.keeper, here.now))
        for (const booking of here.bookings) {
          const rows = file
            .db()
            .prepare(`SELECT body, at FROM record WHERE kind = 'booking' AND subject = ? ORDER BY seq`)
            .all(booking.id) as { body: string; at: number }[]
          expect(
            replay(
              booking.id,
              rows.map((row) => JSON.parse(row.body) as StoredEvent),
            ),
          ).toEqual(booking)
          const times = rows.map((row) => row.at)
          expect(times).toEqual([...times].sort((a, b) => a - b))
        }
      } finally {
        file.end()
      }
    }),
    { numRuns: RUNS, ...SEED },
  )
  const tried = [...done].sort().map(([name, n]) => `${name} ${n}`)
  console.log(`      ${count} histories: ${tried.join(', ')}`)
  // What is never carried out is never looked at.
  for (const name of [
    'link accept',
    'link prove',
    'link cancel',
    'link move-own',
    'desk welcome',
    'desk take-back',
    'desk move',
    'desk attend',
    'desk miss',
    'desk pay',
    'desk run-late',
    'desk publish',
    'desk series',
    'desk end-series',
    'desk move-series',
    'desk concern',
    'till ask',
    'till tell',
    'till give',
    'seal',
    'course give',
    'course client',
    'course half',
    'course answer',
    'course book',
    'course pay',
    'course take-back',
    'course forget',
    'paid first',
  ])
    expect([name, (done.get(name) ?? 0) > 0]).toEqual([name, true])
})
