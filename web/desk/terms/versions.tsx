import { asClauses, blocksText, type Terms, type TermsField, type TermsVersion } from '@acolhida/core/terms'
import { type Change, diffWordsWithSpace } from 'diff'
import { createElement, Fragment, type ReactNode } from 'react'
import { FIELD_NAMES } from './rich.ts'

/** Fields by what they are called. */
const named = (text: string): string =>
  text.replaceAll(/\{([a-z-]+)\}/g, (whole, field: TermsField) =>
    FIELD_NAMES[field] ? `{${FIELD_NAMES[field]}}` : whole,
  )

/** The words of a version, clause by clause, by what tells clauses apart. */
const wordsOf = (version: TermsVersion): Map<string, { title: string; text: string }> =>
  new Map(
    asClauses(version).map(({ id, title, short, text }) => [
      id,
      { title, text: named([short, blocksText(text)].filter(Boolean).join('\n\n')) },
    ]),
  )

/** What a version says otherwise than the one before it, in the text. */
export function VersionDifferences({ before, after }: { before: TermsVersion; after: TermsVersion }) {
  const [was, is] = [wordsOf(before), wordsOf(after)]
  const ids = [...new Set([...is.keys(), ...was.keys()])]
  return (
    <div className="grid gap-3">
      {before.title !== after.title && <Changed title="Title" before={before.title} after={after.title} />}
      {(before.document ?? '') !== (after.document ?? '') && (
        <Changed title="The longer document" before={before.document ?? ''} after={after.document ?? ''} />
      )}
      {ids.map((id) => (
        <Changed
          key={id}
          title={is.get(id)?.title ?? was.get(id)?.title ?? ''}
          before={was.get(id)?.text ?? ''}
          after={is.get(id)?.text ?? ''}
        />
      ))}
    </div>
  )
}

function Changed({ title, before, after }: { title: string; before: string; after: string }) {
  const parts = diffWordsWithSpace(before, after)
  if (parts.every(({ added, removed }) => !added && !removed)) return null
  return (
    <section>
      <h4 className="font-semibold">
        {title}
        {before === '' && <span className="tag tag-fits ml-2">new</span>}
        {after === '' && <span className="tag tag-closed ml-2">taken out</span>}
      </h4>
      <p className="mt-1 whitespace-pre-line wrap-anywhere">
        {createElement(Fragment, null, ...parts.map(partOnPage))}
      </p>
    </section>
  )
}

function partOnPage({ value, added, removed }: Change): ReactNode {
  if (added) return <ins className="bg-leaf-soft text-leaf-ink">{value}</ins>
  if (removed) return <del className="bg-clay-soft text-clay-ink">{value}</del>
  return value
}

/** The version before one, if there is any. */
export const versionBefore = ({ versions }: Terms, number: number): TermsVersion | undefined =>
  versions[versions.findIndex((one) => one.number === number) - 1]
