import { useState } from 'react'
import type { TextDraft } from './change.ts'

/**
 * What is being written of a text, kept in this browser until it is published or left; nothing where there is none, or
 * it can't be read any more.
 * @param missing what an older draft did not have
 */
export function useDraft<D extends TextDraft>(
  name: string,
  missing: Omit<D, 'clauses'>,
): [draft: D | undefined, type: (draft: D | undefined) => void] {
  const [draft, setDraft] = useState<D | undefined>(() => {
    try {
      const found = JSON.parse(localStorage.getItem(name) ?? 'null') as D | null
      return found && Array.isArray(found.clauses) ? { ...missing, ...found } : undefined
    } catch {
      return undefined
    }
  })
  const type = (next: D | undefined): void => {
    setDraft(next)
    if (next) localStorage.setItem(name, JSON.stringify(next))
    else localStorage.removeItem(name)
  }
  return [draft, type]
}
