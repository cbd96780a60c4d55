import { type Minor, shareOf } from '../money/index.ts'
import { dateWords, type LocalDate } from '../time/index.ts'
import type { RefusalWord, Sentence } from '../words/index.ts'
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

/** Why a code can't be used. */
export type CodeRefusal = Sentence<RefusalWord & `code.${string}`>

/** The code that was typed, or why it can't be used. The first and the last day both count. */
export function findCode(practice: Practice, typed: string, use: CodeUse): PriceCode | CodeRefusal {
  const same = (practice.codes ?? []).filter(
    (code) => !code.idle && plainCode(code.code) === plainCode(typed),
  )
  if (same.length === 0) return { code: 'code.unknown' }
  const forService = same.filter((code) => !code.services?.length || code.services.includes(use.service))
  if (forService.length === 0) return { code: 'code.other-service' }
  const now = forService.filter(
    (code) => (!code.from || code.from <= use.today) && (!code.to || use.today <= code.to),
  )
  const [code] = now
  if (!code) {
    const later = forService.find((code) => code.from && code.from > use.today)
    if (later?.from) return { code: 'code.early', data: { from: dateWords(later.from) } }
    const last = forService
      .map((code) => code.to ?? '')
      .sort()
      .at(-1)
    return { code: 'code.over', data: { to: dateWords(last as LocalDate) } }
  }
  if (code.people?.length && !use.person) return { code: 'code.own-link' }
  if (code.people?.length && !code.people.includes(use.person!)) return { code: 'code.own-link' }
  if (code.uses !== undefined && use.used(code.id) >= code.uses) return { code: 'code.used' }
  return code
}

/** The index of an earlier code that is the same, for the same service, on some same day; nothing where all differ. */
export function overlappingCode(codes: readonly PriceCode[], index: number): number | undefined {
  const code = codes[index]!
  const found = codes.findIndex((other, i) => {
    if (i >= index || code.idle || other.idle || plainCode(other.code) !== plainCode(code.code)) return false
    const services =
      !code.services?.length ||
      !other.services?.length ||
      code.services.some((id) => other.services!.includes(id))
    const dates = (code.from ?? '') <= (other.to ?? '9999') && (other.from ?? '') <= (code.to ?? '9999')
    return services && dates
  })
  return found < 0 ? undefined : found
}
