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
  let last = own
  for (const place of further) {
    const key = place > last ? 'ArrowDown' : 'ArrowUp'
    // An arrow pressed before the rows have been measured moves nothing: whoever sees that presses it again.
    await eventually(`${name} at place ${place}`, async () => {
      const said = page.getByText(`${name} would come to place ${place} of`)
      if ((await said.count()) > 0) return true
      await page.keyboard.press(key)
      return said.waitFor({ state: 'attached', timeout: 1_000 }).then(
        () => true,
        () => undefined,
      )
    })
    last = place
  }
  await page.keyboard.press('Space')
}
