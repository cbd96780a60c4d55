import { afterAll, beforeAll, expect, it } from 'vitest'
import { goTo } from './client.ts'
import { firstHour } from './first-hour.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

it('takes at most twelve presses and ten fields from the demo to one’s own open door', async () => {
  const { page, counts, own } = await firstHour(house)
  console.log(`From the demo to one’s own open door: ${counts.clicks} presses, ${counts.fields} fields.`)
  expect(counts.clicks).toBeLessThanOrEqual(12)
  expect(counts.fields).toBeLessThanOrEqual(10)

  // Nothing of the demo is left, at the desk or at the relay.
  await goTo(page, 'People')
  await page.getByText('People who ask for your time will be listed here.').waitFor()
  const rail = page.getByRole('navigation', { name: 'Desk' })
  await rail.getByText('Your door is open').waitFor()
  expect(await rail.getByText('This is the demo').count()).toBe(0)
  expect([...house.relay.here.keeper.house.openBookings()]).toEqual([])
  expect((await fetch(`${house.door}/api/door/${house.slug}`)).status).toBe(404)

  // At the door somebody can ask for it: on a day of one’s own, after one’s own question.
  await eventually('the door is open', async () => {
    const answer = await fetch(`${house.door}/api/door/nadia-ferro`)
    return answer.ok && ((await answer.text()).includes(own.service) || undefined)
  })
  const client = await house.visitor()
  await client.goto(`${house.door}/nadia-ferro`)
  await client.getByText(own.headline).first().waitFor()
  await client.getByRole('link', { name: new RegExp(own.service) }).click()
  await client.getByLabel(own.question).fill('Whether to stay.')
  await client.getByLabel('What brings you here?').fill('I would like to think aloud.')
  await client.getByRole('button', { name: 'Go on to the times' }).click()
  await client.getByRole('heading', { name: 'When suits you?' }).waitFor()
  await client.locator('main button[aria-pressed]').first().waitFor()

  // The demo can be brought back, with what it had at the beginning.
  await page.goto(`${house.desk}/desk`)
  await page.getByRole('button', { name: 'Begin the demo afresh' }).click()
  await page.getByText('This is the demo, as it was at the start.').waitFor()
  await goTo(page, 'Today')
  await page.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
})
