import type { Minor } from './rounding.ts'

/** What the door and the desk need to write an amount: the code and its ISO 4217 decimals. */
export interface Currency {
  code: string
  decimals: number
}

/** "€114.00": an amount written for people. The decimals are ISO 4217's, not the browser's. */
export const money = (amount: Minor, currency: Currency): string =>
  new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency: currency.code,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: currency.decimals,
    maximumFractionDigits: currency.decimals,
  }).format(amount / 10 ** currency.decimals)
