import type { Practice } from '@acolhida/core/practice'

/** The practice with a new version of a text that is agreed to; the versions before it stay as they are. */
export const withTermsVersion = (practice: Practice, id: string, title: string, text: string): Practice => ({
  ...practice,
  terms: practice.terms.map((terms) =>
    terms.id === id
      ? {
          ...terms,
          versions: [...terms.versions, { number: terms.versions.at(-1)!.number + 1, title, text }],
        }
      : terms,
  ),
})
