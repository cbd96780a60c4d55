import { type Minor, shareOf } from '../money/index.ts'
import type { LocalDate } from '../time/index.ts'
import type { Practice, PriceCode } from './types.ts'

/** A code as it is compared: without spaces, in capitals. */
export const plainCode = (typed: string): string => typed.replaceAll(/\s+/g, '').toUpperCase()

/** What a code takes off a price: never more than all of it. It may go below the least price. In minor units. */
export function codeLine(code: PriceCode, price: Minor): { name: string; quantity: number; amount: Minor } {
  const off = code.off.kind === 'amount' ? code.off.amount : shareOf(price, code.off.percent)
  return { name: `Code ${code.code}`, quantity: 1, amount: -Math.min(Math.max(0, price), off) || 0 }
}

/** For what and whom a code is typed in. */
export interface CodeUse {
  service: string
  /** The practice's own date. */
  today: LocalDate
  /** The person's id, if they are known. */
  person?: string | undefined
  /** How often a code has been used, by its id. */
  used: (id: string) => number
}

/** The code that was typed, or in words why it can't be used. The first and the last day both count. */
export function findCode(practice: Practice, typed: string, use: CodeUse): PriceCode | string {
  const same = (practice.codes ?? []).filter((code) => plainCode(code.code) === plainCode(typed))
  if (same.length === 0) return 'This code is not known here. Please look at it once more.'
  const forService = same.filter((code) => !code.services?.length || code.services.includes(use.service))
  if (forService.length === 0) return 'This code is for another service.'
  const now = forService.filter(
    (code) => (!code.from || code.from <= use.today) && (!code.to || use.today <= code.to),
  )
  const [code] = now
  if (!code) {
    const later = forService.find((code) => code.from && code.from > use.today)
    return later ? `This code can be used from ${later.from} on.` : 'This code has ended.'
  }
  if (code.people?.length && !use.person)
    return 'This code is for certain people. It counts for whoever comes by the link in one of their mails.'
  if (code.people?.length && !code.people.includes(use.person!)) return 'This code is for somebody else.'
  if (code.uses !== undefined && use.used(code.id) >= code.uses) return 'This code has been used up.'
  return code
}

/** The index of an earlier code that is the same, for the same service, on some same day; nothing where all differ. */
export function overlappingCode(codes: readonly PriceCode[], index: number): number | undefined {
  const code = codes[index]!
  const found = codes.findIndex((other, i) => {
    if (i >= index || plainCode(other.code) !== plainCode(code.code)) return false
    const services =
      !code.services?.length ||
      !other.services?.length ||
      code.services.some((id) => other.services!.includes(id))
    const dates = (code.from ?? '') <= (other.to ?? '9999') && (other.from ?? '') <= (code.to ?? '9999')
    return services && dates
  })
  return found < 0 ? undefined : found
}
