import 'fake-indexeddb/auto'
import { type Booking, begin, bookingEntries } from '@acolhida/core/booking'
import { makeDiary } from '@acolhida/core/openings'
import { knownPeople, type Person, standingAt } from '@acolhida/core/people'
import { DAY, HOUR, type Instant, instant, type LocalDate, parseInstant, shift } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { liveQuery } from 'dexie'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { sampleAsked } from '../../../core/tests/asked.ts'
import { samplePractice } from '../../../core/tests/sample.ts'
import { takeBatchOut } from '../move-in/batches.ts'
import { pack } from '../sync/package.ts'
import { exportBackup, fill, importBackup } from './backup.ts'
import { DeskDatabase } from './database.ts'
import { arrivalsIn, peopleFound, peopleIn } from './lists.ts'
import { changeFollowUps, changePerson, followedUp, stagesIn } from './people.ts'
import { bookingRow, personRow, plainPerson, sortKey, wordsOf } from './rows.ts'
import { keptBetween, marginOf, takenOf } from './taken.ts'
import { currentName, makeCurrent, otherName } from './which.ts'

const now = parseInstant('2026-11-24T11:00Z')
const demo = demoBackup(now)
const db = new DeskDatabase('lists')
beforeAll(() => importBackup(db, demo))

const everybody = { search: '', show: 'all', by: 'name', down: false } as const
const every = { search: '', show: 'all', by: 'asked', down: true } as const

describe('how far one has come with people', () => {
  afterAll(() => importBackup(db, demo))
  const tome = async (): Promise<Person> => plainPerson((await db.people.get('person-asks-tome'))!)
  const change = async (parts: Partial<Person>): Promise<void> => {
    const seen = await tome()
    await changePerson(db, { ...seen, ...parts }, seen)
  }

  it('is a word of one’s own: each change is kept, and the list is filtered by it', async () => {
    await change({ stage: ' Talking ' })
    await change({ note: 'Sings.' })
    await change({ stage: 'Under way' })
    const { stage, stages, note } = await tome()
    expect([stage, note, stages?.map(({ stage }) => stage)]).toEqual([
      'Under way',
      'Sings.',
      ['Talking', 'Under way'],
    ])
    expect(await stagesIn(db)).toEqual(['Under way'])
    expect(await peopleIn(db, { ...everybody, stage: 'Under way' }, now)).toEqual(['person-asks-tome'])
    expect(await peopleIn(db, { ...everybody, stage: 'Talking' }, now)).toEqual([])
    const { stage: _, ...none } = await tome()
    await changePerson(db, none, await tome())
    expect((await tome()).stages?.at(-1)).toMatchObject({ stage: '' })
    expect(await stagesIn(db)).toEqual([])
  })

  it('what came while a page was open stays, and whoever was forgotten meanwhile does not come back', async () => {
    const seen = await tome()
    await change({ stage: 'Booked', phone: '+351 910 000 111' })
    await changePerson(db, { ...seen, note: 'Sings on Mondays.', tags: ['choir'] }, seen)
    const { stage, stages, phone, note, tags } = await tome()
    expect([stage, stages?.at(-1)?.stage, phone, note, tags]).toEqual([
      ...['Booked', 'Booked', '+351 910 000 111', 'Sings on Mondays.'],
      ['choir'],
    ])
    // What was taken away on the page is gone, what was taken away meanwhile stays so.
    const { tags: _, ...bare } = await tome()
    await changePerson(db, { ...bare, note: 'Sings.' }, await tome())
    expect(await tome()).not.toHaveProperty('tags')
    await db.people.delete(seen.id)
    await expect(changePerson(db, { ...seen, note: 'Again.' }, seen)).rejects.toThrow('no longer here')
    expect(await db.people.get(seen.id)).toBeUndefined()
    await importBackup(db, demo)
  })

  it('who was moved in is taken out with the others, but whoever has been written about since, waits or has written', async () => {
    const moved = (n: number): Person => ({
      ...{ id: `person-moved-${n}`, name: `M ${n}`, emails: [`m${n}@example.org`], invited: [] },
      ...{ blocked: false, note: '', movedIn: '2026-11-24T11:00:00Z them.csv' },
    })
    await db.people.bulkPut([1, 2, 3, 4].map((n) => personRow(moved(n), [])))
    await changePerson(db, { ...moved(1), note: 'Sings.' }, moved(1))
    await changeFollowUps(db, moved(2).id, () => [
      { id: 'one-thing', on: '2026-12-01' as LocalDate, text: 'Ask' },
    ])
    await db.enquiries.put({ ...demo.enquiries[0]!, id: 'written-since', email: 'M3@example.org' })
    expect(await takeBatchOut(db, moved(1).movedIn!)).toBe(1)
    const left = (await db.people.bulkGet([1, 2, 3, 4].map((n) => moved(n).id))).map((one) => one?.name)
    expect(left).toEqual(['M 1', 'M 2', 'M 3', undefined])
    await db.people.bulkDelete([1, 2, 3].map((n) => moved(n).id))
  })

  it('what there is to come back to is let in as files take it, or not at all', async () => {
    const long = { id: 'later-one', on: '2026-12-09' as LocalDate, text: 'x'.repeat(501) }
    await expect(changeFollowUps(db, 'person-asks-tome', () => [long])).rejects.toThrow('500')
    expect(await tome()).not.toHaveProperty('followUps')
  })

  it('what there is to come back to is found by its day, and is no more when it is done', async () => {
    const id = 'person-asks-tome'
    const due = async (on: string) => (await db.people.where('follow').belowOrEqual(on).primaryKeys()).length
    const on = (id: string, on: string) => ({ id, on: on as LocalDate, text: 'Ask' })
    await changeFollowUps(db, id, () => [on('later-one', '2026-12-09'), on('sooner-one', '2026-12-01')])
    expect([await due('2026-11-30'), await due('2026-12-01')]).toEqual([0, 1])
    await followedUp(db, id, 'sooner-one', '2026-12-02' as LocalDate)
    expect([await due('2026-12-08'), await due('2026-12-09')]).toEqual([0, 1])
    await followedUp(db, id, 'sooner-one', undefined)
    expect(await due('2026-12-01')).toBe(1)
    await changeFollowUps(db, id, () => [])
    expect(await due('2027-12-01')).toBe(0)
  })
})

