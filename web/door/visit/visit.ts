import type { DoorReading, Kept } from '@acolhida/core/door'
import type { Answers } from '@acolhida/core/questions'
import { useSyncExternalStore } from 'react'
import { newKey } from '../../relay-client/client.ts'

/** What a client has filled in so far, for one service. Kept in this browser until it has been sent. */
export interface Draft {
  answers: Answers
  /** What the relay made of the answers; gone as soon as they change. */
  reading?: DoorReading
  place?: string
  kept?: Kept
  person: { name: string; email: string; phone: string }
  agreed: string[]
  /** Names one sending, so that trying again does not ask twice. */
  sendKey: string
}

interface Visit {
  id: string
  zone: string
  drafts: Record<string, Draft>
}

const emptyDraft = (): Draft => ({
  answers: {},
  person: { name: '', email: '', phone: '' },
  agreed: [],
  sendKey: newKey(),
})

/** The zone of this browser, until the client says otherwise. */
const browserZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

const NAME = 'acolhida-visit'

function load(): Visit {
  try {
    const stored = JSON.parse(localStorage.getItem(NAME) ?? 'null') as Visit | null
    if (stored && typeof stored.id === 'string' && stored.drafts && stored.zone) return stored
  } catch {
    // A visit that can't be read is begun anew.
  }
  return { id: newKey(), zone: browserZone(), drafts: {} }
}

let visit = load()
const listeners = new Set<() => void>()

function save(next: Visit): void {
  visit = next
  try {
    localStorage.setItem(NAME, JSON.stringify(next))
  } catch {
    // Without storage the visit lives as long as the page.
  }
  for (const listener of listeners) listener()
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export const useVisit = (): Visit => useSyncExternalStore(subscribe, () => visit)

export const setZone = (zone: string): void => save({ ...visit, zone })

export const draftOf = (from: Visit, service: string): Draft => from.drafts[service] ?? emptyDraft()

/** Changes the draft for a service; changed answers make an earlier reading void. */
export function changeDraft(
  service: string,
  change: Partial<Draft> | ((draft: Draft) => Partial<Draft>),
): void {
  const draft = draftOf(visit, service)
  const parts = typeof change === 'function' ? change(draft) : change
  save({ ...visit, drafts: { ...visit.drafts, [service]: { ...draft, ...parts } } })
}

/** After sending: the draft is gone, and the visit begins anew. */
export function endVisit(service: string): void {
  const { [service]: _, ...drafts } = visit.drafts
  save({ ...visit, id: newKey(), drafts })
}
