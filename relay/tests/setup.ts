import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Problem } from '@acolhida/core/contract'
import { parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { newPairingCode, pair } from '../desk/pairing.ts'
import { MovableClock } from '../ground/clock.ts'
import { Relay, type Settings } from '../relay.ts'
import { Mailbox } from '../standins/mailbox.ts'
import { StandinTexts } from '../standins/texts.ts'
import { StandinTill } from '../standins/till.ts'

export interface TestRelay {
  relay: Relay
  clock: MovableClock
  mailbox: Mailbox
  /** A till, where one was wished for. */
  till: StandinTill
  /** A text gateway, where one was wished for. */
  texts: StandinTexts
  door: string
  desk: string
  key: string
  slug: string
  close(): Promise<void>
}

export interface Answer<T = Record<string, never>> {
  status: number
  body: T & Partial<Problem>
}

/** The moment at which every relay of the tests begins; its clock stands still until a test moves it. */
export const BEGINNING = parseInstant('2026-11-24T11:00Z')

/** The secret shared with the tests' till. */
export const TILL_SECRET = 'a secret of the tests, 32 letters long'

/** The id of the demo practice. */
export const DEMO = demoBackup(BEGINNING).practice.id

/** The relays under test, by the address of their door. */
export const relays = new Map<string, Relay>()

/** A relay with the demo practice, on free ports, with a mailbox and a desk's key. */
export async function startRelay(
  settings: Partial<
    Pick<
      Settings,
      | 'requestsPerMinute'
      | 'held'
      | 'proxies'
      | 'wait'
      | 'mail'
      | 'memoryDays'
      | 'privateCalendars'
      | 'steady'
      | 'tellingsApart'
      | 'demo'
    >
  > & { withTill?: boolean; withTexts?: boolean; smtp?: string } = {},
): Promise<TestRelay> {
  const folder = mkdtempSync(join(tmpdir(), 'acolhida-relay-'))
  const mailbox = new Mailbox()
  const clock = new MovableClock(0, undefined, () => BEGINNING)
  const { withTill, withTexts, ...given } = settings
  const texts = new StandinTexts(clock, TILL_SECRET)
  const till = new StandinTill(clock, TILL_SECRET)
  const relay = new Relay(
    {
      file: join(folder, 'relay.sqlite'),
      smtp: await mailbox.start(),
      doorPages: join(folder, 'none'),
      deskPages: join(folder, 'none'),
      requestsPerMinute: 1_000_000,
      demo: demoBackup,
      steady: false,
      tellingsApart: 20,
      held: { byOne: 100_000, inAll: 1_000_000 },
      ...(withTill ? { till: { url: await till.start(), secret: TILL_SECRET, live: false } } : {}),
      ...(withTexts ? { texts: { url: await texts.start(), secret: TILL_SECRET } } : {}),
      ...given,
    },
    clock,
  )
  const { door, desk } = await relay.start({ door: 0, desk: 0 })
  till.tellTo = door
  texts.tellTo = door
  relays.set(door, relay)
  const key = pairAnew(relay)
  return {
    relay,
    clock,
    mailbox,
    till,
    texts,
    door,
    desk,
    key,
    slug: 'iria-montalvar',
    close: async () => {
      await relay.stop()
      await mailbox.stop()
      await till.stop()
      await texts.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** The key of a desk paired with it, with the demo practice. */
export const pairAnew = (relay: Relay): string =>
  pair(
    relay.store,
    relay.here.keeper.house.practice,
    { code: newPairingCode(relay.store), practice: DEMO, replace: true },
    () => undefined,
  ).key

let keys = 0
/** A key that has not been used. */
export const freshKey = (): string => `test-key-${process.pid}-${String(++keys).padStart(8, '0')}`
export const freshVisit = (): string => `test-visit-${String(++keys).padStart(12, '0')}`

export async function ask<T = Record<string, never>>(
  url: string,
  body?: unknown,
  {
    method,
    key,
    bearer,
    raw,
    language,
    from,
  }: {
    method?: string
    key?: string
    bearer?: string
    raw?: string
    language?: string
    /** From which address, as a proxy would say. */
    from?: string
  } = {},
): Promise<Answer<T>> {
  const content = raw ?? (body === undefined ? undefined : JSON.stringify(body))
  const response = await fetch(url, {
    method: method ?? (content === undefined ? 'GET' : 'POST'),
    headers: {
      ...(content === undefined ? {} : { 'content-type': 'application/json' }),
      ...(key ? { 'idempotency-key': key } : {}),
      ...(language ? { 'accept-language': language } : {}),
      ...(from ? { 'x-forwarded-for': from } : {}),
      ...(bearer ? { authorization: `Bearer ${bearer}` } : {}),
    },
    ...(content === undefined ? {} : { body: content }),
  })
  return { status: response.status, body: (await response.json()) as Answer<T>['body'] }
}

export const ANSWERS = {
  brings: 'My voice gives out by the end of the day.',
  uses: ['teaching'],
  hoarse: 'not',
  strain: 5,
  price: 'fine',
}

export const wanted = (visit = freshVisit()) => ({
  visit,
  service: 'voice-assessment',
  place: 'studio',
  answers: ANSWERS,
})
