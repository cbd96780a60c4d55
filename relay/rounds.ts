import { type Command, decide, isTold, judgedDates, toldFrom } from '@acolhida/core/booking'
import { placeLetter } from '@acolhida/core/messages'
import { placeOf } from '@acolhida/core/practice'
import { DAY, shift } from '@acolhida/core/time'
import type { Calendars } from './calendars/calendars.ts'
import type { Clock } from './clock.ts'
import { circumstances } from './door/circumstances.ts'
import { type DoorAddress, happen, post } from './happen.ts'
import type { Post } from './mail/post.ts'
import type { Store } from './store/store.ts'

/** Lets holds lapse whose time has run out. Each is an act of its own, stamped with the moment it was due. */
export function lapseDue(store: Store, clock: Clock, address: DoorAddress): void {
  const now = clock.now()
  if (!store.package) return
  const due = [...store.bookings()].filter((one) => one.status === 'requested' && one.until < now)
  for (const booking of due) {
    store.act(() => {
      const decision = decide(booking, { do: 'lapse' }, circumstances(store, booking, now))
      if ('events' in decision && decision.events.length > 0) {
        happen(store, store.package!.practice, address, booking.id, decision.events, now)
      }
    })
  }
}

/** Calls group dates off that have missed their least number of people. Each date is judged once. */
export function judgeDue(store: Store, clock: Clock, address: DoorAddress): void {
  const now = clock.now()
  const { practice } = store.package ?? {}
  if (!practice) return
  for (const { service, start, bookings, reached } of judgedDates(practice, store.bookings(), now)) {
    const name = `judged ${service.id} ${start}`
    if (store.done(name)) continue
    store.act(() => {
      // Remembered for as long as the date lies ahead, and a while longer.
      store.markDone(name, '', reached, start)
      if (reached) return
      const text = `${service.name} needs at least ${service.least?.people} people, and this date has fewer.`
      for (const booking of bookings) {
        const command: Command =
          booking.status === 'booked' ? { do: 'cancel', by: 'practitioner', text } : { do: 'decline', text }
        const decision = decide(booking, command, circumstances(store, booking, now))
        if ('events' in decision) happen(store, practice, address, booking.id, decision.events, now)
      }
    })
  }
}

/** Tells the place of sessions where that was left to the last reminder; once for each start and place. */
export function tellPlaces(store: Store, clock: Clock, address: DoorAddress): void {
  const now = clock.now()
  const { practice } = store.package ?? {}
  if (!practice?.places.some((one) => one.told === 'last-reminder')) return
  for (const booking of store.bookings()) {
    const place = placeOf(practice, booking.place)
    const due = booking.status === 'booked' && now >= toldFrom(booking.start) && now < booking.start
    if (!due || place?.told !== 'last-reminder' || !place.address || !isTold(place, booking, now)) continue
    const key = `place ${booking.id} ${booking.start} ${booking.place}`
    if (store.done(key)) continue
    store.act(() => {
      store.markDone(key, '', true, booking.start)
      post(store, practice, address, booking, booking.seq, placeLetter(practice, booking, now), now)
    })
  }
}

/** How long the relay remembers what is only needed for a while, in days. */
const SHORT_MEMORY = 30

/** What the relay does by itself: lapses, mail, forgetting. Comes round every second. */
export class Rounds {
  #timer: NodeJS.Timeout | undefined
  #turns = 0
  readonly #store: Store
  readonly #clock: Clock
  readonly #address: DoorAddress
  readonly #post: Post
  readonly #calendars: Calendars
  readonly #memory: number

  /** @param memory for how many days finished bookings are remembered */
  constructor(
    store: Store,
    clock: Clock,
    address: DoorAddress,
    post: Post,
    calendars: Calendars,
    memory: number,
  ) {
    this.#store = store
    this.#clock = clock
    this.#address = address
    this.#post = post
    this.#calendars = calendars
    this.#memory = memory
  }

  start(): void {
    this.#timer = setInterval(() => this.turn(), 1_000)
    this.#timer.unref()
    this.turn()
  }

  /** One round, at once: also after the clock has been moved. */
  turn(): void {
    try {
      lapseDue(this.#store, this.#clock, this.#address)
      judgeDue(this.#store, this.#clock, this.#address)
      tellPlaces(this.#store, this.#clock, this.#address)
      if (this.#turns++ % 3_600 === 0) {
        const now = this.#clock.now()
        this.#store.act(() => {
          this.#store.forget(shift(now, -SHORT_MEMORY * DAY))
          this.#store.files.forgetWaiting(shift(now, -DAY))
          this.#store.forgetRecord(shift(now, -this.#memory * DAY))
        })
      }
    } catch (error) {
      console.error('A round of the relay failed:', error)
    }
    this.#calendars.round().catch((error) => console.error('Reading calendars failed:', error))
    this.#post.round().catch((error) => console.error('Sending mail failed:', error))
  }

  stop(): void {
    clearInterval(this.#timer)
  }
}
