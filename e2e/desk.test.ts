import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { newPairingCode } from '@acolhida/relay/desk/pairing'
import { bookingsOf, linkTo } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { chooseStart, goTo, openSaid } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
let desk: Page

beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(() => house.close())

async function saveBackup(page: Page): Promise<string> {
  await goTo(page, 'This desk')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save a backup' }).click()
  return readFileSync((await (await download).path())!, 'utf8')
}

it('changes what the door shows while it is typed, and undoes it', async () => {
  const client = await house.visitor()
  await client.goto(`${house.door}/${house.slug}`)
  await client.getByRole('heading', { name: 'Voice assessment' }).waitFor()
  await goTo(desk, 'Who I am')
  await desk.getByLabel('Greeting').fill('Good evening, and welcome.')
  await client.getByText('Good evening, and welcome.').waitFor()
  await desk.getByRole('button', { name: 'Undo: the greeting' }).click()
  await client.getByText('Choose what you have come for').waitFor()

  await goTo(desk, 'Services')
  await desk.getByRole('link', { name: 'Voice assessment' }).click()
  await (await openSaid(desk, 'What it costs', 'Price')).fill('102.50')
  await client.getByText('€102.50').waitFor()
  await (await openSaid(desk, 'At the door')).uncheck()
  await client.getByRole('heading', { name: 'Voice assessment' }).waitFor({ state: 'detached' })
  await desk.getByLabel('At the door', { exact: true }).check()
  await client.getByRole('heading', { name: 'Voice assessment' }).waitFor()
})

it('keeps what can not be used in its field, says why, and publishes nothing of it', async () => {
  await goTo(desk, 'Hours')
  const monday = desk.getByLabel('Monday', { exact: true })
  await monday.fill('9 - 12, 11 - 13')
  await desk.getByText('It overlaps with 09:00 – 12:00.').waitFor()
  expect(await monday.inputValue()).toBe('9 - 12, 11 - 13')
  expect(house.relay.here.keeper.house.pack?.practice.hours.weekly[0]).toHaveLength(2)
  await monday.fill('8:30 - 12')
  await eventually(
    'the new hours at the relay',
    () => house.relay.here.keeper.house.pack?.practice.hours.weekly[0]?.[0]?.from === '08:30',
  )
  expect(await desk.getByText('It overlaps').count()).toBe(0)
})

it('follows a new zone and a new currency', async () => {
  await goTo(desk, 'Who I am')
  await desk.getByLabel('Currency').selectOption('JPY')
  await eventually(
    'the currency at the relay',
    () => house.relay.here.keeper.house.pack?.practice.profile.currency === 'JPY',
  )
  const client = await house.visitor()
  await client.goto(`${house.door}/${house.slug}`)
  await client.getByText('¥10,250').waitFor()
  await desk.getByRole('button', { name: 'Undo: the currency' }).click()
  await desk.getByLabel('Time zone').selectOption('Atlantic/Azores')
  await eventually(
    'the zone at the relay',
    () => house.relay.here.keeper.house.pack?.practice.profile.zone === 'Atlantic/Azores',
  )
  await desk.getByRole('button', { name: 'Undo: the time zone' }).click()
})

it('explains every closed time of the diary to pointer and keyboard', async () => {
  await goTo(desk, 'Diary')
  await desk.getByLabel('Service').selectOption('voice-assessment')
  await desk.getByRole('button', { name: 'The week after' }).click()
  const sunday = desk.getByRole('slider').nth(6)
  await sunday.focus()
  await sunday.press('ArrowRight')
  expect(await sunday.getAttribute('aria-valuetext')).toMatch(/is closed: There are no hours on Sun/)
  await desk.getByText(/^There are no hours on Sun/).waitFor()
  await sunday.press('Escape')
  expect(await desk.getByText(/^There are no hours on Sun/).count()).toBe(0)
  const tuesday = desk.getByRole('slider').nth(1)
  await tuesday.focus()
  await tuesday.press('Home')
  for (let i = 0; i < 30 && !/is open/.test((await tuesday.getAttribute('aria-valuetext')) ?? ''); i++)
    await tuesday.press('ArrowRight')
  expect(await tuesday.getAttribute('aria-valuetext')).toMatch(/is open/)
})

