import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { feed, feedFreeBusy, feedHours } from '../calendars/feed.ts'
import { invitation } from '../mail/invitation.ts'
import { bookingsOf, packOf } from './inside.ts'
import { startRelay, type TestRelay } from './setup.ts'

/** Only where libical is (libical3 of Debian, its checks by RFC 5545 and RFC 5546): in the soak. */
const HERE = process.env.LIBICAL === '1'

/** What libical finds wrong with a text. */
const faults = (text: string): string[] =>
  execFileSync('python3', [join(import.meta.dirname, 'libical.py')], { input: text, encoding: 'utf8' })
    .split('\n')
    .filter(Boolean)

const DAMAGED = [
  'VERSION:2.0',
  'PRODID:x',
  'BEGIN:VEVENT',
  'UID:a',
  'DTSTART:20260101T000000.5Z',
  'END:VEVENT',
]

describe.skipIf(!HERE)('libical, of what the relay hands out', () => {
  let house: TestRelay
  beforeAll(async () => {
    house = await startRelay()
  })
  afterAll(() => house.close())

  it('finds faults where there are some', () => {
    expect(faults(['BEGIN:VCALENDAR', ...DAMAGED, 'END:VCALENDAR', ''].join('\r\n')).join()).toMatch(
      /DTSTART/,
    )
  })

  it('finds none in the feed, in free/busy, nor in the hours', () => {
    const { keeper, clock } = house.relay.here
    const now = clock.now()
    expect(faults(feed(keeper.house, now))).toEqual([])
    expect(faults(feedFreeBusy(keeper.house, now))).toEqual([])
    expect(faults(feedHours(keeper.house, now))).toEqual([])
  })

  it.each([
    ...['Ana Silva', 'Ana "Bo" Silva', 'Ana ^ Silva', 'a;b:c,d', 'O’Neill', 'two\nlines', 'مريم'],
    ...['^n^^\'"', 'n'.repeat(200)],
  ])('finds none in an invitation for %j, nor in its cancelling', (name) => {
    const { practice } = packOf(house.relay)
    const one = bookingsOf(house.relay).find(({ status }) => status === 'booked')!
    const booking = { ...one, asked: { ...one.asked, person: { ...one.asked.person, name } } }
    for (const method of ['REQUEST', 'CANCEL'] as const) {
      const link = method === 'REQUEST' ? 'https://door.example.org/x/my/secret' : undefined
      expect(faults(invitation(practice, booking, method, house.relay.here.now(), link))).toEqual([])
    }
  })
})
