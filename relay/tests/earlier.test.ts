import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { LinkView, MailNews } from '@acolhida/core/contract'
import { bookingBehind, deskCourse, lineBehind, lineView, linkView, openingsFor } from '@acolhida/core/house'
import { sha256Hex } from '@acolhida/core/terms'
import { HOUR, instant, MINUTE } from '@acolhida/core/time'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { openParts, type SealKeys } from '../../web/seal/open.ts'
import { MovableClock } from '../ground/clock.ts'
import { Relay } from '../relay.ts'
import { Mailbox } from '../standins/mailbox.ts'
import { recordPage } from '../store/record.ts'
import { changePractice, putInLine } from './inside.ts'
import { ANSWERS, BEGINNING } from './setup.ts'

/** A relay's file of version 4, kept by the program of that time, and what that program said of it. */
const FIXTURES = join(import.meta.dirname, 'fixtures')
interface Expected {
  now: number
  links: Record<string, string>
  quoteKey: string
  views: Record<string, Omit<LinkView, 'state'> & { status: string }>
  bookings: Record<
    string,
    {
      status: string
      start: number
      place: string
      minutes: number
      service: string
      until: number
      offers: unknown[]
      seq: number
      share: number
      mailProved: boolean
      sequence: number
      unsettled?: { seq: number; until: number }
    }
  >
  waiting: { booking: string; step: string; state: string }[]
  starts: number[]
  ends: { first: number; last: number }
  head: string
  recordLength: number
}
const before = JSON.parse(readFileSync(join(FIXTURES, 'version-4.json'), 'utf8')) as Expected

let folder: string
let relay: Relay
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'acolhida-earlier-'))
  const file = join(folder, 'relay.sqlite')
  copyFileSync(join(FIXTURES, 'version-4.sqlite'), file)
  relay = new Relay(
    {
      file,
      smtp: 'smtp://127.0.0.1:9',
      doorPages: '/none',
      deskPages: '/none',
      requestsPerMinute: 1,
      steady: false,
    },
    new MovableClock(0, undefined, () => before.now),
  )
})
afterEach(async () => {
  await relay.stop()
  rmSync(folder, { recursive: true, force: true })
})

it('opens with every booking as it was', () => {
  const { house } = relay.here.keeper
  for (const [id, was] of Object.entries(before.bookings)) {
    const { unsettled, ...rest } = was
    const booking = house.booking(id)!
    expect(booking).toMatchObject(rest)
    // What could not be taken back any more then was remembered all the same; at its moment it is the same.
    const standing = unsettled && unsettled.until >= before.now ? unsettled : undefined
    const now = booking.unsettled && booking.unsettled.until >= before.now ? booking.unsettled : undefined
    expect(now && { seq: now.seq, until: now.until }).toEqual(standing)
  }
  expect([...house.openBookings()]).toHaveLength(Object.keys(before.bookings).length)
  expect(house.chain).toBe(before.head)
})

it('shows every private link what it showed', () => {
  const { house } = relay.here.keeper
  const now = instant(before.now)
  for (const [who, secret] of Object.entries(before.links)) {
    const view = linkView(house, bookingBehind(house, sha256Hex(secret)), now)
    const { status, text: said, ...was } = before.views[who]!
    // Told since then, too.
    const {
      shown: _,
      deposit: __,
      clocks: ___,
      later: ____,
      placeId: _____,
      move: ______,
      agreements: _______,
      others: ________,
      money: _________,
      unwanted: __________,
      coming: ___________,
      ...told
    } = view
    const { state, text, ...shown } = told
    const is = { ...shown, offers: shown.offers.map(({ clocks: _, ...offer }) => offer) }
    // A client's own words are not shown back to them any more.
    expect([who, text]).toEqual([who, view.cancelledBy === 'client' ? '' : said])
    // While a move can be undone everything is shown as it was before, not the start alone.
    if (who === 'Welle' || who === 'Welle-mail') {
      expect({ ...is, deadlines: [], shareNow: 0 }).toEqual({ ...was, deadlines: [], shareNow: 0 })
    } else expect(is).toEqual(was)
    const names: Record<string, string> = { requested: was.offers.length > 0 ? 'offered' : 'waiting' }
    expect([who, state]).toEqual([who, names[status] ?? status])
  }
})

