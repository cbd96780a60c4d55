import 'fake-indexeddb/auto'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { replay, type StoredEvent } from '@acolhida/core/booking'
import type { RecordItem, RecordPage } from '@acolhida/core/contract'
import { writeBackup } from '@acolhida/core/formats'
import { busyTimes } from '@acolhida/core/formats/busy'
import { withoutService } from '@acolhida/core/practice'
import { BadData, readBackup } from '@acolhida/core/schemas'
import { DAY, type Instant, parseInstant, shift, zone } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { dropCalendar, openCalendarFile } from '../calendars/calendar-file.ts'
import type { UnderstandWish } from '../calendars/understand.ts'
import { takeIn } from './arrive.ts'
import { exportBackup, importBackup } from './backup.ts'
import { changePractice, undoChange } from './change.ts'
import { connectionRow, DeskDatabase } from './database.ts'
import { join } from './people.ts'
import { putReply, repliesOf } from './replies.ts'
import { bookingRow } from './rows.ts'
import { WouldHurt } from './would-hurt.ts'

/** Written by the program before records had a version. */
const EARLIER = resolve(import.meta.dirname, '../../../core/tests/fixtures/backup-before-version-2.json')
const now = parseInstant('2026-11-24T11:00Z')
const demo = demoBackup(now)
let db: DeskDatabase
let count = 0
beforeEach(() => {
  db = new DeskDatabase(`test-${++count}`)
})
afterEach(() => db.delete())

const item = (n: number, subject: string, seq: number, body: StoredEvent): RecordItem => ({
  n,
  at: body.at,
  kind: 'booking',
  subject,
  seq,
  body,
})
const page = (...items: RecordItem[]): RecordPage => ({
  ...{ items, first: 1, last: items.at(-1)?.n ?? 0, now },
  ...{ before: '', print: '' },
})
const tome = demo.bookings.find((booking) => booking.id === 'asks-tome')!

describe('a backup', () => {
  it('gives back the same data, byte for byte', async () => {
    await importBackup(db, demo)
    const first = await exportBackup(db)
    const other = new DeskDatabase(`test-${++count}`)
    await importBackup(other, readBackup(first))
    expect(await exportBackup(other)).toBe(first)
    expect(first).toBe(writeBackup(demo))
    await other.delete()
  })

  it('replaces all that was there, and leaves the key out', async () => {
    await importBackup(db, demo)
    await db.connection.put({ ...(await connectionRow(db)), key: 'secret-key' })
    expect(await exportBackup(db)).not.toContain('secret-key')
    await importBackup(db, { ...demo, bookings: [], people: [] })
    expect(await db.bookings.count()).toBe(0)
    expect((await connectionRow(db)).key).toBeUndefined()
  })

  it('leaves everything as it was when something goes wrong on the way', async () => {
    await importBackup(db, demo)
    const before = await exportBackup(db)
    const broken = { ...demo, bookings: [{ id: 'x', events: [{ type: 'withdrawn', at: now }] }] } as never
    await expect(importBackup(db, broken)).rejects.toThrow('begins with asking')
    expect(await exportBackup(db)).toBe(before)
    await expect(exportBackup(new DeskDatabase(`test-${++count}`))).rejects.toThrow('nothing to keep')
  })
})

