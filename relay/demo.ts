import { apply, type Booking, begin, upcast } from '@acolhida/core/booking'
import type { Backup } from '@acolhida/core/formats'
import { assumeSent, type Change, Doorkeeper, rowOf, type Store } from '@acolhida/core/house'
import { knownPeople } from '@acolhida/core/people'
import { chainHead } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'

/** Puts the demo practice into an empty relay, as if its desk had published it and its clients had come. */
export function furnish(store: Store, backup: Backup, now: Instant): void {
  const { practice, people, salt, revision, sessions } = backup
  const bookings = new Map<string, Booking>()
  const changes: Change[] = []
  let head = ''
  const happened = backup.bookings
    .flatMap(({ id, events }) => events.map((event) => ({ id, event: upcast(event) })))
    .sort((a, b) => a.event.at - b.event.at)
  for (const { events } of backup.bookings) {
    for (const event of events) {
      if (event.type === 'asked') head = event.agreements.reduce((_, agreement) => chainHead(agreement), head)
    }
  }
  for (const { id, event } of happened) {
    const before = bookings.get(id)
    const booking = event.type === 'asked' ? begin(id, event) : before && apply(before, event)
    if (!booking) throw new Error(`The record of ${id} does not begin with asking.`)
    bookings.set(id, booking)
    const was = before ? { was: before.status } : {}
    changes.push({ type: 'event', booking: id, seq: booking.seq, event, row: rowOf(booking), ...was })
  }
  const known = knownPeople(people, [...bookings.values()], salt, now)
  store.write([
    { type: 'package', pack: { revision, practice, sessions, people: known, salt } },
    ...changes,
    { type: 'chain', head },
    ...backup.enquiries.map(
      ({ state: _, history: __, ...enquiry }): Change => ({
        type: 'enquiry',
        id: enquiry.id,
        seq: 1,
        at: enquiry.at,
        body: enquiry,
      }),
    ),
  ])
  // What they were told then, they know.
  new Doorkeeper(store).act(assumeSent, { but: [] }, { now, ids: () => '' })
}
