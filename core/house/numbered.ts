import type { Change } from './changes.ts'
import { type House, published } from './house.ts'

/** The running number that an invoice would have, and as it stands on it. */
export function nextInvoice(house: House): { n: number; number: string } {
  const { prefix = '', first = 1 } = published(house).practice.invoicing ?? {}
  const n = Math.max(house.numbered + 1, first)
  return { n, number: `${prefix}${n}` }
}

/** That numbers were given, where what has happened has given any: the next one goes on after the highest. */
export function numbersGiven(house: House, changes: readonly Change[], known = 0): Change[] {
  const given = changes.flatMap((change) =>
    (change.type === 'event' || change.type === 'course') && change.event.type === 'invoiced'
      ? [change.event.n]
      : [],
  )
  const n = given.reduce((a, b) => Math.max(a, b), known)
  return n > house.numbered ? [{ type: 'numbered', n }] : []
}
