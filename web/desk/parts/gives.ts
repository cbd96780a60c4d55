import { type Booking, givesForCancelling, hasBegun } from '@acolhida/core/booking'
import { money, shareOf } from '@acolhida/core/money'
import { type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import type { Instant } from '@acolhida/core/time'
import { currencyOf } from './words.ts'

/** What one's own side of the rules gives a client, before it is done; nothing where it gives nothing. */
export const givesWords = ({ asked, price }: Booking, gives: number, unless = ''): string =>
  gives > 0 && price > 0
    ? ` By your own side of the rules, ${asked.person.name} gets ${money(shareOf(price, gives), currencyOf(asked.currency))} for it${unless}.`
    : ''

/** What it gives where a time is given up now; of a request none is. */
export const givesNow = (practice: Practice, booking: Booking, now: Instant): number =>
  booking.status === 'booked' && !hasBegun(booking, now)
    ? givesForCancelling(booking, zoneOf(practice, placeOf(practice, booking.place)), now)
    : 0

/** As `givesWords`, where other times are offered. */
export const givesUnlessTaken = (practice: Practice, booking: Booking, now: Instant): string =>
  givesWords(booking, givesNow(practice, booking, now), ', unless they take one of these')
