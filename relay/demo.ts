import { replay } from '@acolhida/core/booking'
import type { DoorPackage } from '@acolhida/core/door'
import type { Backup } from '@acolhida/core/formats'
import { knownPeople } from '@acolhida/core/people'
import { chainHead } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import type { Store } from './store/store.ts'

/** Puts the demo practice into an empty relay, as if its desk had published it and its clients had come. */
export function furnish(store: Store, backup: Backup, now: Instant): void {
  const { practice, people, salt, revision, sessions } = backup
  const bookings = backup.bookings.map(({ id, events }) => replay(id, events))
  const pack: DoorPackage = {
    revision,
    practice,
    sessions,
    people: knownPeople(people, bookings, salt, now),
    salt,
  }
  store.act(() => {
    store.savePackage(pack)
    const happened = backup.bookings
      .flatMap(({ id, events }) => events.map((event) => ({ id, event })))
      .sort((a, b) => a.event.at - b.event.at)
    let head = ''
    for (const { id, event } of happened) {
      store.appendEvent(id, event)
    }
    for (const { events } of backup.bookings) {
      for (const event of events) {
        if (event.type === 'asked')
          head = event.agreements.reduce((_, agreement) => chainHead(agreement), head)
      }
    }
    store.set('chain-head', head)
    for (const { state: _, ...enquiry } of backup.enquiries) store.appendEnquiry(enquiry)
  })
}
