import { type Booking, type Counted, mattersFrom } from '../booking/index.ts'
import type { Practice, Standing } from '../practice/types.ts'
import { readsPrivately } from '../questions/privacy.ts'
import { sha256Hex } from '../terms/fingerprint.ts'
import { type Instant, zone } from '../time/index.ts'
import { normalMail } from './mail.ts'
import { agreedIn, byMail, countedOf, type Person, personKnownFrom, standingFrom, tagsOf } from './person.ts'

/** What the relay is told of a person: nothing by which it could name them. */
export interface KnownPerson {
  id: string
  mailHashes: string[]
  standing: Standing
  invited: string[]
  blocked: boolean
  /** Everything of theirs waits for the practitioner's word. */
  asks?: boolean
  /** The services in which whatever of theirs fits goes straight in. */
  straight?: string[]
  /** Nothing of theirs counts against them. */
  exempt?: boolean
  /** No step of a sequence is sent to them. */
  hushed?: boolean
  /** What counts against them and can still matter. */
  counted?: Counted[]
  /** The highest version of each text that they have agreed to. */
  agreed?: Record<string, number>
  tags?: string[]
}

/** What stands for a mail address where the address itself must not. */
export const mailHash = (email: string, salt: string): string => sha256Hex(`${salt} ${normalMail(email)}`)

/** What a person's bookings tell of them. */
export interface Came {
  knownFrom?: Instant | undefined
  tags: string[]
  counted: Counted[]
  agreed: Record<string, number>
}

/**
 * Makes of people what the relay is told of them: hashes of their addresses, and how they stand at `now`. Nobody goes
 * straight in where private answers decide something, which only the desk can read.
 */
export function tellingOf(
  { profile, services, questionnaires, houseRules }: Practice,
  salt: string,
  now: Instant,
): (person: Person, came: Came) => KnownPerson {
  const secret = new Set(questionnaires.filter(readsPrivately).map(({ id }) => id))
  const open = services
    .filter(({ questionnaire }) => !(questionnaire && secret.has(questionnaire)))
    .map(({ id }) => id)
  const from = mattersFrom(houseRules.counting?.leads ?? [], now, zone(profile.zone))
  return ({ id, emails, invited, blocked, approval, exempt, hushed }, came) => {
    const counted = exempt ? [] : came.counted.filter(({ at }) => at >= from)
    return {
      id,
      mailHashes: emails.map((email) => mailHash(email, salt)),
      standing: standingFrom(came.knownFrom, now),
      invited,
      blocked,
      ...(approval === 'ask' ? { asks: true } : {}),
      ...(approval === 'straight' ? { straight: open } : {}),
      ...(exempt ? { exempt } : {}),
      ...(hushed ? { hushed } : {}),
      ...(counted.length > 0 ? { counted } : {}),
      ...(Object.keys(came.agreed).length > 0 ? { agreed: came.agreed } : {}),
      ...(came.tags.length > 0 ? { tags: came.tags } : {}),
    }
  }
}

/** What the relay is told of everybody, from their bookings. */
export function knownPeople(
  people: readonly Person[],
  bookings: readonly Booking[],
  practice: Practice,
  salt: string,
  now: Instant,
): KnownPerson[] {
  const found = byMail(bookings)
  const told = tellingOf(practice, salt, now)
  return people.map((person) => {
    const own = person.emails.flatMap((mail) => found.get(mail) ?? [])
    return told(person, {
      knownFrom: personKnownFrom(person, own),
      tags: tagsOf(person, own),
      counted: countedOf(own),
      agreed: agreedIn(own),
    })
  })
}
