import { inForce, type Language, localeOf } from '../time/language.ts'
import type { Minor } from './rounding.ts'

/** What the door and the desk need to write an amount: the code and its ISO 4217 decimals. */
export interface Currency {
  code: string
  decimals: number
}

/** "€114.00": an amount written for people. The decimals are ISO 4217's, not the browser's. */
export const money = (amount: Minor, currency: Currency, language: Language = inForce()): string =>
  new Intl.NumberFormat(localeOf(language), {
    style: 'currency',
    currency: currency.code,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: currency.decimals,
    maximumFractionDigits: currency.decimals,
  }).format(amount / 10 ** currency.decimals)

/** The sign of a currency where one is usual, else its code: "€", "CHF". */
export const signOf = (code: string): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency: code, currencyDisplay: 'narrowSymbol' })
    .formatToParts(0)
    .find(({ type }) => type === 'currency')?.value ?? code