describe('the list of people', () => {
  it('is in the order of names, without regard to marks and capitals', async () => {
    const ids = await peopleIn(db, everybody, now)
    const names = (await db.people.bulkGet(ids)).map((person) => sortKey(person!.name))
    expect(names).toEqual([...names].sort())
    expect(ids).toHaveLength(demo.people.length)
    expect(sortKey('Élodie ÅSE')).toBe('elodie ase')
  })

  it('has those without a booking at the end, when it goes by the newest', async () => {
    for (const down of [false, true]) {
      const ids = await peopleIn(db, { ...everybody, by: 'latest', down }, now)
      const latest = (await db.people.bulkGet(ids)).map((person) => person!.latest)
      const there = latest.filter((at) => at !== undefined)
      expect(latest.slice(0, there.length)).toEqual([...there].sort((a, b) => (down ? b - a : a - b)))
      expect(new Set(ids).size).toBe(demo.people.length)
    }
  })

  it('shows the known, the new and those who may not book as the rules tell them', async () => {
    const known = new Set(await peopleIn(db, { ...everybody, show: 'known' }, now))
    const fresh = new Set(await peopleIn(db, { ...everybody, show: 'new' }, now))
    const bookings = await db.bookings.toArray()
    for (const person of demo.people) {
      const own = bookings.filter((booking) => person.emails.includes(booking.mail))
      const is = standingAt(own, now)
      expect([known.has(person.id), fresh.has(person.id)]).toEqual([is === 'known', is === 'new'])
    }
    const blocked = await peopleIn(db, { ...everybody, show: 'blocked' }, now)
    expect(blocked.sort()).toEqual(
      demo.people
        .filter((person) => person.blocked)
        .map((person) => person.id)
        .sort(),
    )
  })

  it('finds by the beginnings of words in names and addresses, all of them', async () => {
    const [someone] = await db.people.toArray()
    const [first, ...rest] = wordsOf(someone!.name)
    const ids = await peopleIn(db, { ...everybody, search: `${first!.slice(0, 3)} ${rest.join(' ')}` }, now)
    expect(ids).toContain(someone!.id)
    expect(await peopleIn(db, { ...everybody, search: someone!.emails[0]! }, now)).toEqual([someone!.id])
    expect(await peopleIn(db, { ...everybody, search: 'nobody-of-this-name' }, now)).toEqual([])
    expect((await peopleFound(db, someone!.emails[0]!, 5)).map((person) => person.id)).toEqual([someone!.id])
  })
})

