import type { CDPSession, Page } from 'playwright-core'
import { type House, openHouse } from './house.ts'

/**
 * How long the first pages take on a slow phone: processor four times slower, 1.6 Mbit/s, 150 ms there and back,
 * nothing in the cache; beside the same page without any of its script. Through the browser's own throttling.
 */
const RUNS = 5
const SLOW = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 94_000 }

interface Load {
  /** First text, what can be used, in ms after the address was gone to. */
  text: number
  usable: number
  /** Cumulative layout shift. */
  shift: number
  /** Of script, over the wire, until it could be used. */
  kilobytes: number
}

async function throttled(page: Page): Promise<CDPSession> {
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  await session.send('Network.setCacheDisabled', { cacheDisabled: true })
  await session.send('Network.emulateNetworkConditions', SLOW)
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  return session
}

/** Loads a page once. @param usable waits until somebody could use it */
async function load(page: Page, url: string, usable: (page: Page) => Promise<unknown>): Promise<Load> {
  const session = await throttled(page)
  let bytes = 0
  const scripts = new Set<string>()
  session.on('Network.responseReceived', ({ requestId, type }) => {
    if (type === 'Script') scripts.add(requestId)
  })
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) bytes += encodedDataLength
  })
  await page.addInitScript(() => {
    const seen = { shift: 0 }
    Object.assign(globalThis, { seen })
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & {
        value: number
        hadRecentInput: boolean
      })[])
        if (!entry.hadRecentInput) seen.shift += entry.value
    }).observe({ type: 'layout-shift', buffered: true })
  })
  const begin = Date.now()
  await page.goto(url, { waitUntil: 'commit' })
  await usable(page)
  const took = Date.now() - begin
  const kilobytes = bytes / 1_024
  // What comes after it must not move anything either.
  await page.waitForTimeout(2_500)
  const { text, shift } = await page.evaluate(() => ({
    text: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? Number.NaN,
    shift: (globalThis as unknown as { seen: { shift: number } }).seen.shift,
  }))
  await session.detach()
  return { text, usable: took, shift, kilobytes }
}

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

const of = (loads: Load[], key: keyof Load): number => median(loads.map((one) => one[key]))

function told(name: string, loads: Load[], bare: Load[]): void {
  const [text, usable] = [of(loads, 'text'), of(loads, 'usable')]
  console.log(
    `${name}: text ${Math.round(text)} ms (${(text / of(bare, 'text')).toFixed(2)}×), ` +
      `usable ${Math.round(usable)} ms (${(usable / of(bare, 'usable')).toFixed(2)}×), ${Math.round(of(loads, 'kilobytes'))} KB of script by then, ` +
      `shift ${of(loads, 'shift').toFixed(3)}`,
  )
}

async function main(house: House): Promise<void> {
  const door = `${house.door}/${house.slug}`
  const bare: Load[] = []
  const doors: Load[] = []
  const desks: Load[] = []
  for (let run = 0; run < RUNS; run++) {
    const phone = { viewport: { width: 390, height: 844 } }
    const plain = await house.visitor(phone)
    await plain.route(/\.js$/, (route) => route.abort())
    bare.push(await load(plain, door, (page) => page.waitForLoadState('load')))
    await plain.close()

    const client = await house.visitor(phone)
    doors.push(
      await load(client, door, async (page) => {
        await page.getByRole('link', { name: /Voice assessment/ }).waitFor()
        // What the relay writes into the page is read at once; it can be used when the application has taken it over.
        await page.waitForFunction(() =>
          Object.keys(document.getElementById('root') ?? {}).some((key) =>
            key.startsWith('__reactContainer'),
          ),
        )
      }),
    )
    await client.close()

    const desk = await house.openDesk()
    const { origin } = new URL(desk.url())
    desks.push(
      await load(desk, origin, (page) =>
        page
          .getByRole('button', { name: /^Welcome for/ })
          .first()
          .waitFor(),
      ),
    )
    await desk.close()
  }
  console.log(
    `Processor 4× slower, 1.6 Mbit/s, 150 ms; nothing cached; median of ${RUNS}; × the door without script`,
  )
  told('Door without script', bare, bare)
  told('Door', doors, bare)
  told('Desk', desks, bare)
}

const house = await openHouse()
try {
  await main(house)
} finally {
  await house.close()
}
