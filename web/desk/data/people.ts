import {
  changedSince,
  type FollowUp,
  joinPeople,
  normalMail,
  type Person,
  stageNoted,
} from '@acolhida/core/people'
import type { LocalDate } from '@acolhida/core/time'
import { relayNow } from '../../relay-client/clock.ts'
import type { DeskDatabase } from './database.ts'
import { type BookingRow, type PersonRow, personRow, plainPerson } from './rows.ts'

/** All bookings that came from the addresses of a person. */
export const bookingsOf = (db: DeskDatabase, person: Pick<Person, 'emails'>): Promise<BookingRow[]> =>
  db.bookings.where('mail').anyOf(person.emails).toArray()

/** The person behind an address, as it was typed. */
export const personOfMail = (db: DeskDatabase, email: string): Promise<PersonRow | undefined> =>
  db.people.where('emails').equals(normalMail(email)).first()

/** Keeps a person, with what their bookings tell of them. Inside a transaction that has people and bookings. */
export async function keepPerson(db: DeskDatabase, person: Person): Promise<void> {
  await db.people.put(personRow(person, await bookingsOf(db, person)))
}

/** Lets a person in as files take them: what is kept can be saved, and opened again. Loaded before a transaction begins. */
async function fitting(): Promise<(person: Person) => Person> {
  const { letIn, person } = await import('@acolhida/core/schemas')
  return (one) => letIn<Person>(person, one, 'The person')
}

/**
 * Keeps what the practitioner has written about somebody, or somebody new.
 * @param seen as they were when it was written: what has come since and wasn't written about stays
 * @throws BadData naming what is wrong; Error when another person has the address, or they are no longer here
 */
export async function changePerson(
  db: DeskDatabase,
  wanted: Person,
  seen: Person | undefined,
): Promise<void> {
  const fit = await fitting()
  await db.transaction('rw', db.people, db.bookings, async () => {
    const before = await db.people.get(wanted.id)
    if (seen && !before) throw new Error('They are no longer here.')
    const merged = seen && before ? changedSince(seen, wanted, plainPerson(before)) : wanted
    const next = stageNoted(ownNow(merged), before?.stage, relayNow())
    const clean = fit({ ...next, emails: next.emails.map(normalMail) })
    const same = await db.people.where('emails').anyOf(clean.emails).first()
    if (same && same.id !== clean.id) throw new Error(`${same.name} has this mail address already.`)
    await keepPerson(db, clean)
  })
}

/** Somebody whom the practitioner has written about: they are no longer taken out with those they were moved in with. */
const ownNow = ({ movedIn: _, ...person }: Person): Person => person

/** The words for how far one has come with people, as far as they are in use. */
export const stagesIn = async (db: DeskDatabase): Promise<string[]> =>
  (await db.people.orderBy('stage').uniqueKeys()).map(String)

/** Changes what there is to come back to somebody about. @throws BadData; Error when they are no longer here */
export async function changeFollowUps(
  db: DeskDatabase,
  id: string,
  change: (before: readonly FollowUp[]) => FollowUp[],
): Promise<void> {
  const fit = await fitting()
  await db.transaction('rw', db.people, db.bookings, async () => {
    const row = await db.people.get(id)
    if (!row) throw new Error('They are no longer here.')
    const { followUps = [], ...rest } = ownNow(plainPerson(row))
    const next = change(followUps)
    await keepPerson(db, fit({ ...rest, ...(next.length > 0 ? { followUps: next } : {}) }))
  })
}

/** Marks one of them as done on a date, or as open again. */
export const followedUp = (db: DeskDatabase, id: string, one: string, done: LocalDate | undefined) =>
  changeFollowUps(db, id, (before) =>
    before.map(({ done: was, ...rest }) => {
      if (rest.id !== one) return was === undefined ? rest : { ...rest, done: was }
      return done === undefined ? rest : { ...rest, done }
    }),
  )

/** Joins two people who are one; the second's requests follow by their addresses. One transaction. */
export async function join(db: DeskDatabase, first: string, second: string): Promise<void> {
  await db.transaction('rw', db.people, db.bookings, async () => {
    const [one, other] = await db.people.bulkGet([first, second])
    if (!one || !other) throw new Error('One of them is no longer here.')
    await db.people.delete(other.id)
    await keepPerson(db, ownNow(joinPeople(plainPerson(one), plainPerson(other))))
  })
}
