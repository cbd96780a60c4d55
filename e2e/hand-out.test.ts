import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

it('the link is handed out for the door or one service: to copy, as a code, on a sheet to print', async () => {
  const desk = await house.openDesk()
  await desk.getByRole('link', { name: 'Hand out the link' }).click()
  const address = `${house.door}/${house.slug}`
  expect(await desk.getByLabel('The address', { exact: true }).inputValue()).toBe(address)
  await desk.getByLabel('Leads to').selectOption({ label: 'Voice assessment' })
  const one = `${address}/voice-assessment`
  await desk.getByRole('img', { name: `QR code of ${one}` }).waitFor()
  expect(await desk.getByRole('textbox', { name: 'A line for the foot of your mails' }).inputValue()).toBe(
    `Voice assessment with me: ${one}`,
  )
  const saved = async (button: string): Promise<Buffer> => {
    const download = desk.waitForEvent('download')
    await desk.getByRole('button', { name: button }).click()
    return readFileSync((await (await download).path())!)
  }
  expect((await saved('As SVG')).toString()).toContain('<svg xmlns=')
  expect((await saved('PDF to print')).subarray(0, 5).toString()).toBe('%PDF-')
  // Where it leads, somebody is at home.
  const client = await house.visitor()
  await client.goto(one)
  await client.getByRole('heading', { level: 1 }).first().waitFor()
})
