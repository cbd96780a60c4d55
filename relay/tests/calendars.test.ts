import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { CalendarState, DoorOpenings } from '@acolhida/core/contract'
import { DAY, formatInstant, HOUR, type Instant, MINUTE } from '@acolhida/core/time'
import ICAL from 'ical.js'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { CALENDAR_LIMITS, isPublic, readAddress } from '../calendars/read-address.ts'
import { openStartsOf, request, sendIt } from './client.ts'
import { packOf, publishTo } from './inside.ts'
import { ask, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let other: Server
let url: string
let answer: (path: string) => { status?: number; location?: string; body?: string }
const open = { ...CALENDAR_LIMITS, allowPrivate: true }

beforeEach(async () => {
  house = await startRelay({ privateCalendars: true })
  other = createServer((req, res) => {
    const { status = 200, location, body = '' } = answer(req.url ?? '')
    res.writeHead(status, location ? { location } : {})
    res.end(body)
  })
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve))
  url = `http://127.0.0.1:${(other.address() as AddressInfo).port}`
})
afterEach(async () => {
  other.close()
  other.closeAllConnections()
  await house.close()
})

const busy = (start: number, end: number): string => {
  const utc = (at: number): string => formatInstant(at as Instant).replaceAll(/[-:]/g, '')
  return `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:x\r\nSUMMARY:Dentist, a secret\r\nDTSTART:${utc(start)}\r\nDTEND:${utc(end)}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`
}
function subscribe(path = '/a.ics'): void {
  const pack = packOf(house.relay)
  const calendars = [{ id: 'phone', name: 'My phone', url: url + path }]
  publishTo(house.relay, { ...pack, practice: { ...pack.practice, calendars } })
}
const states = async (): Promise<CalendarState[]> =>
  (await ask<CalendarState[]>(`${house.desk}/api/calendars`, undefined, { bearer: house.key }))
    .body as CalendarState[]

