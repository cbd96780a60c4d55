import { inForce, type Language, localeOf } from '../time/language.ts'
import type { Minor } from './rounding.ts'

/** What the door and the desk need to write an amount: the code and its ISO 4217 decimals. */
export interface Currency {
  code: string
  decimals: number
}

const formats = new Map<string, Intl.NumberFormat>()

/** How amounts of a currency are written in a language; made once. */
function formatFor({ code, decimals }: Currency, language: Language): Intl.NumberFormat {
  const key = `${language} ${code} ${decimals}`
  let format = formats.get(key)
  if (!format) {
    format = new Intl.NumberFormat(localeOf(language), {
      style: 'currency',
      currency: code,
      currencyDisplay: 'narrowSymbol',
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    })
    formats.set(key, format)
  }
  return format
}

/** "€114.00": an amount written for people. The decimals are ISO 4217's, not the browser's. */
export const money = (amount: Minor, currency: Currency, language: Language = inForce()): string =>
  formatFor(currency, language).format(amount / 10 ** currency.decimals)

/** The sign of a currency where one is usual, else its code: "€", "CHF". */
export const signOf = (code: string): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency: code, currencyDisplay: 'narrowSymbol' })
    .formatToParts(0)
    .find(({ type }) => type === 'currency')?.value ?? code
