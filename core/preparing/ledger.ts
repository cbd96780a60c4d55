import type { LedgerLine } from '../ledger/ledger.ts'
import type { Course } from './course.ts'
import { pathPays } from './path.ts'

/**
 * The ledger of a path, from its record alone: its parts at their dates, as long as it was not ended, and what has come
 * and gone.
 */
export function ledgerOfPath(course: Course): LedgerLine[] {
  const { id, payments = [], ended } = course
  const parts = pathPays(course).filter(({ due }) => ended === undefined || due <= ended)
  const lines: LedgerLine[] = [
    ...parts.map(({ due, amount }) => ({ at: due, booking: id, what: 'price' as const, amount })),
    ...payments.map(({ at, amount, way, text }) => ({
      ...{
        at,
        booking: id,
        what: amount < 0 ? ('given-back' as const) : ('paid' as const),
        amount: -amount,
        way,
      },
      ...(text ? { text } : {}),
    })),
  ]
  return lines.sort((a, b) => a.at - b.at)
}
