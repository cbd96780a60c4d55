import type { Instant } from '../time/index.ts'
import { fingerprint } from './fingerprint.ts'
import type { Agreement, TermsVersion } from './types.ts'

/** The fingerprint of a version as published: id, number, title and text. */
export function versionFingerprint(terms: string, version: TermsVersion): string {
  const known = prints.get(version)
  if (known?.terms === terms) return known.print
  const { number, title, text } = version
  const print = fingerprint({ id: terms, number, title, text })
  prints.set(version, { terms, print })
  return print
}

/** A version once published never changes, so its fingerprint is made once. */
const prints = new WeakMap<TermsVersion, { terms: string; print: string }>()

/** The text as it is shown to one person, with `{name}`, `{service}` and `{practitioner}` filled in. */
export const shownText = (text: string, fields: Record<string, string>): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => fields[key] ?? whole)

/** The agreement of one person with one version, as a link of the relay's chain. */
export function agree(
  terms: { id: string; version: TermsVersion },
  by: { name: string; service: string; at: Instant; shown: string },
  previous: string,
): Agreement {
  return {
    terms: terms.id,
    version: terms.version.number,
    fingerprint: versionFingerprint(terms.id, terms.version),
    shown: fingerprint(by.shown),
    at: by.at,
    name: by.name,
    service: by.service,
    previous,
  }
}

/** What the next agreement must name as its `previous`. */
export const chainHead = (agreement: Agreement): string => fingerprint(agreement)

/**
 * Follows a chain of agreements.
 * @returns the index of the first that does not follow from the one before it, or -1 when all hold and the
 * last one's fingerprint is `head`; the length of the chain when only its end is missing.
 */
export function brokenAt(chain: readonly Agreement[], head: string): number {
  let expected = ''
  for (const [index, agreement] of chain.entries()) {
    if (agreement.previous !== expected) return index
    expected = chainHead(agreement)
  }
  return expected === head ? -1 : chain.length
}
