import { byHand, pattern, type Schema } from '../shape/shape.ts'

/** Spaces aside, in capitals. */
export const plainAccount = (typed: string): string => typed.replaceAll(/\s+/g, '').toUpperCase()

/**
 * The remainder modulo 97 of a text whose letters count as 10 to 35 (ISO/IEC 7064, MOD 97-10), with its first four
 * characters moved to the end.
 */
function remainder(text: string): number {
  let rest = 0
  for (const char of text.slice(4) + text.slice(0, 4)) {
    const value = /\d/.test(char) ? char : String(char.charCodeAt(0) - 55)
    rest = Number(`${rest}${value}`) % 97
  }
  return rest
}

/** Whether a text is an account number whose check digits hold (ISO 13616): country, check digits, 11 to 30 more. */
export function isIban(typed: string): boolean {
  const iban = plainAccount(typed)
  return /^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(iban) && remainder(iban) === 1
}

/** The account number in groups of four, as it is printed. */
export const ibanWords = (iban: string): string => plainAccount(iban).replaceAll(/(.{4})(?=.)/g, '$1 ')

/**
 * A creditor reference (ISO 11649): RF, two check digits, and up to 21 letters and digits of one's own.
 * @throws RangeError when that has anything else in it
 */
export function creditorReference(own: string): string {
  const code = own.toUpperCase()
  if (!/^[A-Z0-9]{1,21}$/.test(code)) throw new RangeError('A reference has letters and digits, 21 at most.')
  const check = String(98 - remainder(`RF00${code}`)).padStart(2, '0')
  return `RF${check}${code}`
}

/** Whether a text is a creditor reference whose check digits hold. */
export function isReference(typed: string): boolean {
  const text = plainAccount(typed)
  return /^RF\d{2}[A-Z0-9]{1,21}$/.test(text) && remainder(text) === 1
}

const NO_IBAN = '{{#label}} is not an account number (IBAN); please look at it once more'

export const ibanShape: Schema<string> = byHand(({ joi }) =>
  joi
    .string()
    .max(60)
    .pattern(/^\s*[A-Za-z]{2}\s?\d{2}[A-Za-z0-9 ]{11,45}$/)
    .custom((value: string, helpers) => (isIban(value) ? plainAccount(value) : helpers.error('iban')))
    .messages({ iban: NO_IBAN, 'string.pattern.base': NO_IBAN }),
)
/** ISO 9362: bank, country, place, and a branch where there is one. */
export const bicShape = pattern(
  /^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/,
  11,
  '{{#label}} is not a bank code (BIC) of 8 or 11 letters and digits',
)