describe('the list of requests', () => {
  it('goes by when they were asked, or for when', async () => {
    for (const by of ['asked', 'start'] as const) {
      const ids = await arrivalsIn(db, { ...every, by })
      const moments = (await db.bookings.bulkGet(ids)).map((row) => (by === 'asked' ? row!.at : row!.start))
      expect(moments).toEqual([...moments].sort((a, b) => b - a))
      expect(ids).toHaveLength(demo.bookings.length)
    }
  })

  it('shows one kind of them, in either order', async () => {
    for (const by of ['asked', 'start'] as const) {
      const ids = await arrivalsIn(db, { ...every, show: 'booked', by, down: false })
      const all = await db.bookings
        .where('[status+at]')
        .between(['booked', 0], ['booked', Infinity])
        .toArray()
      expect([...ids].sort()).toEqual(all.map((row) => row.id).sort())
    }
    expect(await arrivalsIn(db, { ...every, search: 'tome' })).toContain('asks-tome')
  })
})

describe('a person’s row', () => {
  it('tells the relay the same as all their bookings would', async () => {
    const bookings = await db.bookings.toArray()
    for (const at of [shift(now, -400 * DAY), now, shift(now, 100 * DAY)]) {
      const packed = await pack(db, '', at)
      const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1)
      expect([...packed!.next!.people].sort(byId)).toEqual(
        knownPeople(demo.people, bookings, demo.practice, demo.salt, at).sort(byId),
      )
    }
  })

  it('says until when the package stays as it is, and that it is what was published', async () => {
    const packed = await pack(db, '', now)
    const next = Math.min(
      ...(await db.people.toArray())
        .map((person) => person.knownFrom ?? Infinity)
        .filter((from) => from > now),
    )
    expect(packed!.until ?? Infinity).toBe(next)
    expect((await pack(db, packed!.print, now))!.next).toBeUndefined()
  })

  it('holds the person as files do', () => {
    const person: Person = {
      id: 'p',
      name: 'P',
      emails: ['p@example.org'],
      invited: [],
      blocked: true,
      note: '',
    }
    expect(plainPerson(personRow(person, []))).toEqual(person)
  })
})