it('reads another calendar, closes its times, and says whose they are', async () => {
  await goTo(desk, 'Other calendars')
  await desk.getByLabel('What you call it').fill('My phone')
  await desk.getByLabel('Where it is read').fill('somewhere')
  await desk.getByRole('button', { name: 'Read this calendar' }).click()
  await desk.getByText(/is not a web address/).waitFor()
  await desk.getByLabel('Where it is read').fill(`${house.letterbox}/calendar.ics`)
  await desk.getByRole('button', { name: 'Read this calendar' }).click()
  await desk.getByText(/^Busy \d+ times in the year to come/).waitFor()
  await goTo(desk, 'Diary')
  await desk.getByRole('button', { name: 'The week after' }).click()
  await desk.getByText('My phone').first().waitFor()
})

it('keeps what is typed in the moment before a page is loaded anew', async () => {
  await goTo(desk, 'Who I am')
  const phone = desk.getByLabel('Phone')
  const before = await phone.inputValue()
  await phone.fill('+351 239 000 111')
  await desk.reload()
  await desk.getByRole('button', { name: /^Undo: / }).waitFor()
  expect(await phone.inputValue()).toBe('+351 239 000 111')
  await eventually(
    'it at the relay',
    () => house.relay.here.keeper.house.practice?.profile.phone === '+351 239 000 111' || undefined,
  )
  await phone.fill(before)
  await desk.getByText('Your door is open').waitFor()
})

it('adds a service, puts it on the door, and removes it again', async () => {
  await goTo(desk, 'Services')
  await desk.getByRole('button', { name: 'Add a service' }).click()
  await desk.getByRole('heading', { level: 1, name: 'New service' }).waitFor()
  await (await openSaid(desk, 'Name')).fill('Breathing lesson')
  await (await openSaid(desk, 'What it costs')).selectOption('fixed')
  await desk.getByLabel('Price', { exact: true }).fill('40')
  await (await openSaid(desk, 'At the door')).check()
  const client = await house.visitor()
  await client.goto(`${house.door}/${house.slug}/breathing`)
  await client.goto(`${house.door}/${house.slug}`)
  await client.getByText('€40.00').waitFor()
  await desk.getByRole('button', { name: 'Remove this service' }).click()
  await client.getByText('€40.00').waitFor({ state: 'detached' })
})

it('draws hours on a band and takes that back', async () => {
  await goTo(desk, 'Hours')
  const band = desk.locator('fieldset').filter({ hasText: 'Sunday, to draw on' })
  await band.scrollIntoViewIfNeeded()
  const box = (await band.boundingBox())!
  await desk.mouse.move(box.x + box.width * 0.25, box.y + 10)
  await desk.mouse.down()
  await desk.mouse.move(box.x + box.width * 0.5, box.y + 10, { steps: 6 })
  await desk.mouse.up()
  await desk.getByRole('button', { name: 'Sunday, 06:00 to 12:00' }).waitFor()
  await desk.getByRole('button', { name: 'Sunday, 06:00 to 12:00' }).press('Shift+ArrowRight')
  await desk.getByRole('button', { name: 'Sunday, 06:00 to 12:15' }).press('Delete')
  await eventually(
    'an empty Sunday',
    async () => (await desk.getByLabel('Sunday', { exact: true }).inputValue()) === '',
  )
})

