import { type Booking, countedIn, holdsFor } from '@acolhida/core/booking'
import { accountOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { dateAt, type Instant, longDate } from '@acolhida/core/time'
import type { PersonRow } from '../data/rows.ts'
import { leadsToWords } from '../settings/counting.ts'
import { counted, currencyOf, homeZone } from './words.ts'

/** What would follow if a session were said to be missed: what is owed, what it counts, and what that leads to. */
export function ifMissedWords(
  practice: Practice,
  booking: Booking,
  person: Pick<PersonRow, 'counted' | 'exempt'> | undefined,
  now: Instant,
): string {
  const { forgiven: _, ...rest } = booking
  const missed: Booking = { ...rest, status: 'missed' }
  const { owed } = accountOf(missed)
  const counts = person?.exempt ? undefined : countedIn(missed)
  const where = homeZone(practice)
  const leads = practice.houseRules.counting?.leads ?? []
  const before = person?.counted ?? []
  const held = holdsFor(leads, before, now, where)
  const after = counts
    ? holdsFor(leads, [...before.filter((one) => one.booking !== booking.id), counts], now, where)
    : held
  const news = after.filter(({ lead, until }) => !held.some((one) => one.lead === lead && one.until >= until))
  return [
    booking.price > 0 ? `${money(owed, currencyOf(booking.asked.currency))} would be due.` : '',
    counts ? `It counts ${counted(counts.points, 'point', 'points')}.` : '',
    ...news.map(({ lead, until }) => `${leadsToWords(lead.to)} until ${longDate(dateAt(where, until))}.`),
  ]
    .filter(Boolean)
    .join(' ')
}