describe('other calendars', () => {
  it('close times, as intervals without a word of what they are about', async () => {
    const [start] = (await openStartsOf(house.door, house.slug)) as [number]
    answer = () => ({ body: busy(start, start + HOUR) })
    subscribe()
    await house.relay.calendars.round()
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
    const [state] = await states()
    expect(state).toMatchObject({
      id: 'phone',
      skipped: [],
      entries: [{ kind: 'outside', start, end: start + HOUR }],
    })
    const dump = JSON.stringify(house.relay.store.db.prepare('SELECT * FROM calendars').all())
    expect(dump).not.toContain('Dentist')
  })

  it('are looked at again before a request is taken', async () => {
    const [start] = (await openStartsOf(house.door, house.slug)) as [number]
    answer = () => ({ body: busy(start + 90 * DAY, start + 91 * DAY) })
    subscribe()
    await house.relay.calendars.round()
    const body = await request(house.door, house.slug, start)
    answer = () => ({ body: busy(start, start + HOUR) })
    house.clock.forward(MINUTE)
    const refused = await sendIt(house.door, house.slug, { ...body, clock: house.clock.now() })
    expect([refused.status, refused.body.code]).toEqual([409, 'not-open'])
    expect((refused.body.openings as DoorOpenings).starts).not.toContain(start)
  })

  it('keep their last state when they can not be read, and say so', async () => {
    const [start] = (await openStartsOf(house.door, house.slug)) as [number]
    answer = () => ({ body: busy(start, start + HOUR) })
    subscribe()
    await house.relay.calendars.round()
    answer = () => ({ status: 500 })
    house.clock.forward(6 * MINUTE)
    await house.relay.calendars.round()
    const [state] = await states()
    expect(state).toMatchObject({ problem: 'It answered with 500.', entries: [{ start }] })
    expect(state!.tried - state!.read!).toBeGreaterThanOrEqual(6 * MINUTE)
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
    answer = () => ({ body: 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR\r\n' })
    house.clock.forward(6 * MINUTE)
    await house.relay.calendars.round()
    expect((await states())[0]).not.toHaveProperty('problem')
    expect(await openStartsOf(house.door, house.slug)).toContain(start)
  })

  it('are forgotten with their subscription', async () => {
    answer = () => ({ body: busy(house.clock.now(), house.clock.now() + HOUR) })
    subscribe()
    await house.relay.calendars.round()
    const { calendars: _, ...practice } = packOf(house.relay).practice
    publishTo(house.relay, { ...packOf(house.relay), practice })
    await house.relay.calendars.round()
    expect(await states()).toEqual([])
  })
})

describe('the feed', () => {
  const address = async (): Promise<string> =>
    (await ask<{ url: string }>(`${house.desk}/api/feed`, {}, { bearer: house.key })).body.url

  it('shows bookings and holds to who has its address, until that is replaced', async () => {
    const first = await address()
    const events = new ICAL.Component(ICAL.parse(await (await fetch(first)).text()))
      .getAllSubcomponents('vevent')
      .map((getAllSubcomponent) => new ICAL.Event(getAllSubcomponent))
    expect(events.map((event) => event.summary)).toContain('Tomé Arrais, Voice assessment (held)')
    expect(events.map((event) => event.summary)).toContain('Odile Ferrand, Coaching session')
    const second = await address()
    expect((await fetch(first)).status).toBe(404)
    expect((await fetch(second)).status).toBe(200)
    expect((await fetch(`${house.door}/feed/AAAAAAAAAAAAAAAAAAAAAA.ics`)).status).toBe(404)
  })

  it('says when one works, as availability', async () => {
    const base = (await address()).replace(/\.ics$/, '')
    const response = await fetch(`${base}/hours.ics`)
    expect(response.headers.get('content-type')).toContain('text/calendar')
    const text = await response.text()
    const component = new ICAL.Component(ICAL.parse(text)).getFirstSubcomponent('vavailability')!
    expect(component.getAllSubcomponents('available').length).toBeGreaterThan(3)
    expect(text).not.toMatch(/Arrais|choir/)
    expect((await fetch(`${house.door}/feed/AAAAAAAAAAAAAAAAAAAAAA/hours.ics`)).status).toBe(404)
  })

  it('says when one is busy without a name', async () => {
    const text = await (await fetch((await address()).replace('.ics', '.ifb'))).text()
    const component = new ICAL.Component(ICAL.parse(text)).getFirstSubcomponent('vfreebusy')!
    expect(component.getAllProperties('freebusy').length).toBeGreaterThan(5)
    expect(text).not.toMatch(/Arrais|Voice/)
  })
})

describe('addresses', () => {
  it('are read through a few redirects, each looked at anew', async () => {
    answer = (path) =>
      path === '/a'
        ? { status: 302, location: '/b' }
        : path === '/b'
          ? { status: 301, location: `${url}/c` }
          : { body: 'found' }
    expect(await readAddress(`${url}/a`, open)).toBe('found')
    answer = () => ({ status: 302, location: '/again' })
    await expect(readAddress(url, open)).rejects.toThrow('on and on')
    answer = () => ({ status: 302, location: 'file:///etc/passwd' })
    await expect(readAddress(url, open)).rejects.toThrow('Only addresses with http')
  })

  it('never lead into a private network, by number or by name', async () => {
    answer = () => ({ body: 'secret' })
    const port = url.split(':').at(-1)
    for (const host of [
      '127.0.0.1',
      'localhost',
      '[::1]',
      '10.0.0.1',
      '169.254.169.254',
      '[::ffff:127.0.0.1]',
      '0.0.0.0',
    ]) {
      await expect(readAddress(`http://${host}:${port}/`, CALENDAR_LIMITS), host).rejects.toThrow(
        'private network',
      )
    }
    for (const host of ['192.168.1.1', 'fe80::1', 'fd00::1', '100.64.0.1', '::ffff:10.0.0.1'])
      expect(isPublic(host), host).toBe(false)
    expect(isPublic('93.184.216.34')).toBe(true)
  })

  it('are read within limits of size and time', async () => {
    answer = () => ({ body: 'x'.repeat(3 * 1024 * 1024) })
    await expect(readAddress(url, { ...open, bytes: 1024 * 1024 })).rejects.toThrow('larger than 1 MB')
    other.removeAllListeners('request')
    await expect(readAddress(url, { ...open, ms: 150 })).rejects.toThrow('took too long')
    for (const bad of ['ftp://example.org/a', 'not an address'])
      await expect(readAddress(bad, open)).rejects.toThrow()
  })
})

describe('a very large calendar', () => {
  const many = (count: number, start: number): string => {
    const utc = (at: number): string => formatInstant(at as Instant).replaceAll(/[-:]/g, '')
    const lines = Array.from({ length: count }, (_, i) =>
      [
        'BEGIN:VEVENT',
        `UID:${i}`,
        `DTSTART:${utc(start + (i % 300) * DAY)}`,
        `DURATION:PT1H`,
        ...(i % 10 === 0 ? ['RRULE:FREQ=WEEKLY;COUNT=200'] : []),
        'END:VEVENT',
      ].join('\r\n'),
    )
    return ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n')
  }

  it('is understood in a thread of its own, while the door goes on answering', async () => {
    const [start] = (await openStartsOf(house.door, house.slug)) as [number]
    answer = () => ({ body: many(4_000, start) })
    subscribe()
    const reading = house.relay.calendars.round()
    let answers = 0
    let done = false
    void reading.then(() => {
      done = true
    })
    while (!done) {
      await ask(`${house.door}/api/door/${house.slug}`)
      answers++
    }
    expect(answers).toBeGreaterThan(10)
    const [state] = await states()
    expect(state?.problem).toBeUndefined()
    expect(state?.entries.length).toBeGreaterThan(4_000)
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
  }, 60_000)

  it('says so when it is none, as a small one does', async () => {
    answer = () => ({ body: `BEGIN:VCALENDAR\r\n${'X-NOTE:long\r\n'.repeat(20_000)}` })
    subscribe()
    await house.relay.calendars.round()
    const [state] = await states()
    expect(state?.problem).toMatch(/^The calendar: is not iCalendar/)
  }, 30_000)

  it('is not understood again while it says the same', async () => {
    let asked = 0
    const start = house.clock.now() + 10 * DAY
    answer = () => {
      asked++
      return { body: many(1_500, start) }
    }
    subscribe()
    await house.relay.calendars.round()
    const first = (await states())[0]!
    house.clock.forward(6 * MINUTE)
    await house.relay.calendars.round()
    expect(asked).toBe(2)
    const second = (await states())[0]!
    expect(second.entries).toEqual(first.entries)
    expect(second.read).toBeGreaterThan(first.read!)
  }, 30_000)
})