it('offers the same starts, keeps what was kept, and has the record whole', () => {
  const { house } = relay.here.keeper
  const wanted = {
    visit: 'fixture-visit-other-1',
    service: 'voice-assessment',
    place: 'studio',
    answers: ANSWERS,
    days: 40,
  }
  const { starts } = relay.here.look((here, now) => openingsFor(here, wanted, now))
  expect(starts).toEqual(before.starts)
  expect(house.keep('fixture-visit-standing')).toBeDefined()
  const page = recordPage(relay.store.db, 0, instant(before.now), 10_000)
  expect({ first: page.first, last: page.last }).toEqual(before.ends)
  expect(page.items).toHaveLength(before.recordLength)
})

it('still has to send what waited, and nothing twice', () => {
  const planned = [...relay.here.keeper.house.agenda()].flatMap(({ doing, subject }) =>
    doing.do === 'message' ? [`${subject.id} ${doing.step}`] : [],
  )
  const waited = new Set(before.waiting.map((waiting) => `${waiting.booking} ${waiting.step}`))
  // What waited and has been overtaken is not told any more; reminders of the demo's own requests are new.
  const own = new Set(['asks-tome', 'asks-wanda', 'asks-lucjan'].map((id) => `${id} word-due`))
  for (const due of planned) expect([...waited, ...own]).toContain(due)
  const telling = before.waiting.filter(
    (waiting) => waiting.state === 'waiting' && waiting.step !== 'word-due',
  )
  const last = new Map(telling.map((waiting) => [waiting.booking, waiting.step]))
  expect(last.size).toBeGreaterThan(0)
  for (const booking of last.keys()) expect(planned.some((due) => due.startsWith(booking))).toBe(true)
})

it('is not opened by two', () => {
  expect(
    () =>
      new Relay(
        {
          file: join(folder, 'relay.sqlite'),
          smtp: 'smtp://127.0.0.1:9',
          doorPages: '/none',
          deskPages: '/none',
          requestsPerMinute: 1,
        },
        new MovableClock(),
      ),
  ).toThrow(/open in another relay/)
})

it('goes on from a file of version 5: what was being handed over then is unknown, what was tried again goes', async () => {
  const mailbox = new Mailbox()
  const file = join(folder, 'version-5.sqlite')
  copyFileSync(join(FIXTURES, 'version-5.sqlite'), file)
  const clock = new MovableClock(0, undefined, () => instant(1_795_518_020_000))
  const after = new Relay(
    {
      ...{ file, smtp: await mailbox.start(), doorPages: '/none', deskPages: '/none' },
      ...{ requestsPerMinute: 1, steady: false },
    },
    clock,
  )
  try {
    await after.start({ door: 0, desk: 0 })
    clock.forward(2 * MINUTE)
    await after.rounds.turn()
    expect(mailbox.received.map(({ to }) => to)).toEqual(['tome.arrais@example.org'])
    const told = recordPage(after.store.db, 0, clock.now(), 1_000).items.flatMap((item) =>
      item.kind === 'mail' && ['asks-lucjan', 'asks-tome'].includes(item.subject)
        ? [[item.subject, (item.body as MailNews).step, (item.body as MailNews).state]]
        : [],
    )
    expect(told).toEqual([
      ['asks-tome', 'confirmation', 'sent'],
      ['asks-lucjan', 'declined', 'unknown'],
      ['asks-tome', 'running-late', 'sent'],
    ])
  } finally {
    await after.stop()
    await mailbox.stop()
  }
})

it('goes on from a file of version 6: whoever was there is, and people can wait from now on', async () => {
  const file = join(folder, 'version-6.sqlite')
  copyFileSync(join(FIXTURES, 'version-6.sqlite'), file)
  const clock = new MovableClock(0, undefined, () => instant(1_795_518_020_000))
  const after = new Relay(
    {
      ...{ file, smtp: 'smtp://127.0.0.1:9', doorPages: '/none', deskPages: '/none' },
      ...{ requestsPerMinute: 1, steady: false },
    },
    clock,
  )
  try {
    const { house } = after.here.keeper
    expect([...house.openBookings()]).toHaveLength(15)
    expect([[...house.inLine()], [...house.freedTimes()]]).toEqual([[], []])
    const link = putInLine(after, 'waits-from-now-on', 'Nadia Kern')
    const view = after.here.look((here, now) => lineView(here, lineBehind(here, sha256Hex(link)).line, now))
    expect(view).toMatchObject({ state: 'waiting', service: 'Voice assessment', minutes: 75, price: 9_500 })
  } finally {
    await after.stop()
  }
})

