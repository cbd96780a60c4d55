import { bookingEntries, comesAndAsks } from '@acolhida/core/booking'
import type { EnterBody } from '@acolhida/core/contract'
import { type Diary, type Entry, entryFor, makeDiary } from '@acolhida/core/openings'
import { type Practice, serviceOf } from '@acolhida/core/practice'
import { DAY, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { lineAt } from '@acolhida/core/waiting'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import type { DeskDatabase } from './database.ts'
import { db } from './db.ts'
import type { Desk } from './live.ts'
import { type BookingRow, KEEPS_BACK } from './rows.ts'
import type { Intention, LineRow } from './tables.ts'

/** What an entry of the diary is called: a name for one, a count for a group. */
export interface EntryTitle {
  title: string
  line: string
  booking?: BookingRow
}

/** What is taken in a stretch of time, and whose it is. */
export interface Taken {
  diary: Diary
  rows: readonly BookingRow[]
  /** The stretch it was gathered for. */
  span: readonly [from: Instant, to: Instant]
  booking(id: string): BookingRow | undefined
  title(entry: Entry): EntryTitle
  /** As `title`, inside a sentence. */
  name(entry: Entry): string
}

/** The bookings that may keep time in a stretch. */
export async function keptBetween(from: DeskDatabase, start: Instant, end: Instant): Promise<BookingRow[]> {
  const rows = await from.bookings
    .where('keeps')
    .between(start - KEEPS_BACK, end)
    .toArray()
  return [...new Map(rows.map((row) => [row.id, row])).values()]
}

/**
 * How far beyond a stretch entries still matter for what is open in it, in ms: limits by the week look at its whole
 * first and last one, and time is kept clear around sessions.
 */
export function marginOf({ services, places }: Practice): number {
  const clear = Math.max(0, ...services.map((service) => Math.max(service.clearBefore, service.clearAfter)))
  const travel = Math.max(0, ...places.flatMap((place) => (place.travel ?? []).map((zone) => zone.clear)))
  return 8 * DAY + 2 * (clear + travel) * MINUTE
}

/** What is booked in by hand with an intention, by name. */
const enteredBy = (command: Intention['command']): [string, Omit<EnterBody, 'id' | 'clash'>][] => {
  if (command.do === 'enter') return [[command.body.id, command.body]]
  if (command.do !== 'series') return []
  const { sessions, ...each } = command.body
  return sessions.map(({ id, start }) => [id, { ...each, start }])
}

/** What is taken at `now`, of these bookings and of everything else between two moments. */
export function takenOf(
  desk: Pick<Desk, 'practice' | 'intentions' | 'sessions' | 'calendars' | 'heldOut'>,
  rows: readonly BookingRow[],
  now: Instant,
  from: Instant,
  to: Instant,
): Taken {
  const { practice } = desk
  const byId = new Map(rows.map((row) => [row.id, row]))
  const entered = new Map(
    desk.intentions.flatMap(({ command, refused }) =>
      refused ? [] : enteredBy(command).filter(([id]) => !byId.has(id)),
    ),
  )
  const calendars = new Map((practice.calendars ?? []).map((calendar) => [calendar.id, calendar.name]))
  const held = new Map<string, LineRow['line']>(
    desk.heldOut.flatMap(({ id, line }) =>
      lineAt(line, now).is === 'offered' ? [[`held-out-${id}`, line] as const] : [],
    ),
  )
  const within = (entry: Entry): boolean => entry.start < to && entry.end > from
  const diary = makeDiary(practice, [
    // What was entered by hand and has not gone out yet is in the diary all the same.
    ...[...entered].map(([id, body]) => entryFor(practice, { ...body, id, kind: 'session' })),
    ...desk.sessions.filter(within),
    ...bookingEntries(practice, rows, now),
    ...[...held].map(([id, { joined, offer }]) =>
      entryFor(practice, { ...joined, ...offer!, id, kind: 'hold' }),
    ),
    ...desk.calendars.flatMap(({ id, entries }) =>
      entries.filter(within).map((entry) => ({ ...entry, calendar: id })),
    ),
  ])
  const title = (entry: Entry): EntryTitle => {
    if (entry.kind === 'outside')
      return { title: calendars.get(entry.calendar ?? '') ?? 'Another calendar', line: 'busy' }
    const service = entry.service ? (serviceOf(practice, entry.service)?.name ?? entry.service) : ''
    if (entry.seats) return { title: `${entry.taken ?? 0} of ${entry.seats}`, line: service }
    const waits = held.get(entry.id)
    if (waits) return { title: waits.joined.person.name, line: `${service}, held out` }
    const hand = entered.get(entry.id)
    if (hand) return { title: hand.person.name, line: `${service}, not gone out yet` }
    const booking = byId.get(entry.id)
    return booking ? { title: comesAndAsks(booking), line: service, booking } : { title: service, line: '' }
  }
  return {
    diary,
    rows,
    span: [from, to],
    booking: (id) => byId.get(id),
    title,
    name: (entry) => {
      const { title: name, line } = title(entry)
      return line && line !== name ? `${line} with ${name}` : name
    },
  }
}

const HALF_WEEK = 3.5 * DAY
const NOBODYS: readonly string[] = []

/**
 * What is taken around a stretch of time, live; nothing while it loads. Made again only when something in it has
 * changed; holds run out by the minute.
 * @param but bookings whose own time is left out
 */
export function useTaken(
  desk: Desk,
  from: Instant,
  to: Instant,
  but: readonly string[] = NOBODYS,
): Taken | undefined {
  const { practice, intentions, sessions, calendars, heldOut } = desk
  const margin = marginOf(practice)
  // By half weeks: what is looked at moves with every key that is typed, what is loaded does not.
  const first = shift(0 as Instant, Math.floor((from - margin) / HALF_WEEK) * HALF_WEEK)
  const last = shift(0 as Instant, Math.ceil((to + margin) / HALF_WEEK) * HALF_WEEK)
  const found = useLiveQuery(
    async () => ({ first, last, rows: await keptBetween(db, first, last) }),
    [first, last],
  )
  const now = useMinute()
  const own = but.join(' ')
  return useMemo(() => {
    if (!found || found.first !== first || found.last !== last) return undefined
    const rows = own === '' ? found.rows : found.rows.filter((row) => !own.split(' ').includes(row.id))
    const parts = { practice, intentions, sessions, calendars, heldOut }
    return takenOf(parts, rows, now, first, last)
  }, [found, first, last, own, practice, intentions, sessions, calendars, heldOut, now])
}
