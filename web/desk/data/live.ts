import { type Booking, bookingEntries, stateAt } from '@acolhida/core/booking'
import type { CalendarState } from '@acolhida/core/contract'
import { type Diary, type Entry, entryFor, makeDiary } from '@acolhida/core/openings'
import { knownPeople, normalMail, type Person } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import type { Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { useOutletContext } from 'react-router'
import { db, type Intention, type LinkRow, type PracticeRow } from './database.ts'

/** Everything most pages look at, live from the desk's own data. */
export interface Desk {
  practice: Practice
  bookings: Booking[]
  people: Person[]
  sessions: Entry[]
  intentions: Intention[]
  link: LinkRow | undefined
  openEnquiries: number
  calendars: CalendarState[]
}

/** `undefined` while loading, `null` when this browser holds no practice yet. */
export function useDeskData(): Desk | null | undefined {
  return useLiveQuery(async () => {
    const row = (await db.practice.get('practice')) as PracticeRow | undefined
    if (!row) return null
    const [bookings, people, sessions, intentions, link, openEnquiries, calendars] = await Promise.all([
      db.bookings.toArray(),
      db.people.toArray(),
      db.sessions.toArray(),
      db.intentions.orderBy('order').toArray(),
      db.link.get('link'),
      db.enquiries.where('state').equals('open').count(),
      db.calendars.toArray(),
    ])
    return { practice: row.practice, bookings, people, sessions, intentions, link, openEnquiries, calendars }
  })
}

export const useDesk = (): Desk => useOutletContext<Desk>()

/** What is taken, as the desk knows it at `now`. */
export const entriesOf = (desk: Desk, now: Instant): Entry[] => [
  // What was entered by hand and has not gone out yet is in the diary all the same.
  ...desk.intentions.flatMap(({ booking, command, refused }) =>
    command.do === 'enter' && !refused && !desk.bookings.some((one) => one.id === booking)
      ? [entryFor(desk.practice, { ...command.body, kind: 'session' })]
      : [],
  ),
  ...desk.sessions,
  ...bookingEntries(desk.practice, desk.bookings, now),
  ...desk.calendars.flatMap((calendar) => calendar.entries),
]

/** The desk's diary, made again only when something in it has changed; holds run out by the minute. */
export function useDiary(desk: Desk, now: Instant): Diary {
  const minute = (Math.floor(now / 60_000) * 60_000) as Instant
  return useMemo(() => makeDiary(desk.practice, entriesOf(desk, minute)), [desk, minute])
}

/** The person behind a booking. */
export const personOf = (people: readonly Person[], booking: Booking): Person | undefined =>
  people.find((person) => person.emails.includes(normalMail(booking.asked.person.email)))

/** Somebody's bookings, newest first. */
export const bookingsOf = (bookings: readonly Booking[], person: Person): Booking[] =>
  bookings
    .filter((booking) => person.emails.includes(normalMail(booking.asked.person.email)))
    .sort((a, b) => b.start - a.start)

/** People as the relay is told of them. */
export const toldPeople = (desk: Pick<Desk, 'people' | 'bookings'>, salt: string, now: Instant) =>
  knownPeople(desk.people, desk.bookings, salt, now)

/** A request waits as long as its hold has not run out, and nothing about it is on its way. */
export const awaitingWord = (desk: Desk, now: Instant): Booking[] =>
  desk.bookings.filter((one) => stateAt(one, now).is === 'waiting').sort((a, b) => a.until - b.until)
