import type { Page } from 'playwright-core'
import { eventually } from './house.ts'

/**
 * Puts a row of a sortable list elsewhere by the keyboard alone, each key when the list has said that it follows: rows
 * are measured a moment after one has been picked up, and only then do the arrows move it.
 * @param handle the name of its handle
 * @param name what the list calls it
 * @param places where it comes by: its own place first, counted from 1
 */
export async function sortByKeys(page: Page, handle: string, name: string, places: number[]): Promise<void> {
  await page.getByRole('button', { name: handle, exact: true }).focus()
  const [own, ...further] = places as [number, ...number[]]
  const at = (place: number) =>
    page.getByText(`${name} would come to place ${place} of`).waitFor({ state: 'attached' })
  await page.keyboard.press('Space')
  await at(own)
  const said = page.getByText(`${name} would come to place`)
  for (const place of further) {
    // An arrow pressed before the rows have been measured moves nothing, or does so later: whoever sees that presses
    // the one that leads there from where it is now.
    await eventually(`${name} at place ${place}`, async () => {
      const now = Number(/to place (\d+) of/.exec((await said.textContent()) ?? '')?.[1])
      if (now === place) return true
      await page.keyboard.press(place > now ? 'ArrowDown' : 'ArrowUp')
      const left = page.getByText(`${name} would come to place ${now} of`)
      await left.waitFor({ state: 'detached', timeout: 1_000 }).catch(() => undefined)
      return undefined
    })
  }
  await page.keyboard.press('Space')
}
