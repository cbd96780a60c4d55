import { DAY, type Instant, instant, MINUTE, zone } from '@acolhida/core/time'
import { bookingOf, bookingsOf } from '@acolhida/relay/tests/inside'
import type { Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { chooseStart } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
let desk: Page
/** The Monday of the week after next, and the one after. */
let monday: string
let next: string

beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
  const { day } = zone('Europe/Lisbon').toWall(house.clock.now())
  const first = (day - ((day + 3) % 7) + 14) * DAY
  monday = new Date(first).toISOString().slice(0, 10)
  next = new Date(first + 7 * DAY).toISOString().slice(0, 10)
})
afterAll(() => house.close())

const booked = (name: string) => bookingsOf(house.relay).find((booking) => booking.asked.person.name === name)

/** Opens the dialog, says who comes and when. */
async function enter(name: string, at: string): Promise<Locator> {
  await desk.getByRole('button', { name: 'Book somebody in' }).click()
  const dialog = desk.getByRole('dialog', { name: 'Book somebody in' })
  await dialog.getByLabel('Service').selectOption('voice-assessment')
  await dialog.getByLabel('Name', { exact: true }).fill(name)
  await dialog.getByLabel('Mail address').fill(`${name.toLowerCase().replace(' ', '.')}@example.org`)
  await chooseStart(dialog, at)
  return dialog
}

it('books somebody in through the same questions and quote', async () => {
  await desk.goto(`${house.desk}/diary?day=${monday}&service=voice-assessment`)
  const dialog = await enter('Ulla Brandt', `${monday}T10:00`)
  await dialog.getByText('Ask the questions of “Before an assessment”').click()
  await dialog.getByRole('button', { name: 'Book Ulla Brandt in' }).click()
  await dialog.getByText(/answers need another look/).waitFor()
  await dialog.getByLabel('What brings you here?').fill('She loses her voice when she lectures.')
  await dialog.getByLabel('Teaching', { exact: true }).check()
  await dialog.getByLabel('I am not hoarse').check()
  await dialog
    .getByRole('group', { name: /How tired/ })
    .getByText('7', { exact: true })
    .click()
  await dialog.getByLabel('In two parts, please').check()
  const comesTo = dialog.getByRole('region', { name: 'What it comes to' })
  await comesTo.getByText('75 min · €95.00').waitFor()
  await comesTo.getByText('Look first').waitFor()
  await dialog.getByRole('button', { name: 'Book Ulla Brandt in' }).click()
  const booking = await eventually('the booking at the relay', () => booked('Ulla Brandt'))
  expect(booking.asked).toMatchObject({ proof: 'hand', answers: { price: 'parts' } })
  expect(booking.asked.questionnaire?.id).toBe('voice-questions')
})

it('drags a session to another day, with what would follow told before it is dropped', async () => {
  await desk.goto(`${house.desk}/diary?day=${monday}&service=voice-assessment`)
  await desk.getByText('Your door is open').waitFor()
  const session = desk.getByRole('link', { name: /Ulla Brandt/ })
  const lanes = desk.locator('[data-lane]')
  const from = (await session.boundingBox())!
  const tuesday = (await lanes.nth(1).boundingBox())!
  const saturday = (await lanes.nth(5).boundingBox())!
  const label = desk.locator('.drag-label')
  await desk.mouse.move(from.x + 8, from.y + 8)
  await desk.mouse.down()
  await desk.mouse.move(from.x + 8, saturday.y + 20, { steps: 10 })
  await label.getByText(/^Sat .*, 10:00: There are no hours on Sat/).waitFor()
  // Escape puts it back where it was.
  await desk.keyboard.press('Escape')
  expect(await label.isVisible()).toBe(false)
  await desk.mouse.up()
  expect(await desk.getByRole('dialog').count()).toBe(0)
  await desk.mouse.move(from.x + 8, from.y + 8)
  await desk.mouse.down()
  await desk.mouse.move(from.x + 8, tuesday.y + 20, { steps: 10 })
  await label.getByText(/^Tue .*, 10:00: open\.$/).waitFor()
  await desk.mouse.up()
  const dialog = desk.getByRole('dialog', { name: 'Move Ulla Brandt' })
  await dialog.getByText('is open.').waitFor()
  await dialog.getByLabel('Service').selectOption('coaching')
  await dialog.getByLabel('Where').selectOption('studio')
  await dialog.getByRole('button', { name: /^Move to Tue/ }).click()
  const moved = await eventually('the move at the relay', () => {
    const found = booked('Ulla Brandt')
    return found?.sequence === 1 ? found : undefined
  })
  expect(new Date(moved.start).getUTCDay()).toBe(2)
  expect(moved).toMatchObject({ service: 'coaching', minutes: 50 })
})

