import { type Instant, shift } from '../time/index.ts'
import type { Asked, Booking, BookingEvent, StoredEvent, Telling, TellingStep } from './record.ts'
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

function settled(booking: Booking): Booking {
  const { unsettled: _, ...rest } = booking
  return rest
}

/** Also what a decision would be taken back to is changed: taking it back must not forget what came meanwhile. */
function alsoBefore(booking: Booking, change: Partial<Booking>): Booking {
  const { unsettled } = booking
  const next = { ...booking, ...change }
  return unsettled
    ? { ...next, unsettled: { ...unsettled, before: { ...unsettled.before, ...change } } }
    : next
}

/** The booking after one more event of its record. @throws Error when a record begins anew. */
export const apply = (booking: Booking, event: BookingEvent): Booking => ({
  ...applied(booking, event),
  latest: event.at,
})

function applied(booking: Booking, event: BookingEvent): Booking {
  const seq = booking.seq + 1
  const before = settled(booking)
  // A decision that was never open to being taken back leaves nothing to wait for.
  const decision = (settles: Booking['until']): Pick<Booking, 'unsettled'> =>
    settles > event.at ? { unsettled: { seq, until: settles, before } } : {}
  /** What this tells the client, once it can't be taken back any more: an inclusive end is over a moment later. */
  const telling = (step: TellingStep, settles: Instant = event.at): { tells: Telling } => ({
    tells: { seq, step, due: settles > event.at ? shift(settles, 1) : event.at },
  })
  /** An end without a word: nobody has shown yet that the address is theirs. */
  const ended = (step: TellingStep, offered = false): Pick<Booking, 'tells'> => {
    if (booking.unproved) return {}
    const { tells } = telling(step)
    return { tells: offered ? { ...tells, offered } : tells }
  }
  const untold = ({ tells: _, ...rest }: Booking): Booking => rest
  switch (event.type) {
    case 'asked':
      throw new Error(`Booking ${booking.id}: a record can be asked once only.`)
    case 'proved': {
      const { until, marks } = event
      const held = booking.unproved && until !== undefined ? { unproved: false, until } : {}
      const awaited = booking.unproved ? { awaited: { seq, at: event.at } } : {}
      const change = { mailProved: true, ...held, ...awaited, ...(marks ? { marks } : {}) }
      return { ...alsoBefore(booking, change), seq }
    }
    case 'welcomed':
      return {
        ...before,
        seq,
        status: 'booked',
        ...telling('confirmation', event.settles),
        ...decision(event.settles),
      }
    case 'declined':
      return {
        ...before,
        seq,
        status: 'declined',
        text: event.text,
        ...telling('declined', event.settles),
        ...decision(event.settles),
      }
    case 'offered':
      return {
        ...before,
        seq,
        offers: event.starts,
        until: event.until,
        text: event.text,
        ...telling('offered', event.settles),
        ...decision(event.settles),
      }
    case 'accepted':
      return {
        ...before,
        seq,
        status: 'booked',
        start: event.start,
        place: event.place,
        offers: [],
        placed: seq,
        ...telling('confirmation'),
      }
    case 'moved':
      return {
        ...before,
        seq,
        service: event.service ?? before.service,
        start: event.start,
        place: event.place,
        minutes: event.minutes,
        text: event.text,
        sequence: before.sequence + 1,
        placed: seq,
        ...telling('moved', event.settles),
        ...decision(event.settles),
      }
    case 'refused':
      return {
        ...before,
        seq,
        status: 'withdrawn',
        text: event.text,
        offers: [],
        ...telling('withdrawn'),
      }
    case 'lapsed':
      return {
        ...untold(before),
        seq,
        status: 'lapsed',
        offers: [],
        ...ended('lapsed', before.offers.length > 0),
      }
    case 'withdrawn':
      return { ...untold(before), seq, status: 'withdrawn', offers: [], ...ended('withdrawn') }
    case 'cancelled':
      return {
        ...before,
        seq,
        status: 'cancelled',
        cancelledBy: event.by,
        share: event.share,
        text: event.text,
        sequence: before.sequence + 1,
        ...telling('cancelled', event.settles),
        ...decision(event.settles),
      }
    case 'overruled': {
      const { at, outcome, text } = event
      return { ...alsoBefore(booking, { overruled: { at, outcome, text } }), seq }
    }
    case 'taken-back':
      if (!booking.unsettled) throw new Error(`Booking ${booking.id}: nothing to take back at ${seq}.`)
      return { ...booking.unsettled.before, seq }
  }
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
