import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import type { Backup } from '@acolhida/core/formats'
import { type Instant, parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { newPairingCode } from '@acolhida/relay/desk/pairing'
import { MovableClock } from '@acolhida/relay/ground/clock'
import { Relay } from '@acolhida/relay/relay'
import { StandinCalendar } from '@acolhida/relay/standins/calendar'
import { startLetterbox } from '@acolhida/relay/standins/letterbox'
import { Mailbox } from '@acolhida/relay/standins/mailbox'
import { StandinTexts } from '@acolhida/relay/standins/texts'
import { StandinTill } from '@acolhida/relay/standins/till'
import { type Browser, type BrowserContext, chromium, type Page } from 'playwright-core'
import { openPages } from './open-pages.ts'

/** The whole house for one test file: relay, stand-ins, and a browser. */
export interface House {
  relay: Relay
  mailbox: Mailbox
  clock: MovableClock
  door: string
  desk: string
  letterbox: string
  till: StandinTill
  texts: StandinTexts
  slug: string
  browser: Browser
  /** A page in a browser profile of its own: a client, or a practitioner. */
  visitor(options?: Parameters<Browser['newContext']>[0]): Promise<Page>
  /** A desk that looks round the demo. */
  openDesk(options?: Parameters<Browser['newContext']>[0]): Promise<Page>
  close(): Promise<void>
}

const DIST = resolve(import.meta.dirname, '..', 'web', 'dist')

export const launch = (): Promise<Browser> =>
  chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })

/** The moment at which every house of the tests begins, whatever the time really is: a Tuesday, late in the morning. */
export const BEGINNING = parseInstant('2026-11-24T11:00Z')

/** Lets a page live by a clock that is so many ms off the machine's; its timers go as ever. */
function shiftClock(offset: number): void {
  const Real = Date
  const now = (): number => Real.now() + offset
  globalThis.Date = new Proxy(Real, {
    construct: (target, given) => Reflect.construct(target, given.length > 0 ? given : [now()]),
    apply: () => new Real(now()).toString(),
    get: (target, name) => (name === 'now' ? now : Reflect.get(target, name)),
  })
}

/** Goes from an empty desk to the demo, by the code that its relay would have printed. */
export async function lookRound(relay: Relay, page: Page): Promise<void> {
  await page.getByLabel(/The code the relay printed/).fill(newPairingCode(relay.store))
  await page.getByRole('button', { name: 'Look round' }).click()
}

/** Builds a house with the demo practice in it. Errors in a page's console fail the test that caused them. */
export async function openHouse(
  settings: {
    requestsPerMinute?: number
    held?: { byOne: number; inAll: number }
    at?: number
    seesLeaps?: boolean
    deskPages?: string
    /** Another scenario than the short story. */
    demo?: (at: Instant) => Backup
  } = {},
): Promise<House> {
  const folder = mkdtempSync(join(tmpdir(), 'acolhida-e2e-'))
  const mailbox = new Mailbox()
  const smtp = await mailbox.start()
  const offset = (settings.at ?? BEGINNING) - Date.now()
  const clock = new MovableClock(0, undefined, () => Date.now() + offset)
  const secret = 'a secret of the tests, 32 letters long'
  const till = new StandinTill(clock, secret)
  const tillUrl = await till.start()
  const texts = new StandinTexts(clock, secret)
  const textsUrl = await texts.start()
  const relay = new Relay(
    {
      file: join(folder, 'relay.sqlite'),
      smtp,
      doorPages: join(DIST, 'door'),
      deskPages: settings.deskPages ?? join(DIST, 'desk'),
      requestsPerMinute: settings.requestsPerMinute ?? 100_000,
      privateCalendars: true,
      till: { url: tillUrl, secret, live: false },
      texts: { url: textsUrl, secret },
      demo: settings.demo ?? demoBackup,
      held: settings.held ?? { byOne: 500, inAll: 1_000 },
      steady: settings.seesLeaps ? () => performance.now() : false,
    },
    clock,
  )
  const { door, desk } = await relay.start({ door: 0, desk: 0 })
  till.tellTo = door
  texts.tellTo = door
  const letterbox = await startLetterbox(
    { mailbox, texts },
    clock,
    new StandinCalendar(clock.now()),
    () => {
      relay.deskStream.tell('clock')
      void relay.rounds.turn()
    },
    { assets: join(DIST, 'desk', 'assets') },
  )
  const browser = await launch()
  const contexts: BrowserContext[] = []
  const errors: string[] = []
  const visitor: House['visitor'] = async (options = {}) => {
    const context = await browser.newContext({
      timezoneId: 'Europe/Lisbon',
      locale: 'en-GB',
      viewport: { width: 1280, height: 800 },
      // What keeps the desk offline is looked at in a test of its own.
      serviceWorkers: 'block',
      ...options,
    })
    // What some builders wrap around functions to keep their names is not there in the page.
    await context.addInitScript('globalThis.__name ??= (it) => it')
    await context.addInitScript(shiftClock, offset)
    context.setDefaultTimeout(60_000)
    contexts.push(context)
    const page = await context.newPage()
    openPages.add(page)
    page.on('close', () => openPages.delete(page))
    page.on('pageerror', (error) => errors.push(error.message))
    return page
  }
  return {
    relay,
    mailbox,
    clock,
    door,
    desk,
    letterbox: letterbox.url,
    till,
    texts,
    slug: 'iria-montalvar',
    browser,
    visitor,
    openDesk: async (options = {}) => {
      const page = await visitor(options)
      await page.goto(desk)
      await lookRound(relay, page)
      await page.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
      await page.getByText('Your door is open').waitFor()
      return page
    },
    close: async () => {
      await Promise.all(contexts.map((context) => context.close()))
      await browser.close()
      letterbox.server.close()
      letterbox.server.closeAllConnections()
      await relay.stop()
      await mailbox.stop()
      await till.stop()
      await texts.stop()
      rmSync(folder, { recursive: true, force: true })
      if (errors.length > 0) throw new Error(`Pages failed: ${errors.join('; ')}`)
    },
  }
}

/** Waits until something holds, asking every 50 ms. @throws Error when it never does */
export async function eventually<T>(
  what: string,
  ask: () => T | undefined | Promise<T | undefined>,
  ms = 30_000,
): Promise<T> {
  const until = Date.now() + ms
  for (;;) {
    const found = await ask()
    if (found) return found
    if (Date.now() > until) throw new Error(`It never happened: ${what}`)
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}