describe('what arrives', () => {
  it('is taken in whole, and a second time changes nothing', async () => {
    await importBackup(db, { ...demo, bookings: [], people: [] })
    const items = tome.events.map((event, i) => item(i + 1, 'asks-tome', i + 1, event))
    await takeIn(db, page(...items))
    expect(await db.bookings.get('asks-tome')).toMatchObject({
      status: 'requested',
      mailProved: true,
      seq: 2,
    })
    expect((await connectionRow(db)).cursor).toBe(2)
    const people = await db.people.toArray()
    expect(people).toMatchObject([{ name: 'Tomé Arrais', emails: ['tome.arrais@example.org'] }])
    await takeIn(db, page(...items))
    expect(await db.people.toArray()).toEqual(people)
  })

  it('is not taken in by half', async () => {
    await importBackup(db, { ...demo, bookings: [], people: [] })
    const good = item(1, 'asks-tome', 1, tome.events[0]!)
    const orphan = item(2, 'nobody', 2, { type: 'withdrawn', at: now })
    await expect(takeIn(db, page(good, orphan))).rejects.toThrow('begins with asking')
    expect(await db.events.count()).toBe(0)
    expect((await connectionRow(db)).cursor).toBe(0)
  })

  it('leaves what the practitioner has made of a message', async () => {
    await importBackup(db, demo)
    await db.enquiries.update('message-yusra', { state: 'answered' })
    const { state: _, ...enquiry } = demo.enquiries[0]!
    await takeIn(db, page({ n: 9, at: now, kind: 'enquiry', subject: enquiry.id, seq: 1, body: enquiry }))
    expect((await db.enquiries.get('message-yusra'))?.state).toBe('answered')
  })

  it('tells what became of an enquiry, once', async () => {
    await importBackup(db, demo)
    const answered = { news: 'answered' as const, at: shift(now, 5), text: 'Yes.' }
    const booked = { news: 'booked' as const, at: shift(now, 9), text: '', booking: 'b' }
    const items = [answered, booked].map((body, i) => ({
      n: 9 + i,
      at: body.at,
      kind: 'enquiry' as const,
      subject: 'message-yusra',
      seq: 2 + i,
      body,
    }))
    await takeIn(db, page(...items))
    await takeIn(db, page(...items))
    expect(await db.enquiries.get('message-yusra')).toMatchObject({
      state: 'booked',
      history: [answered, booked],
    })
    // Of an enquiry this desk does not have, there is nothing to tell.
    await takeIn(db, page({ ...items[0]!, n: 20, subject: 'gone' }))
    expect(await db.enquiries.get('gone')).toBeUndefined()
  })

  it('keeps files in a backup, byte for byte', async () => {
    await importBackup(db, demo)
    const data = Uint8Array.from({ length: 20_000 }, (_, i) => (i * 31) % 256)
    await db.files.put({ id: 'file-0123456789abcdef', name: 'a.mp3', type: 'sound', data })
    const other = new DeskDatabase(`test-${++count}`)
    await importBackup(other, readBackup(await exportBackup(db)))
    expect((await other.files.toArray())[0]).toEqual({
      id: 'file-0123456789abcdef',
      name: 'a.mp3',
      type: 'sound',
      data,
    })
    await other.delete()
  })

  it('keeps what became of a message', async () => {
    await importBackup(db, demo)
    const body = { step: 'confirmation', state: 'sent' as const, to: 'a@example.org', subject: 'S', due: now }
    await takeIn(db, page({ n: 9, at: shift(now, 1), kind: 'mail', subject: 'asks-tome', seq: 1, body }))
    expect(await db.mails.toArray()).toEqual([{ ...body, n: 9, at: shift(now, 1), booking: 'asks-tome' }])
  })
})

describe('changing the practice', () => {
  const name = async (): Promise<string> => (await db.practice.get('practice'))!.practice.profile.name
  const rename = (to: string) =>
    changePractice(db, 'the name', (p) => ({ ...p, profile: { ...p.profile, name: to } }))
  beforeEach(() => importBackup(db, demo))

  it('takes nothing from what is booked before it was agreed to, and agrees to nothing else', async () => {
    const asked = replay(tome.id, tome.events)
    const soon = (id: string, days: number) =>
      db.bookings.put(
        bookingRow({ ...asked, id, start: shift(Date.now() as Instant, days * DAY), status: 'booked' }),
      )
    const services = async () => (await db.practice.get('practice'))!.practice.services.map(({ id }) => id)
    const remove = () => changePractice(db, 'a service removed', (p) => withoutService(p, asked.service))
    const refused = async (): Promise<WouldHurt> => {
      const error = await remove().catch((error: unknown) => error)
      expect(error).toBeInstanceOf(WouldHurt)
      return error as WouldHurt
    }
    await soon('one', 2)
    const first = await refused()
    expect(first.hurt.map(({ booking, harm }) => [booking.id, harm])).toContainEqual(['one', 'service'])
    expect(await services()).toContain(asked.service)
    first.agree()
    // Somebody else has come meanwhile: that is another consequence.
    await soon('two', 3)
    const second = await refused()
    expect(second.hurt).toHaveLength(first.hurt.length + 1)
    second.agree()
    await remove()
    expect(await services()).not.toContain(asked.service)
    await undoChange(db)
    expect(await services()).toContain(asked.service)
    // Agreed to once is not agreed to for ever.
    await refused()

    // Taking a change back can take something away, too: a service added since, and booked.
    await changePractice(db, 'a service added', (p) => ({
      ...p,
      services: [...p.services, { ...p.services[0]!, id: 'added' }],
    }))
    await db.bookings.put(
      bookingRow({
        ...asked,
        id: 'three',
        service: 'added',
        start: shift(Date.now() as Instant, DAY),
        status: 'booked',
      }),
    )
    const undoing = await undoChange(db).catch((error: unknown) => error)
    expect(undoing).toBeInstanceOf(WouldHurt)
    expect(await services()).toContain('added')
    ;(undoing as WouldHurt).agree()
    expect(await undoChange(db)).toBe('a service added')
    expect(await services()).not.toContain('added')
  })

  it('keeps each change and takes them back one by one', async () => {
    await rename('Iria M.')
    await rename('I. Montalvar')
    expect(await undoChange(db)).toBe('the name')
    expect(await name()).toBe('Iria M.')
    await undoChange(db)
    expect(await name()).toBe('Iria Montalvar')
    expect(await undoChange(db)).toBeUndefined()
  })

  it('refuses what can not be kept, and changes nothing', async () => {
    await expect(rename('')).rejects.toBeInstanceOf(BadData)
    const overlap = changePractice(db, 'hours', (p) => ({
      ...p,
      hours: {
        ...p.hours,
        weekly: p.hours.weekly.map(() => [
          { from: '09:00', to: '12:00' },
          { from: '11:00', to: '13:00' },
        ]) as never,
      },
    }))
    await expect(overlap).rejects.toThrow('It overlaps with 09:00 – 12:00.')
    expect(await name()).toBe('Iria Montalvar')
    expect(await db.changes.count()).toBe(0)
  })

  it('remembers sixty changes', async () => {
    for (let i = 0; i < 65; i++) await rename(`Iria ${i}`)
    expect(await db.changes.count()).toBe(60)
  })

  it('joins two people', async () => {
    const [first, second] = await db.people.toArray()
    await join(db, first!.id, second!.id)
    expect((await db.people.get(first!.id))?.emails).toHaveLength(2)
    expect(await db.people.get(second!.id)).toBeUndefined()
  })
})