describe('what is taken in a stretch', () => {
  const practice = samplePractice()
  const minutes = fc.integer({ min: 1, max: 3 * 24 * 60 })
  const start = fc.integer({ min: -20 * 24, max: 20 * 24 }).map((hours) => shift(now, hours * HOUR))
  const bookingArb = fc.record({
    start,
    minutes,
    status: fc.constantFrom<Booking['status']>('requested', 'booked', 'declined', 'cancelled', 'lapsed'),
    until: start,
    offers: fc.array(start, { maxLength: 2 }),
    before: fc.option(
      fc.record({ start, status: fc.constantFrom<Booking['status']>('requested', 'booked') }),
    ),
  })

  it('is the same out of the index as out of everything', async () => {
    let n = 0
    await fc.assert(
      fc.asyncProperty(
        fc.array(bookingArb, { maxLength: 12 }),
        start,
        fc.integer({ min: 1, max: 9 * 24 }),
        async (drawn, from, hours) => {
          const database = new DeskDatabase(`taken-${n++}`)
          const to = shift(from, hours * HOUR)
          const bookings = drawn.map(({ before, offers, ...rest }, i): Booking => {
            const fresh = begin(`b${i}`, sampleAsked())
            const own = { ...fresh, ...rest, offers: offers.map((at) => ({ start: at, place: 'video' })) }
            return before
              ? {
                  ...own,
                  unsettled: { seq: 2, until: shift(now, 5), what: 'moved', before: { ...own, ...before } },
                }
              : own
          })
          await database.bookings.bulkPut(bookings.map(bookingRow))
          const desk = { practice, intentions: [], sessions: [], calendars: [], heldOut: [] }
          const found = takenOf(desk, await keptBetween(database, from, to), now, from, to)
          const shown = ({ start: at, end }: { start: Instant; end: Instant }) => at < to && end > from
          const all = makeDiary(practice, bookingEntries(practice, bookings, now))
          expect(found.diary.entries.filter(shown)).toEqual(all.entries.filter(shown))
          await database.delete()
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is looked for far enough beyond it for limits by the week and for time kept clear', () => {
    expect(marginOf(practice)).toBeGreaterThanOrEqual(7 * DAY)
    const [service] = practice.services
    const roomy = { ...practice, services: [{ ...service!, clearAfter: 600 }] }
    expect(marginOf(roomy) - marginOf({ ...practice, services: [{ ...service!, clearAfter: 0 }] })).toBe(
      Math.max(0, 600 - service!.clearBefore) * 2 * 60_000,
    )
  })

  it('names what was entered by hand and has not gone out yet', () => {
    const at = instant(now + DAY)
    const body = { id: 'new', service: practice.services[0]!.id, place: 'video', start: at, minutes: 30 }
    const command = { do: 'enter' as const, body: { ...body, person: { name: 'Ana' } } as never }
    const desk = {
      practice,
      sessions: [],
      calendars: [],
      heldOut: [],
      intentions: [{ order: 1, key: 'k', booking: 'new', command, at: now }],
    }
    const taken = takenOf(desk, [], now, now, instant(now + 2 * DAY))
    const entry = taken.diary.entries.find((entry) => entry.id === 'new')!
    expect(taken.title(entry)).toMatchObject({ title: 'Ana' })
    expect(taken.name(entry)).toContain('not gone out yet with Ana')
  })
})

describe('a list on a page', () => {
  it('is asked for anew when somebody comes, although only counting looks on', async () => {
    const own = new DeskDatabase('living')
    await importBackup(own, { ...demo, people: demo.people.slice(0, 2), bookings: demo.bookings.slice(0, 2) })
    const seen: number[] = []
    const people = liveQuery(() => peopleIn(own, everybody, now)).subscribe((ids) => seen.push(ids.length))
    const arrivals = liveQuery(() => arrivalsIn(own, { ...every, show: 'requested' })).subscribe((ids) =>
      seen.push(100 + ids.length),
    )
    const waits = own.bookings.where('[status+at]').between(['requested', 0], ['requested', Infinity])
    const before = await waits.count()
    await vi.waitFor(() => expect(new Set(seen)).toEqual(new Set([2, 100 + before])))
    await own.people.put(personRow(demo.people[2]!, []))
    await own.bookings.put(bookingRow(begin('new', sampleAsked())))
    await vi.waitFor(() => expect(seen).toEqual(expect.arrayContaining([3, 101 + before])))
    people.unsubscribe()
    arrivals.unsubscribe()
    await own.delete()
  })
})

describe('a backup put into a database of its own', () => {
  it('gives the same desk as one put in place, and says how far it is', async () => {
    const other = new DeskDatabase('filled')
    const told: [number, number][] = []
    await fill(other, demo, (done, of) => told.push([done, of]))
    expect(await exportBackup(other)).toBe(await exportBackup(db))
    expect(await other.people.toArray()).toEqual(await db.people.toArray())
    const [done, of] = told.at(-1)!
    expect(done).toBe(of)
    expect(told.every(([so], i) => i === 0 || so > told[i - 1]![0])).toBe(true)
    await other.delete()
  })

  it('becomes the desk only when that is said', async () => {
    const [current, other] = [await currentName(), await otherName()]
    expect(other).not.toBe(current)
    await makeCurrent(other)
    expect([await currentName(), await otherName()]).toEqual([other, current])
    await makeCurrent(current)
  })
})
