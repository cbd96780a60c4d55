import currencyCodes from 'currency-codes'

/**
 * How many decimal places a currency has, by ISO 4217 (`Intl` differs from it for HUF and others).
 * @throws RangeError for a code that ISO 4217 does not list.
 */
export function decimals(currency: string): number {
  const entry = currencyCodes.code(currency)
  if (!entry) throw new RangeError(`"${currency}" is not a currency of ISO 4217; write it as EUR`)
  return entry.digits
}

/** The codes of all currencies of ISO 4217. */
export const currencies = (): string[] => currencyCodes.codes()
