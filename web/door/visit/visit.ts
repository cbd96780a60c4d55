import type { DoorReading, DoorService, Kept, Wanted } from '@acolhida/core/door'
import { type Answers, openAnswers, type Sealed } from '@acolhida/core/questions'
import { useSyncExternalStore } from 'react'
import { newKey } from '../../relay-client/client.ts'

/** What a client has filled in so far, for one service. Kept in this browser until it has been sent. */
export interface Draft {
  answers: Answers
  /** What the relay made of the answers; gone as soon as they change. */
  reading?: DoorReading
  place?: string
  /** What was added, by id. */
  extras?: string[]
  /** Where to come, at the client's: the travel zone, and the address. */
  travel?: string
  address?: string
  kept?: Kept
  person: { name: string; email: string; phone: string }
  agreed: string[]
  /** The part of the questions one is at. */
  part?: number
  /** Questions answered an earlier time, by id: they are shown, and not asked again. */
  known?: string[]
  /** Private answers as they have been sealed, with what they were sealed from. */
  sealed?: Record<string, { print: string; value: Sealed }>
  /** A price code that has been accepted. */
  code?: string
  /** Names one sending, so that trying again does not ask twice. */
  sendKey: string
}

interface Visit {
  id: string
  zone: string
  /** The key of a service's own link, by which one has come. */
  with?: string
  /** A quote that the practitioner has sent: its key, and the service it is for. */
  quote?: { key: string; service: string }
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

/** A trial of the door leaves no trace: what is filled in there is forgotten with its window. */
const trial = /^\/(try_[a-z0-9]+)/.exec(location.pathname)?.[1]
const NAME = trial ? `acolhida-visit-${trial}` : 'acolhida-visit'
const storage = (): Storage => (trial ? sessionStorage : localStorage)

function stored(): Visit | undefined {
  try {
    const found = JSON.parse(storage().getItem(NAME) ?? 'null') as Visit | null
    if (found && typeof found.id === 'string' && found.drafts && found.zone) return found
  } catch {
    // A visit that can't be read is begun anew.
  }
  return undefined
}

/** What the address one came by says: the key of a service's link, and for a trial the zone to look from. */
function load(): Visit {
  const address = new URLSearchParams(location.search)
  const key = address.get('with')
  const found = stored() ?? {
    id: newKey(),
    zone: (trial && address.get('zone')) || browserZone(),
    drafts: {},
  }
  const quote = address.get('quote')
  const service = location.pathname.split('/')[2]
  return {
    ...found,
    ...(key ? { with: key } : {}),
    ...(quote && service ? { quote: { key: quote, service } } : {}),
  }
}

let visit = load()
const listeners = new Set<() => void>()

function save(next: Visit): void {
  visit = next
  try {
    storage().setItem(NAME, JSON.stringify(next))
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

/** Whether the practitioner has sent a quote for a service. */
export const isQuoted = (from: Visit, service: string): boolean => from.quote?.service === service

/** What a visit wants of a service, as the relay is asked. */
export const wantedOf = (from: Visit, { id: service, questionnaire }: DoorService): Wanted => {
  const { answers, extras, travel, code } = draftOf(from, service)
  return {
    visit: from.id,
    service,
    // Private answers leave this browser sealed, and with the request alone.
    answers: openAnswers(questionnaire?.questions ?? [], answers),
    ...(extras?.length ? { extras } : {}),
    ...(travel ? { travel } : {}),
    ...(from.with ? { with: from.with } : {}),
    ...(code ? { code } : {}),
    ...(isQuoted(from, service) ? { quote: from.quote!.key } : {}),
  }
}

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
  const { quote, ...rest } = visit
  save({ ...rest, ...(quote && quote.service !== service ? { quote } : {}), id: newKey(), drafts })
}
