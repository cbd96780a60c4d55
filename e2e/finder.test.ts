import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { goTo, openSaid } from './client.ts'
import { type House, openHouse } from './house.ts'

let house: House
let desk: Page
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(() => house.close())

const find = async (typed: string) => {
  const dialog = desk.getByRole('dialog', { name: 'Find' })
  await dialog.getByRole('combobox').fill(typed)
  return dialog
}

it('a slash finds a setting, a person and a service, by the keyboard alone', async () => {
  await desk.keyboard.press('/')
  const dialog = await find('assess voi')
  expect(await dialog.getByRole('combobox').inputValue()).toBe('assess voi')
  await dialog.getByRole('option', { name: 'Voice assessment a service' }).waitFor()
  await desk.keyboard.press('Enter')
  await desk.getByRole('heading', { level: 1, name: 'Voice assessment' }).waitFor()

  // Also while one types elsewhere.
  await (await openSaid(desk, 'Length')).focus()
  await desk.keyboard.press('Control+k')
  await (await find('arrais')).getByRole('option', { name: /^Tomé Arrais/ }).waitFor()
  await desk.keyboard.press('Enter')
  await desk.getByRole('heading', { level: 1, name: /Tomé Arrais/ }).waitFor()

  await desk.keyboard.press('/')
  await (await find('zzz')).getByText('Nothing here has these words.').waitFor()
  await desk.keyboard.press('Escape')
  await desk.getByRole('dialog').waitFor({ state: 'detached' })
})

it('the practice’s page says how everything stands, and the rail shows where one is', async () => {
  await goTo(desk, 'My practice')
  const row = desk.locator('main li').filter({ has: desk.getByRole('link', { name: 'Limits', exact: true }) })
  await row.getByText('6 sessions a day at most').waitFor()
  await goTo(desk, 'Limits')
  await desk.getByLabel('Sessions a day').fill('4')
  await desk.getByRole('button', { name: 'Undo: a limit' }).waitFor()
  await goTo(desk, 'My practice')
  await row.getByText('4 sessions a day at most').waitFor()
})
