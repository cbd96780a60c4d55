import 'fake-indexeddb/auto'
import { apply, type Booking, othersOf } from '@acolhida/core/booking'
import { writeBackup } from '@acolhida/core/formats'
import { readCards } from '@acolhida/core/move-in'
import { readBackup } from '@acolhida/core/schemas'
import { parseInstant } from '@acolhida/core/time'
import { demoMonths } from '@acolhida/demo/months'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { importBackup } from '../data/backup.ts'
import { DeskDatabase } from '../data/database.ts'
import { askedForThem, everythingOf } from '../data/of-person.ts'
import { bookingRow, personRow } from '../data/rows.ts'
import { cameWords, clockWords } from './came-words.ts'
import { gatheredOf, readableOf } from './person-file.ts'
import { cardsOf } from './save-cards.ts'

const NOW = parseInstant('2026-11-24T11:00Z')
const months = demoMonths(NOW)
let db: DeskDatabase
let count = 0
beforeEach(async () => {
  db = new DeskDatabase(`person-file-${++count}`)
  await importBackup(db, readBackup(writeBackup(months)))
})
afterEach(() => db.delete())

describe('everything of one person', () => {
  it('holds what they were given, how far it is and what was written about it, as data and to read', async () => {
    let seen = 0
    for (const person of await db.people.toArray()) {
      const { courses } = await everythingOf(db, person)
      if (courses.length === 0) continue
      const gathered = await gatheredOf(db, person)
      expect(gathered.file.courses.map(({ id }) => id).sort()).toEqual(courses.map(({ id }) => id).sort())
      const about = await db.mails
        .where('booking')
        .anyOf(courses.map(({ id }) => id))
        .toArray()
      for (const mail of about) expect(gathered.file.messages).toContainEqual(mail)
      const text = readableOf(months.practice, gathered, NOW)
      for (const { course } of courses)
        for (const { name } of course.given.stations) expect(text).toContain(`${name}: `)
      seen++
    }
    expect(seen).toBeGreaterThan(3)
  })
})

it('everybody is saved as cards that say of them what is kept, in the order wished for', async () => {
  const people = (await db.people.toArray()).toReversed()
  expect(people.length).toBeGreaterThan(10)
  const { arrivals, unread } = readCards(await cardsOf(db, [...people.map(({ id }) => id), 'nobody']))
  expect(unread).toEqual([])
  expect(arrivals.map(({ name, emails, phone }) => ({ name, emails, phone }))).toEqual(
    people.map(({ name, emails, phone = '' }) => ({ name, emails, phone })),
  )
})

describe('how somebody came', () => {
  it('is told by what was noted and by what came first; their clock and language by what they said last', async () => {
    const people = await db.people.toArray()
    const person = people.find(({ count }) => count > 1)!
    const everything = await everythingOf(db, person)
    const [earliest] = everything.bookings.toSorted((a, b) => a.asked.at - b.asked.at)
    const { enquiries, lines } = { ...everything, enquiries: [], lines: [] }
    const noted = { cameFrom: 'A singer of the choir', movedIn: '2026-11-24T11:00:00Z old clients.csv' }
    expect(cameWords(months.practice, noted, { ...everything, enquiries, lines })).toEqual([
      'Came from: A singer of the choir',
      expect.stringMatching(/^First asked for .+, \d+ \w+ 20\d\d$/),
      'Moved in with old clients.csv',
    ])
    expect(earliest).toBeDefined()
    const written = { ...everything, enquiries: [{ ...months.enquiries[0]!, at: 0 as never }] }
    expect(cameWords(months.practice, {}, written)).toEqual(['First wrote to you, 1 January 1970'])
    const moved = everything.bookings.map((one, i) => ({
      ...one,
      asked: {
        ...one.asked,
        at: i as never,
        person: {
          ...one.asked.person,
          zone: i === 0 ? 'Asia/Tokyo' : 'Europe/Madrid',
          language: 'pt' as const,
        },
      },
    }))
    expect(clockWords({ ...everything, bookings: moved, courses: [], lines: [] })).toEqual([
      'By the clock of Madrid',
      'Reads in Português',
    ])
    expect(clockWords({ bookings: [], courses: [], lines: [], enquiries: [] })).toEqual([])
  })
})

describe('what others have asked for somebody', () => {
  it('is found by the address of who comes or pays, also where that was said since', async () => {
    const all = (await db.bookings.toArray()).filter(({ status }) => status === 'attended')
    const [first, second, third] = all
    if (!first || !second || !third) throw new Error('The months have too few sessions.')
    const mia = personRow(
      { id: 'mia', name: 'Mia', emails: ['mia@example.org'], invited: [], blocked: false, note: '' },
      [],
    )
    const say = (booking: Booking, others: object): Booking =>
      apply(booking, { type: 'concerns', at: NOW, settles: NOW, others })
    expect(await askedForThem(db, mia)).toEqual([])
    await db.bookings.bulkPut([
      bookingRow(say(first, { comes: { name: 'Mia', email: 'Mia@Example.org', agrees: true } })),
      bookingRow(say(second, { pays: { name: 'M', email: 'mia@example.org' } })),
      // Another of that name, at another address.
      bookingRow(say(third, { comes: { name: 'Mia', email: 'mia@elsewhere.example' } })),
    ])
    const found = await askedForThem(db, mia)
    expect(found.map(({ id }) => id).sort()).toEqual([first.id, second.id].sort())
    expect(found.every((one) => Object.keys(othersOf(one)).length === 1)).toBe(true)
  })
})
