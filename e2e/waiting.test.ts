import { enter } from '@acolhida/core/house'
import { DAY, dateAt, instant, MINUTE, zone } from '@acolhida/core/time'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { fillIn, goTo, linkIn, mailTo, openSaid, toTheTimes } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
let desk: Page
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(() => house.close())

const LISBON = zone('Europe/Lisbon')
const lines = () => [...house.relay.here.keeper.house.inLine()]
const lineOf = (email: string) => lines().find((line) => line.joined.person.email === email)!

/** Somebody goes as far as the times, waits for one instead, and presses the link in the mail. */
async function getInLine(name: string, email: string, when: (page: Page) => Promise<void>): Promise<Page> {
  const page = await house.visitor({ viewport: { width: 390, height: 844 } })
  await toTheTimes(page, house)
  await page.getByRole('button', { name: 'Nothing suits? Wait for a time' }).click()
  await page.getByRole('heading', { name: 'Wait for a time' }).waitFor()
  await when(page)
  await fillIn(page, name, email)
  await page.getByRole('button', { name: 'Get in line' }).click()
  await page.getByRole('heading', { name: 'Not in line yet' }).waitFor()
  const mail = await mailTo(house, email, /^You wait for Voice assessment/)
  const own = await house.visitor({ viewport: { width: 390, height: 844 } })
  await own.goto(linkIn(mail.text))
  // Opening the link does nothing yet.
  await own.getByRole('heading', { name: 'Not in line yet' }).waitFor()
  expect(lineOf(email).status).toBe('unproved')
  await own.getByRole('button', { name: 'Yes, this is my address' }).click()
  await own.getByRole('heading', { name: 'You wait for Voice assessment' }).waitFor()
  return own
}

/** The session of somebody who is booked in the coming days is cancelled at the desk. */
async function cancelOne(): Promise<void> {
  await desk.goto(`${house.desk}/arrivals/next-benat`)
  await desk.getByRole('button', { name: 'Cancel…' }).click()
  await desk
    .getByRole('dialog')
    .getByRole('button', { name: /^Cancel/ })
    .click()
  await eventually(
    'it is cancelled',
    () => house.relay.here.keeper.house.booking('next-benat')?.status === 'cancelled',
  )
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
}

it('a freed time finds who waits: asked, held, shown, taken with one press', async () => {
  const nadia = await getInLine('Nadia Kern', 'nadia.kern@example.org', async (page) => {
    // A window that can’t be is refused where it stands; what was typed stays.
    await page.getByRole('button', { name: 'Type it' }).click()
    await page.getByLabel('From', { exact: true }).fill('2026-12-10')
    await page.getByLabel('Until', { exact: true }).fill('2026-12-01')
    await page.getByRole('alert').getByText('This ends before it begins.').waitFor()
    await page.getByLabel('Until', { exact: true }).fill('2026-12-20')
    await page.getByLabel('Not before', { exact: true }).fill('08:00')
    await page.getByRole('button', { name: 'Add these times' }).click()
    await page.getByText('Thu 10 Dec to Sun 20 Dec, from 08:00').waitFor()
    await page.getByRole('button', { name: 'Any time in the next three weeks' }).click()
  })
  // What is said there is kept by one press.
  await nadia.getByRole('button', { name: /^Take away: Thu 10 Dec/ }).click()
  await nadia.getByRole('button', { name: 'Keep this' }).click()
  await nadia.getByText('This is how it is now.').waitFor()
  expect(lineOf('nadia.kern@example.org').wishes.windows).toHaveLength(1)

  await goTo(desk, 'Waiting')
  const section = desk.getByRole('region', { name: 'Voice assessment' })
  await section.getByText('Nadia Kern').first().waitFor()
  await desk.getByRole('button', { name: /^They fit.*Nadia Kern$/ }).click()
  await desk.getByRole('region', { name: 'To be looked at' }).waitFor({ state: 'detached' })
  await cancelOne()
  const mail = await mailTo(house, 'nadia.kern', /^A time is free for you: Voice assessment/)
  expect(mail.text).toContain('It is kept for you until')
  await goTo(desk, 'Waiting')
  const card = desk.getByRole('region', { name: 'Free just now' })
  await card.getByText('Nadia Kern').first().waitFor()
  await card.getByText('nobody else is left to ask').waitFor()

  const own = await house.visitor({ viewport: { width: 390, height: 844 } })
  await own.goto(linkIn(mail.text))
  await own.getByRole('heading', { name: 'A time is free for you', level: 1 }).waitFor()
  await own.getByText('€95.00').waitFor()
  await own.getByText(/You can cancel free of charge until/).waitFor()
  await own.getByRole('button', { name: /^Take Thu/ }).click()
  await own.getByRole('heading', { level: 1, name: /booked|confirmed|yours/i }).waitFor()
  const booking = [...house.relay.here.keeper.house.openBookings()].find(({ asked }) => asked.line)
  expect(booking).toMatchObject({ status: 'booked', service: 'voice-assessment' })
  await card.waitFor({ state: 'detached' })
  await desk.getByText('of 1 freed time found somebody in three months').waitFor()
  // The older link says so, too.
  await nadia.reload()
  await nadia.getByRole('heading', { name: 'You have taken a time' }).waitFor()
})

