import type { Practice } from '@acolhida/core/practice'
import {
  type Again,
  asClauses,
  type Clause,
  clauseFault,
  fieldsIn,
  fingerprint,
  type Terms,
  type TermsField,
  type TermsText,
  type TermsVersion,
} from '@acolhida/core/terms'
import type { Instant, Language } from '@acolhida/core/time'

const withTerms = (practice: Practice, id: string, change: (terms: Terms) => Terms): Practice => ({
  ...practice,
  terms: practice.terms.map((terms) => (terms.id === id ? change(terms) : terms)),
})

const next = (terms: Terms, version: Omit<TermsVersion, 'number'>): Terms => ({
  ...terms,
  versions: [...terms.versions, { number: (terms.versions.at(-1)?.number ?? 0) + 1, ...version }],
})

/** The practice with a new version of a plain text; the versions before it stay as they are. */
export const withTermsVersion = (practice: Practice, id: string, title: string, text: string): Practice =>
  withTerms(practice, id, (terms) => next(terms, { title, text }))

/** A text being written. */
export interface TextDraft {
  title: string
  clauses: Clause[]
  document: string
}

/** A version being written, and who must agree to it. */
export interface Draft extends TextDraft {
  again: Again
}

/** A draft as it would be published. @throws Error when it is not whole */
function wholeText({ title, clauses, document }: TextDraft): TermsText {
  if (!title.trim()) throw new Error('Please write a title.')
  if (clauses.length === 0) throw new Error('Please write at least one clause.')
  const fault = clauses.map(clauseFault).find(Boolean)
  if (fault) throw new Error(fault)
  return {
    title: title.trim(),
    text: '',
    clauses,
    ...(document.trim() ? { document: document.trim() } : {}),
  }
}

/** The practice with a draft published as the next version. @throws Error when it is not whole */
export function withPublished(practice: Practice, id: string, draft: Draft, since: Instant): Practice {
  const text = wholeText(draft)
  return withTerms(practice, id, (terms) => next(terms, { ...text, again: draft.again, since }))
}

/**
 * What a version in another language begins with: clause by clause what the last one in that language says, where the
 * original has stayed the same since, else the original.
 */
export function beginIn(versions: readonly TermsVersion[], language: Language): TextDraft {
  const version = versions.at(-1)!
  const before = versions.findLast(({ also }) => also?.[language])
  const said = before?.also?.[language]
  const was = before ? asClauses(before) : []
  return {
    title: before && said && before.title === version.title ? said.title : version.title,
    clauses: asClauses(version).map((clause) => {
      const same = was.find(({ id }) => id === clause.id)
      const there = said?.clauses?.find(({ id }) => id === clause.id)
      return there && same && fingerprint(same) === fingerprint(clause) ? there : clause
    }),
    document: (said ?? version).document ?? '',
  }
}

/** What of a draft in another language still reads as the original, and which fields of that it leaves out. */
export function unlike(
  version: TermsVersion,
  { clauses }: TextDraft,
): { same: string[]; left: TermsField[] } {
  const prints = new Map(asClauses(version).map((clause) => [clause.id, fingerprint(clause)]))
  const written = fieldsIn({ text: '', clauses })
  return {
    same: clauses.flatMap((clause) => (prints.get(clause.id) === fingerprint(clause) ? [clause.title] : [])),
    left: fieldsIn(version).filter((field) => !written.includes(field)),
  }
}

/** The practice with a version in force published in another language, too. @throws Error when it is not whole */
export function withAlso(
  practice: Practice,
  id: string,
  { number, language }: { number: number; language: Language },
  draft: TextDraft,
): Practice {
  const text = wholeText(draft)
  return withTerms(practice, id, (terms) => ({
    ...terms,
    versions: terms.versions.map((version) => {
      if (version.number !== number) return version
      // What somebody may have read stays as it is.
      if (version.also?.[language]) throw new Error('This version is published in that language already.')
      return { ...version, also: { ...version.also, [language]: text } }
    }),
  }))
}

/** The practice with a text signed by itself, or belonging to services. */
export const withSeparate = (practice: Practice, id: string, separate: boolean): Practice => ({
  ...withTerms(practice, id, ({ separate: _, ...terms }) => (separate ? { ...terms, separate } : terms)),
  ...(separate
    ? {
        services: practice.services.map((service) => ({
          ...service,
          terms: service.terms.filter((one) => one !== id),
        })),
      }
    : {}),
})

/** The practice with a text agreed to by whoever books a service, or not. */
export const withTermsOf = (practice: Practice, service: string, id: string, on: boolean): Practice => ({
  ...practice,
  services: practice.services.map((one) =>
    one.id === service
      ? { ...one, terms: on ? [...one.terms, id] : one.terms.filter((other) => other !== id) }
      : one,
  ),
})
