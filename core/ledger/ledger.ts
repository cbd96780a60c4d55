import { type Booking, givenIn, paidOf } from '../booking/index.ts'
import { type Minor, roundMoney, shareOf } from '../money/rounding.ts'
import type { Instant } from '../time/index.ts'

/** One line of the ledger: what is owed counts up, what is paid down, what is given back up again. */
export interface LedgerLine {
  at: Instant
  booking: string
  what: 'price' | 'share' | 'mine' | 'adjusted' | 'paid' | 'given-back'
  amount: Minor
  /** By which way, and what was noted with it. */
  way?: string
  text?: string
}

/** How one booking stands. It always adds up: open = owed − paid + given back. */
export interface Account {
  currency: string
  lines: LedgerLine[]
  owed: Minor
  paid: Minor
  givenBack: Minor
  /** What is still to be paid; below nothing, what is to be given back. */
  open: Minor
}

/** The share of its price, in percent, that a session missed costs: what cancelling would have cost in the end. */
const shareMissed = ({ asked, leastShare = 0 }: Booking): number =>
  Math.max(asked.houseRules.cancelAfter, leastShare)

/**
 * What follows from how a booking stands: its price once booked, the share that cancelling or missing cost, and what
 * the practitioner has promised for their own cancelling or being late.
 */
function owedFor(booking: Booking): LedgerLine[] {
  const { id, asked, status, price, share, start, worded, latest, ended } = booking
  const line = (what: 'price' | 'share' | 'mine', amount: Minor, at: Instant): LedgerLine[] =>
    amount === 0 ? [] : [{ at, booking: id, what, amount }]
  const given = givenIn(booking)
  const ofPath = asked.path !== undefined
  const mine = line('mine', -shareOf(price, given.share) || 0, given.at)
  // What takes place of a path is paid with that; missed or given up at its whole price, it is used up.
  const part = (much: number): number => (ofPath && much >= 100 ? 0 : shareOf(price, much))
  if (ofPath && (status === 'requested' || status === 'booked' || status === 'attended')) return mine
  switch (status) {
    case 'requested':
      // What is paid for a time that is held is for that time; if it comes to nothing, it is given back.
      return booking.owes || paidOf(booking) > 0 ? line('price', price, booking.owes?.given ?? latest) : mine
    case 'booked':
    case 'attended':
      return [...line('price', price, worded ?? latest), ...mine]
    case 'missed':
      return line('share', part(shareMissed(booking)), start)
    case 'cancelled':
      return [...line('share', part(share), ended ?? latest), ...mine]
    default:
      return mine
  }
}

/** What is changed of what is owed for a session that lasted longer or shorter than planned, in words. */
export const lengthWords = ({ lasted = 0, minutes }: Booking): string =>
  `It lasted ${lasted} minutes instead of ${minutes}`

/**
 * What a session that lasted longer or shorter than planned costs more or less, at the agreed rate: its price by the
 * minute, rounded half away from zero. Nothing where that is noted already, or it lasted as long as planned.
 */
export function forLength(booking: Booking): Minor {
  const { status, lasted, minutes, price, adjusted = [] } = booking
  if (status !== 'attended' || lasted === undefined || lasted === minutes || minutes <= 0) return 0
  if (adjusted.some(({ text }) => text === lengthWords(booking))) return 0
  return roundMoney((price * lasted) / minutes) - price
}

/** The ledger of one booking, from its record alone. */
export function accountOf(booking: Booking): Account {
  const { id, asked, payments = [], adjusted = [] } = booking
  const lines: LedgerLine[] = [
    ...owedFor(booking),
    ...adjusted.map(({ at, amount, text }) => ({ at, booking: id, what: 'adjusted' as const, amount, text })),
    ...payments.map(({ at, amount, way, text }) => ({
      at,
      booking: id,
      what: amount < 0 ? ('given-back' as const) : ('paid' as const),
      amount: -amount,
      way,
      ...(text ? { text } : {}),
    })),
  ]
  const sum = (what: readonly LedgerLine['what'][]): Minor =>
    lines.reduce((total, line) => (what.includes(line.what) ? total + line.amount : total), 0)
  const owed = sum(['price', 'share', 'mine', 'adjusted'])
  const paid = -sum(['paid']) || 0
  const givenBack = sum(['given-back'])
  return {
    currency: asked.currency,
    lines: lines.sort((a, b) => a.at - b.at),
    owed,
    paid,
    givenBack,
    open: owed - paid + givenBack,
  }
}
