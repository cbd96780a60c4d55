import type {
  DoorOpenings,
  DoorQuote,
  DoorReading,
  DoorView,
  EnquireBody,
  Kept,
  LinkView,
  SendBody,
  Wanted,
} from '@acolhida/core/door'
import type { Attached } from '@acolhida/core/questions'
import { call, newKey } from '../../relay-client/client.ts'

const door = (slug: string, path = ''): string => `/api/door/${encodeURIComponent(slug)}${path}`
const link = (secret: string, path = ''): string => `/api/link/${encodeURIComponent(secret)}${path}`

/** The door's calls to the relay, one for each thing a client can do. */
export const relay = {
  view: (slug: string, key: string | undefined) =>
    call<DoorView>(door(slug, key ? `?with=${encodeURIComponent(key)}` : '')),
  read: (slug: string, wanted: Wanted) => call<DoorReading>(door(slug, '/read'), { body: wanted }),
  /** Length and price as far as the answers so far tell them. */
  quote: (slug: string, wanted: Wanted, signal?: AbortSignal) =>
    call<DoorQuote>(door(slug, '/quote'), { body: wanted, ...(signal ? { signal } : {}) }),
  /** Gives a file that answers a question. */
  file: (slug: string, about: Record<string, string>, file: File) =>
    call<Attached>(door(slug, `/files?${new URLSearchParams(about)}`), { bytes: file }),
  openings: (
    slug: string,
    wanted: Wanted & { place: string; from?: string; days: number },
    signal: AbortSignal,
  ) => call<DoorOpenings>(door(slug, '/openings'), { body: wanted, signal }),
  keep: (slug: string, wanted: Wanted & { place: string; start: number }) =>
    call<Kept>(door(slug, '/keep'), { body: wanted }),
  renew: (slug: string, visit: string) =>
    call<Pick<Kept, 'until' | 'renewable'>>(door(slug, '/renew'), { body: { visit } }),
  send: (slug: string, body: SendBody, key: string) =>
    call<{ link: string }>(door(slug, '/send'), { body, key }),
  enquire: (slug: string, body: EnquireBody, key: string) =>
    call<{ received: true }>(door(slug, '/enquire'), { body, key }),
  my: (secret: string) => call<LinkView>(link(secret)),
  act: (secret: string, act: string, body: unknown = {}) =>
    call<LinkView>(link(secret, `/${act}`), { body, key: newKey() }),
}
