import { apply, type Booking, begin, upcast } from '@acolhida/core/booking'
import type { Backup } from '@acolhida/core/formats'
import { assumeSent, type Change, type Doorkeeper, rowOf, settledBy, type Work } from '@acolhida/core/house'
import { knownPeople } from '@acolhida/core/people'
import { chainHead } from '@acolhida/core/terms'
import { type Instant, instant } from '@acolhida/core/time'
import { agreementsOf } from '@acolhida/core/waiting'
import type { SqliteStore } from './store/sqlite-store.ts'

/** The demo practice of a relay: put into it while it is empty, and lent to a desk. */
export class Demo {
  readonly id: string
  readonly #made: (at: Instant) => Backup
  readonly #keeper: Doorkeeper
  readonly #store: SqliteStore
  readonly #now: () => Instant
  #last: { at: Instant; backup: Backup } | undefined

  constructor(made: (at: Instant) => Backup, keeper: Doorkeeper, store: SqliteStore, now: () => Instant) {
    this.#made = made
    this.#keeper = keeper
    this.#store = store
    this.#now = now
    this.id = this.#at(now()).practice.id
    // Whoever has paired a desk has begun something of their own.
    if (!keeper.house.pack && store.setting('desk-key') === undefined) this.furnish()
  }

  /** As it is at a moment; made once, for it is looked at more than once. */
  #at(at: Instant): Backup {
    if (this.#last?.at !== at) this.#last = { at, backup: this.#made(at) }
    return this.#last.backup
  }

  /** The practice with what had happened in it when it was put into the relay. */
  backup(): Backup {
    const at = this.#store.setting('furnished-at')
    return this.#at(at === undefined ? this.#now() : instant(Number(at)))
  }

  /** Begins it in a relay that is empty. */
  furnish(): void {
    const now = this.#now()
    this.#store.set('furnished-at', String(now))
    furnish(this.#keeper, this.#at(now), now)
  }
}

/** Puts the demo practice into an empty relay, as if its desk had published it and its clients had come. */
export function furnish(keeper: Doorkeeper, backup: Backup, now: Instant): void {
  const { practice, people, salt, revision, sessions } = backup
  const bookings = new Map<string, Booking>()
  const changes: Change[] = []
  const happened = backup.bookings
    .flatMap(({ id, events }) => events.map((event) => ({ id, event: upcast(event) })))
    .sort((a, b) => a.event.at - b.event.at)
  for (const { id, event } of happened) {
    const before = bookings.get(id)
    const booking = event.type === 'asked' ? begin(id, event) : before && apply(before, event)
    if (!booking) throw new Error(`The record of ${id} does not begin with asking.`)
    bookings.set(id, booking)
    const was = before ? { was: before.status } : {}
    changes.push({ type: 'event', booking: id, seq: booking.seq, event, row: rowOf(booking), ...was })
  }
  // What was decided then has settled long since.
  for (const booking of bookings.values()) changes.push(...settledBy(booking, now))
  const { lines = [], freed = [], courses = [] } = backup
  const agreed = agreementsOf(bookings.values(), lines, courses).map(({ agreement }) => agreement)
  const followed = new Set(agreed.map(({ previous }) => previous))
  const head = agreed.map(chainHead).find((print) => !followed.has(print)) ?? ''
  const known = knownPeople(people, [...bookings.values()], practice, salt, now)
  const put: Change[] = [
    { type: 'package', pack: { revision, practice, sessions, people: known, salt } },
    ...changes,
    { type: 'chain', head },
    ...lines.flatMap(({ id, events }) =>
      events.map((event, i): Change => ({ type: 'waiting', id, seq: i + 1, event })),
    ),
    ...freed.flatMap(({ id, events }) =>
      events.map((event, i): Change => ({ type: 'freed', id, seq: i + 1, event })),
    ),
    ...courses.flatMap(({ id, events }) =>
      events.map((event, i): Change => ({ type: 'course', id, seq: i + 1, event })),
    ),
    ...backup.enquiries.map(
      ({ state: _, history: __, ...enquiry }): Change => ({
        type: 'enquiry',
        id: enquiry.id,
        seq: 1,
        at: enquiry.at,
        body: enquiry,
      }),
    ),
  ]
  const about = { now, ids: () => '' }
  const putAll = (work: Work): void => {
    for (const change of put) work.changes.push(change)
  }
  keeper.act(putAll, {}, about)
  // What they were told then, they know.
  keeper.act(assumeSent, { but: [] }, about)
}
