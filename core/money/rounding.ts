/** An amount in the currency's minor unit: 11400 is €114.00, and ¥11,400. */
export type Minor = number

/** Rounds half away from zero. The one place where money is rounded. */
export const roundMoney = (value: number): Minor => Math.sign(value) * Math.round(Math.abs(value)) || 0

/** A share of an amount, in percent. */
export const shareOf = (amount: Minor, percent: number): Minor => roundMoney((amount * percent) / 100)

/** Splits a gross amount that includes tax; `rate` in basis points (2300 is 23 %). */
export function splitTax(gross: Minor, rate: number): { net: Minor; tax: Minor } {
  const net = roundMoney((gross * 10_000) / (10_000 + rate))
  return { net, tax: gross - net }
}