it('how it is filled is one sentence, and the practitioner steps in: by hand, left out, stopped', async () => {
  await desk.goto(`${house.desk}/services/voice-assessment`)
  await (await openSaid(desk, 'How many are asked for one time')).selectOption('none')
  await desk.getByRole('button', { name: /: nobody until I say so$/ }).waitFor()
  await eventually(
    'the relay knows',
    () =>
      house.relay.here.keeper.house.practice?.services.find(({ id }) => id === 'voice-assessment')?.waitlist
        ?.ask === 'none',
  )
  const ines = await getInLine('Inês Faro', 'ines.faro@example.org', async (page) => {
    await page.getByRole('button', { name: 'Draw it on the next days' }).click()
    const band = page.getByRole('group', { name: /^Fri 4 Dec, to draw on/ })
    await band.scrollIntoViewIfNeeded()
    const box = (await band.boundingBox())!
    await page.mouse.move(box.x + box.width * 0.375, box.y + 12)
    await page.mouse.down()
    await page.mouse.move(box.x + box.width * 0.52, box.y + 12, { steps: 5 })
    await page.mouse.up()
    await page.getByText(/^Fri 4 Dec, \d\d:\d\d to \d\d:\d\d$/).waitFor()
  })
  // Somebody whom nothing is drawn for, put in line by hand for a stretch of the diary.
  await desk.goto(`${house.desk}/diary?day=2026-12-04&view=day&service=voice-assessment`)
  await desk.getByText('Your door is open').waitFor()
  const lane = desk.locator('[data-lane]').nth(0)
  const box = (await lane.boundingBox())!
  const [from, to] = (await lane.getAttribute('data-lane'))!.split(' ').map(Number) as [number, number]
  const nine = LISBON.toInstant(LISBON.toWall(instant(Date.parse('2026-12-04T12:00Z'))).day, 9 * 60)
  const x = (at: number): number => box.x + ((at - from) / (to - from)) * box.width
  await desk.mouse.move(x(nine) + 1, box.y + 50)
  await desk.mouse.down()
  await desk.mouse.move(x(nine + 180 * MINUTE), box.y + 50, { steps: 8 })
  await desk.mouse.up()
  await desk.getByRole('button', { name: 'No, somebody waits for it…' }).click()
  const dialog = desk.getByRole('dialog', { name: 'Put somebody in line' })
  await dialog.getByText(/^Fri 4 Dec, 09:00 to/).waitFor()
  await dialog.getByLabel('Name').fill('Ravi Stone')
  await dialog.getByLabel('Mail address').fill('ravi.stone@example.org')
  await dialog.getByRole('button', { name: 'Put Ravi Stone in line' }).click()
  await mailTo(house, 'ravi.stone', /^You wait for Voice assessment/)

  // A free day is closed and opened again: that frees it.
  const friday = '2026-12-04'
  const hours = house.relay.here.keeper.house.practice!.hours
  expect(hours.changedDays).toEqual([])
  await desk.goto(`${house.desk}/waiting`)
  const section = desk.getByRole('region', { name: 'Voice assessment' })
  await section.getByText('Ravi Stone').first().waitFor()
  await desk.goto(`${house.desk}/hours`)
  await desk.getByLabel('Friday', { exact: true }).fill('9-9:15')
  await desk.keyboard.press('Tab')
  await eventually(
    'Fridays closed',
    () => house.relay.here.keeper.house.practice?.hours.weekly[4]?.[0]?.to === '09:15',
  )
  await desk.getByLabel('Friday', { exact: true }).fill('9-12:30')
  await desk.keyboard.press('Tab')
  await eventually(
    'Fridays open',
    () => house.relay.here.keeper.house.practice?.hours.weekly[4]?.[0]?.to === '12:30',
  )
  await eventually('it is free', () =>
    [...house.relay.here.keeper.house.freedTimes()].some(({ ended }) => !ended),
  )
  expect(lines().every(({ offer }) => offer === undefined)).toBe(true)

  await goTo(desk, 'Waiting')
  const card = desk.getByRole('region', { name: 'Free just now' }).getByRole('listitem').first()
  await card.getByText('Nobody is asked until you say so').waitFor()
  await card.getByText(/^Fullest: /).waitFor()
  await card.getByRole('button', { name: /^Leave out.*Ravi Stone$/ }).click()
  await card.getByText('1 other is not asked, and why').click()
  await card.getByText('Ravi Stone: you have left them out').waitFor()
  await card.getByRole('button', { name: /^Offer .* to Inês Faro/ }).click()
  await mailTo(house, 'ines.faro', /^A time is free for you/)
  expect(dateAt(LISBON, lineOf('ines.faro@example.org').offer!.start)).toBe(friday)
  await card.getByText('Held for').waitFor()
  await ines.reload()
  await ines.getByRole('button', { name: 'Not for me' }).click()
  await ines.getByRole('heading', { name: 'You wait for Voice assessment' }).waitFor()
  await ines.getByText(/has|have let .* go on to the next in line/).waitFor()
  // Nobody is left for it: it is over by itself. What else is free is stopped by hand.
  const freedTimes = () => [...house.relay.here.keeper.house.freedTimes()]
  await eventually('it is over', () => freedTimes().some(({ ended }) => ended?.how === 'nobody'))
  const still = freedTimes().filter(({ ended }) => !ended)
  const stops = desk.getByRole('button', { name: 'Stop: leave it open to all' })
  for (let left = still.length; left > 0; left--) {
    await eventually('the cards as they are', async () => (await stops.count()) === left)
    await stops.first().click()
    await eventually('one less', () => freedTimes().filter(({ ended }) => !ended).length < left)
  }
  // A pause, and the way out, with a second press.
  await ines.getByRole('button', { name: 'Pause for a while' }).click()
  await ines.getByRole('heading', { name: 'Your waiting is paused' }).waitFor()
  await ines.getByRole('button', { name: 'Leave the line' }).click()
  await ines.getByRole('button', { name: 'Yes, leave' }).click()
  await ines.getByRole('heading', { name: 'You no longer wait' }).waitFor()
})

it('a day on which everything is taken is waited for from the times themselves', async () => {
  // All of Friday is taken, but not closed.
  const friday = LISBON.toInstant(LISBON.toWall(instant(house.clock.now() + 3 * DAY)).day, 9 * 60)
  house.relay.here.call(enter, {
    ...{ id: 'all-of-friday-0123456789', service: 'voice-assessment', place: 'studio', minutes: 210 },
    ...{ clash: true, silent: true, start: friday },
    person: { name: 'Choir', email: 'choir@example.org', zone: 'Europe/Lisbon' },
  })
  const page = await house.visitor()
  await toTheTimes(page, house)
  const tell = page.getByRole('button', { name: 'Tell me if Fri 27 Nov frees up' })
  await tell.waitFor()
  await tell.click()
  await page.getByRole('heading', { name: 'Wait for a time' }).waitFor()
  await page.getByText('Fri 27 Nov', { exact: true }).waitFor()
})
