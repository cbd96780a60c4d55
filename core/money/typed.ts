import { decimals } from './currency.ts'
import type { Minor } from './rounding.ts'

/**
 * An amount as another program has written it: 95, 95.00, € 95,00, 1.234,50, 1,234.50 EUR. The last mark is the decimal
 * one, unless just three digits follow it and it stands alone.
 * @returns minor units of the currency
 * @throws Error with a sentence when it is none, or below nothing
 */
export function amountTyped(typed: string, currency: string): Minor {
  const wrong = new Error(`“${typed.trim().slice(0, 40)}” is no amount; write it as 95.00.`)
  const text = typed.replaceAll(/[\p{L}\p{Sc}\s'’]/gu, '')
  if (!/^\d[\d.,]*$/.test(text) || text.length > 20) throw wrong
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','))
  const marks = text.match(/[.,]/g) ?? []
  const behind = text.length - last - 1
  const isGroup = last >= 0 && behind === 3 && new Set(marks).size === 1
  const whole = last < 0 || isGroup ? text : text.slice(0, last)
  const part = last < 0 || isGroup ? '' : text.slice(last + 1)
  const value = Number(`${whole.replaceAll(/[.,]/g, '')}.${part || '0'}`)
  if (!Number.isFinite(value)) throw wrong
  const minor = Math.round(value * 10 ** decimals(currency))
  if (minor > 100_000_000_000) throw wrong
  return minor
}
