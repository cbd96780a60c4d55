import type { Booking } from '@acolhida/core/booking'
import type { House } from '@acolhida/core/house'
import ICAL from 'ical.js'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { feed, feedFreeBusy } from '../calendars/feed.ts'
import { invitation } from '../mail/invitation.ts'
import { packOf } from './inside.ts'
import { startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeAll(async () => {
  house = await startRelay()
})
afterAll(() => house.close())

const NAMES = ['Ana "Bo" Silva', 'Ana ^ Silva', 'a;b:c,d', 'O’Neill', 'two\nlines', 'مريم', '^n^^\'"']

/** Content lines as RFC 5545, §3.1 folds them, unfolded; every end of a line is CRLF, and none is bare. */
function linesOf(text: string): string[] {
  expect(text.endsWith('\r\n')).toBe(true)
  expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/)
  return text
    .replaceAll(/\r\n[ \t]/g, '')
    .split('\r\n')
    .slice(0, -1)
}

describe('an invitation', () => {
  const booked = (name: string): Booking => {
    const [one] = [...house.relay.here.keeper.house.openBookings()].filter(
      ({ status }) => status === 'booked',
    )
    return { ...one!, asked: { ...one!.asked, person: { ...one!.asked.person, name } } }
  }

  it.each(NAMES)('carries %j as RFC 6868 writes it, and the link as URL and in words', (name) => {
    const { practice } = packOf(house.relay)
    const link = 'https://door.example.org/x/my/secret'
    const text = invitation(practice, booked(name), 'REQUEST', house.relay.here.now(), link)
    const lines = linesOf(text)
    const attendee = lines.find((line) => line.startsWith('ATTENDEE'))!
    // A parameter between quotes holds no quote and no control character (RFC 5545, §3.2), and nothing escaped by a backslash.
    expect(attendee).toMatch(/^ATTENDEE(?:;[A-Z-]+=(?:"[^"\p{Cc}]*"|[^";:,\p{Cc}]*))+:/u)
    const said = /CN=(?:"([^"]*)"|([^";:,]*))/.exec(attendee)!
    const read = (said[1] ?? said[2]!).replaceAll(
      /\^(\^|n|')/g,
      (_, sign: string) => ({ '^': '^', n: '\n', "'": '"' })[sign]!,
    )
    expect(read).toBe(name)
    const event = new ICAL.Component(ICAL.parse(text)).getFirstSubcomponent('vevent')!
    expect(event.getFirstPropertyValue('url')).toBe(link)
    expect(event.getFirstPropertyValue('description')).toContain(link)
  })
})

describe('what is subscribed to', () => {
  it.each<[string, (house: House, now: ReturnType<TestRelay['relay']['here']['now']>) => string]>([
    ['the bookings', feed],
    ['the busy times', feedFreeBusy],
  ])('%s: no METHOD without an ORGANIZER, no fraction of a second, no empty LOCATION', (_, write) => {
    house.clock.forward(123)
    const lines = linesOf(house.relay.here.look(write))
    expect(lines.filter((line) => /^METHOD/.test(line))).toEqual([])
    expect(lines.filter((line) => /^LOCATION:?$/.test(line))).toEqual([])
    const moments = lines.filter((line) => /^(?:DTSTAMP|DTSTART|DTEND|FREEBUSY)/.test(line))
    expect(moments.length).toBeGreaterThan(3)
    for (const line of moments) expect(line).toMatch(/:(?:\d{8}T\d{6}Z(?:\/\d{8}T\d{6}Z)?)$/)
  })
})
