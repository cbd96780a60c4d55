import { resolve } from 'node:path'
import { DAY, instant, zone } from '@acolhida/core/time'
import { demoMonths } from '@acolhida/demo/months'
import { linkTo } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { fillIn, goTo, pick, sendButton, toTheTimes } from './client.ts'
import { lookRound, openHouse } from './house.ts'

/** One picture of each main view, from the demo as it stands at a Tuesday's late morning in Lisbon. */
const FOLDER = resolve(import.meta.dirname, '..', 'docs', 'screenshots')

function nextTuesdayMorning(): number {
  const here = zone('Europe/Lisbon')
  let { day } = here.toWall(instant(Date.now()))
  while ((day + 4) % 7 !== 2) day = (day + 1) as typeof day
  const at = here.toInstant(day, 11 * 60 + 10)
  return at < Date.now() ? at + 7 * DAY : at
}

async function main(): Promise<void> {
  const house = await openHouse({ at: nextTuesdayMorning(), demo: demoMonths })
  const visitor = async (phone = false): Promise<Page> => {
    return house.visitor(phone ? { viewport: { width: 390, height: 844 }, deviceScaleFactor: 2 } : {})
  }
  const shoot = async (page: Page, name: string): Promise<void> => {
    await page.evaluate(() => document.fonts.ready)
    await page.waitForTimeout(300)
    await page.screenshot({ path: resolve(FOLDER, `${name}.png`) })
    console.log(`  ${name}`)
  }

  const door = await visitor()
  await door.goto(`${house.door}/${house.slug}`)
  await door.getByRole('heading', { name: 'Voice assessment' }).waitFor()
  await shoot(door, 'door-services')
  await toTheTimes(door, house)
  await door.locator('main button[aria-pressed]').nth(1).click()
  await door.getByRole('button', { name: /^Go on with/ }).waitFor()
  await shoot(door, 'door-times')

  const phone = await visitor(true)
  await phone.goto(`${house.door}/${house.slug}/voice-assessment`)
  await phone.getByLabel('What brings you here?').fill('I read the news on the radio and lose my low notes.')
  await shoot(phone, 'door-questions-phone')
  await toTheTimes(phone, house)
  await pick(phone, 4)
  await fillIn(phone, 'Beatriz Louro', 'beatriz.louro@example.org')
  await shoot(phone, 'door-terms-phone')
  await sendButton(phone).click()
  await phone.getByRole('heading', { name: 'One step more' }).waitFor()
  await shoot(phone, 'door-where-things-stand-phone')

  const begin = await visitor()
  await begin.goto(house.desk)
  await begin.getByRole('button', { name: 'Look round' }).waitFor()
  await lookRound(house.relay, begin)
  await begin.getByText('Your door is open').waitFor()
  await shoot(begin, 'desk-today')
  await begin.getByRole('heading', { level: 3 }).getByRole('link').first().click()
  await begin.getByRole('heading', { name: 'Answers' }).waitFor()
  await shoot(begin, 'desk-request')
  for (const [name, file] of [
    ['Money', 'desk-money'],
    ['My practice', 'desk-practice'],
    ['Hours', 'desk-hours'],
    ['Terms', 'desk-terms'],
    ['What is sent', 'desk-sent'],
  ] as const) {
    await goTo(begin, name)
    await begin.getByRole('heading', { level: 1 }).waitFor()
    await shoot(begin, file)
  }
  await goTo(begin, 'People')
  await begin.getByLabel('Who is shown').selectOption('known')
  await begin.getByRole('row').nth(1).getByRole('link').first().click()
  await begin.getByRole('link', { name: 'Plan ahead' }).click()
  await begin.getByRole('button', { name: 'Type it' }).click()
  await begin.getByLabel('Not before', { exact: true }).fill('14:00')
  await begin.getByLabel('Over by', { exact: true }).fill('16:00')
  await begin.getByRole('button', { name: 'Add these times' }).click()
  await begin.getByRole('button', { name: 'Type it' }).click()
  await begin.getByText('They can’t come then.').first().waitFor()
  await begin.evaluate(() => scrollTo(0, 0))
  await shoot(begin, 'desk-plan')
  await goTo(begin, 'Services')
  await begin.getByRole('link', { name: 'Voice assessment' }).click()
  await begin.getByText('open starts').first().waitFor()
  await shoot(begin, 'desk-service')
  await goTo(begin, 'Questions')
  await begin.getByRole('link', { name: 'Before an assessment' }).click()
  await begin.getByText('of the ways').first().waitFor()
  await shoot(begin, 'desk-questions')
  await goTo(begin, 'Diary')
  await begin.getByLabel('Service').selectOption('voice-assessment')
  const band = begin.getByRole('slider').nth(3)
  const box = (await band.boundingBox())!
  await begin.mouse.move(box.x + box.width * 0.36, box.y + 50)
  await shoot(begin, 'desk-diary')
  await begin.goto(`${house.desk}/desk`)
  await begin.getByRole('button', { name: 'Pair a phone' }).click()
  const url = await begin.getByRole('link', { name: /\/day#/ }).getAttribute('href')
  const day = await visitor(true)
  await day.goto(url ?? '')
  await day.getByRole('heading', { name: 'My day' }).waitFor()
  await shoot(day, 'my-day-phone')
  await goTo(begin, 'Waiting')
  await begin.getByRole('heading', { name: 'A few more hours' }).waitFor()
  await shoot(begin, 'desk-waiting')
  const { house: there } = house.relay.here.keeper
  const prepares = [...there.openBookings()].find(({ course, status }) => course && status === 'booked')
  if (!prepares) throw new Error('Nobody has anything to prepare.')
  const yours = await visitor(true)
  await yours.goto(`${house.door}/${house.slug}/yours/${linkTo(house.relay, prepares.id)}`)
  await yours.getByRole('heading', { level: 2 }).first().waitFor()
  await shoot(yours, 'door-yours-phone')
  await house.close()
}

await main()
