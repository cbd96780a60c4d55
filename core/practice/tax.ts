import { dateAt, type Instant, zone } from '../time/index.ts'
import type { Practice } from './types.ts'

/** A tax as it counts at a moment: its rate in basis points, and whether it comes on top of the prices. */
export interface TaxNow {
  name: string
  rate: number
  onTop?: boolean
}

/** The tax in force at a moment: of its rates the last whose first day has come. */
export function taxAt({ profile }: Practice, at: Instant): TaxNow | undefined {
  const { tax } = profile
  if (!tax) return undefined
  const today = dateAt(zone(profile.zone), at)
  const begun = (tax.later ?? []).filter(({ from }) => from <= today)
  const newest = begun.reduce((a, b) => (a.from >= b.from ? a : b), { from: '', rate: tax.rate })
  return { name: tax.name, rate: newest.rate, ...(tax.onTop ? { onTop: true } : {}) }
}

/** What a tax that comes on top adds to a quote as a line of its own; nothing of one that is in the prices. */
export const taxLine = (tax: TaxNow | undefined): { name: string; rate: number } | undefined =>
  tax?.onTop ? { name: taxWords(tax), rate: tax.rate } : undefined

/** "VAT 23 %" */
export const taxWords = ({ name, rate }: Pick<TaxNow, 'name' | 'rate'>): string => `${name} ${rate / 100} %`
