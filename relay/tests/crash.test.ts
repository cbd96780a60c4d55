import { type ChildProcess, fork } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoBackup } from '@acolhida/demo'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { systemClock } from '../clock.ts'
import { furnish } from '../demo.ts'
import { openDatabase } from '../store/database.ts'
import { Store } from '../store/store.ts'
import { openStartsOf, request, sendIt } from './client.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-crash-'))
const file = join(folder, 'relay.sqlite')
const ROUNDS = 50

beforeAll(() => {
  const store = new Store(file)
  const backup = demoBackup(systemClock.now())
  const services = backup.practice.services.map((one) => {
    const { perDay: _, ...rest } = one
    return { ...rest, clearBefore: 0, clearAfter: 0, reach: { kind: 'days' as const, days: 900 } }
  })
  const practice = { ...backup.practice, services, away: [], limits: { openRequests: 1_000 } }
  furnish(store, { ...backup, practice, bookings: [], enquiries: [] }, systemClock.now())
  store.close()
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const start = (): Promise<{ child: ChildProcess; door: string }> =>
  new Promise((resolve, reject) => {
    const child = fork(join(import.meta.dirname, 'crash-child.ts'), [file], { execArgv: ['--import', 'tsx'] })
    child.once('message', ({ door }: { door: string }) => resolve({ child, door }))
    child.once('exit', (code) => reject(new Error(`The relay ended with ${code}.`)))
  })

it('writes every answer through to the disk before it is given', () => {
  // Killing the process says nothing about the disk; these settings do.
  const db = openDatabase(file)
  expect(db.prepare('PRAGMA journal_mode').get()).toMatchObject({ journal_mode: 'wal' })
  expect(db.prepare('PRAGMA synchronous').get()).toMatchObject({ synchronous: 2 })
  db.close()
})

it(`loses no request that was answered and keeps none by half, killed ${ROUNDS} times in a burst`, {
  timeout: 600_000,
}, async () => {
  const answered = new Map<string, string>()
  let sent = 0
  let unanswered = 0
  for (let round = 0; round < ROUNDS; round++) {
    const { child, door } = await start()
    const open = await openStartsOf(door, 'iria-montalvar')
    const apart: number[] = []
    for (const one of open) if (one - (apart.at(-1) ?? 0) >= 75 * 60_000) apart.push(one)
    // Far enough from what earlier rounds took, and each request another start.
    const bodies = await Promise.all(apart.slice(0, 8).map((one) => request(door, 'iria-montalvar', one)))
    const gone = new Promise((resolve) => child.once('exit', resolve))
    // The axe falls while the others are under way: on the first answer, the second, the third …
    let left = Math.min((round % 6) + 1, bodies.length)
    const burst = bodies.map((body) =>
      sendIt(door, 'iria-montalvar', body).then(
        (answer) => {
          if (answer.status === 201) answered.set(body.person.email, answer.body.link)
          if (--left === 0) child.kill('SIGKILL')
        },
        () => unanswered++,
      ),
    )
    sent += bodies.length
    await Promise.all(burst)
    child.kill('SIGKILL')
    await gone
  }
  const store = new Store(file)
  const emails = [...store.bookings()].map((one) => one.asked.person.email)
  for (const [email, link] of answered) {
    expect(emails.filter((one) => one === email)).toHaveLength(1)
    const found = store.link(link)
    expect(found && store.booking(found.booking)?.asked.person.email).toBe(email)
  }
  // What is there is there whole: its record, its receipt on the way, its agreement in the one chain, its key.
  for (const booking of store.bookings()) {
    const count = (sql: string) => (store.db.prepare(sql).get(booking.id) as { n: number }).n
    expect(count(`SELECT count(*) AS n FROM outbox WHERE step = 'asked' AND booking = ?`)).toBe(1)
    expect(count('SELECT count(*) AS n FROM links WHERE booking = ?')).toBe(2)
    expect(booking.asked.agreements).toHaveLength(1)
  }
  const done = store.db.prepare('SELECT count(*) AS n FROM done').get() as { n: number }
  expect(done.n).toBe(emails.length)
  expect(new Set([...store.bookings()].map((one) => one.start)).size).toBe(emails.length)
  store.close()
  console.log(
    `      ${ROUNDS} kills: ${sent} sent, ${answered.size} answered, ${unanswered} cut off, ${emails.length} stored`,
  )
  expect(answered.size).toBeGreaterThan(ROUNDS)
  expect(unanswered).toBeGreaterThan(ROUNDS / 4)
})
