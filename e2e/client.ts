import type { Locator, Page } from 'playwright-core'
import { eventually, type House } from './house.ts'

/** Answers the questions before a voice assessment. */
export async function answerAssessment(page: Page, price = 'That is all right'): Promise<void> {
  await page.getByLabel('What brings you here?').fill('My voice gives out by the end of the day.')
  await page.getByLabel('Teaching', { exact: true }).check()
  await page.getByLabel('I am not hoarse').check()
  await page
    .getByRole('group', { name: /How tired/ })
    .getByText('7', { exact: true })
    .click()
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await page.getByLabel(price).check()
}

/** Opens the door, chooses the assessment and goes on to the times. */
export async function toTheTimes(page: Page, house: House): Promise<void> {
  await page.goto(`${house.door}/${house.slug}`)
  await page.getByRole('link', { name: /Voice assessment/ }).click()
  await answerAssessment(page)
  await page.getByRole('button', { name: 'Go on to the times' }).click()
  await page.getByRole('heading', { name: 'When suits you?' }).waitFor()
}

/** Picks the nth opening shown and goes on to the terms. */
export async function pick(page: Page, nth: number): Promise<string> {
  const start = page.locator('main button[aria-pressed]').nth(nth)
  await start.waitFor()
  await start.click()
  const on = page.getByRole('button', { name: /^Go on with/ })
  const name = (await on.textContent()) ?? ''
  await on.click()
  await page.getByRole('heading', { name: 'What we agree' }).waitFor()
  return name.replace('Go on with ', '')
}

/** Agrees, says who comes, and sends. */
export async function fillIn(page: Page, name: string, email: string): Promise<void> {
  await page.getByLabel('I agree to Studio terms').check()
  await page.getByLabel('Your name').fill(name)
  await page.getByLabel('Your mail address').fill(email)
}

export const sendButton = (page: Page) => page.getByRole('button', { name: /^(Ask for|Book) / })

/** Waits for a mail. */
export const mailTo = (house: House, address: string, subject: RegExp) =>
  eventually(
    `a mail to ${address} about ${subject}`,
    () => house.mailbox.received.find((mail) => mail.to.includes(address) && subject.test(mail.subject)),
    60_000,
  )
export const linkIn = (text: string): string => /http:\/\/\S+/.exec(text)![0]

/** Opens the link that was mailed, as its receiver, in a browser of their own. */
export async function openMail(
  house: House,
  address: string,
  options: Parameters<House['visitor']>[0] = {},
): Promise<Page> {
  const mail = await mailTo(house, address, /^Your request/)
  const page = await house.visitor(options)
  await page.goto(linkIn(mail.text))
  return page
}

/** The places of work in the desk's rail; all else is found through the practice's page. */
const WORK = new Set(['Today', 'Arrivals', 'Diary', 'Waiting', 'People', 'Outbox', 'Money', 'My practice'])

/** Goes to a page of the desk as one does by the rail. */
export async function goTo(page: Page, name: string): Promise<void> {
  const rail = page.getByRole('navigation', { name: 'Desk' })
  if (WORK.has(name)) return rail.getByRole('link', { name }).click()
  await rail.getByRole('link', { name: 'My practice' }).click()
  await page.getByRole('heading', { level: 1, name: 'My practice' }).waitFor()
  await page.locator('main section li').getByRole('link', { name, exact: true }).click()
}

/** Opens a value in a sentence about a service, and gives its field. */
export async function openSaid(page: Page, value: string, field = value): Promise<Locator> {
  const button = page.getByRole('button', { name: new RegExp(`^${value}: `) })
  if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click()
  return page.getByLabel(field, { exact: true })
}

/** Types a day and a time, written as YYYY-MM-DDTHH:MM. */
export async function chooseStart(dialog: Locator, at: string): Promise<void> {
  const [day = '', time = ''] = at.split('T')
  await dialog.getByLabel('Day', { exact: true }).fill(day)
  await dialog.getByLabel('Time', { exact: true }).fill(time)
}

/** Types a card on the till's page, and pays. */
export async function payAt(till: Page, number: string): Promise<void> {
  await till.getByLabel('Number of the card').fill(number)
  await till.getByLabel('Good until').fill('05/28')
  await till.getByLabel('Code on the back').fill('123')
  await till.getByRole('button', { name: /^Pay/ }).click()
}
