import { type Booking, type Counted, othersOf, takesWhile } from '@acolhida/core/booking'
import { accountOf } from '@acolhida/core/ledger'
import type { Entry } from '@acolhida/core/openings'
import {
  agreedIn,
  byMail,
  countedOf,
  followFrom,
  normalMail,
  type Person,
  personKnownFrom,
  plainLetters,
  tagsOf,
} from '@acolhida/core/people'
import type { Subscription } from '@acolhida/core/practice'
import type { Course } from '@acolhida/core/preparing'
import { isAttached } from '@acolhida/core/questions'
import { DAY, type Instant, type LocalDate, MINUTE } from '@acolhida/core/time'
import type { WantedFile } from './tables.ts'

/** A booking with what pages look for, so that an index finds it. All of it follows from the booking. */
export interface BookingRow extends Booking {
  /** When it was asked for. */
  at: Instant
  /** The address it came from, in its normal form: by it, whose it is. */
  mail: string
  /** Moments at which it may keep time from others: a start, and each day after it until its end. */
  keeps: Instant[]
  /** Until when its last decision can be taken back, if one ever could. */
  undo?: Instant
  /** Something is still to be paid, or to be given back: for the index. */
  owing?: 1
  /** The price code asked with. */
  code?: string
  questionnaire?: string
  /** What a search finds it by. */
  words: string[]
}

/** A person with what their bookings tell of them, and what pages look for. */
export interface PersonRow extends Person {
  /** What people are ordered by. */
  sort: string
  words: string[]
  /** From when on they are known; nothing before a first session is booked. */
  knownFrom?: Instant
  /** The start of the newest of their bookings, and which one that is. */
  latest?: Instant
  newest?: string
  count: number
  /** Their own tags, and those that rules gave. */
  allTags: string[]
  /** What counts against them; rows from before there was such a thing have none. */
  counted?: Counted[]
  /** What they have agreed to: the highest version of each text. */
  agreed?: Record<string, number>
  /** May not book: for the index, which knows no yes and no. */
  blockedRow?: 1
  /** From when on there is something to come back to them about. */
  follow?: LocalDate
}

/** The words of a text, as a search compares them. */
export const wordsOf = (...texts: string[]): string[] => [
  ...new Set(
    texts
      .flatMap((text) => plainLetters(text).split(/[^\p{L}\p{N}]+/u))
      .filter(Boolean)
      .slice(0, 40),
  ),
]

/** Where a name stands in an alphabet. */
export const sortKey = (name: string): string => wordsOf(name).join(' ')

/** How far back from a moment an entry that reaches it may begin, of those that `keeps` names. */
export const KEEPS_BACK = DAY

function keptBy(booking: Booking): Instant[] {
  const moments = new Set<Instant>()
  // Whatever it may keep at any moment: what it keeps at one, the diary tells.
  for (const undoable of [false, true]) {
    for (const { start, minutes } of takesWhile(booking, { held: true, undoable })) {
      const end = start + minutes * MINUTE
      moments.add(start)
      for (let at = start + DAY; at < end; at += DAY) moments.add(at as Instant)
    }
  }
  return [...moments]
}

/** What whoever else comes or pays is found by. */
const otherNames = (booking: Booking): string[] =>
  Object.values(othersOf(booking)).flatMap(({ name, email }) => (email ? [name, email] : [name]))

/** The row of a booking. */
export function bookingRow(booking: Booking): BookingRow {
  const { asked, unsettled } = booking
  return {
    ...booking,
    at: asked.at,
    mail: normalMail(asked.person.email),
    keeps: keptBy(booking),
    ...(unsettled ? { undo: unsettled.until } : {}),
    ...(accountOf(booking).open === 0 ? {} : { owing: 1 }),
    ...(asked.code ? { code: asked.code } : {}),
    ...(asked.questionnaire ? { questionnaire: asked.questionnaire.id } : {}),
    words: wordsOf(asked.person.name, asked.person.email, ...otherNames(booking)),
  }
}

/** The row of a person with these bookings. */
export function personRow(person: Person, bookings: readonly Booking[]): PersonRow {
  const from = personKnownFrom(person, bookings)
  const follow = followFrom(person)
  const newest = bookings.reduce<Booking | undefined>(
    (last, booking) => (!last || booking.start > last.start ? booking : last),
    undefined,
  )
  return {
    ...person,
    sort: sortKey(person.name),
    words: wordsOf(person.name, ...person.emails),
    count: bookings.length,
    allTags: tagsOf(person, bookings),
    counted: countedOf(bookings),
    agreed: agreedIn(bookings),
    ...(from === undefined ? {} : { knownFrom: from }),
    ...(newest ? { latest: newest.start, newest: newest.id } : {}),
    ...(person.blocked ? { blockedRow: 1 } : {}),
    ...(follow === undefined ? {} : { follow }),
  }
}

/** The rows of all people, of whom these are all bookings. */
export function personRows(people: readonly Person[], bookings: readonly Booking[]): PersonRow[] {
  const found = byMail(bookings)
  return people.map((person) =>
    personRow(
      person,
      person.emails.flatMap((mail) => found.get(mail) ?? []),
    ),
  )
}

/** A person as files hold them: without what follows from their bookings. */
export function plainPerson(row: PersonRow): Person {
  const {
    sort,
    words,
    knownFrom: from,
    latest,
    newest,
    count,
    allTags,
    counted,
    agreed,
    blockedRow,
    follow,
    ...person
  } = row
  return person
}

/** The files that a booking's answers name. */
export const filesIn = ({ asked }: Booking): WantedFile[] =>
  Object.values(asked.answers)
    .filter(isAttached)
    .map(({ file, name, type }) => ({ id: file, name, type }))

/** The files that somebody has brought, or answered with. */
export const filesOfCourse = ({ progress }: Course): WantedFile[] =>
  Object.values(progress)
    .flatMap(({ files = [], answers = {} }) => [...files, ...Object.values(answers).filter(isAttached)])
    .map(({ file, name, type }) => ({ id: file, name, type }))

/** Files that bookings and courses name and that are not here yet. @param here the ids of those that are */
export const filesLacking = (
  bookings: readonly Booking[],
  courses: readonly Course[],
  here: ReadonlySet<string>,
): WantedFile[] =>
  [...bookings.flatMap(filesIn), ...courses.flatMap(filesOfCourse)].filter(({ id }) => !here.has(id))

/** Entries of other calendars with the calendar they come from; earlier ones named it in their id only. */
export const withCalendar = (entries: readonly Entry[], calendars: readonly Subscription[] = []): Entry[] =>
  entries.map((entry) => {
    if (entry.kind !== 'outside' || entry.calendar) return entry
    const own = calendars.find(({ id }) => entry.id.startsWith(`calendar-${id}-`))
    return own ? { ...entry, calendar: own.id } : entry
  })
