import { spawnSync } from 'node:child_process'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { backup } from '../commands.ts'
import { newPairingCode } from '../desk/pairing.ts'
import { newPhoneKey } from '../http/away.ts'
import { openDatabase } from '../store/database.ts'
import { Secrets, WrongKey } from '../store/keys.ts'
import { foundIn, isDemoFile, WrongFile } from '../store/opening.ts'
import { SqliteStore } from '../store/sqlite-store.ts'
import { behind, openStartsOf, prove, request, sendIt } from './client.ts'
import { bookingsOf, linkTo, packOf, publishTo } from './inside.ts'
import { ask, startRelay, type TestRelay } from './setup.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-file-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Everything that lies on the disk beside the key: the file, and its log. */
const bytesOf = ({ relay }: TestRelay): string =>
  ['', '-wal']
    .map((end) => relay.settings.file + end)
    .filter((path) => existsSync(path))
    .map((path) => readFileSync(path, 'latin1'))
    .join('')

const CALENDAR = 'https://calendar.example.org/private-3f9c2ab1/basic.ics'

/** A relay with a client, their mails, a phone, a feed, a calendar: with everything that is a secret. */
async function lived(): Promise<{ one: TestRelay; secrets: Record<string, string> }> {
  const one = await startRelay()
  const pack = packOf(one.relay)
  publishTo(one.relay, {
    ...pack,
    practice: { ...pack.practice, calendars: [{ id: 'mine', name: 'Mine', url: CALENDAR }] },
  })
  const [start] = await openStartsOf(one.door, one.slug)
  const body = await request(one.door, one.slug, start!, {
    person: { name: 'Perpetua Quill', email: 'perpetua@example.org', zone: 'UTC' },
  })
  const sent = await sendIt(one.door, one.slug, body)
  const { id } = behind(one.relay, sent.body.link)
  await one.relay.rounds.turn()
  const mailed = linkTo(one.relay, id)
  await prove(one, id)
  await one.relay.rounds.turn()
  const feed = await ask<{ url: string }>(`${one.desk}/api/feed`, {}, { bearer: one.key })
  const word = one.mailbox.received.flatMap(({ text }) => /\/word#([\w-]+)/.exec(text)?.[1] ?? []).at(-1)!
  return {
    one,
    secrets: {
      page: sent.body.link,
      mailed,
      word,
      feed: /feed\/([\w-]+)\.ics/.exec(feed.body.url)![1]!,
      desk: one.key,
      code: newPairingCode(one.relay.store),
      phone: newPhoneKey(one.relay.store),
      'a service’s own link': pack.practice.services.find(({ linkKey }) => linkKey)!.linkKey!,
      'a calendar': CALENDAR,
    },
  }
}

describe('the relay’s file', () => {
  it('holds no working secret, and is its owner’s alone; names stand in it', async () => {
    const { one, secrets } = await lived()
    const bytes = bytesOf(one)
    for (const [name, secret] of Object.entries(secrets)) {
      expect(secret.length, name).toBeGreaterThan(10)
      expect(bytes.includes(secret), `${name} stands in the file`).toBe(false)
      expect(bytes.includes(secret.replaceAll('-', '')), `${name} stands in the file`).toBe(false)
    }
    // What a thief does read, so that nobody believes otherwise.
    expect(bytes).toContain('Perpetua Quill')
    expect(statSync(one.relay.settings.file).mode & 0o077).toBe(0)
    expect(statSync(`${one.relay.settings.file}.key`).mode & 0o077).toBe(0)
    await one.close()
  })

  it('holds nothing any more of a practice that was moved out', async () => {
    const { one } = await lived()
    const pairing = {
      code: newPairingCode(one.relay.store),
      practice: 'another',
      replace: true,
      empty: 'all',
    }
    expect((await ask(`${one.desk}/api/pair`, pairing)).status).toBe(200)
    expect(bytesOf(one)).not.toContain('Perpetua Quill')
    await one.close()
  })

  it('is whole by itself after a clean end', async () => {
    const { one } = await lived()
    const before = bookingsOf(one.relay).length
    const copy = join(folder, 'copied.sqlite')
    await one.relay.stop()
    copyFileSync(one.relay.settings.file, copy)
    const db = openDatabase(copy)
    const { n } = db.prepare('SELECT count(*) AS n FROM bookings').get() as { n: number }
    expect(n).toBe(before)
    db.close()
  })

  it('is copied while the relay runs, under a name that is not there yet', async () => {
    const { one } = await lived()
    const { file } = one.relay.settings
    const copy = join(folder, 'backup.sqlite')
    const served = join(folder, 'served')
    mkdirSync(served)
    backup(file, copy, [served])
    expect(statSync(copy).mode & 0o777).toBe(0o600)
    const db = openDatabase(copy)
    const { n } = db.prepare('SELECT count(*) AS n FROM bookings').get() as { n: number }
    expect(n).toBe(bookingsOf(one.relay).length)
    db.close()
    expect(existsSync(`${copy}.key`)).toBe(false)
    expect(() => backup(file, copy, [])).toThrow(/there already/)
    expect(() => backup(file, join(served, 'b.sqlite'), [served])).toThrow(/served to anybody/)
    expect(() => backup(file, join(folder, 'nowhere', 'b.sqlite'), [])).toThrow(/not there/)
    const link = join(folder, 'link.sqlite')
    symlinkSync(join(folder, 'target.sqlite'), link)
    expect(() => backup(file, link, [])).toThrow(/there already/)
    expect(existsSync(join(folder, 'target.sqlite'))).toBe(false)
    await one.close()
  })
})

describe('a file at the start', () => {
  it('is taken as what it is: a demo only by its flag or mark, a new one only when that is said', async () => {
    const { one } = await lived()
    const { file } = one.relay.settings
    const practice = join(folder, 'practice.sqlite')
    backup(file, practice, [])
    const demo = join(folder, 'demo.sqlite')
    copyFileSync(practice, demo)
    const db = openDatabase(practice)
    db.exec(`DELETE FROM settings WHERE name = 'furnished-at'`)
    db.close()
    await one.close()
    const empty = join(folder, 'empty.sqlite')
    writeFileSync(empty, '')
    const missing = join(folder, 'missing.sqlite')
    expect([practice, demo, empty, missing].map(foundIn)).toEqual(['practice', 'demo', 'empty', 'missing'])
    const is = (path: string, demo = false, fresh = false): boolean | string => {
      try {
        return isDemoFile(path, { demo, fresh })
      } catch (error) {
        if (!(error instanceof WrongFile)) throw error
        return error.message
      }
    }
    expect(is(practice)).toBe(false)
    expect(is(demo)).toBe(true)
    expect(is(missing, true)).toBe(true)
    expect(is(missing, false, true)).toBe(false)
    expect(is(practice, true)).toMatch(/holds a practice/)
    expect(is(missing)).toMatch(/is missing.*--new/)
    expect(is(empty)).toMatch(/is empty.*--new/)
    expect(is(practice, false, true)).toMatch(/there already/)
    expect(existsSync(missing)).toBe(false)
  })

  const start = (args: string[], env: Record<string, string>): { status: number | null; stderr: string } =>
    spawnSync(process.execPath, ['--import', 'tsx', join(import.meta.dirname, '..', 'main.ts'), ...args], {
      env: { PATH: process.env.PATH, HOME: process.env.HOME, ...env },
      encoding: 'utf8',
      timeout: 60_000,
    })
  const file = join(folder, 'never.sqlite')
  const earnest = {
    ACOLHIDA_FILE: file,
    ACOLHIDA_SMTP: 'smtps://mail.example.org',
    ACOLHIDA_DOOR_URL: 'https://door.example.org',
    ACOLHIDA_DESK_URL: 'https://desk.example.org',
  }
  it.each<[string, string[], Record<string, string>, RegExp]>([
    ['a forgotten mail host', ['--new'], { ACOLHIDA_FILE: file }, /ACOLHIDA_SMTP is missing/],
    [
      'no address of the door',
      ['--new'],
      { ACOLHIDA_FILE: file, ACOLHIDA_SMTP: 'smtps://m.example.org' },
      /ACOLHIDA_DOOR_URL is missing/,
    ],
    [
      'a door on this machine',
      ['--new'],
      { ...earnest, ACOLHIDA_DOOR_URL: 'http://localhost:4180' },
      /works nowhere else/,
    ],
    ['no file', [], earnest, /never\.sqlite is missing/],
    ['the demo with a mail host', ['--demo'], earnest, /the demo sends no mail/],
    [
      'the demo for everybody',
      ['--demo'],
      { ACOLHIDA_FILE: file, ACOLHIDA_HOST: '0.0.0.0' },
      /never open to others/,
    ],
    ['an unknown word', ['restore'], earnest, /nothing that the relay can be asked for/],
    ['an unknown flag', ['--force'], earnest, /--force/],
    ['a code for no file', ['pair'], earnest, /is missing; there is nothing in it/],
  ])('%s ends with a sentence, and touches no file', (_, args, env, says) => {
    const { status, stderr } = start(args, env)
    expect(stderr).toMatch(says)
    expect(status).toBe(2)
    expect(existsSync(file)).toBe(false)
  })
})

it('a relay with another key than its file was sealed with says so, and changes nothing', async () => {
  const { one } = await lived()
  const copy = join(folder, 'keyless.sqlite')
  backup(one.relay.settings.file, copy, [])
  await one.close()
  expect(() => new SqliteStore(openDatabase(copy), Secrets.beside(copy)).load()).toThrow(WrongKey)
})
