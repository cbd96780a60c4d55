import type { Practice } from '@acolhida/core/practice'
import type { Again, Clause, Terms, TermsVersion } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'

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

/** What is being written of a text. */
export interface Draft {
  title: string
  clauses: Clause[]
  document: string
  again: Again
}

/** The practice with a draft published as the next version. @throws Error when it is not whole */
export function withPublished(practice: Practice, id: string, draft: Draft, since: Instant): Practice {
  const { title, clauses, document, again } = draft
  if (!title.trim()) throw new Error('Please write a title.')
  if (clauses.length === 0) throw new Error('Please write at least one clause.')
  return withTerms(practice, id, (terms) =>
    next(terms, {
      title: title.trim(),
      text: '',
      clauses,
      ...(document.trim() ? { document: document.trim() } : {}),
      again,
      since,
    }),
  )
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