it('books somebody in by hand, and moves them by dragging with the consequences shown first', async () => {
  await goTo(desk, 'Diary')
  await desk.getByRole('button', { name: 'The week after' }).click()
  await desk.getByRole('button', { name: 'Book somebody in' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('Name').fill('Ulla Brandt')
  await dialog.getByLabel('Mail address').fill('ulla.brandt@example.org')
  const monday = house.relay.clock.now() + 14 * 86_400_000
  const day = new Date(monday - ((new Date(monday).getUTCDay() + 6) % 7) * 86_400_000)
    .toISOString()
    .slice(0, 10)
  await chooseStart(dialog, `${day}T20:30`)
  await dialog.getByText('It does not lie inside one block of your hours').waitFor()
  await chooseStart(dialog, `${day}T10:00`)
  await dialog.getByRole('button', { name: 'Book Ulla Brandt in' }).click()
  await eventually('the booking at the relay', () =>
    bookingsOf(house.relay).find((booking) => booking.asked.person.name === 'Ulla Brandt'),
  )
  await desk.goto(`${house.desk}/diary?day=${day}`)
  const session = desk.getByRole('link', { name: /Ulla Brandt/ })
  await session.waitFor()
  await desk.getByText('Your door is open').waitFor()
  const box = (await session.boundingBox())!
  await desk.mouse.move(box.x + 8, box.y + 8)
  await desk.mouse.down()
  await desk.mouse.move(box.x + 200, box.y + 8, { steps: 8 })
  await desk.mouse.up()
  await desk.getByRole('dialog', { name: 'Move Ulla Brandt' }).waitFor()
  await desk.getByRole('button', { name: /^Move to / }).click()
  await desk.getByText('Moved Ulla Brandt').waitFor()
  const moved = await eventually('the move at the relay', () => {
    const found = bookingsOf(house.relay).find((booking) => booking.asked.person.name === 'Ulla Brandt')
    return found && found.sequence === 1 ? found : undefined
  })
  expect(moved.start).toBeGreaterThan(Date.parse(`${day}T11:00Z`))
})

it('says how sessions went: from Today at once, on the page with what was otherwise, and put right', async () => {
  await desk.getByRole('link', { name: /^Today/ }).click()
  const asked = desk.getByRole('region', { name: 'How did it go?' })
  await asked
    .getByRole('button', { name: /^Missed ?, Odile/ })
    .first()
    .click()
  const status = (): string | undefined =>
    bookingsOf(house.relay).find(({ id }) => id === 'past-odile')?.status
  await eventually('missed at the relay', () => status() === 'missed')
  const said = desk.getByText('Missed: Odile Ferrand', { exact: true }).locator('..')
  await said.getByRole('button', { name: 'Undo', exact: true }).click()
  await eventually('taken back at the relay', () => status() === 'booked')
  await asked.getByRole('button', { name: /^Missed ?, Odile/ }).waitFor()
  await asked.getByRole('button', { name: 'All attended' }).click()
  await asked.waitFor({ state: 'detached' })
  await eventually('attended at the relay', () => status() === 'attended')

  await desk.goto(`${house.desk}/arrivals/past-odile`)
  await desk.getByRole('button', { name: /^Late or longer… ?, Odile/ }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('Minutes late').fill('ten')
  await dialog.getByRole('button', { name: 'Attended' }).click()
  await dialog.getByText('Say how many minutes late as a number').waitFor()
  await dialog.getByLabel('Minutes late').fill('10')
  await dialog.getByLabel('Minutes it lasted').fill('90')
  await dialog.getByRole('button', { name: 'Attended' }).click()
  await desk.getByText('Taken back: “They did not come.”').waitFor()
  await desk.getByText('They were here. 10 minutes late. It lasted 90 minutes.').waitFor()
  await desk.getByText('They came 10 minutes late. It lasted 90 minutes instead of 75.').waitFor()
})

it('sets the house rules, says with dates what they come to, and refuses what can not be', async () => {
  await goTo(desk, 'House rules')
  await desk.getByText('In the last twelve months, no client has cancelled a paid session.').waitFor()
  const after = desk.getByLabel('After that, it costs')
  await after.fill('101')
  await desk.getByText('That is more than the whole price: write 100 at most.').waitFor()
  await after.fill('10')
  await desk.getByText(/cancelling later can't cost less than earlier/).waitFor()
  await after.fill('80')
  await desk.getByText('After that, cancelling costs 80 % of the price.').waitFor()
  await desk.getByLabel('Moves by the client').fill('0')
  await desk.getByText('Only you can move it.').waitFor()
  const rules = () => house.relay.here.keeper.house.pack?.practice.houseRules
  await eventually('the rules at the relay', () => rules()?.cancelAfter === 80 && rules()?.move.times === 0)
  await desk.getByRole('button', { name: 'Undo: moving' }).click()
  await desk.getByText(/Its client can move it until .*, twice at the most/).waitFor()
  await desk.getByRole('button', { name: 'Undo: what cancelling costs' }).click()
  await desk.getByText('After that, cancelling costs the whole price.').waitFor()
})

it('moves by keys alone and tells them', async () => {
  await desk.locator('h1').click()
  await desk.keyboard.press('p')
  await desk.getByRole('heading', { name: 'People' }).waitFor()
  await desk.keyboard.press('?')
  await desk.getByRole('dialog', { name: 'Keys' }).waitFor()
  await desk.keyboard.press('Escape')
  await desk.getByRole('dialog', { name: 'Keys' }).waitFor({ state: 'detached' })
})

it('works without the relay, says what has not gone out, and brings refusals back with their reason', async () => {
  await goTo(desk, 'Today')
  await desk.context().route('**/api/**', (route) => route.abort())
  await desk.getByRole('button', { name: /^Welcome for .*Tomé Arrais/ }).click()
  await desk.getByText('Not gone out yet: 1 decision').waitFor()
  await desk.getByText('Welcomed Tomé Arrais: not gone out yet').waitFor()
  await goTo(desk, 'Who I am')
  await desk.getByLabel('What you do, in a line').fill('Voice coach')
  await desk.getByText('Not gone out yet: 1 decision and changes to the door').waitFor({ timeout: 60_000 })

  // Meanwhile the client has withdrawn.
  const secret = linkTo(house.relay, 'asks-tome', true)
  const client = await house.visitor()
  await client.goto(`${house.door}/${house.slug}/my/${secret}`)
  await client.getByRole('button', { name: 'Withdraw my request' }).click()
  await client.getByRole('button', { name: 'Yes, withdraw it' }).click()
  await client.getByRole('heading', { name: 'This request is closed' }).waitFor()

  await desk.context().unroute('**/api/**')
  await goTo(desk, 'Today')
  const told = desk.getByRole('alert').filter({ hasText: 'Tomé Arrais' })
  await told.getByText('The client has withdrawn the request.').waitFor({ timeout: 60_000 })
  await told.getByRole('button', { name: 'Put aside' }).click()
  await told.waitFor({ state: 'detached' })
  await eventually(
    'the headline at the relay',
    () => house.relay.here.keeper.house.pack?.practice.profile.headline === 'Voice coach',
    60_000,
  )
})

it('joins two people who are one', async () => {
  await goTo(desk, 'People')
  await desk
    .getByRole('row')
    .filter({ hasText: 'Amara Dindi' })
    .getByRole('button', { name: 'Join with … Amara Dindi' })
    .click()
  await desk.getByLabel('The same person as').fill('vilar')
  await desk.getByRole('option', { name: /nuno.vilar@example.org/ }).click()
  await desk.getByRole('button', { name: 'Join them' }).click()
  await desk.getByText('amara.dindi@example.org, nuno.vilar@example.org').waitFor()
})

it('publishes a new version of the terms and keeps the old one as it was', async () => {
  await goTo(desk, 'Terms')
  await desk.getByRole('button', { name: /Write a new version.*Consent to a recording/ }).click()
  const text = desk.getByRole('textbox', { name: /^Text of/ }).first()
  await text.fill('Shorter now.')
  await goTo(desk, 'Today')
  await goTo(desk, 'Terms')
  expect(await text.textContent()).toBe('Shorter now.')
  await desk.getByRole('button', { name: 'Publish as version 2' }).click()
  await desk.getByText('version 2 ·').waitFor()
  const versions = await eventually('version 2 at the relay', () => {
    const all = house.relay.here.keeper.house.pack?.practice.terms[1]?.versions
    return all?.length === 2 ? all : undefined
  })
  expect(versions.map((version) => version.number)).toEqual([1, 2])
})

it('is empty in another browser, opens a backup there, and gives the same bytes again', async () => {
  const text = await saveBackup(desk)
  const path = join(tmpdir(), `acolhida-backup-${process.pid}.json`)
  writeFileSync(path, text)
  const other = await house.visitor()
  await other.goto(house.desk)
  for (const name of ['Begin a practice', 'Open a backup', 'Look round the demo'])
    await other.getByRole('heading', { name }).waitFor()
  const bad = join(tmpdir(), `acolhida-bad-${process.pid}.json`)
  writeFileSync(bad, text.replace('"space":"larger"', '"space":"huge"'))
  await other.getByLabel('Choose a file').setInputFiles(bad)
  await other.getByText(/practice\.space: “space” must be one of/).waitFor()
  await other.getByLabel('Choose a file').setInputFiles(path)
  await other.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
  expect(await saveBackup(other)).toBe(text)

  // Pairing it cuts the first desk off, after saying so.
  await other.getByLabel(/The code the relay printed/).fill(newPairingCode(house.relay.store))
  await other.getByRole('button', { name: 'Pair this desk' }).click()
  await other.getByText('Going on here cuts that one off.').waitFor()
  await other.getByRole('button', { name: /cut the other off/ }).click()
  await other.getByText('Your door is open').waitFor()
  await goTo(desk, 'Today')
  await desk.getByRole('button', { name: /^Welcome for .*Lucjan Bielak/ }).click()
  await desk.getByText('No longer paired').waitFor({ timeout: 60_000 })
})

it('begins a practice of one’s own', async () => {
  const own = await house.visitor()
  await own.goto(house.desk)
  await own.getByRole('button', { name: 'Begin', exact: true }).click()
  await own.getByLabel('Your name').fill('Ødegaard & Café')
  await own.getByLabel('Where clients’ answers go').fill('me@example.org')
  await own.getByLabel('Your time zone').selectOption('Europe/Oslo')
  await own.getByLabel('Your currency').selectOption('NOK')
  await own.getByRole('button', { name: 'Begin the practice' }).click()
  await own.getByRole('heading', { name: 'When do you work?' }).waitFor()
  await own.getByText('No relay yet').waitFor()

  // Nobody comes in before it says so; what is still missing leads to where it is set.
  await goTo(own, 'Today')
  const closed = own.getByRole('region', { name: 'Your door is closed' })
  await closed.getByRole('link', { name: 'What you do, in a line' }).click()
  await own.getByLabel('What you do, in a line').fill('Talks that help')
  await own.getByLabel('What the door says while it is closed').fill('From January on.')
  await goTo(own, 'Today')
  await closed.getByText('It says: “From January on.”').waitFor()
  expect(await closed.getByRole('link').count()).toBe(0)
  await closed.getByRole('button', { name: 'Open my door' }).click()
  await closed.waitFor({ state: 'detached' })
})

it('closes the door with a text for whoever comes, and opens it again', async () => {
  const house = await openHouse()
  try {
    const desk = await house.openDesk()
    await goTo(desk, 'Who I am')
    await desk.getByRole('checkbox', { name: 'My door is open' }).click()
    await desk.getByLabel('What the door says while it is closed').fill('I am back in January.')
    const client = await house.visitor()
    await eventually('the closed door at the relay', () => {
      const door = house.relay.here.keeper.house.pack?.practice.door
      return door?.open === false && door.text === 'I am back in January.'
    })
    await client.goto(`${house.door}/${house.slug}`)
    await client.getByText('I am back in January.').waitFor()
    expect(await client.getByRole('heading', { name: 'Voice assessment' }).count()).toBe(0)
    await goTo(desk, 'Today')
    await desk.getByRole('button', { name: 'Open my door' }).click()
    await eventually(
      'the open door at the relay',
      () => house.relay.here.keeper.house.pack?.practice.door?.open === true,
    )
    await client.reload()
    await client.getByRole('heading', { name: 'Voice assessment' }).waitFor()
  } finally {
    await house.close()
  }
})
