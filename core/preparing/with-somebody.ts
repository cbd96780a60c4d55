import type { Booking } from '../booking/index.ts'
import { accountOf } from '../ledger/ledger.ts'
import type { Minor } from '../money/index.ts'
import type { Instant } from '../time/index.ts'
import type { Course } from './course.ts'
import { owingOf, paidFor } from './path.ts'

/** Something that is open with somebody: below nothing, it is to be given back. */
export interface OpenWith {
  of: 'booking' | 'path'
  id: string
  /** When the session is, or the next part of a path's price is due. */
  at: Instant
  open: Minor
  currency: string
}

/** How money stands with somebody: what has come in all, less what was given back, by currency; and what is open, in order of its dates. */
export interface MoneyWith {
  come: Map<string, Minor>
  open: OpenWith[]
}

/** How money stands with somebody, from all of their bookings and paths. */
export function moneyWith(bookings: readonly Booking[], courses: readonly Course[], now: Instant): MoneyWith {
  const come = new Map<string, Minor>()
  const note = (currency: string, amount: Minor): void => {
    if (amount !== 0) come.set(currency, (come.get(currency) ?? 0) + amount)
  }
  const open: OpenWith[] = []
  for (const booking of bookings) {
    const { currency, paid, givenBack, open: left } = accountOf(booking)
    note(currency, paid - givenBack)
    if (left !== 0) open.push({ of: 'booking', id: booking.id, at: booking.start, open: left, currency })
  }
  for (const course of courses) {
    const { path } = course.given
    if (!path) continue
    const { currency } = path
    note(currency, paidFor(course))
    const owing = owingOf(course, now)
    if (owing) open.push({ of: 'path', id: course.id, at: owing.next.due, open: owing.open, currency })
  }
  return { come, open: open.sort((a, b) => a.at - b.at) }
}
