import { type Booking, stateAt } from '@acolhida/core/booking'
import type { Instant } from '@acolhida/core/time'

/** How somebody's bookings went, counted: "12 attended, 1 missed, 2 cancelled by them". */
export function wentWords(bookings: readonly Booking[], now: Instant): string {
  const states = bookings.map((booking) => stateAt(booking, now))
  const many = (n: number, what: string): string[] => (n > 0 ? [`${n} ${what}`] : [])
  return [
    ...many(states.filter(({ is }) => is === 'attended').length, 'attended'),
    ...many(states.filter(({ is }) => is === 'missed').length, 'missed'),
    ...many(
      states.filter((state) => state.is === 'cancelled' && state.by === 'client').length,
      'cancelled by them',
    ),
  ].join(', ')
}
