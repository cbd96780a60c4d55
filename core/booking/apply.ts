import { eventKind } from './events.ts'
import type { BookingEvent, StoredEvent } from './happening.ts'
import type { Asked, Booking } from './record.ts'
import { upcast } from './upcast.ts'

/** The booking that an `asked` event begins. */
export const begin = (id: string, asked: Asked): Booking => ({
  id,
  status: 'requested',
  seq: 1,
  latest: asked.at,
  asked,
  service: asked.service,
  start: asked.start,
  place: asked.place,
  minutes: asked.minutes,
  price: asked.reading.quote.price,
  deposit: asked.reading.quote.deposit,
  until: asked.until,
  offers: [],
  mailProved: asked.proof === 'link' || asked.proof === 'quote',
  unproved: asked.proof === 'open',
  marks: [],
  text: '',
  share: 0,
  sequence: 0,
  tells: { seq: 1, step: 'asked', due: asked.at },
  awaited: { seq: 1, at: asked.at },
  placed: 1,
})

/** The booking after one more event of its record. @throws Error when a record begins anew. */
export function apply(booking: Booking, event: BookingEvent): Booking {
  const { decided: _, ...after } = applied(booking, event)
  const decided = booking.status === 'requested' ? event.at : (booking.decided ?? event.at)
  return { ...after, latest: event.at, ...(after.status === 'requested' ? {} : { decided }) }
}

function applied(booking: Booking, event: BookingEvent): Booking {
  if (event.type === 'asked') throw new Error(`Booking ${booking.id}: a record can be asked once only.`)
  const { unsettled: _, ...before } = booking
  return eventKind(event).apply(event, {
    ...{ booking, before, seq: booking.seq + 1 },
    at: event.at,
    what: event.type,
  })
}

/**
 * Replays a record of any version.
 * @throws Error when it is empty or does not begin with `asked`; NewerRecord
 */
export function replay(id: string, record: readonly StoredEvent[]): Booking {
  const [first, ...rest] = record.map(upcast)
  if (first?.type !== 'asked') throw new Error(`Booking ${id}: a record begins with asking.`)
  return rest.reduce(apply, begin(id, first))
}