describe('a calendar file', () => {
  const text = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'BEGIN:VEVENT',
    'UID:1',
    'SUMMARY:Dentist',
    'DTSTART:20261126T140000Z',
    'DTEND:20261126T150000Z',
    'RRULE:FREQ=WEEKLY;COUNT=3',
    'END:VEVENT',
    'nonsense',
    'END:VCALENDAR',
    '',
  ].join('\r\n')
  /** Without a worker, which tests have none of. */
  const here = ({ text: of, from, to, home, what }: UnderstandWish) =>
    busyTimes(of, from, to, zone(home), { what })
  beforeEach(() => importBackup(db, demo))

  it('becomes part of the diary as busy times without a word of what they are about', async () => {
    expect(await openCalendarFile(db, { id: 'file', name: 'Old diary' }, text, now, here)).toEqual({
      busy: 3,
      skipped: ['the line “nonsense”'],
    })
    const sessions = await db.sessions.toArray()
    expect(sessions).toHaveLength(3)
    expect(JSON.stringify(sessions)).not.toContain('Dentist')
    expect((await db.practice.get('practice'))?.practice.calendars).toEqual([
      { id: 'file', name: 'Old diary' },
    ])
    expect(JSON.parse(await exportBackup(db)).sessions).toHaveLength(3)
  })

  it('goes away whole', async () => {
    await openCalendarFile(db, { id: 'file', name: 'Old diary' }, text, now, here)
    await dropCalendar(db, 'file', 'Old diary')
    expect(await db.sessions.count()).toBe(0)
    expect((await db.practice.get('practice'))?.practice.calendars).toEqual([])
  })

  it('changes nothing when it is none', async () => {
    await expect(openCalendarFile(db, { id: 'file', name: 'X' }, 'hello', now, here)).rejects.toThrow(
      'The file “X”: holds no VCALENDAR',
    )
    expect((await db.practice.get('practice'))?.practice.calendars).toBeUndefined()
  })
})

