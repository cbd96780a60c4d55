import type { DoorService, Wanted } from '@acolhida/core/contract'
import { openAnswers } from '@acolhida/core/questions'
import { useSyncExternalStore } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { afterHappening, emptyFilling, type Filling, type Happening } from './filling.ts'

interface Visit {
  id: string
  zone: string
  /** The key of a service's own link, by which one has come. */
  with?: string
  /** A quote that the practitioner has sent: its key, and the service it is for. */
  quote?: { key: string; service: string }
  fillings: Record<string, Filling>
}

/** The zone of this browser, until the client says otherwise. */
const browserZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

/** A trial of the door leaves no trace: what is filled in there is forgotten with its window. */
const trial = /^\/(try_[a-z0-9]+)/.exec(location.pathname)?.[1]
const NAME = trial ? `acolhida-visit-2-${trial}` : 'acolhida-visit-2'
const storage = (): Storage => (trial ? sessionStorage : localStorage)

function stored(): Visit | undefined {
  try {
    const found = JSON.parse(storage().getItem(NAME) ?? 'null') as Visit | null
    if (found && typeof found.id === 'string' && found.fillings && found.zone) return found
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
    fillings: {},
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

function show(next: Visit): void {
  visit = next
  for (const listener of listeners) listener()
}

/** Changes the visit as it is now, in whichever tab it was changed last: two tabs never overwrite one another. */
function change(how: (now: Visit) => Visit): void {
  const own = { ...(visit.with ? { with: visit.with } : {}), ...(visit.quote ? { quote: visit.quote } : {}) }
  const next = how({ ...(stored() ?? visit), ...own })
  try {
    storage().setItem(NAME, JSON.stringify(next))
  } catch {
    // Without storage the visit lives as long as the page.
  }
  show(next)
}

addEventListener('storage', (event) => {
  const other = event.key === NAME ? stored() : undefined
  if (other) show({ ...visit, ...other })
})

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export const useVisit = (): Visit => useSyncExternalStore(subscribe, () => visit)

export const setZone = (zone: string): void => change((now) => ({ ...now, zone }))

export const fillingOf = (from: Visit, service: string): Filling =>
  from.fillings[service] ?? emptyFilling(newKey())

/** Whether the practitioner has sent a quote for a service. */
export const isQuoted = (from: Visit, service: string): boolean => from.quote?.service === service

/** What a visit wants of a service, as the relay is asked. */
export const wantedOf = (from: Visit, { id: service, questionnaire }: DoorService): Wanted => {
  const { answers, extras, travel, code } = fillingOf(from, service)
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

/** Lets something happen to what is filled in for a service. */
export const fillIn = (service: string, happening: Happening): void =>
  change((now) => ({
    ...now,
    fillings: { ...now.fillings, [service]: afterHappening(fillingOf(now, service), happening) },
  }))

/** After sending: what was filled in is gone, and the visit begins anew. */
export const endVisit = (service: string): void => {
  change(({ quote, ...now }) => {
    const { [service]: _, ...fillings } = now.fillings
    const other = quote && quote.service !== service ? { quote } : {}
    return { ...now, ...other, id: newKey(), fillings }
  })
}
