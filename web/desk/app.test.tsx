// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { replay } from '@acolhida/core/booking'
import type { Backup } from '@acolhida/core/formats'
import { beginPractice } from '@acolhida/core/practice'
import { parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { configure, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { drawAt, furnishWindow } from '../tests/drawing.tsx'
import { DeskApp } from './app.tsx'
import { importBackup } from './data/backup.ts'
import { db } from './data/db.ts'

const now = parseInstant('2026-11-24T11:00Z')
// The clock stands; what waits goes on.
vi.useFakeTimers({ toFake: ['Date'], now })
const demo = demoBackup(now)
const empty: Backup = {
  ...demo,
  practice: {
    ...beginPractice({
      id: 'own',
      slug: 'own',
      name: 'Ana',
      email: 'ana@example.org',
      zone: 'Europe/Lisbon',
      currency: 'EUR',
    }),
    questionnaires: [],
  },
  people: [],
  bookings: [],
  enquiries: [],
  mails: [],
  sessions: [],
}
const [tome] = demo.bookings.filter(({ id }) => id === 'asks-tome')
const backup: Backup = {
  ...empty,
  bookings: [tome!],
  people: demo.people.slice(0, 1),
  enquiries: demo.enquiries.slice(0, 1),
}
const many: Backup = {
  ...demo,
  people: Array.from({ length: 400 }, (_, i) => ({
    ...demo.people[0]!,
    id: `person-${i}`,
    name: `Person ${String(i).padStart(3, '0')}`,
    emails: [`person.${i}@example.org`],
  })),
  bookings: Array.from({ length: 400 }, (_, i) => ({ ...tome!, id: `asks-${i}` })),
}

/** Every page, with what it is headed, and what it says where there is nothing. */
const PAGES: [path: string, heading: RegExp | string, nothing?: string | RegExp][] = [
  ['/', /day \d+ /, /Nobody waits/],
  ['/arrivals', 'Arrivals', /Requests from your door will be listed here/],
  ['/diary', /\d/],
  ['/diary?view=list', /\d/, /Nothing is booked in these four weeks/],
  ['/people', 'People', /People who ask for your time/],
  ['/waiting', 'Waiting', /When nothing suits somebody at your door/],
  ['/money', 'Money', /Nothing is open/],
  ['/record', 'The record', /Nothing of that kind/],
  ['/people/nobody', 'There is nobody here', /joined with somebody else/],
  ['/practice', 'My practice'],
  ['/profile', 'Who I am'],
  ['/hours', 'Hours'],
  ['/calendars', 'Other calendars', /Calendars you subscribe to/],
  ['/places', 'Places'],
  ['/limits', 'Limits'],
  ['/rules', 'House rules'],
  ['/services', 'Services'],
  ['/services/codes', 'Price codes', /Codes will stand here/],
  ['/questions', 'Questions', /Questionnaires will stand here/],
  ['/terms', 'Terms'],
  ['/sent', 'What is sent, and when', /Nothing goes by itself yet/],
  ['/outbox', 'Outbox', /Nothing goes in these days/],
  ['/words', 'Words and languages'],
  ['/hand-out', 'Hand out the link'],
  ['/try', 'Try it'],
  ['/desk', 'This desk'],
]

// A busy machine takes its time.
configure({ asyncUtilTimeout: 20_000 })

beforeEach(() => {
  furnishWindow()
  vi.stubGlobal('fetch', async () => {
    throw new TypeError('no network')
  })
})
afterEach(() => vi.restoreAllMocks())

const heading = (name: RegExp | string) => screen.findByRole('heading', { level: 1, name })

describe('a change that takes something from what is booked', () => {
  it('says from whom before it is done, and is done when one says so', async () => {
    await importBackup(db, demo)
    const coming = demo.bookings
      .map(({ id, events }) => replay(id, events))
      .find(({ status, start }) => status === 'booked' && start > now)!
    drawAt(`/services/${coming.service}`, <DeskApp />)
    const remove = await screen.findByRole('button', { name: 'Remove this service' })
    const offered = async () =>
      (await db.practice.get('practice'))!.practice.services.some(({ id }) => id === coming.service)
    fireEvent.click(remove)
    const dialog = await screen.findByRole('dialog', { name: /touched by this/ })
    expect(within(dialog).getByText(coming.asked.person.name)).toBeDefined()
    expect(await offered()).toBe(true)
    fireEvent.click(within(dialog).getByRole('button', { name: 'Leave it as it was' }))
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
    expect(await offered()).toBe(true)
    fireEvent.click(remove)
    fireEvent.click(await screen.findByRole('button', { name: 'Do it all the same' }))
    await waitFor(async () => expect(await offered()).toBe(false))
    expect(await screen.findByRole('heading', { level: 1, name: 'Services' })).toBeDefined()
  })
})

describe('every page of the desk', () => {
  it.each(PAGES)('%s says what there will be, where there is nothing yet', async (path, name, nothing) => {
    await importBackup(db, empty)
    drawAt(path, <DeskApp />)
    expect(await heading(name)).toBeDefined()
    if (nothing) expect(await screen.findByText(nothing)).toBeDefined()
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })

  it.each(PAGES)('%s is drawn with one of each', async (path, name, nothing) => {
    await importBackup(db, backup)
    drawAt(path, <DeskApp />)
    expect(await heading(name)).toBeDefined()
    if (nothing && ['/', '/arrivals', '/people'].includes(path))
      await waitFor(() => expect(screen.queryByText(nothing)).toBeNull())
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })

  it.each(PAGES)('%s is drawn with many', async (path, name) => {
    await importBackup(db, many)
    drawAt(path, <DeskApp />)
    expect(await heading(name)).toBeDefined()
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })

  it.each(['/people', '/arrivals'])('%s draws no more of many than is seen', async (path) => {
    await importBackup(db, many)
    drawAt(path, <DeskApp />)
    const table = await screen.findByRole('table')
    await waitFor(() => expect(within(table).getAllByRole('row').length).toBeGreaterThan(5))
    expect(within(table).getAllByRole('row').length).toBeLessThan(60)
    expect(table.getAttribute('aria-rowcount')).toBe('401')
  })

  it('says that it can’t be shown when it fails, and leads on', async () => {
    await importBackup(db, demo)
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    vi.spyOn(db.people, 'bulkGet').mockImplementation(() => {
      throw new Error('The disk is gone.')
    })
    drawAt('/people', <DeskApp />)
    expect(await screen.findByText('This page can’t be shown')).toBeDefined()
    expect(screen.getByText('The disk is gone.')).toBeDefined()
    fireEvent.click(screen.getByRole('link', { name: 'Go to Today' }))
    expect(await screen.findByText('Waiting for your answer')).toBeDefined()
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })
})

/** Names and addresses that can be stored, from before such were refused, and shown to nobody’s harm. */
const HOSTILE = [
  ...[
    '\ud800',
    'a\udc00b',
    '\u202eevil',
    'jo\u00ad\u200b',
    'x'.repeat(120),
    'e\u0301\u0323'.repeat(40),
    '\u0000\u0007',
  ],
  ...['<img src=x onerror=alert(1)>', '{link}', '%00%ff', "Robert'); DROP TABLE", 'مريم', '👩🏽‍⚕️', '', ' '],
]
const strange: Backup = {
  ...demo,
  people: demo.people.map((person, i) => {
    const odd = HOSTILE[i % HOSTILE.length]!
    return { ...person, name: odd, emails: [`${odd}${i}@${odd}.example`], note: odd, tags: [odd] }
  }),
  bookings: demo.bookings.map(({ id, events }, i) => ({
    id,
    events: events.map((event) => {
      const odd = HOSTILE[i % HOSTILE.length]!
      return event.type === 'asked'
        ? { ...event, person: { ...event.person, name: odd, email: `${odd}${i}@${odd}.example`, phone: odd } }
        : event
    }),
  })),
  enquiries: demo.enquiries.map((enquiry, i) => ({
    ...enquiry,
    name: HOSTILE[i % HOSTILE.length]!,
    email: HOSTILE[(i + 1) % HOSTILE.length]!,
    message: HOSTILE.join('\n'),
  })),
}

describe('whatever a name can hold', () => {
  it.each(PAGES)('%s is drawn', async (path, name) => {
    await importBackup(db, strange)
    drawAt(path, <DeskApp />)
    expect(await heading(name)).toBeDefined()
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })

  it.each(strange.bookings.map(({ id }) => id))('the request %s is drawn', async (id) => {
    await importBackup(db, strange)
    drawAt(`/arrivals/${id}`, <DeskApp />)
    expect(await screen.findByRole('heading', { name: 'Answers' })).toBeDefined()
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })

  it.each(strange.people.map(({ id }) => id))('the person %s is drawn', async (id) => {
    await importBackup(db, strange)
    drawAt(`/people/${id}`, <DeskApp />)
    await waitFor(() => expect(screen.queryAllByRole('heading', { level: 1 }).length).toBe(1))
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })
})

describe('a desk with nothing in it', () => {
  it('offers to begin', async () => {
    await Promise.all(db.tables.map((table) => table.clear()))
    drawAt('/', <DeskApp />)
    expect(await screen.findByText('Begin a practice')).toBeDefined()
  })
})

describe('one request', () => {
  it.each(demo.bookings.map(({ id }) => id))('%s is drawn', async (id) => {
    await importBackup(db, demo)
    drawAt(`/arrivals/${id}`, <DeskApp />)
    expect(await screen.findByRole('heading', { name: 'Answers' })).toBeDefined()
    expect(screen.queryByText('This page can’t be shown')).toBeNull()
  })

  it('says so where it is not here', async () => {
    await importBackup(db, demo)
    drawAt('/arrivals/nowhere', <DeskApp />)
    expect(await screen.findByText('This request is not here')).toBeDefined()
  })
})

describe('what can’t be written', () => {
  it('is said beside what was touched', async () => {
    await importBackup(db, demo)
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    drawAt('/', <DeskApp />)
    vi.spyOn(db.intentions, 'add').mockRejectedValue(new Error('The disk is full.'))
    const [welcome] = await screen.findAllByRole('button', { name: /^Welcome for/ })
    fireEvent.click(welcome!)
    const alert = await screen.findByRole('alert')
    expect(alert.textContent).toBe('The disk is full.')
    expect(welcome!.closest('li')?.contains(alert)).toBe(true)
  })

  it('stays in its field, and a switch goes back', async () => {
    await importBackup(db, demo)
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    drawAt(`/services/${demo.practice.services[0]!.id}`, <DeskApp />)
    fireEvent.click(await screen.findByRole('button', { name: /^At the door: / }))
    const door = (await screen.findByLabelText('At the door')) as HTMLInputElement
    const on = door.checked
    vi.spyOn(db.practice, 'put').mockRejectedValue(new Error('The disk is full.'))
    fireEvent.click(door)
    expect(await screen.findByText('The disk is full.')).toBeDefined()
    expect(door.checked).toBe(on)
  })
})
