/** A moment on the world's clock, in whole milliseconds since 1970-01-01T00:00Z. */
export type Instant = number & { readonly __unit: 'epoch ms' }

export const SECOND = 1_000
export const MINUTE = 60_000
export const HOUR = 3_600_000
export const DAY = 86_400_000

/** Marks a number of epoch milliseconds as an instant. */
export const instant = (ms: number): Instant => ms as Instant

/** `at` moved by a number of milliseconds, which may be negative. */
export const shift = (at: Instant, ms: number): Instant => (at + ms) as Instant

/**
 * Reads an ISO 8601 instant that carries its offset ("2026-11-24T11:00Z").
 * @throws RangeError when the text is not one, or has no offset.
 */
export function parseInstant(text: string): Instant {
  const ok = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d{1,3})?)?(Z|[+-]\d\d:?\d\d)$/.test(text)
  const ms = ok ? Date.parse(text) : Number.NaN
  if (Number.isNaN(ms)) {
    throw new RangeError(`"${text}" is not an instant; write it as 2026-11-24T11:00Z or with an offset`)
  }
  return instant(ms)
}

/** The instant as ISO 8601 in UTC, without a fraction when it falls on a whole second. */
export const formatInstant = (at: Instant): string => new Date(at).toISOString().replace('.000Z', 'Z')
