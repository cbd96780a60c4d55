import 'fake-indexeddb/auto'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { replay } from '@acolhida/core/booking'
import type { Backup } from '@acolhida/core/formats'
import { parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import Dexie from 'dexie'
import { describe, expect, it } from 'vitest'
import { DeskDatabase } from './database.ts'
import { bookingRow, personRow } from './rows.ts'

/** Written by the program before records had a version. */
const EARLIER = resolve(import.meta.dirname, '../../../core/tests/fixtures/backup-before-version-2.json')
const now = parseInstant('2026-11-24T11:00Z')
const demo = demoBackup(now)
const tome = demo.bookings.find((booking) => booking.id === 'asks-tome')!

/** What each released version added to the tables. */
const RELEASED = [
  {
    practice: 'id',
    link: 'id',
    events: '[booking+seq]',
    bookings: 'id, status, start',
    enquiries: 'id, state, at',
    people: 'id, *emails',
    sessions: 'id, start',
    mails: 'n, booking',
    intentions: '++order, booking',
    changes: '++order',
  },
  { calendars: 'id' },
  { files: 'id' },
  {},
  {
    bookings: 'id, at, start, mail, code, questionnaire, *keeps, undo, *words, [status+at], [status+start]',
    people: 'id, *emails, sort, latest, knownFrom, *allTags, blockedRow, *words',
    sessions: 'id, start, calendar',
    wanted: 'id',
  },
  { news: 'id, at' },
  {
    events: '[booking+seq], event.at',
    bookings:
      'id, at, start, mail, code, questionnaire, *keeps, undo, owing, *words, [status+at], [status+start]',
  },
  { replies: 'id, mail' },
  { lines: 'id, mail, service, open', freed: 'id, at, open' },
  {},
  {
    people: 'id, *emails, sort, latest, knownFrom, *allTags, blockedRow, *words, follow, movedIn, stage',
  },
]

/** A database as a released version made it. */
function released(version: number): Dexie {
  const old = new Dexie(`released-${version}`)
  old.version(version).stores(Object.assign({}, ...RELEASED.slice(0, version)))
  return old
}

describe('the schema', () => {
  it('opens what version 1, the first released, has left behind', async () => {
    const old = released(1)
    await old.table('practice').put({ id: 'practice', practice: demo.practice, salt: demo.salt })
    await old.table('events').put({ booking: 'asks-tome', seq: 1, event: tome.events[0] })
    old.close()
    const current = new DeskDatabase('released-1')
    expect((await current.practice.get('practice'))?.practice).toEqual(demo.practice)
    expect(await current.events.count()).toBe(1)
    expect(await current.calendars.count()).toBe(0)
    expect(await current.files.count()).toBe(0)
    await current.delete()
  })

  it('opens what version 2 has left behind', async () => {
    const old = released(2)
    await old.table('practice').put({ id: 'practice', practice: demo.practice, salt: demo.salt })
    await old.table('calendars').put({ id: 'c', url: '', tried: now, skipped: [], entries: [] })
    old.close()
    const current = new DeskDatabase('released-2')
    expect((await current.practice.get('practice'))?.practice).toEqual(demo.practice)
    expect(await current.calendars.count()).toBe(1)
    expect(await current.files.count()).toBe(0)
    await current.delete()
  })

  it('tells the bookings anew that version 3 has kept as they were asked', async () => {
    const old = released(3)
    const before = JSON.parse(readFileSync(EARLIER, 'utf8')) as Backup
    for (const { id, events } of before.bookings) {
      await old.table('events').bulkPut(events.map((event, i) => ({ booking: id, seq: i + 1, event })))
      // As it stood there: without what is in force beside what was asked.
      await old.table('bookings').put({ id, status: 'requested', start: 0, asked: events[0] })
    }
    old.close()
    const current = new DeskDatabase('released-3')
    const told = await current.bookings.toArray()
    expect(told).toEqual(
      before.bookings
        .map(({ id, events }) => bookingRow(replay(id, events)))
        .sort((a, b) => (a.id < b.id ? -1 : 1)),
    )
    expect(told.every((row) => row.service && row.minutes > 0)).toBe(true)
    await current.delete()
  })

  it('gives what version 4 has left behind the rows that pages look for', async () => {
    const old = released(4)
    const file = { file: 'file-0123456789abcdef', name: 'v.mp3', type: 'sound', size: 3 }
    const calendars = [{ id: 'file', name: 'Old diary' }]
    const outside = { kind: 'outside', start: now, end: now + 1, clearBefore: 0, clearAfter: 0 }
    const booking = replay(tome.id, tome.events)
    const asked = { ...booking.asked, answers: { recording: file } }
    const person = demo.people.find((person) => person.emails.includes(booking.asked.person.email))!
    await old
      .table('practice')
      .put({ id: 'practice', practice: { ...demo.practice, calendars }, salt: demo.salt })
    await old.table('bookings').put({ ...booking, asked })
    await old.table('people').put(person)
    await old.table('sessions').put({ ...outside, id: 'calendar-file-0' })
    old.close()
    const current = new DeskDatabase('released-4')
    expect(await current.bookings.get(tome.id)).toEqual(bookingRow({ ...booking, asked } as never))
    expect(await current.people.get(person.id)).toEqual(personRow(person, [booking]))
    expect(await current.wanted.toArray()).toEqual([{ id: file.file, name: 'v.mp3', type: 'sound' }])
    expect(await current.sessions.where('calendar').equals('file').count()).toBe(1)
    await current.delete()
  })
})

it('opens what version 5 has left behind, with no news yet', async () => {
  const old = released(5)
  const booking = replay(tome.id, tome.events)
  await old.table('practice').put({ id: 'practice', practice: demo.practice, salt: demo.salt })
  await old.table('bookings').put(bookingRow(booking))
  old.close()
  const current = new DeskDatabase('released-5')
  expect(await current.bookings.get(tome.id)).toEqual(bookingRow(booking))
  expect(await current.news.count()).toBe(0)
  await current.delete()
})

it('opens what version 7 has left behind, with no mails that came back yet', async () => {
  const old = released(7)
  const booking = replay(tome.id, tome.events)
  await old.table('practice').put({ id: 'practice', practice: demo.practice, salt: demo.salt })
  await old.table('bookings').put(bookingRow(booking))
  await old.table('news').put({ id: tome.id, at: now, what: 'asked' })
  old.close()
  const current = new DeskDatabase('released-7')
  expect(await current.bookings.get(tome.id)).toEqual(bookingRow(booking))
  expect(await current.news.count()).toBe(1)
  expect(await current.replies.count()).toBe(0)
  await current.delete()
})

it('opens what version 8 has left behind, with nobody in line yet', async () => {
  const old = released(8)
  await old.table('practice').put({ id: 'practice', practice: demo.practice, salt: demo.salt })
  await old.table('replies').put({ id: 'r', mail: 'tome.arrais@example.org', at: now })
  old.close()
  const current = new DeskDatabase('released-8')
  expect(await current.replies.count()).toBe(1)
  expect([await current.lines.count(), await current.freed.count()]).toEqual([0, 0])
  await current.delete()
})

it('opens what version 9 has left behind, with each address as what it is', async () => {
  const old = released(9)
  await old.table('practice').put({ id: 'practice', practice: demo.practice, salt: demo.salt })
  await old.table('replies').bulkPut([
    { id: 'r', mail: 'jo@bücher.example', at: now },
    { id: 's', mail: 'jo@example.org', at: now },
  ])
  const record = demo.bookings.find(({ id }) => id === 'asks-tome')!
  const row = bookingRow(replay(record.id, record.events))
  await old.table('bookings').put({ ...row, mail: 'tomé@bücher.example' })
  await old.table('people').put({
    ...personRow({ ...demo.people[0]!, id: 'p', emails: ['tomé@bücher.example', 'jo@example.org'] }, []),
  })
  old.close()
  const current = new DeskDatabase('released-9')
  expect((await current.replies.where('mail').equals('jo@xn--bcher-kva.example').first())?.id).toBe('r')
  expect((await current.replies.where('mail').equals('jo@example.org').first())?.id).toBe('s')
  expect((await current.bookings.where('mail').equals('tomé@xn--bcher-kva.example').first())?.id).toBe(
    'asks-tome',
  )
  expect((await current.people.where('emails').equals('tomé@xn--bcher-kva.example').first())?.id).toBe('p')
  await current.delete()
})

it('opens what version 11 has left behind, with nobody who was given anything, and nobody forgotten', async () => {
  const old = released(11)
  await old.open()
  await old.table('people').bulkPut(demo.people.map((person) => personRow(person, [])))
  old.close()
  const db = new DeskDatabase(old.name)
  expect(await db.people.count()).toBe(demo.people.length)
  expect([await db.courses.count(), await db.forgotten.count()]).toEqual([0, 0])
  await db.delete()
})
