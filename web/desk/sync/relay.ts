import type {
  AnswerBody,
  CalendarState,
  DeskCommand,
  DoorPackage,
  EnterBody,
  QuoteBody,
  RecordPage,
  RelayStatus,
  TrialBody,
} from '@acolhida/core/door'
import type { Backup } from '@acolhida/core/formats'
import { createParser } from 'eventsource-parser'
import { call } from '../../relay-client/client.ts'
import { noteRelayTime } from '../../relay-client/clock.ts'

/** The desk's calls to the relay. */
export const relay = {
  status: () => call<RelayStatus>('/api/status'),
  pair: (code: string, replace: boolean) => call<{ key: string }>('/api/pair', { body: { code, replace } }),
  demo: () => call<{ backup: Backup; code: string }>('/api/demo'),
  publish: (body: DoorPackage, key: string, bearer: string) =>
    call<{ revision: number }>('/api/package', { method: 'PUT', body, key, bearer }),
  record: (after: number, bearer: string) => call<RecordPage>(`/api/record?after=${after}`, { bearer }),
  trial: (body: TrialBody, bearer: string) =>
    call<{ url: string; until: number }>('/api/trial', { body, bearer }),
  feed: (bearer: string) => call<{ url: string }>('/api/feed', { body: {}, bearer }),
  enter: (body: EnterBody, key: string, bearer: string) =>
    call<{ seq: number }>('/api/enter', { body, key, bearer }),
  calendars: (bearer: string) => call<CalendarState[]>('/api/calendars', { bearer }),
  answer: (body: AnswerBody, key: string, bearer: string) =>
    call<{ seq: number }>('/api/enquiry', { body, key, bearer }),
  quote: (body: QuoteBody, key: string, bearer: string) =>
    call<{ seq: number }>('/api/quote', { body, key, bearer }),
  /** The bytes of a file given as an answer; nothing when the relay no longer has it. */
  file: async (id: string, bearer: string): Promise<Uint8Array<ArrayBuffer> | undefined> => {
    const response = await fetch(`/api/files/${encodeURIComponent(id)}`, {
      headers: { authorization: `Bearer ${bearer}` },
    })
    return response.ok ? new Uint8Array(await response.arrayBuffer()) : undefined
  },
  command: (body: DeskCommand, key: string, bearer: string) =>
    call<{ seq: number }>('/api/command', { body, key, bearer }),
}

/**
 * Listens for news of the relay until the stream ends or is stopped. The browser's own EventSource can't carry
 * the desk's key, so the stream is read by hand.
 */
export async function listen(bearer: string, signal: AbortSignal, onNews: () => void): Promise<void> {
  const response = await fetch('/api/record/stream', {
    headers: { authorization: `Bearer ${bearer}` },
    signal,
  })
  noteRelayTime(response.headers.get('x-relay-now'), response.headers.get('x-relay-moved') === '1')
  if (!response.ok || !response.body) return
  const parser = createParser({ onEvent: onNews })
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    parser.feed(value)
  }
}
