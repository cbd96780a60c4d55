import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Doorkeeper } from '@acolhida/core/house'
import { demoBackup } from '@acolhida/demo'
import { afterAll, describe, expect, it } from 'vitest'
import { furnish } from '../demo.ts'
import { BadSetting, readSettings, SETTINGS } from '../ground/settings.ts'
import { openDatabase } from '../store/database.ts'
import { Secrets } from '../store/keys.ts'
import { SqliteStore } from '../store/sqlite-store.ts'
import { BEGINNING } from './setup.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-settings-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('settings', () => {
  it('have their usual values where nothing is said', () => {
    expect(readSettings({ PATH: '/bin' })).toEqual({
      requestsPerMinute: 240,
      mail: {},
      proxies: [],
      held: { byOne: 4, inAll: 24 },
      memoryDays: 400,
      privateCalendars: false,
      host: '127.0.0.1',
      doorPort: 4180,
      deskPort: 4181,
      letterboxPort: 4182,
      tillPort: 4183,
    })
    expect(readSettings({ ACOLHIDA_MEMORY_DAYS: '30', ACOLHIDA_DOOR_PORT: '0' })).toMatchObject({
      memoryDays: 30,
      doorPort: 0,
    })
  })

  it.each<[string, string]>([
    ...['400d', 'abc', '', '-1', '0', '29', '1e3', '4OO', ' 400', '400.5', '9999999', '٤٠٠'].map(
      (text): [string, string] => ['ACOLHIDA_MEMORY_DAYS', text],
    ),
    ['ACOLHIDA_RATE', '0'],
    ['ACOLHIDA_RATE', 'fast'],
    ['ACOLHIDA_DOOR_PORT', '70000'],
    ['ACOLHIDA_DESK_PORT', '80a'],
    ['ACOLHIDA_SMTP', 'mail.example.org'],
    ['ACOLHIDA_DOOR_URL', 'door.example.org'],
    ['ACOLHIDA_DOOR_URL', 'https://door.example.org/path'],
    ['ACOLHIDA_PRIVATE_CALENDARS', 'yes'],
    ['ACOLHIDA_HOST', 'a b'],
  ])('%s=%s is named, with what it can be', (name, text) => {
    expect(() => readSettings({ [name]: text })).toThrow(BadSetting)
    expect(() => readSettings({ [name]: text })).toThrow(new RegExp(`${name} (is|can)`))
  })

  const ABSURD = [
    '',
    ' ',
    'NaN',
    '-1',
    '1e99',
    'Infinity',
    '9'.repeat(400),
    'a\nb',
    '💥',
    '<script>',
    'x'.repeat(5_000),
  ]
  it.each(
    SETTINGS.filter((name) => name !== 'ACOLHIDA_FILE').flatMap((name) =>
      ABSURD.map((text): [string, string] => [name, text]),
    ),
  )('%s=%j is refused in a sentence', (name, text) => {
    // A name of a host can be nearly anything; it is looked for when it is needed.
    if (name === 'ACOLHIDA_HOST' && /^[\w-]+$/.test(text) && text.length < 256) return
    let said = ''
    try {
      readSettings({ [name]: text })
    } catch (error) {
      if (!(error instanceof BadSetting)) throw error
      said = error.message
    }
    expect(said).toMatch(/^ACOLHIDA_\w+ .{8,}/)
    expect(said.length).toBeLessThan(700)
  })

  it('mistyped in their name are not passed over', () => {
    expect(() => readSettings({ ACOLHIDA_MEMORY_DAY: '400' })).toThrow(/ACOLHIDA_MEMORY_DAY is no setting/)
  })
})

describe('a relay with a setting that can not be meant', () => {
  it('says which, ends, and leaves its file as it is', () => {
    const file = join(folder, 'relay.sqlite')
    const store = new SqliteStore(openDatabase(file), Secrets.beside(file))
    furnish(new Doorkeeper(store), demoBackup(BEGINNING), BEGINNING)
    store.db.close()
    const print = (): string => createHash('sha256').update(readFileSync(file)).digest('hex')
    const before = print()
    const { status, stderr } = spawnSync(
      process.execPath,
      ['--import', 'tsx', join(import.meta.dirname, '..', 'main.ts')],
      {
        env: { ...process.env, ACOLHIDA_FILE: file, ACOLHIDA_MEMORY_DAYS: '400d' },
        encoding: 'utf8',
        timeout: 60_000,
      },
    )
    expect(status).toBe(2)
    expect(stderr).toContain('ACOLHIDA_MEMORY_DAYS is for how many days')
    expect(print()).toBe(before)
  })
})
