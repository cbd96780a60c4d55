import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { look } from './axe.ts'
import { fillIn, linkIn, mailTo, openMail, pick, sendButton, toTheTimes } from './client.ts'
import { type House, openHouse } from './house.ts'

let house: House
let desk: Page
let client: Page
const narrow = { viewport: { width: 390, height: 844 } }
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
  client = await house.visitor(narrow)
})
afterAll(() => house.close())

it('is asked for a child, who is reminded, and agrees and prepares themselves', async () => {
  await toTheTimes(client, house)
  await pick(client, 2)
  await fillIn(client, 'Ilse Maas', 'ilse@example.org')
  await client.getByLabel('Somebody else comes').check()
  await client.getByLabel('They agree and prepare themselves').check()
  await sendButton(client).click()
  // What is missing has the focus, and nothing typed is lost.
  await client.getByText('Please write their name on one line', { exact: false }).waitFor()
  await client.getByText('Please write their mail address', { exact: false }).waitFor()
  expect(await client.evaluate(() => document.activeElement?.id)).toBe('field-comes-name')
  await client.getByLabel('Name of who comes').fill('Mia Maas')
  await client.getByLabel('Their mail address').first().fill('mia@example.org')
  await client.getByLabel('Remind them instead of me').check()
  await look(client, 'others-door')
  await sendButton(client).click()
  await client.getByText('Mia Maas comes.').waitFor()
  const asker = await openMail(house, 'ilse@example.org', narrow)
  await asker.getByText('Mia Maas comes.').waitFor()
})

it('stands at the desk under the name of who comes, and says who pays', async () => {
  await desk.getByRole('link', { name: 'Arrivals' }).click()
  await desk.getByRole('link', { name: /Mia Maas \(Ilse Maas\)/ }).click()
  await desk.getByRole('heading', { level: 1, name: 'Mia Maas (Ilse Maas)' }).waitFor()
  await desk.getByRole('button', { name: 'Change…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('Who pays: name').fill('Maas Bakery')
  await dialog.getByLabel('Who pays: mail').fill('books@example.org')
  await look(desk, 'others-dialog')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await desk.getByText('Maas Bakery · books@example.org').waitFor()
  await look(desk, 'others-desk')
  await desk
    .getByRole('button', { name: /^Welcome/ })
    .first()
    .click()
})

it('lets who comes agree, behind a link that shows nothing of who asked', async () => {
  const welcome = desk.getByRole('dialog')
  if (await welcome.isVisible()) await welcome.getByRole('button', { name: /^Welcome/ }).click()
  await desk.getByText('Welcomed Ilse Maas').waitFor()
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, 'mia@example.org', /agree/i)
  const page = await house.visitor(narrow)
  await page.goto(linkIn(mail.text))
  await page.getByText('Mia Maas comes.').waitFor()
  await page.getByText('Maas Bakery pays.').waitFor()
  expect(await page.getByText('My voice gives out').count()).toBe(0)
  await look(page, 'others-theirs')
  await page
    .getByRole('checkbox', { name: /I agree/ })
    .first()
    .check()
  expect(await page.getByLabel('Your name').inputValue()).toBe('Mia Maas')
  expect(await page.getByText('To be paid').count()).toBe(0)
  await page.getByRole('button', { name: /agree/i }).click()
  await expect.poll(() => page.getByRole('checkbox', { name: /I agree/ }).count()).toBe(0)
})
