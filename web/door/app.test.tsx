// @vitest-environment happy-dom
import { apply, type Booking, type BookingEvent, begin, replay } from '@acolhida/core/booking'
import { Doorkeeper, doorView, linkView, MapStore } from '@acolhida/core/house'
import { parseInstant, shift } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { fireEvent, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { drawAt, furnishWindow } from '../tests/drawing.tsx'
import { DoorApp } from './app.tsx'

const now = parseInstant('2026-11-24T11:00Z')
// The clock stands; what waits goes on.
vi.useFakeTimers({ toFake: ['Date'], now })
const demo = demoBackup(now)
const { slug } = demo.practice.profile
const tome = demo.bookings.find(({ id }) => id === 'asks-tome')!
const first = replay('asks-tome', tome.events.slice(0, 1)).asked
const waiting = begin('b', { ...first, proof: 'link', until: shift(now, 3_600_000) })
const after = (event: BookingEvent): Booking => apply(waiting, event)
const booked = after({ type: 'welcomed', at: now, by: 'rules', settles: now })

/** A relay that knows one practice and one booking. */
function answerWith(services = demo.practice.services, booking: Booking = waiting): void {
  const store = new MapStore()
  const practice = { ...demo.practice, services }
  store.write([{ type: 'package', pack: { revision: 1, practice, sessions: [], people: [], salt: 's' } }])
  const { house } = new Doorkeeper(store)
  vi.stubGlobal('fetch', async (url: string) => {
    const view = url.includes('/api/link/')
      ? linkView(house, { booking, theirs: true }, now)
      : url.includes('/read')
        ? { open: true }
        : doorView(house, now)
    return new Response(JSON.stringify(view), { headers: { 'x-relay-now': String(now) } })
  })
}

const refuseWith = (status: number, message: string): void => {
  vi.stubGlobal('fetch', async () =>
    Response.json({ code: 'unknown-link', message }, { status, headers: { 'x-relay-now': String(now) } }),
  )
}

beforeEach(furnishWindow)

describe('the door', () => {
  it('says that nothing is open', async () => {
    answerWith([])
    drawAt(`/${slug}`, <DoorApp />)
    expect(await screen.findByText(/Nothing can be booked at the moment/)).toBeDefined()
  })

  it.each([1, demo.practice.services.length])('shows %i services', async (count) => {
    const open = demo.practice.services.filter(({ bookableBy, on }) => bookableBy === 'everyone' && on)
    answerWith(open.slice(0, count))
    drawAt(`/${slug}`, <DoorApp />)
    for (const { name } of open.slice(0, count))
      expect((await screen.findAllByText(name)).length).toBeGreaterThan(0)
  })

  it('says why, when it can’t be opened', async () => {
    refuseWith(404, 'There is no door at this address.')
    drawAt(`/${slug}`, <DoorApp />)
    expect(await screen.findByText('There is no door at this address.')).toBeDefined()
  })

  it('asks the questions of a service, and goes on only when they are answered', async () => {
    answerWith()
    drawAt(`/${slug}/voice-assessment`, <DoorApp />)
    const [goOn] = (await screen.findAllByRole('button')).filter(
      (button) => button.getAttribute('type') === 'submit',
    )
    fireEvent.click(goOn!)
    expect((await screen.findAllByText('Please answer this one.')).length).toBeGreaterThan(0)
  })

  it('leads somewhere from nowhere', async () => {
    answerWith()
    drawAt('/', <DoorApp />)
    expect(await screen.findByRole('heading', { level: 1 })).toBeDefined()
  })
})

const STATES: [is: string, booking: Booking, head: RegExp][] = [
  ['unproved', begin('b', { ...first, proof: 'open', until: shift(now, 3_600_000) }), /One step more/],
  ['waiting', waiting, /has arrived/],
  [
    'offered',
    after({
      type: 'offered',
      at: now,
      starts: [{ start: waiting.start, place: waiting.place }],
      until: shift(now, 3_600_000),
      text: 'Perhaps so?',
      settles: now,
    }),
    /offers you other times/,
  ],
  ['booked', booked, /Your time is confirmed/],
  ['attended', { ...booked, status: 'attended' }, /You were here/],
  ['missed', { ...booked, status: 'missed' }, /was missed/],
  ['declined', after({ type: 'declined', at: now, text: 'No.', settles: now }), /did not work out/],
  ['lapsed', after({ type: 'lapsed', at: now }), /has run out/],
  ['withdrawn', after({ type: 'withdrawn', at: now }), /is closed/],
  [
    'cancelled',
    apply(booked, { type: 'cancelled', at: now, by: 'client', share: 50, text: '', settles: now }),
    /is cancelled/,
  ],
]

describe('a booking behind its link', () => {
  it.each(STATES)('that is %s says so', async (_, booking, head) => {
    answerWith(demo.practice.services, booking)
    drawAt(`/${slug}/my/secret-of-a-link`, <DoorApp />)
    expect(await screen.findByRole('heading', { level: 1, name: head })).toBeDefined()
  })

  it('says that a link leads nowhere', async () => {
    answerWith()
    const door = globalThis.fetch
    vi.stubGlobal('fetch', async (url: string) =>
      url.includes('/api/link/')
        ? Response.json({ code: 'unknown-link', message: 'It has ended.' }, { status: 404 })
        : door(url),
    )
    drawAt(`/${slug}/my/secret-of-a-link`, <DoorApp />)
    expect(await screen.findByText('This link leads nowhere')).toBeDefined()
    expect(screen.getByText('It has ended.')).toBeDefined()
  })
})
