import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())
it('looks', async () => {
  const page = await house.openDesk()
  await page.getByRole('link', { name: 'Begin my own practice' }).click()
  await page.getByRole('textbox', { name: 'Your name' }).fill('Nadia Ferro')
  await page.getByRole('textbox', { name: 'Where clients' }).fill('nadia@example.org')
  await page.screenshot({ path: '/tmp/l1.png' })
  const go = () => page.getByRole('button', { name: 'Go on' }).click()
  await go()
  await page.getByRole('heading', { name: 'When do you work?' }).waitFor()
  await page.screenshot({ path: '/tmp/l2.png' })
  await go()
  await page.getByRole('heading', { name: 'What can one' }).waitFor()
  await page.screenshot({ path: '/tmp/l3.png' })
  await go()
  await page.getByRole('heading', { name: 'What do you ask' }).waitFor()
  await page.screenshot({ path: '/tmp/l4.png' })
  await page.goto(house.desk)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.waitForTimeout(1500)
  await page.screenshot({ path: '/tmp/l5.png' })
  expect(1).toBe(1)
})
