import type { Asked, Booking, BookingEvent } from './record.ts'

/** The booking that an `asked` event begins. */
export const begin = (id: string, asked: Asked): Booking => ({
  id,
  status: 'requested',
  seq: 1,
  asked,
  start: asked.start,
  place: asked.place,
  until: asked.until,
  offers: [],
  mailProved: false,
  text: '',
  share: 0,
  sequence: 0,
})

function settled(booking: Booking): Booking {
  const { unsettled: _, ...rest } = booking
  return rest
}

/** The booking after one more event of its record. @throws Error when a record begins anew. */
export function apply(booking: Booking, event: BookingEvent): Booking {
  const seq = booking.seq + 1
  const before = settled(booking)
  const decision = (settles: Booking['until']): Pick<Booking, 'unsettled'> => ({
    unsettled: { seq, until: settles, before },
  })
  switch (event.type) {
    case 'asked':
      throw new Error(`Booking ${booking.id}: a record can be asked once only.`)
    case 'proved': {
      const proved = { ...booking, seq, mailProved: true }
      // Taking a decision back must not forget that the address was proved meanwhile.
      if (proved.unsettled) {
        proved.unsettled = { ...proved.unsettled, before: { ...proved.unsettled.before, mailProved: true } }
      }
      return proved
    }
    case 'welcomed':
      return { ...before, seq, status: 'booked', sequence: before.sequence, ...decision(event.settles) }
    case 'declined':
      return { ...before, seq, status: 'declined', text: event.text, ...decision(event.settles) }
    case 'offered':
      return {
        ...before,
        seq,
        offers: event.starts,
        until: event.until,
        text: event.text,
        ...decision(event.settles),
      }
    case 'accepted':
      return { ...before, seq, status: 'booked', start: event.start, place: event.place, offers: [] }
    case 'moved':
      return {
        ...before,
        seq,
        start: event.start,
        place: event.place,
        text: event.text,
        asked: { ...before.asked, minutes: event.minutes, service: event.service ?? before.asked.service },
        sequence: before.sequence + 1,
        ...decision(event.settles),
      }
    case 'refused':
      return { ...before, seq, status: 'withdrawn', text: event.text, offers: [] }
    case 'lapsed':
      return { ...before, seq, status: 'lapsed', offers: [] }
    case 'withdrawn':
      return { ...before, seq, status: 'withdrawn', offers: [] }
    case 'cancelled':
      return {
        ...before,
        seq,
        status: 'cancelled',
        cancelledBy: event.by,
        share: event.share,
        text: event.text,
        sequence: before.sequence + 1,
      }
    case 'overruled': {
      const { at, outcome, text } = event
      const overruled = { ...booking, seq, overruled: { at, outcome, text } }
      // As with a proved address: taking a decision back does not take this back.
      if (overruled.unsettled) {
        const { unsettled } = overruled
        overruled.unsettled = {
          ...unsettled,
          before: { ...unsettled.before, overruled: overruled.overruled },
        }
      }
      return overruled
    }
    case 'taken-back':
      if (!booking.unsettled) throw new Error(`Booking ${booking.id}: nothing to take back at ${seq}.`)
      return { ...booking.unsettled.before, seq }
  }
}

/** Replays a record. @throws Error when it is empty or does not begin with `asked`. */
export function replay(id: string, record: readonly BookingEvent[]): Booking {
  const [first, ...rest] = record
  if (first?.type !== 'asked') throw new Error(`Booking ${id}: a record begins with asking.`)
  return rest.reduce(apply, begin(id, first))
}
