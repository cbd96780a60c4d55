import {
  apply,
  type Booking,
  type BookingEvent,
  begin,
  type Command,
  type Decision,
  decide,
} from '../booking/index.ts'
import { HOUR, type Instant, shift, zone } from '../time/index.ts'
import { sampleAsked } from './asked.ts'

/** A request to decide on, and short ways to do so: for tests. */
export const lisbon = zone('Europe/Lisbon')
export const asked = sampleAsked()
export const now = shift(asked.at, HOUR)
export const about = (at: Instant, closures: 'overlap'[] = []) => ({
  now: at,
  zone: lisbon,
  ticks: true,
  closuresOf: () =>
    closures.map(() => ({ rule: 'full' as const, service: 's', because: 'no-seat' as const })),
  closedToClient: () =>
    closures.map(() => ({ rule: 'full' as const, service: 's', because: 'no-seat' as const })),
  heldFromNow: () => shift(at, 20 * HOUR),
  offersUntil: () => shift(at, 20 * HOUR),
  invoice: () => ({ lines: [{ name: 'A session', quantity: 1, amount: 9_500 }], total: 9_500 }),
  nextInvoice: () => ({ n: 7, number: 'A-7' }),
  proving: () => ({ until: shift(at, 24 * HOUR), straight: false, marks: [] }),
})
export const events = (decision: Decision): BookingEvent[] => {
  if ('refused' in decision) throw new Error(decision.refused.message)
  return decision.events
}
export const step = (booking: Booking, command: Command, at: Instant): Booking =>
  events(decide(booking, command, about(at))).reduce(apply, booking)
export const refusal = (booking: Booking, command: Command, at: Instant): string => {
  const decision = decide(booking, command, about(at))
  return 'refused' in decision ? decision.refused.code : 'done'
}
export const fresh = begin('b', asked)