it('goes on from a file of version 7: what was in clear there is sealed, and what was known is still', async () => {
  const file = join(folder, 'version-7.sqlite')
  copyFileSync(join(FIXTURES, 'version-7.sqlite'), file)
  expect(readFileSync(file, 'latin1')).toContain('private-7/basic.ics')
  const clock = new MovableClock(0, undefined, () => instant(1_795_518_020_000))
  const after = new Relay(
    {
      ...{ file, smtp: 'smtp://127.0.0.1:9', doorPages: '/none', deskPages: '/none' },
      ...{ requestsPerMinute: 1, steady: false },
    },
    clock,
  )
  const { house } = after.here.keeper
  expect(house.practice?.calendars?.[0]?.url).toMatch(/private-7/)
  expect(house.calendars()).toHaveLength(1)
  expect([...house.inLine()].map(({ id }) => id)).toEqual(['waits-since-seven'])
  expect(after.store.untold('visit-of-version-7').attempts).toHaveLength(1)
  // Lines from before have no running hash, and those after them do.
  const pages = recordPage(after.store.db, 0, clock.now(), 1)
  expect([pages.before, pages.print]).toEqual(['', ''])
  putInLine(after, 'waits-since-eight', 'Bo')
  const { last } = recordPage(after.store.db, 0, clock.now())
  expect(recordPage(after.store.db, last, clock.now()).before).toMatch(/^[0-9a-f]{64}$/)
  await after.stop()
  for (const end of ['', '-wal']) {
    const path = file + end
    if (existsSync(path)) expect(readFileSync(path, 'latin1')).not.toContain('private-7/basic.ics')
  }
})

it('goes on from a file of version 8: what was answered there is sealed when it is needed no more', async () => {
  const file = join(folder, 'version-8.sqlite')
  copyFileSync(join(FIXTURES, 'version-8.sqlite'), file)
  const known = JSON.parse(readFileSync(join(FIXTURES, 'version-8.json'), 'utf8')) as {
    keys: SealKeys
    keyFile: string
    booking: string
  }
  writeFileSync(`${file}.key`, known.keyFile, { mode: 0o600 })
  const clock = new MovableClock(0, undefined, () => BEGINNING)
  const after = new Relay(
    {
      ...{ file, smtp: 'smtp://127.0.0.1:9', doorPages: '/none', deskPages: '/none' },
      ...{ requestsPerMinute: 1, steady: false },
    },
    clock,
  )
  const asked = () => after.here.keeper.house.booking(known.booking)!.asked
  const before = asked()
  expect([before.attempts.length, Object.keys(before.answers).length]).toEqual([1, 5])
  clock.forward(25 * HOUR)
  await after.rounds.turn()
  expect(asked()).toMatchObject({ answers: before.answers, attempts: [], sealed: [expect.any(String)] })
  const [part] = await openParts(asked().sealed!, known.keys)
  expect(part).toMatchObject({ attempts: before.attempts })
  await after.stop()
})

it('goes on from a file of version 9: who was booked there can be given something to do, and kept half done', async () => {
  const file = join(folder, 'version-9.sqlite')
  copyFileSync(join(FIXTURES, 'version-9.sqlite'), file)
  const known = JSON.parse(readFileSync(join(FIXTURES, 'version-9.json'), 'utf8')) as { keyFile: string }
  writeFileSync(`${file}.key`, known.keyFile, { mode: 0o600 })
  const clock = new MovableClock(0, undefined, () => BEGINNING)
  const after = new Relay(
    {
      ...{ file, smtp: 'smtp://127.0.0.1:9', doorPages: '/none', deskPages: '/none' },
      ...{ requestsPerMinute: 1, steady: false },
    },
    clock,
  )
  const { house } = after.here.keeper
  expect(house.booking('booked-in-nine')?.asked.person.name).toBe('Nine Known')
  expect(house.line('waits-since-nine')).toBeDefined()
  expect([...house.courses()]).toEqual([])
  changePractice(after, () => ({
    preparations: [
      { id: 'letter', is: 'read', name: 'A letter', due: { from: 'given', by: 'P2D' as never }, text: [] },
    ],
  }))
  const { person } = house.booking('booked-in-nine')!.asked
  after.here.call(deskCourse, {
    course: 'given-in-ten',
    command: { do: 'give', person, preparations: ['letter'], booking: 'booked-in-nine' },
  })
  expect(house.coursesOf('nine@example.org').map(({ id }) => id)).toEqual(['given-in-ten'])
  expect(house.half('given-in-ten', 'letter')).toBeUndefined()
  await after.stop()
})
