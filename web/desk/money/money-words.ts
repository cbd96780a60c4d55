import type { PayWay, PlannedPayment } from '@acolhida/core/booking'
import type { LedgerLine } from '@acolhida/core/ledger'
import { PAID_BY } from '../request/happened-words.ts'

/** A line of the ledger in words. */
export function lineWords({ what, way, text }: LedgerLine): string {
  const said = text ? `: ${text}` : ''
  switch (what) {
    case 'price':
      return 'The price'
    case 'share':
      return 'What the rules ask for it'
    case 'mine':
      return 'By your own side of the rules'
    case 'adjusted':
      return `Changed${said}`
    case 'paid':
      return `Paid ${PAID_BY[(way ?? 'other') as PayWay]}`.trim() + said
    case 'given-back':
      return `Given back${said}`
  }
}

/** When a planned payment is to be made, and why then. */
export const PLANNED: Record<PlannedPayment['kind'], string> = {
  deposit: 'beforehand, by your rules',
  asking: 'on asking',
  word: 'once booked',
  before: 'before the session',
  'on-the-day': 'on the day',
  after: 'after the session',
}

/** The ways, as they are chosen. */
export const WAY_OPTIONS: readonly { value: PayWay; name: string }[] = [
  { value: 'cash', name: 'In cash' },
  { value: 'card', name: 'By card, there' },
  { value: 'transfer', name: 'By transfer' },
  { value: 'other', name: 'Otherwise' },
]
