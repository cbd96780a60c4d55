import type { Instant, Language } from '../time/index.ts'
import { type FieldValues, fieldsIn, shownTerms, textIn } from './document.ts'
import { fingerprint } from './fingerprint.ts'
import type { Agreement, ShownTerms, Terms, TermsVersion } from './types.ts'

/** The fingerprint of a version as published: id, number, title, and its text or its clauses and document. */
export function versionFingerprint(terms: string, version: TermsVersion): string {
  const known = prints.get(version)
  if (known?.terms === terms) return known.print
  const { number, title, text, clauses, document } = version
  const print = clauses
    ? fingerprint({ id: terms, number, title, clauses, ...(document ? { document } : {}) })
    : fingerprint({ id: terms, number, title, text })
  prints.set(version, { terms, print })
  return print
}

/** A version once published never changes, so its fingerprint is made once. */
const prints = new WeakMap<TermsVersion, { terms: string; print: string }>()

/**
 * The agreement of one person with one version, as a link of the relay's chain.
 * @param by `language` is the one it was read in; where the version is not there in it, it was read as first written
 */
export function agree(
  terms: { id: string; version: TermsVersion },
  by: { name: string; service: string; at: Instant; values: FieldValues; language?: Language },
  previous: string,
): Agreement {
  const { version } = terms
  const text = textIn(version, by.language)
  const used = fieldsIn(text)
  const fields = Object.fromEntries(used.map((field) => [field, by.values[field] ?? '']))
  return {
    terms: terms.id,
    version: version.number,
    fingerprint: versionFingerprint(terms.id, version),
    shown: fingerprint(shownTerms(text, fields)),
    ...(text !== version && by.language ? { language: by.language } : {}),
    fields,
    at: by.at,
    name: by.name,
    service: by.service,
    previous,
  }
}

/** The version somebody agreed to, and its text as they read it; neither where it can't be told any more. */
export function agreedText(
  terms: readonly Terms[],
  agreement: Agreement,
): { version?: TermsVersion; title?: string; shown?: ShownTerms } {
  const version = terms
    .find(({ id }) => id === agreement.terms)
    ?.versions.find(({ number }) => number === agreement.version)
  if (!version) return {}
  const text = textIn(version, agreement.language)
  const { title } = text
  return agreement.fields ? { version, title, shown: shownTerms(text, agreement.fields) } : { version, title }
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
