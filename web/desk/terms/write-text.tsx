import type { Practice, Service } from '@acolhida/core/practice'
import { lazy, Suspense } from 'react'
import { PlainField } from '../parts/plain-field.tsx'
import type { TextDraft } from './change.ts'

// What writes rich text comes when one writes.
const Clauses = lazy(async () => ({ default: (await import('./clauses.tsx')).Clauses }))

/** A text being written: its title, its clauses, and the longer document. */
export function WriteText<D extends TextDraft>({
  practice,
  services,
  draft,
  type,
}: {
  practice: Practice
  /** The services whose clients agree to it. */
  services: readonly Service[]
  draft: D
  type: (draft: D) => void
}) {
  return (
    <>
      <PlainField label="Title" value={draft.title} onChange={(title) => type({ ...draft, title })} />
      <Suspense fallback={<p className="text-soft">One moment …</p>}>
        <Clauses
          practice={practice}
          services={services}
          clauses={draft.clauses}
          onChange={(change) => type({ ...draft, clauses: change(draft.clauses) })}
        />
      </Suspense>
      <PlainField
        label="The address of a longer document, if there is one"
        value={draft.document}
        onChange={(document) => type({ ...draft, document })}
      />
    </>
  )
}
