import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { goTo } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

/** A built desk of its own, which a newer one can take the place of. */
const pages = mkdtempSync(join(tmpdir(), 'acolhida-desk-'))
let house: House
beforeAll(async () => {
  cpSync(resolve(import.meta.dirname, '..', 'web', 'dist', 'desk'), pages, { recursive: true })
  house = await openHouse({ deskPages: pages })
})
afterAll(async () => {
  await house.close()
  rmSync(pages, { recursive: true, force: true })
})

it('opens and reloads without its relay, keeps nothing the relay says, and tells of a newer desk', async () => {
  const desk = await house.openDesk({ serviceWorkers: 'allow' })
  const kept = (): Promise<string[]> =>
    desk.evaluate(async () => {
      const names = await caches.keys()
      const all = await Promise.all(names.map(async (name) => (await caches.open(name)).keys()))
      return all.flat().map(({ url }) => new URL(url).pathname)
    })
  await desk.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  await eventually('the page is kept', async () => ((await kept()).includes('/') ? true : undefined))
  expect((await kept()).filter((path) => path.startsWith('/api') || path === '/sw.js')).toEqual([])

  // Without any connection: reloaded, on any page, with what is in it.
  await desk.context().setOffline(true)
  await desk.reload()
  await desk.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
  await goTo(desk, 'Hours')
  await desk.reload()
  await desk.getByRole('heading', { level: 1, name: 'Hours' }).waitFor()
  await desk.getByText('The relay can’t be reached').waitFor({ timeout: 60_000 })
  await desk.getByLabel('Monday', { exact: true }).fill('10 – 12')
  await desk.getByRole('button', { name: /^Undo: the hours of Monday/ }).waitFor()

  // Another desk has been put there: the open one says so, and reloading brings it.
  await desk.context().setOffline(false)
  const worker = join(pages, 'sw.js')
  writeFileSync(worker, readFileSync(worker, 'utf8').replace(/name:`[0-9a-f]{12}`/, 'name:`another-desk`'))
  await desk.evaluate(async () => {
    await (await navigator.serviceWorker.ready).update()
  })
  await desk.getByText('A newer desk is there.').waitFor()
  await desk.getByRole('button', { name: 'Load it' }).click()
  await desk.getByText('Your door is open').waitFor()
  expect(await desk.getByText('A newer desk is there.').count()).toBe(0)
})