it('keeps time for oneself by drawing on free ground, and takes it back', async () => {
  await desk.goto(`${house.desk}/diary?day=${next}&service=voice-assessment`)
  await desk.getByText('Your door is open').waitFor()
  const lane = desk.locator('[data-lane]').nth(0)
  const box = (await lane.boundingBox())!
  const [from, to] = (await lane.getAttribute('data-lane'))!.split(' ').map(Number) as [number, number]
  const x = (at: Instant): number => box.x + ((at - from) / (to - from)) * box.width
  const ten = instant(Date.parse(`${next}T10:00Z`))
  const before = await desk.getByRole('status').filter({ hasText: 'starts' }).textContent()
  await desk.mouse.move(x(ten) + 1, box.y + 50)
  await desk.mouse.down()
  await desk.mouse.move(x(instant(ten + 105 * MINUTE)), box.y + 50, { steps: 8 })
  await desk.mouse.up()
  await desk.getByText(/is kept for yourself, 10:00 – 12:00/).waitFor()
  await eventually('the time away at the relay', () =>
    house.relay.here.keeper.house.pack?.practice.away.some((away) => away.from === `${next}T10:00`),
  )
  await desk
    .getByRole('status')
    .filter({ hasText: 'kept for yourself' })
    .getByRole('button', { name: 'Undo' })
    .click()
  await eventually(
    'the time open again',
    () => !house.relay.here.keeper.house.pack?.practice.away.some((away) => away.from === `${next}T10:00`),
  )
  expect(await desk.getByRole('status').filter({ hasText: 'starts' }).textContent()).toBe(before)
})

it('shows a day, a week, four weeks and a list, and what easier rules would open', async () => {
  await desk.goto(`${house.desk}/diary?service=first-conversation`)
  await desk.getByRole('button', { name: 'Four weeks' }).click()
  await eventually('28 bands', async () => (await desk.getByRole('slider').count()) === 28)
  await desk.getByText(/^With a reach of 20 working days, \d+ more starts/).waitFor()
  await desk.getByRole('button', { name: 'Day', exact: true }).click()
  await eventually('one band', async () => (await desk.getByRole('slider').count()) === 1)
  const name = await desk.getByRole('heading', { level: 1 }).textContent()
  await desk.getByRole('button', { name: 'The day after' }).click()
  await expect.poll(() => desk.getByRole('heading', { level: 1 }).textContent()).not.toBe(name)
  await desk.getByRole('button', { name: 'List', exact: true }).click()
  await desk.getByRole('link', { name: 'Tomé Arrais' }).waitFor()
  // What a newcomer may not book is open to those who are invited.
  await desk.goto(`${house.desk}/diary?day=${next}&service=coaching`)
  await desk.getByText(/^0 starts/).waitFor()
  await desk.getByLabel('Openings for').selectOption('known')
  await desk.getByText(/^[1-9]\d* starts/).waitFor()
})

it('calls a group session off, writes to everybody in it, and takes the date away', async () => {
  const group = bookingsOf(house.relay)
    .filter((booking) => booking.service === 'reading-aloud' && booking.start > house.clock.now())
    .sort((a, b) => a.start - b.start)
  const { start } = group[0]!
  const here = group.filter((booking) => booking.start === start && booking.status === 'booked')
  expect(here.length).toBeGreaterThan(0)
  await desk.goto(`${house.desk}/diary?day=${new Date(start).toISOString().slice(0, 10)}`)
  await desk.getByRole('button', { name: /of 6 Reading aloud/ }).click()
  const dialog = desk.getByRole('dialog', { name: /^Reading aloud/ })
  await dialog.getByRole('link', { name: here[0]!.asked.person.name }).waitFor()
  await dialog.getByLabel('A word to everybody').fill('The studio has no heating today.')
  await dialog.getByRole('button', { name: /^Call this session off/ }).click()
  for (const booking of here) {
    const now = await eventually('the cancellation', () => {
      const found = bookingOf(house.relay, booking.id)
      return found?.status === 'cancelled' ? found : undefined
    })
    expect(now).toMatchObject({
      cancelledBy: 'practitioner',
      share: 0,
      text: 'The studio has no heating today.',
    })
  }
  const date = new Date(start).toISOString().slice(0, 10)
  await eventually(
    'the date gone from the door',
    () =>
      !house.relay.here.keeper.house.pack?.practice.services
        .find((service) => service.id === 'reading-aloud')
        ?.groupDates.some((groupDate) => groupDate.start.startsWith(date)),
  )
})
