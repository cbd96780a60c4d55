import type { Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { bookingsOf } from '../relay/tests/inside.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const hasFocus = (of: Locator): Promise<boolean> =>
  of.evaluate((element) => element === document.activeElement).catch(() => false)

/** Goes on with Tab until something has the focus. @throws Error when it is not reached within so many presses */
async function tabTo(page: Page, to: Locator, most = 60): Promise<void> {
  await to.waitFor()
  for (let press = 0; press < most; press++) {
    if (await hasFocus(to)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`Not reached by ${most} presses of Tab: ${to}`)
}

it('somebody asks for a time by keyboard alone, and focus stands where they go on', async () => {
  const page = await house.visitor()
  const { keyboard } = page
  await page.goto(`${house.door}/${house.slug}`)
  await tabTo(page, page.getByRole('link', { name: /Voice assessment/ }))
  await keyboard.press('Enter')
  const first = page.getByLabel('What brings you here?')
  await first.waitFor()
  await eventually('focus at the first question', () => hasFocus(first))
  await keyboard.type('My voice gives out by the end of the day.')
  await tabTo(page, page.getByLabel('Teaching', { exact: true }), 4)
  await keyboard.press('Space')
  await tabTo(page, page.getByLabel(/hoarse/).first(), 6)
  await keyboard.press('Space')
  await tabTo(
    page,
    page
      .getByRole('group', { name: /How tired/ })
      .getByRole('radio')
      .first(),
    6,
  )
  await keyboard.press('ArrowRight')
  await tabTo(page, page.getByRole('button', { name: 'Go on', exact: true }), 6)
  await keyboard.press('Enter')
  const price = page.getByLabel('That is all right')
  await tabTo(page, price, 8)
  await keyboard.press('Space')
  await tabTo(page, page.getByRole('button', { name: 'Go on to the times' }), 14)
  await keyboard.press('Enter')
  await page.getByRole('heading', { name: 'When suits you?' }).waitFor()
  await tabTo(page, page.locator('main button[aria-pressed]').nth(1), 20)
  await keyboard.press('Enter')
  const on = page.getByRole('button', { name: /^Go on with/ }).and(page.locator(':visible'))
  await eventually('focus at the way on', () => hasFocus(on))
  await keyboard.press('Enter')
  await tabTo(page, page.getByLabel('I agree to Studio terms'), 12)
  await keyboard.press('Space')
  await tabTo(page, page.getByLabel('Your name'), 6)
  await keyboard.type('Kveta Nova')
  await tabTo(page, page.getByLabel('Your mail address'), 3)
  await keyboard.type('kveta@example.org')
  await tabTo(page, page.getByRole('button', { name: /^(Ask for|Book) / }), 12)
  await keyboard.press('Enter')
  await page.getByRole('heading', { name: 'One step more' }).waitFor()
  expect(bookingsOf(house.relay).some(({ asked }) => asked.person.name === 'Kveta Nova')).toBe(true)
})

it('the practitioner answers, opens, books in and changes a rule by keyboard alone', async () => {
  const page = await house.openDesk()
  const { keyboard } = page
  // Welcoming: focus goes on to whoever waits next.
  const welcomes = page.getByRole('button', { name: /^Welcome for/ })
  const waiting = await welcomes.count()
  await tabTo(page, welcomes.first())
  await keyboard.press('Enter')
  await eventually('one less waits', async () => (await welcomes.count()) === waiting - 1 || undefined)
  const next = page.getByRole('heading', { level: 3 }).getByRole('link').first()
  await eventually('focus at who waits next', () => hasFocus(next))
  // Opening: at the head of what was opened.
  await keyboard.press('Enter')
  await page.getByRole('heading', { name: 'Answers' }).waitFor()
  await eventually('focus at the head', () => hasFocus(page.getByRole('heading', { level: 1 })))
  // Going somewhere by one key, and by words.
  await keyboard.press('d')
  await page.getByRole('button', { name: 'Book somebody in' }).waitFor()
  await tabTo(page, page.getByRole('button', { name: 'Book somebody in' }), 20)
  await keyboard.press('Enter')
  const dialog = page.getByRole('dialog')
  await tabTo(page, dialog.getByLabel('Name', { exact: true }), 6)
  await keyboard.type('Ola Nordmann')
  await tabTo(page, dialog.getByLabel('Mail address'), 4)
  await keyboard.type('ola@example.org')
  await tabTo(page, dialog.getByRole('list', { name: 'Open starts' }).getByRole('button').nth(2), 20)
  await keyboard.press('Enter')
  await tabTo(page, dialog.getByRole('button', { name: 'Book Ola Nordmann in' }), 40)
  await keyboard.press('Enter')
  await dialog.waitFor({ state: 'detached' })
  await eventually('the booking', () =>
    bookingsOf(house.relay).some(({ asked }) => asked.person.name === 'Ola Nordmann'),
  )
  await keyboard.press('Control+k')
  await page.getByRole('dialog').getByRole('combobox').waitFor()
  await keyboard.type('notice voice')
  await page.getByRole('option', { name: /^Notice Voice assessment/ }).waitFor()
  await keyboard.press('Enter')
  const notice = page.getByLabel('Notice', { exact: true })
  await eventually('focus in the field itself', () => hasFocus(notice))
  await keyboard.press('Control+a')
  await keyboard.type('36')
  await page.getByRole('button', { name: /^Notice: 36 h/ }).waitFor()
  await keyboard.press('Escape')
  await eventually('focus back in the sentence', () =>
    hasFocus(page.getByRole('button', { name: /^Notice: 36 h/ })),
  )
})
