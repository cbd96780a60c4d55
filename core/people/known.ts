import type { Booking } from '../booking/index.ts'
import type { Standing } from '../practice/types.ts'
import { sha256Hex } from '../terms/fingerprint.ts'
import type { Instant } from '../time/index.ts'
import { byMail, knownFrom, normalMail, type Person, standingFrom, tagsOf } from './person.ts'

/** What the relay is told of a person: nothing by which it could name them. */
export interface KnownPerson {
  id: string
  mailHashes: string[]
  standing: Standing
  invited: string[]
  blocked: boolean
  tags?: string[]
}

/** What stands for a mail address where the address itself must not. */
export const mailHash = (email: string, salt: string): string => sha256Hex(`${salt} ${normalMail(email)}`)

/** What the relay is told of a person: hashes of their addresses, and their standing at `now`. */
export function knownPerson(
  { id, emails, invited, blocked }: Person,
  came: { knownFrom?: Instant | undefined; tags: string[] },
  salt: string,
  now: Instant,
): KnownPerson {
  const { tags } = came
  return {
    id,
    mailHashes: emails.map((email) => mailHash(email, salt)),
    standing: standingFrom(came.knownFrom, now),
    invited,
    blocked,
    ...(tags.length > 0 ? { tags } : {}),
  }
}

/** As `knownPerson`, for everybody, from their bookings. */
export function knownPeople(
  people: readonly Person[],
  bookings: readonly Booking[],
  salt: string,
  now: Instant,
): KnownPerson[] {
  const found = byMail(bookings)
  return people.map((person) => {
    const own = person.emails.flatMap((mail) => found.get(mail) ?? [])
    return knownPerson(person, { knownFrom: knownFrom(own), tags: tagsOf(person, own) }, salt, now)
  })
}
