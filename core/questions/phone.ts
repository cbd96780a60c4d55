import { parsePhoneNumberFromString } from 'libphonenumber-js/min'

/**
 * A phone number as it is written internationally (ITU-T E.123), if it is one that can exist in its country; nothing
 * otherwise.
 * @param region two letters of ISO 3166-1, for numbers written without their country
 */
export function readPhone(typed: string, region?: string): string | undefined {
  const read = parsePhoneNumberFromString(typed, region ? { defaultCountry: region as 'PT' } : undefined)
  return read?.isPossible() ? read.formatInternational() : undefined
}
