import { type Minor, shareOf } from '../money/rounding.ts'
import type { PaymentLine } from '../practice/types.ts'
import {
  after,
  before,
  type Duration,
  type Instant,
  instant,
  MINUTE,
  shift,
  type Zone,
} from '../time/index.ts'
import type { Booking, PayWay } from './record.ts'
import type { StateName } from './state.ts'

/** What must be paid before it is booked, and how long the time waits for it after the word. */
export interface First {
  amount: Minor
  within: Duration
}

/** A part of a price, and when it is to be paid; `first`: before it is booked. */
export interface PriceShare {
  amount: Minor
  due: PaymentLine['due'] | { kind: 'deposit' }
  first: boolean
}

/** What a price is made of when it comes to paying it. */
export interface Payable {
  price: Minor
  /** What rules ask of it beforehand. */
  deposit: Minor
  lines: readonly PaymentLine[]
  /** Whether anything can be paid before it is booked; and whether all of it must be. */
  ahead: boolean
  whole?: boolean
}

/**
 * The parts in which a price is paid. A deposit that rules ask comes first, and belongs to the price. Shares are of the
 * whole price and round half away from zero; no line takes more than is left, and what no line names is paid on the day.
 * What comes to nothing is left out.
 */
export function sharesOf({ price, deposit, lines, ahead, whole = false }: Payable): PriceShare[] {
  const shares: PriceShare[] = []
  let left = price
  const put = (wanted: Minor, due: PriceShare['due'], first: boolean): void => {
    const amount = Math.max(0, Math.min(wanted, left))
    left -= amount
    if (amount > 0) shares.push({ amount, due, first: ahead && first })
  }
  if (ahead && whole) put(price, { kind: 'word' }, true)
  put(deposit, { kind: 'deposit' }, true)
  for (const { much, due, first = false } of lines) {
    const wanted =
      much.kind === 'sum' ? much.amount : much.kind === 'share' ? shareOf(price, much.percent) : left
    put(wanted, due, first)
  }
  put(left, { kind: 'on-the-day' }, false)
  return shares
}

/** How much must be paid before it is booked. */
export const firstOf = (of: Payable): Minor =>
  sharesOf(of).reduce((sum, { amount, first }) => (first ? sum + amount : sum), 0)

/** One payment of a booking: how much, and when it is to be made; `first`: it is not booked before. */
export interface PlannedPayment {
  amount: Minor
  due: Instant
  kind: PriceShare['due']['kind']
  first?: true
}

const payable = ({ price, deposit, asked, marks }: Booking): Payable => ({
  ...{ price, deposit, lines: asked.payment ?? [] },
  ahead: asked.first !== undefined,
  whole: marks.includes('pay-first'),
})

/**
 * How the price of a booking is to be paid, by the lines of the day one asked, in order of time. What would have been
 * due before the word was given is due then; for what must come first there is the time that was said, to the start at
 * the most.
 * @param zone of the place, in which days count
 * @param given the moment of the word, where it is given only now
 */
export function planOf(booking: Booking, zone: Zone, given?: Instant): PlannedPayment[] {
  const { asked, start, minutes, worded, owes } = booking
  const word = given ?? worded ?? owes?.given ?? asked.at
  const end = shift(start, minutes * MINUTE)
  const momentOf = (due: PriceShare['due']): Instant => {
    if (due.kind === 'asking') return asked.at
    if (due.kind === 'before') return before(start, due.by, zone)
    if (due.kind === 'after') return after(end, due.by, zone)
    return due.kind === 'on-the-day' ? start : word
  }
  const inTime = (within: Duration): number => Math.min(after(word, within, zone), start)
  return sharesOf(payable(booking))
    .map(({ amount, due, first }): PlannedPayment => {
      const at = Math.max(momentOf(due), due.kind === 'asking' ? asked.at : word)
      return first
        ? { amount, due: instant(Math.max(at, inTime(asked.first!))), kind: due.kind, first }
        : { amount, due: instant(at), kind: due.kind }
    })
    .sort((a, b) => a.due - b.due)
}

/** What has come of a booking, less what was given back. */
export const paidOf = ({ payments = [] }: Pick<Booking, 'payments'>): Minor =>
  payments.reduce((sum, { amount }) => sum + amount, 0)

/** What must still come before it is booked: how much by when, the earliest first; nothing where that is paid. */
export function stillFirst(
  booking: Booking,
  zone: Zone,
  given?: Instant,
): { amount: Minor; until: Instant } | undefined {
  let open = -paidOf(booking)
  for (const { amount, due, first } of planOf(booking, zone, given)) {
    if (first) open += amount
    if (first && open > 0) return { amount: open, until: due }
  }
  return undefined
}

/** What the word, given at a moment, still waits for: until when what must be paid first is waited for. */
export function owedFirst(booking: Booking, zone: Zone, given: Instant): { owes?: Instant } {
  const still = stillFirst(booking, zone, given)
  return still && still.until > given ? { owes: still.until } : {}
}

/** What money that comes makes of a booking that waits for it: it is booked, or the rest is waited for. */
export function bookedBy(
  booking: Booking,
  { amount, way }: { amount: number; way: PayWay },
  is: StateName,
  zone: Zone,
): { books?: true; owes?: Instant } {
  if (is !== 'unpaid') return {}
  const { payments = [], latest } = booking
  const still = stillFirst({ ...booking, payments: [...payments, { at: latest, amount, way }] }, zone)
  return still ? { owes: still.until } : { books: true }
}

/** What must be paid in all before it is booked. */
export const mustFirst = (booking: Booking): Minor => firstOf(payable(booking))

/** What was asked for on asking, before the word, and has not come. */
export function openOnAsking(booking: Booking): Minor {
  const asked = sharesOf(payable(booking)).reduce(
    (sum, { amount, due }) => (due.kind === 'asking' ? sum + amount : sum),
    0,
  )
  return Math.max(0, asked - paidOf(booking))
}
