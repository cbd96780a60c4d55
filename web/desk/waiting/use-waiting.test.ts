import 'fake-indexeddb/auto'
import { DAY, duration, HOUR, parseInstant, shift } from '@acolhida/core/time'
import type { LineEvent } from '@acolhida/core/waiting'
import { demoBackup } from '@acolhida/demo'
import { expect, it } from 'vitest'
import { lineRow } from '../data/lines-in.ts'
import type { PersonRow } from '../data/rows.ts'
import { askerBy, waitingIn } from './use-waiting.ts'

const now = parseInstant('2026-11-24T11:00Z')
const demo = demoBackup(now).practice
const practice = {
  ...demo,
  houseRules: {
    ...demo.houseRules,
    counting: {
      ...demo.houseRules.counting!,
      leads: [
        { points: 2, within: duration('P90D'), to: 'not-online' as const, lasts: duration('P30D') },
        { points: 1, within: duration('P90D'), to: 'ask' as const, lasts: duration('P30D') },
      ],
    },
  },
}
const person = (change: Partial<PersonRow> = {}): PersonRow => ({
  ...{ id: 'p', name: 'Nadia Kern', emails: ['nadia@example.org'], invited: [], blocked: false, note: '' },
  ...{ sort: 'nadia kern', words: [], count: 0, allTags: [] },
  ...change,
})
const missed = { booking: 'b', at: shift(now, -DAY), points: 2 }

it('whoever is held out nothing by the relay is held out nothing at the desk', () => {
  const mayBook = (one?: PersonRow): boolean => {
    const people = new Map(one ? [['nadia@example.org', one]] : [])
    return !askerBy({ people, instead: new Map() }, practice, now)('Nadia@Example.org').blocked
  }
  expect(mayBook()).toBe(true)
  expect(mayBook(person())).toBe(true)
  expect(mayBook(person({ blocked: true }))).toBe(false)
  expect(mayBook(person({ counted: [missed] }))).toBe(false)
  expect(mayBook(person({ counted: [{ ...missed, points: 1 }] }))).toBe(true)
  expect(mayBook(person({ counted: [missed], exempt: true }))).toBe(true)
})

it('whoever wants an earlier time looks for what lies before the one they have', () => {
  const joined = (instead?: string): LineEvent => ({
    ...{ type: 'joined', at: now, service: 'voice-assessment', place: 'studio', minutes: 75, price: 0 },
    person: { name: 'Nadia Kern', email: 'nadia@example.org', zone: 'Europe/Lisbon' },
    ...{ answers: {}, attempts: [], agreements: [], windows: [] },
    ...(instead ? { instead } : {}),
  })
  const lines = [
    lineRow('any', [joined()]),
    lineRow('earlier', [joined('stands')]),
    lineRow('gone', [joined('off')]),
  ]
  const start = shift(now, 50 * HOUR)
  const found = waitingIn(practice, { lines, instead: new Map([['stands', start]]) }, now)
  expect(found.map(({ id, earlier }) => [id, earlier])).toEqual([
    ['any', undefined],
    ['earlier', start],
  ])
  expect(waitingIn(practice, { lines, instead: new Map() }, now, { skipped: ['any'] })).toEqual([])
})
