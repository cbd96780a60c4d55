import type { CDPSession, Page } from 'playwright-core'
import type { House } from './house.ts'

interface TraceEvent {
  name: string
  ph: string
  ts: number
  dur?: number
  tdur?: number
  pid: number
  tid: number
}

/** What the main thread did between two marks: CPU and the longest task, in ms. */
export async function traced(
  house: House,
  page: Page,
  work: () => Promise<void>,
): Promise<{ cpu: number; longest: number }> {
  await house.browser.startTracing(page, {
    categories: ['toplevel', 'blink.user_timing', 'disabled-by-default-devtools.timeline'],
  })
  await work()
  const { traceEvents } = JSON.parse((await house.browser.stopTracing()).toString()) as {
    traceEvents: TraceEvent[]
  }
  const marked = (name: string) => traceEvents.findLast((event) => event.name === name)
  const [begin, end] = [marked('bench-begin'), marked('bench-end')]
  if (!begin || !end) throw new Error('The marks are not in the trace.')
  const tasks = traceEvents.filter(
    (traceEvent) =>
      traceEvent.ph === 'X' &&
      /RunTask/.test(traceEvent.name) &&
      traceEvent.pid === end.pid &&
      traceEvent.tid === end.tid &&
      traceEvent.ts >= begin.ts - 50_000 &&
      traceEvent.ts <= end.ts,
  )
  // Some tasks stand in the trace under two names.
  const once = [...new Map(tasks.map((task) => [Math.round(task.ts / 100), task])).values()].filter(
    (event) => event.ts + (event.dur ?? 0) >= begin.ts,
  )
  return {
    cpu: once.reduce((sum, event) => sum + (event.tdur ?? event.dur ?? 0), 0) / 1_000,
    longest: Math.max(0, ...once.map((event) => (event.dur ?? 0) / 1_000)),
  }
}

/** Marks a moment in the trace. */
export const mark = (page: Page, name: string): Promise<void> =>
  page.evaluate((it) => void performance.mark(it), name)

/** Presses something, or types or chooses `to` in it, and waits until what follows is drawn. */
export async function press(page: Page, what: string, shown: string, to?: string): Promise<void> {
  const target = page.locator(what).first()
  await target.waitFor()
  const end = page.evaluate(
    (selector) =>
      new Promise<void>((resolve, reject) => {
        setTimeout(() => reject(new Error(`never shown: ${selector}`)), 15_000)
        const look = (): void => {
          if (!document.querySelector(selector)) return
          watch.disconnect()
          requestAnimationFrame(() =>
            requestAnimationFrame(() => {
              performance.mark('bench-end')
              resolve()
            }),
          )
        }
        const watch = new MutationObserver(look)
        watch.observe(document.body, {
          subtree: true,
          childList: true,
          attributes: true,
          characterData: true,
        })
      }),
    shown,
  )
  await mark(page, 'bench-begin')
  await target.evaluate((element: HTMLElement, value) => {
    if (value === undefined) return element.click()
    // As a browser does it: the value by its own setter, then the event.
    const { set } = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(element), 'value') ?? {}
    set?.call(element, value)
    element.dispatchEvent(
      new Event(element instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }),
    )
  }, to)
  await end
}

/** The one in the middle. */
export const medianOf = (list: number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!

/** Puts rows as they stand in a desk into a bare database with the same indexes, in one transaction. */
export const bareWrite = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const open = (name: string, version?: number, upgrade?: (to: IDBDatabase) => void) =>
      new Promise<IDBDatabase>((resolve, reject) => {
        const request = indexedDB.open(name, version)
        request.onupgradeneeded = () => upgrade?.(request.result)
        request.onsuccess = () => resolve(request.result)
        request.onerror = () => reject(request.error)
      })
    const all = (store: IDBObjectStore) =>
      new Promise<unknown[]>((resolve) => {
        const request = store.getAll()
        request.onsuccess = () => resolve(request.result)
      })
    const names = (await indexedDB.databases()).map((database) => database.name!)
    const name = names.find((other) => other === 'acolhida-desk-second') ?? 'acolhida-desk'
    const from = await open(name)
    const tables = [...from.objectStoreNames]
    const reading = from.transaction(tables)
    const rows = new Map<string, unknown[]>()
    for (const table of tables) rows.set(table, await all(reading.objectStore(table)))
    const shapes = tables.map((table) => {
      const store = from.transaction(table).objectStore(table)
      const indexes = [...store.indexNames].map((index) => {
        const { keyPath, multiEntry, unique } = store.index(index)
        return { index, keyPath, multiEntry, unique }
      })
      return { table, keyPath: store.keyPath, autoIncrement: store.autoIncrement, indexes }
    })
    const to = await open('bare', 1, (made) => {
      for (const { table, keyPath, autoIncrement, indexes } of shapes) {
        const store = made.createObjectStore(table, { keyPath, autoIncrement })
        for (const { index, keyPath: path, multiEntry, unique } of indexes)
          store.createIndex(index, path, { multiEntry, unique })
      }
    })
    const began = performance.now()
    const writing = to.transaction(tables, 'readwrite', { durability: 'strict' })
    for (const [table, some] of rows) for (const row of some) writing.objectStore(table).put(row)
    await new Promise((resolve) => {
      writing.oncomplete = resolve
    })
    const took = performance.now() - began
    to.close()
    from.close()
    indexedDB.deleteDatabase('bare')
    return took
  })

/** How much of a core a page takes that nobody touches, in percent. */
export async function standingStill(page: Page, cdp: CDPSession): Promise<number> {
  const spent = async (): Promise<number> => {
    const { metrics } = await cdp.send('Performance.getMetrics')
    return metrics.find((metric) => metric.name === 'TaskDuration')!.value
  }
  // What was done before leaves garbage that the browser collects when it has the time.
  await page.waitForTimeout(15_000)
  const before = await spent()
  await page.waitForTimeout(10_000)
  return ((await spent()) - before) * 10
}
