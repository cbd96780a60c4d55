/**
 * The default alphabet of 7 bits, and what stands in its extension, where each takes two places (3GPP TS 23.038, §6.2.1
 * and §6.2.1.1; the tables from memory, checked against the standard's in the tests).
 */
const BASIC =
  '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà'
const EXTENDED = '\f^{}\\[~]|€'

const ONE = new Set(BASIC)
const TWO = new Set(EXTENDED)

/** How a text goes to a phone. */
export interface Segments {
  /** `gsm`: the default alphabet of 7 bits; `ucs2`: any other. */
  alphabet: 'gsm' | 'ucs2'
  /** How many places it takes in that alphabet. */
  units: number
  /** In how many segments it goes; none of an empty text. */
  segments: number
  /** How many places are left in the last. */
  left: number
  /** The first character that the default alphabet does not have. */
  because?: string
}

/** Places in a text of one segment, and in each of several, where a header takes some (3GPP TS 23.040, §9.2.3.24). */
const MOST = { gsm: { alone: 160, each: 153 }, ucs2: { alone: 70, each: 67 } } as const

/**
 * How many segments a text message takes. Neither what takes two places in the 7-bit alphabet nor a surrogate pair is
 * split over two, so the number is not a mere division.
 */
export function segmentsOf(text: string): Segments {
  const characters = [...text]
  const because = characters.find((one) => !ONE.has(one) && !TWO.has(one))
  const alphabet = because === undefined ? 'gsm' : 'ucs2'
  const sizes = characters.map((one) => (alphabet === 'ucs2' ? one.length : TWO.has(one) ? 2 : 1))
  const units = sizes.reduce((sum, size) => sum + size, 0)
  const { alone, each } = MOST[alphabet]
  const why = because === undefined ? {} : { because }
  if (units === 0) return { alphabet, units, segments: 0, left: alone }
  if (units <= alone) return { alphabet, units, segments: 1, left: alone - units, ...why }
  let segments = 1
  let used = 0
  for (const size of sizes) {
    if (used + size > each) {
      segments += 1
      used = 0
    }
    used += size
  }
  return { alphabet, units, segments, left: each - used, ...why }
}
