import {
  type Counted,
  countedFor,
  countedIn,
  holdsFor,
  leadsTo,
  type Mark,
  wordNeeded,
} from '../booking/index.ts'
import { type KnownPerson, mailHash } from '../people/index.ts'
import type { Service } from '../practice/index.ts'
import type { Reading } from '../questions/index.ts'
import { personBehind, Refused } from '../request/index.ts'
import { type Instant, zone } from '../time/index.ts'
import { type House, published } from './house.ts'
import { visitorMail } from './visitor.ts'

/**
 * What counts against whoever is behind an address: what the desk has told of them, and what has happened here since.
 */
function countedAgainst(house: House, email: string): Counted[] {
  const { people, salt } = published(house)
  const person = personBehind({ people, salt }, email)
  if (person?.exempt) return []
  const hashes = new Set(person?.mailHashes ?? [mailHash(email, salt)])
  const told = new Map((person?.counted ?? []).map((one) => [one.booking, one]))
  for (const booking of house.openBookings()) {
    // Of most bookings nothing ever counts: whose they are is asked only of the others.
    if (!countedFor(booking) && !told.has(booking.id)) continue
    if (!hashes.has(mailHash(booking.asked.person.email, salt))) continue
    const counted = countedIn(booking)
    if (counted) told.set(booking.id, counted)
    else told.delete(booking.id)
  }
  return [...told.values()]
}

/** What is known at `now` of whoever is behind an address that makes the practitioner look, or turns them away. */
export function marksAgainst(house: House, email: string, now: Instant): Mark[] {
  const { practice, people, salt } = published(house)
  const person = personBehind({ people, salt }, email)
  const leads = practice.houseRules.counting?.leads ?? []
  const home = zone(practice.profile.zone)
  const holds = leads.length === 0 ? [] : holdsFor(leads, countedAgainst(house, email), now, home)
  return [
    ...(person?.blocked ? (['blocked'] as const) : []),
    ...(person?.asks ? (['ask-always'] as const) : []),
    ...(leadsTo(holds, 'not-online') ? (['not-online'] as const) : []),
    ...(leadsTo(holds, 'pay-first') ? (['pay-first'] as const) : []),
    ...(leadsTo(holds, 'ask') ? (['ask'] as const) : []),
  ]
}

/** Who wants what: whoever is known by then, and behind which address. */
export interface Wanting {
  service: Service
  reading: Reading
  person: KnownPerson | undefined
  email: string | undefined
}

/** Whether a request needs the practitioner's word, and what is known of whoever is behind an address. */
export function wordFor(
  house: House,
  { service, reading, person, email }: Wanting,
  now: Instant,
): { word: string | undefined; marks: Mark[] } {
  const marks = email === undefined ? [] : marksAgainst(house, email, now)
  const straight = person?.straight?.includes(service.id) ?? false
  return { word: wordNeeded(service, person?.standing ?? 'new', reading, marks, straight), marks }
}

/** Lets nobody on who has come by a private link of theirs and may not book online for a time. @throws Refused */
export function checkOnline(house: House, key: string | undefined, now: Instant): void {
  const email = visitorMail(house, key)
  if (email !== undefined && marksAgainst(house, email, now).includes('not-online'))
    throw new Refused(409, 'not-online')
}
