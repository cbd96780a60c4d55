import { type Minor, product, sum, timesMoney } from '../money/index.ts'

/**
 * A number that answers come as near to as one likes and need not reach: an answer of “less than 2” has no greatest
 * value, yet what follows from it does. It is `endless` × infinity + `at` + `beside` × something smaller than any
 * number. All that is reckoned from one answer rises or falls with it, so what it comes to at most and at least is
 * found at these ends.
 */
export interface Limit {
  endless: number
  at: number
  beside: number
}

/** A number, or one that is only come near to. */
export type Amount = number | Limit

/** Just above a number; just below it where `side` is -1. */
export const beside = (at: number, side: 1 | -1): Limit => ({ endless: 0, at, beside: side })

/** More than any number. */
export const ENDLESS: Limit = { endless: 1, at: 0, beside: 0 }

const limit = (amount: Amount): Limit =>
  typeof amount === 'number' ? { endless: 0, at: amount, beside: 0 } : amount

const plain = (amount: Limit): Amount => (amount.endless === 0 && amount.beside === 0 ? amount.at : amount)

/** Two amounts together, in decimals. */
export function plus(a: Amount, b: Amount): Amount {
  if (typeof a === 'number' && typeof b === 'number') return sum(a, b)
  const [x, y] = [limit(a), limit(b)]
  return plain({
    endless: sum(x.endless, y.endless),
    at: sum(x.at, y.at),
    beside: sum(x.beside, y.beside),
  })
}

/** An amount so many times, in decimals. */
export function scaled(amount: Amount, times: number): Amount {
  if (typeof amount === 'number') return product(amount, times)
  const { endless, at, beside } = amount
  return plain({
    endless: product(endless, times),
    at: product(at, times),
    beside: product(beside, times),
  })
}

/** The number it is near to; infinite where it has no end. */
export const nearTo = (amount: Amount): number =>
  typeof amount === 'number'
    ? amount
    : amount.endless === 0
      ? amount.at
      : amount.endless * Number.POSITIVE_INFINITY

/** The larger of an amount and a number. */
export function atLeast(amount: Amount, least: number): Amount {
  const near = nearTo(amount)
  return near > least || (near === least && limit(amount).beside > 0) ? amount : least
}

/** Rounded up to a whole number of steps. */
export function upward(amount: Amount, step: number): number {
  const near = nearTo(amount)
  if (!Number.isFinite(near)) return near
  const up = Math.ceil(near / step) * step
  return up === near && limit(amount).beside > 0 ? up + step : up
}

/** A price so many times, rounded half away from zero. */
export function pricedTimes(price: Minor, times: Amount): Minor {
  const near = nearTo(times)
  if (!Number.isFinite(near)) return price === 0 ? 0 : price * near
  const rounded = timesMoney(price, near)
  // Just below a half is rounded down.
  const half = Math.abs(product(price, near)) % 1 === 0.5
  return half && Math.sign(limit(times).beside) === -Math.sign(near) ? rounded - Math.sign(rounded) : rounded
}
