import type { Booking } from '../booking/index.ts'
import type { Minor } from '../money/rounding.ts'
import { sha256Hex } from '../terms/fingerprint.ts'
import { creditorReference } from './account-number.ts'

/** How many letters and digits of a reference are one's own. */
const OWN = 12

/** The reference of a booking for transfers (ISO 11649): always the same, and by it alone nobody learns anything. */
export function referenceOf({ id }: Pick<Booking, 'id'>): string {
  const digits = BigInt(`0x${sha256Hex(`transfer ${id}`).slice(0, 24)}`)
  return creditorReference(digits.toString(36).toUpperCase().padStart(OWN, '0').slice(-OWN))
}

/** Whom a transfer goes to. */
export interface Receiver {
  name: string
  iban: string
  bic?: string
}

/**
 * The payload of a QR code for a SEPA credit transfer (EPC069-12, version 002: the bank code may be left out), with a
 * structured reference. Only for euros, 0.01 to 999,999,999.99.
 * @param amount in cents
 * @returns nothing where it can't be said so
 */
export function transferPayload(
  { name, iban, bic = '' }: Receiver,
  amount: Minor,
  currency: string,
  reference: string,
): string | undefined {
  if (currency !== 'EUR' || amount < 1 || amount > 99_999_999_999) return undefined
  const euros = `EUR${Math.floor(amount / 100)}.${String(amount % 100).padStart(2, '0')}`
  return ['BCD', '002', '1', 'SCT', bic, name.slice(0, 70), iban, euros, '', reference].join('\n')
}

/** Where a transfer goes, and what it names; with the payload of its code where there can be one. */
export interface TransferTo extends Receiver {
  reference: string
  payload?: string
}

/**
 * What a transfer for a booking or a path is told with.
 * @param amount in minor units
 */
export function transferTo(
  to: Receiver,
  of: Pick<Booking, 'id'>,
  amount: Minor,
  currency: string,
): TransferTo {
  const reference = referenceOf(of)
  const payload = transferPayload(to, amount, currency, reference)
  return { ...to, reference, ...(payload ? { payload } : {}) }
}
