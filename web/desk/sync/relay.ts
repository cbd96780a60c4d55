import {
  type AnswerBody,
  type BringInBody,
  type BringOutBody,
  type DeskCommand,
  type DeskCourse,
  type DeskFreed,
  type DeskLine,
  type DoorPackage,
  desk,
  type EndSeriesBody,
  type EnterBody,
  type ForgetBody,
  type GiveBackBody,
  type MoveSeriesBody,
  type PairBody,
  type QuoteBody,
  type SeriesBody,
  type TrialBody,
} from '@acolhida/core/contract'
import type { Backup } from '@acolhida/core/formats'
import { createParser } from 'eventsource-parser'
import { ask } from '../../relay-client/ask.ts'
import { call } from '../../relay-client/client.ts'
import { noteRelay } from '../../relay-client/clock.ts'

/** The desk's calls to the relay. */
export const deskRelay = {
  status: () => ask(desk.status, {}),
  pair: (body: PairBody) => ask(desk.pair, { body }),
  code: (bearer: string) => ask(desk.code, { body: {}, bearer }),
  phone: (bearer: string) => ask(desk.phone, { body: {}, bearer }),
  end: (what: 'phone' | 'words', bearer: string) => ask(desk.end, { body: { what }, bearer }),
  demo: () => call<Backup>('/api/demo'),
  publish: (body: DoorPackage, key: string, bearer: string) => ask(desk.publish, { body, key, bearer }),
  record: (after: number, bearer: string) => ask(desk.record, { query: { after: String(after) }, bearer }),
  holdings: (bearer: string) => ask(desk.holdings, { bearer }),
  giveBack: (body: GiveBackBody, key: string, bearer: string) => ask(desk.giveBack, { body, key, bearer }),
  trial: (body: TrialBody, bearer: string) => ask(desk.trial, { body, bearer }),
  feed: (bearer: string) => ask(desk.feed, { body: {}, bearer }),
  release: (back: boolean, bearer: string) => ask(desk.release, { body: { back }, bearer }),
  series: (body: SeriesBody, key: string, bearer: string) => ask(desk.series, { body, key, bearer }),
  endSeries: (body: EndSeriesBody, key: string, bearer: string) => ask(desk.endSeries, { body, key, bearer }),
  moveSeries: (body: MoveSeriesBody, key: string, bearer: string) =>
    ask(desk.moveSeries, { body, key, bearer }),
  bringIn: (body: BringInBody, key: string, bearer: string) => ask(desk.bringIn, { body, key, bearer }),
  bringOut: (body: BringOutBody, key: string, bearer: string) => ask(desk.bringOut, { body, key, bearer }),
  enter: (body: EnterBody, key: string, bearer: string) => ask(desk.enter, { body, key, bearer }),
  calendars: (bearer: string) => ask(desk.calendars, { bearer }),
  answer: (body: AnswerBody, key: string, bearer: string) => ask(desk.answer, { body, key, bearer }),
  quote: (body: QuoteBody, key: string, bearer: string) => ask(desk.quote, { body, key, bearer }),
  waiting: (body: DeskLine, key: string, bearer: string) => ask(desk.waiting, { body, key, bearer }),
  forget: (body: ForgetBody, key: string, bearer: string) => ask(desk.forget, { body, key, bearer }),
  course: (body: DeskCourse, key: string, bearer: string) => ask(desk.course, { body, key, bearer }),
  freed: (body: DeskFreed, key: string, bearer: string) => ask(desk.freed, { body, key, bearer }),
  command: (body: DeskCommand, key: string, bearer: string) => ask(desk.command, { body, key, bearer }),
  /** The bytes of a file given as an answer; nothing when the relay no longer has it. */
  file: async (id: string, bearer: string): Promise<Uint8Array<ArrayBuffer> | undefined> => {
    const response = await fetch(`/api/files/${encodeURIComponent(id)}`, {
      headers: { authorization: `Bearer ${bearer}` },
    })
    return response.ok ? new Uint8Array(await response.arrayBuffer()) : undefined
  },
}

/**
 * Listens for news of the relay until the stream ends or is stopped. The browser's own EventSource can't carry
 * the desk's key, so the stream is read by hand.
 */
export async function listenToRelay(bearer: string, signal: AbortSignal, onNews: () => void): Promise<void> {
  const response = await fetch('/api/record/stream', {
    headers: { authorization: `Bearer ${bearer}` },
    signal,
  })
  noteRelay(response.headers)
  if (!response.ok || !response.body) return
  const parser = createParser({ onEvent: onNews })
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    parser.feed(value)
  }
}
