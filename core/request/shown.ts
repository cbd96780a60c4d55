import { type Booking, type Deadlines, deadlinesOf, type First, firstOf } from '../booking/index.ts'
import {
  linesFor,
  type Practice,
  payTimeOf,
  placeOf,
  rulesFor,
  type Standing,
  serviceOf,
  zoneOf,
} from '../practice/index.ts'
import type { Quote, QuoteLine } from '../questions/index.ts'
import { fingerprint } from '../terms/index.ts'
import type { Instant } from '../time/index.ts'

/** What somebody reads before they say yes: what, how long, for how much, and what happens when. */
export interface Shown {
  service: string
  minutes: number
  lines: readonly QuoteLine[]
  price: number
  deposit: number
  currency: string
  /** With a start chosen: when and where, and the rules as dates. */
  at?: { start: Instant; place: string; first?: First } & Pick<Deadlines, 'deadlines' | 'shareAfter' | 'mine'>
}

/**
 * The fingerprint of what was shown. It is handed back with every yes; where it no longer holds, nothing is done and
 * the new lines are shown. Nobody is booked at a price, length or rule they have not seen.
 */
export const printOfShown = (shown: Shown): string => fingerprint(shown)

/** What is shown of a quote, and with a start the rules in force as dates. */
export function shownOf(
  practice: Practice,
  service: string,
  { minutes, lines: told, price, deposit }: Quote,
  at?: { start: Instant; place: string; as: Standing },
): Shown {
  const shown: Shown = {
    service,
    minutes,
    lines: told,
    price,
    deposit,
    currency: practice.profile.currency,
  }
  if (!at) return shown
  const found = serviceOf(practice, service)
  const within = payTimeOf(practice)
  const lines = found ? linesFor(found, at.as) : []
  const amount = firstOf({ price, deposit, lines, ahead: within !== undefined })
  const { deadlines, shareAfter, mine } = deadlinesOf(
    rulesFor(practice, found),
    at.start,
    zoneOf(practice, placeOf(practice, at.place)),
  )
  return {
    ...shown,
    at: {
      ...{ start: at.start, place: at.place, deadlines, shareAfter },
      ...(mine ? { mine } : {}),
      ...(within && amount > 0 ? { first: { amount, within } } : {}),
    },
  }
}

/**
 * The fingerprint of what is in force of a booking: what a decision at the desk, or an act through a private link, is
 * made on.
 * @param costs the share due when cancelled now, where that is shown with it
 */
export const printOfBooking = (booking: Booking, costs?: number): string =>
  fingerprint({
    service: booking.service,
    place: booking.place,
    start: booking.start,
    minutes: booking.minutes,
    price: booking.price,
    deposit: booking.deposit,
    status: booking.status,
    offers: booking.offers,
    ...(costs === undefined ? {} : { costs }),
  })
