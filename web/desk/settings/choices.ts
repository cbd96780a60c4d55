import { decimals } from '@acolhida/core/money/currency'
import type { Option } from './setting.ts'

const named = new Intl.DisplayNames('en', { type: 'currency' })

const isKnown = (code: string): boolean => {
  try {
    decimals(code)
    return true
  } catch {
    return false
  }
}

/** Every currency whose decimals are known, by its name: "Euro (EUR)". */
export const CURRENCIES: readonly Option[] = Intl.supportedValuesOf('currency')
  .filter(isKnown)
  .map((code) => ({ value: code, name: `${named.of(code) ?? code} (${code})` }))
  .sort((a, b) => a.name.localeCompare(b.name, 'en'))

const ZONES = Intl.supportedValuesOf('timeZone')

/** Every time zone, and the one in use where the browser does not name it. */
export const zonesWith = (used?: string): readonly Option[] =>
  (used === undefined || ZONES.includes(used) ? ZONES : [used, ...ZONES]).map((name) => ({
    value: name,
    name: name.replaceAll('_', ' '),
  }))
