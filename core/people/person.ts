import { agreedByAsker, agreedTo, type Booking, type Counted, countedIn } from '../booking/index.ts'
import type { Standing } from '../practice/types.ts'
import { type Instant, instant, type LocalDate, MINUTE, shift } from '../time/index.ts'
import { normalMail } from './mail.ts'

/** Something to come back to somebody about, from a date on; done ones stay. */
export interface FollowUp {
  id: string
  on: LocalDate
  text: string
  done?: LocalDate
}

/** Somebody known by their mail address. */
export interface Person {
  id: string
  name: string
  /** How they are spoken of, in their own words. */
  pronouns?: string
  birthday?: LocalDate
  /** Normal form first address, the others come from joining. */
  emails: string[]
  phone?: string
  /** Services this person has been invited to. */
  invited: string[]
  blocked: boolean
  note: string
  /** Notes sealed with a pass phrase (JWE compact): one, or more where records were joined. */
  sealedNotes?: string[]
  /** Everything of theirs waits for the practitioner's word, or whatever fits goes straight in; as the service has it otherwise. */
  approval?: 'ask' | 'straight'
  /** Nothing they miss or cancel late counts. */
  exempt?: boolean
  /** No step of a sequence is sent to them. */
  hushed?: boolean
  /** Given by the practitioner; what rules give comes from the bookings. */
  tags?: string[]
  followUps?: FollowUp[]
  /** How far one has come with them, in a word of the practitioner's own; and since when it was which. */
  stage?: string
  stages?: { at: Instant; stage: string }[]
  /** Where they came from, in the practitioner's words: who sent them, where they had read of it. */
  cameFrom?: string
  /** Worked with before anything of it was kept here: known from the first request on. */
  known?: boolean
  /** With which others they were moved in from another place; see `movedIn`. */
  movedIn?: string
}

/** Somebody with a change of the word for how far one has come with them noted. @param before the word until now */
export function stageNoted(person: Person, before: string | undefined, at: Instant): Person {
  const { stage: written = '', ...rest } = person
  const stage = written.trim()
  const next = stage ? { ...rest, stage } : rest
  return stage === (before ?? '') ? next : { ...next, stages: [...(person.stages ?? []), { at, stage }] }
}

/** The date from which on there is something to come back to somebody about; nothing where there is nothing open. */
export const followFrom = ({ followUps = [] }: Pick<Person, 'followUps'>): LocalDate | undefined =>
  followUps
    .filter(({ done }) => done === undefined)
    .map(({ on }) => on)
    .sort()[0]

/**
 * The moment from which somebody is known: the end of their first session, or any, where they have been at one; nothing
 * before one is booked.
 */
export function knownFrom(bookings: Iterable<Booking>): Instant | undefined {
  let first: Instant | undefined
  for (const { status, start, minutes } of bookings) {
    if (status !== 'booked' && status !== 'attended') continue
    const from = status === 'attended' ? instant(0) : shift(start, minutes * MINUTE)
    if (first === undefined || from < first) first = from
  }
  return first
}

/** As `knownFrom`, of somebody whom the practitioner may have worked with before. */
export const personKnownFrom = (
  { known }: Pick<Person, 'known'>,
  bookings: Iterable<Booking>,
): Instant | undefined => (known ? instant(0) : knownFrom(bookings))

/** The standing of somebody who is known from a moment on, if from any. */
export const standingFrom = (from: Instant | undefined, now: Instant): Standing =>
  from !== undefined && now >= from ? 'known' : 'new'

/** New until a first session has taken place. */
export const standingAt = (bookings: Iterable<Booking>, now: Instant): Standing =>
  standingFrom(knownFrom(bookings), now)

/** Joins two people who are one: the first keeps its id and name, and gains the other's addresses. */
export const joinPeople = (first: Person, second: Person): Person => ({
  ...first,
  emails: [...new Set([...first.emails, ...second.emails])],
  ...(first.phone || !second.phone ? {} : { phone: second.phone }),
  ...(first.pronouns || !second.pronouns ? {} : { pronouns: second.pronouns }),
  ...(first.stage || !second.stage ? {} : { stage: second.stage }),
  ...(first.stages || second.stages
    ? { stages: [...(first.stages ?? []), ...(second.stages ?? [])].sort((a, b) => a.at - b.at) }
    : {}),
  ...(first.cameFrom || !second.cameFrom ? {} : { cameFrom: second.cameFrom }),
  ...(first.birthday || !second.birthday ? {} : { birthday: second.birthday }),
  ...(first.followUps || second.followUps
    ? { followUps: [...(first.followUps ?? []), ...(second.followUps ?? [])] }
    : {}),
  invited: [...new Set([...first.invited, ...second.invited])].sort(),
  blocked: first.blocked || second.blocked,
  ...joinedApproval(first, second),
  ...(first.exempt || second.exempt ? { exempt: true } : {}),
  ...(first.hushed || second.hushed ? { hushed: true } : {}),
  ...(first.known || second.known ? { known: true } : {}),
  ...(first.tags || second.tags
    ? { tags: [...new Set([...(first.tags ?? []), ...(second.tags ?? [])])].sort() }
    : {}),
  note: [first.note, second.note].filter(Boolean).join('\n'),
  ...(first.sealedNotes || second.sealedNotes
    ? { sealedNotes: [...(first.sealedNotes ?? []), ...(second.sealedNotes ?? [])] }
    : {}),
})

/** Whoever is looked at in one of two ways is looked at. */
function joinedApproval(first: Person, second: Person): Pick<Person, 'approval'> {
  if (first.approval === 'ask' || second.approval === 'ask') return { approval: 'ask' }
  const approval = first.approval ?? second.approval
  return approval ? { approval } : {}
}

/** Bookings by the normal form of the address they came from. */
export function byMail(bookings: Iterable<Booking>): Map<string, Booking[]> {
  const found = new Map<string, Booking[]>()
  for (const booking of bookings) {
    const mail = normalMail(booking.asked.person.email)
    const others = found.get(mail)
    if (others) others.push(booking)
    else found.set(mail, [booking])
  }
  return found
}

/** The tags of a person: the practitioner's own, and those that rules gave in bookings that were not turned down. */
export function tagsOf(person: Pick<Person, 'tags'>, bookings: readonly Booking[]): string[] {
  const given = bookings
    .filter(({ status }) => status === 'booked' || status === 'attended' || status === 'missed')
    .flatMap((booking) => booking.asked.reading.tags)
  return [...new Set([...(person.tags ?? []), ...given])].sort()
}

/** Everything that counts against somebody by their bookings, the earliest first. */
export const countedOf = (bookings: readonly Booking[]): Counted[] =>
  bookings.flatMap((booking) => countedIn(booking) ?? []).sort((a, b) => a.at - b.at)

/** What somebody has agreed to with any of their bookings. */
export const agreedIn = (bookings: readonly Booking[]): Record<string, number> =>
  agreedTo(bookings.flatMap(agreedByAsker))
