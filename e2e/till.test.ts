import { bookingOf } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { fillIn, mailTo, openMail, payAt, pick, sendButton } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const phone = { viewport: { width: 390, height: 844 } }

/** Books a seat in the reading group, which must be paid first, and opens the mailed link. */
async function seatFor(name: string, email: string): Promise<Page> {
  const page = await house.visitor()
  await page.goto(`${house.door}/${house.slug}`)
  await page.getByRole('link', { name: /Reading aloud/ }).click()
  await page.getByLabel('Children').check()
  await page
    .getByRole('group', { name: /at ease/ })
    .getByText('6', { exact: true })
    .click()
  await page.getByRole('button', { name: 'Go on to the times' }).click()
  await pick(page, 0)
  await page.getByText('is to be paid before it is booked').waitFor()
  await fillIn(page, name, email)
  await sendButton(page).click()
  await page.getByRole('heading', { name: 'One step more' }).waitFor()
  const mine = await openMail(house, email, phone)
  await mine.getByRole('heading', { name: 'A payment first' }).waitFor()
  return mine
}

it('a seat is booked once it is paid by card: refused, then paid, and told twice', async () => {
  const mine = await seatFor('Branca Luso', 'branca.luso@example.org')
  const mail = await mailTo(house, 'branca.luso', /^A payment first/)
  expect(mail.text).toContain('€18.00 is to be paid by')
  expect(
    house.mailbox.received.some(({ to, subject }) => to.includes('branca') && /^Confirmed/.test(subject)),
  ).toBe(false)
  await mine.getByRole('button', { name: 'Pay €18.00 by card' }).click()
  await payAt(mine, '4111 1111 1111 1112')
  await mine.getByText('This is not the number of a card').waitFor()
  await payAt(mine, '5555 5555 5555 4444')
  await mine.getByRole('link', { name: /^Back/ }).click()
  await mine.getByText('The payment of €18.00 did not go through. The card was refused.').waitFor()
  await mine.getByRole('button', { name: 'Pay €18.00 by card' }).click()
  await payAt(mine, '3056 930902 5904')
  await mine.getByRole('link', { name: /^Back/ }).click()
  await mine.getByText('Paid so far: €18.00').waitFor()
  await mailTo(house, 'branca.luso', /^Confirmed/)
  const id = [...house.relay.here.keeper.house.openBookings()].find(
    ({ asked }) => asked.person.email === 'branca.luso@example.org',
  )!.id
  await eventually('told twice', () => [...house.till.payments.values()].at(-1)!.told >= 2)
  expect(bookingOf(house.relay, id).payments).toHaveLength(1)

  const desk = await house.openDesk()
  await desk.goto(`${house.desk}/arrivals/${id}`)
  await desk.getByText('They paid €18.00 by card. With that it is booked.').waitFor()
  await desk.getByText('They went to pay €18.00 by card.').first().waitFor()
  await desk.goto(house.desk)
  await desk.getByText('has paid by card for').waitFor()
})

it('a seat that is not paid in time is free again, and nothing is owed; by hand it can be booked all the same', async () => {
  const mine = await seatFor('Caio Lobo', 'caio.lobo@example.org')
  const other = await seatFor('Dora Melo', 'dora.melo@example.org')
  const desk = await house.openDesk()
  await desk.getByRole('region', { name: 'Welcome, once they have paid' }).getByText('Caio Lobo').waitFor()
  await desk.goto(`${house.desk}/arrivals`)
  await desk
    .getByRole('link', { name: /Dora Melo/ })
    .first()
    .click()
  await desk.getByText('A payment must come first.').waitFor()
  await desk.getByRole('button', { name: 'Book it all the same' }).click()
  await desk.getByText('Booked.').waitFor()
  house.clock.forward(10_000)
  await other.reload()
  await other.getByRole('heading', { name: /is booked|confirmed/i }).waitFor()
  house.clock.forward(25 * 3_600_000)
  const lapsed = await mailTo(house, 'caio.lobo', /no longer kept|has run out|lapsed/i)
  expect(lapsed.text).toContain('what was to be paid first has not come')
  await mine.reload()
  await mine.getByText('What was to be paid first has not come').waitFor()
})
