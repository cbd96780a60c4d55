import 'fake-indexeddb/auto'
import { replay } from '@acolhida/core/booking'
import { withoutForgotten, writeBackup } from '@acolhida/core/formats'
import { readBackup } from '@acolhida/core/schemas'
import { verifyAgreements } from '@acolhida/core/terms'
import { parseInstant, shift } from '@acolhida/core/time'
import { agreementsOf } from '@acolhida/core/waiting'
import { demoMonths } from '@acolhida/demo/months'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { exportBackup, importBackup } from '../data/backup.ts'
import { DeskDatabase } from '../data/database.ts'
import { bookingsOf } from '../data/people.ts'
import { forgetPerson, whatGoes } from './forget.ts'

const months = demoMonths(parseInstant('2026-11-24T11:00Z'))
let db: DeskDatabase
let count = 0
beforeEach(async () => {
  db = new DeskDatabase(`forget-${++count}`)
  await importBackup(db, readBackup(writeBackup(months)))
})
afterEach(() => db.delete())

/** Somebody of whom nothing is open, with agreements and with something that they were given. */
const somebody = async () => {
  for (const person of await db.people.toArray()) {
    const { open, agreements } = await whatGoes(db, person)
    const courses = await db.courses.where('mail').anyOf(person.emails).count()
    if (open === 0 && agreements > 1 && courses > 0) return person
  }
  throw new Error('The months have nobody like that.')
}
const proven = async () => {
  const found = agreementsOf(
    await db.bookings.toArray(),
    await db.lines.toArray(),
    await db.courses.toArray(),
  )
  const gone = (await db.forgotten.toArray()).flatMap((one) => one.agreements)
  return verifyAgreements(
    months.practice.terms,
    found.map(({ agreement }) => agreement),
    undefined,
    gone,
  )
}

describe('forgetting somebody', () => {
  it('takes all of theirs in one go, keeps the chain whole, and tells the relay', async () => {
    const before = await proven()
    expect(before.faults).toEqual([])
    const person = await somebody()
    const bookings = await bookingsOf(db, person)
    const others = (await db.bookings.count()) - bookings.length
    await forgetPerson(db, person)
    const text = await exportBackup(db)
    for (const mail of person.emails) expect(text).not.toContain(mail)
    for (const { id } of bookings) {
      expect(await db.bookings.get(id)).toBeUndefined()
      expect(await db.events.where('[booking+seq]').between([id, 0], [id, Infinity]).count()).toBe(0)
    }
    expect(await db.bookings.count()).toBe(others)
    const after = await proven()
    expect(after).toMatchObject({ head: before.head, faults: [] })
    expect(after.forgotten).toBeGreaterThan(1)
    const [intention] = await db.intentions.toArray()
    expect(intention?.command.do).toBe('forget')
    expect(JSON.stringify(intention)).not.toContain('@')
    // It is a backup like any other.
    expect(readBackup(text).forgotten).toHaveLength(1)
  })

  it('is not undone by an older backup, and takes nobody else along', async () => {
    const person = await somebody()
    const old = await exportBackup(db)
    await forgetPerson(db, person)
    const restored = withoutForgotten(readBackup(old), await db.forgotten.toArray())
    const text = writeBackup(restored)
    for (const mail of person.emails) expect(text).not.toContain(mail)
    // What is brought back is what is here, but for the word to the relay.
    expect(text).toBe(await exportBackup(db))
    await importBackup(db, restored)
    expect((await proven()).faults).toEqual([])
    const twice = withoutForgotten(restored, await db.forgotten.toArray())
    expect(writeBackup(twice)).toBe(text)
    for (const { events } of restored.bookings) expect(() => replay('x', events)).not.toThrow()
  })

  it('leaves whoever has come again since, in line as with a booking', async () => {
    const person = await somebody()
    const old = readBackup(await exportBackup(db))
    await forgetPerson(db, person)
    const [gone] = await db.forgotten.toArray()
    const [line] = old.lines ?? []
    const [joined] = line!.events
    if (joined?.type !== 'joined') throw new Error('Nobody has joined.')
    const since = {
      ...joined,
      at: shift(gone!.at, 1),
      person: { ...joined.person, email: person.emails[0]! },
    }
    const again = withoutForgotten(
      { ...old, bookings: [], courses: [], lines: [{ id: 'again', events: [since] }] },
      [gone!],
    )
    expect(again.lines?.map(({ id }) => id)).toEqual(['again'])
    expect(again.people.map(({ id }) => id)).toContain(person.id)
    expect(withoutForgotten({ ...old, lines: [] }, [gone!]).people.map(({ id }) => id)).not.toContain(
      person.id,
    )
  })

  it('waits while something of theirs is open, and then nothing has gone', async () => {
    const booking = (
      await db.bookings.where('[status+start]').between(['booked', 0], ['booked', Infinity]).toArray()
    ).at(-1)!
    const person = (await db.people.where('emails').equals(booking.mail).first())!
    const text = await exportBackup(db)
    await expect(forgetPerson(db, person)).rejects.toThrow('still open')
    expect(await exportBackup(db)).toBe(text)
  })
})
