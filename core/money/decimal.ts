import { Big } from 'big.js'
import type { Minor } from './rounding.ts'

/** Whole numbers that a machine adds and multiplies exactly. */
const safe = Number.isSafeInteger
const finite = (a: number, b: number): boolean => Number.isFinite(a) && Number.isFinite(b)

/** The sum of two numbers as they are written, in decimals: 0.7 + 0.1 is 0.8. */
export function sum(a: number, b: number): number {
  const plain = a + b
  return (safe(a) && safe(b)) || !finite(a, b) ? plain : Number(new Big(a).plus(b))
}

/** The product of two numbers as they are written, in decimals: 10 × 1.1 is 11. */
export function product(a: number, b: number): number {
  const plain = a * b
  return (safe(a) && safe(b) && safe(plain)) || !finite(a, b) ? plain : Number(new Big(a).times(b))
}

/** An amount so many times, in decimals and rounded half away from zero: 1.15 × 110 is 127. */
export function timesMoney(amount: Minor, times: number): Minor {
  const plain = amount * times
  if ((safe(amount) && safe(times) && safe(plain)) || !finite(amount, times)) return plain
  return Number(new Big(amount).times(times).round(0, Big.roundHalfUp))
}