describe('a mail that came back', () => {
  const reply = { id: 'reply-1', mail: 'Tome.Arrais@example.org', at: now, subject: 'Re: Soon', text: 'Yes.' }
  const theirs = { emails: ['tome.arrais@example.org'] }

  it('stands with whoever has its address, the newest first, and is in the backup', async () => {
    await importBackup(db, demo)
    await putReply(db, reply)
    await putReply(db, { ...reply, id: 'reply-2', at: shift(now, 1), text: 'And again.' })
    await putReply(db, { ...reply, id: 'reply-3', mail: 'other@example.org' })
    expect((await repliesOf(db, theirs)).map(({ id }) => id)).toEqual(['reply-2', 'reply-1'])
    const kept = await exportBackup(db)
    await db.replies.clear()
    await importBackup(db, readBackup(kept))
    expect((await repliesOf(db, theirs)).map(({ text }) => text)).toEqual(['And again.', 'Yes.'])
    expect(await exportBackup(db)).toBe(kept)
  })

  it('is not kept where it is too long or without an address', async () => {
    await expect(putReply(db, { ...reply, text: 'x'.repeat(50_001) })).rejects.toThrow('The mail')
    await expect(putReply(db, { ...reply, mail: 'nobody' })).rejects.toThrow('mail')
    expect(await repliesOf(db, theirs)).toEqual([])
  })
})

describe('the word for how far one has come', () => {
  const told = (n: number, seq: number, body: object) => item(n, 'asks-tome', seq, body as StoredEvent)
  const theirs = async () =>
    (await db.people.get(demo.people.find(({ name }) => name === 'Tomé Arrais')!.id))!
  const { start, service: asks } = replay(tome.id, tome.events).asked
  const welcomed = { type: 'welcomed', at: now, by: 'practitioner', settles: now }
  const attended = (at: Instant) => ({ type: 'attended', at, settles: at })
  const moving = (moves: object) => ({
    ...demo,
    practice: {
      ...demo.practice,
      services: demo.practice.services.map((service) =>
        service.id === asks ? { ...service, moves } : service,
      ),
    },
  })

  it('is set by what a service is told to set it by, each change noted; by nothing else', async () => {
    await importBackup(db, moving({ booked: 'coming', attended: 'client' }))
    const before = (await theirs()).stage
    await takeIn(db, page(told(1, tome.events.length + 1, welcomed)))
    expect((await theirs()).stage).toBe('coming')
    expect((await theirs()).stages?.at(-1)).toMatchObject({ at: now })
    const later = shift(start, DAY)
    await takeIn(db, { ...page(told(2, tome.events.length + 2, attended(later))), now: later })
    expect((await theirs()).stage).toBe('client')
    expect(before).not.toBe('coming')
  })

  it('stays what it was said to be since, and where it is old news', async () => {
    await importBackup(db, moving({ booked: 'coming' }))
    await db.people.put({
      ...(await theirs()),
      ...{ stage: 'resting', stages: [{ at: shift(now, 1), stage: 'resting' }] },
    })
    await takeIn(db, page(told(1, tome.events.length + 1, welcomed)))
    expect((await theirs()).stage).toBe('resting')
    await importBackup(db, moving({ booked: 'coming' }))
    await takeIn(db, { ...page(told(1, tome.events.length + 1, welcomed)), now: shift(now, 20 * DAY) })
    expect((await theirs()).stage).not.toBe('coming')
  })
})

describe('news', () => {
  const item = (n: number, seq: number, body: object) =>
    ({ n, at: now, kind: 'booking', subject: 'b', seq, body }) as RecordItem
  const page = (...items: RecordItem[]) => ({ items, last: 9, first: 1, now, before: '', print: '' })
  const asked = { ...tome.events[0], at: now, proof: 'link' } as StoredEvent

  it('are what happened without the practitioner, until they do something about it', async () => {
    await takeIn(db, page(item(1, 1, asked)))
    expect(await db.news.get('b')).toBeUndefined()
    await takeIn(db, page(item(2, 2, { type: 'lapsed', at: now })))
    expect(await db.news.get('b')).toEqual({ id: 'b', at: now, what: 'lapsed' })
    await takeIn(
      db,
      page(item(3, 3, { type: 'offered', at: now, starts: [], until: now, text: '', settles: now })),
    )
    expect(await db.news.get('b')).toBeUndefined()
  })

  it('are none when they are old, as where a desk is paired anew', async () => {
    const long = (now - 20 * DAY) as Instant
    await takeIn(db, { ...page(item(1, 1, asked), item(2, 2, { type: 'withdrawn', at: long })), now })
    expect(await db.news.count()).toBe(0)
  })
})

describe('a backup of the version before', () => {
  it('opens, and comes out as it was', async () => {
    const text = readFileSync(EARLIER, 'utf8')
    await importBackup(db, readBackup(text))
    expect(JSON.parse(await exportBackup(db))).toEqual(JSON.parse(text))
    for (const booking of await db.bookings.toArray()) {
      expect(booking.asked.asking).toBeDefined()
      expect(booking.minutes).toBeGreaterThan(0)
    }
  })
})
