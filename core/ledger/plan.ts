import type { Booking } from '../booking/index.ts'
import { type Minor, shareOf } from '../money/rounding.ts'
import type { PaymentLine } from '../practice/types.ts'
import { after, before, type Instant, instant, MINUTE, shift, type Zone } from '../time/index.ts'

/** One payment of a booking: how much, and when it is to be made. */
export interface PlannedPayment {
  amount: Minor
  due: Instant
  kind: PaymentLine['due']['kind'] | 'deposit'
}

/**
 * How the price of a booking is to be paid, by the lines of the day one asked, in order of time. A deposit that the
 * rules ask comes first, and belongs to the price. Shares are of the whole price and round half away from zero; no line
 * takes more than is left, and what no line names is paid on the day. What comes to nothing is left out.
 * @param zone of the place, in which days count
 */
export function planOf(booking: Booking, zone: Zone): PlannedPayment[] {
  const { price, deposit, asked, start, minutes, worded } = booking
  const given = worded ?? asked.at
  const planned: PlannedPayment[] = []
  let left = price
  const put = (wanted: Minor, due: Instant, kind: PlannedPayment['kind']): void => {
    const amount = Math.max(0, Math.min(wanted, left))
    left -= amount
    if (amount > 0) planned.push({ amount, due, kind })
  }
  put(deposit, given, 'deposit')
  const end = shift(start, minutes * MINUTE)
  for (const { much, due } of asked.payment ?? []) {
    const wanted =
      much.kind === 'sum' ? much.amount : much.kind === 'share' ? shareOf(price, much.percent) : left
    const at =
      due.kind === 'word'
        ? given
        : due.kind === 'before'
          ? before(start, due.by, zone)
          : due.kind === 'after'
            ? after(end, due.by, zone)
            : start
    // What would have been due before it was booked is due then.
    put(wanted, instant(Math.max(at, given)), due.kind)
  }
  put(left, start, 'on-the-day')
  return planned.sort((a, b) => a.due - b.due)
}
