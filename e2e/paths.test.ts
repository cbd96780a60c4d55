import { execFileSync } from 'node:child_process'
import { referenceOf } from '@acolhida/core/ledger'
import { balanceOf, nextPay } from '@acolhida/core/preparing'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { look } from './axe.ts'
import { mailTo, payAt } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'
import { sortByKeys } from './sorting.ts'

let house: House
let desk: Page
let client: Page
/** What has come of the path, in minor units. */
let paid = 0
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
  client = await house.visitor({ viewport: { width: 390, height: 844 } })
})
afterAll(() => house.close())

const EMAIL = 'benat.lasarte@example.org'
const inside = () => house.relay.here.keeper.house
const course = () => [...inside().courses()].find(({ given }) => given.path)
const balance = () => balanceOf(course()!, (id) => inside().booking(id), house.clock.now())
const toPerson = async (): Promise<void> => {
  await desk.goto(`${house.desk}/people`)
  await desk.getByRole('link', { name: 'Beñat Lasarte' }).first().click()
}

it('a path is written: a long session, a pause, short ones, and the price in parts', async () => {
  await desk.goto(`${house.desk}/paths`)
  await desk.getByText('such things will stand here').waitFor()
  await desk.getByRole('button', { name: 'Begin a path' }).click()
  const card = () => desk.locator('main section.sheet')
  await card().getByLabel('What it is called').fill('Ten weeks of voice')
  await card().getByLabel('What it costs', { exact: false }).fill('3000')
  await card().getByLabel('Sessions of', { exact: true }).selectOption({ label: 'Coaching session' })
  await card().getByLabel('How many').fill('6')
  await card().getByLabel('Minutes').fill('30')
  await card().getByRole('button', { name: 'Payments' }).click()
  await card().getByLabel('Parts of the price').fill('7')
  await card().getByText('6 of €428.57, and a last one of €428.58.').waitFor()
  await card().getByRole('button', { name: 'Sessions', exact: true }).click()
  await card().getByLabel('Minutes').nth(1).fill('60')
  await card().getByText('7 payments', { exact: false }).waitFor()
  await desk.getByRole('heading', { name: 'Ten weeks of voice' }).waitFor()
  // The long one comes first: its handle is moved by the keyboard.
  await sortByKeys(desk, 'Move Sessions of First conversation', 'Sessions of First conversation', [3, 2, 1])
  await desk.getByText('1 × First conversation, 60 min', { exact: false }).waitFor()
  await look(desk, 'paths')
})

it('it is given on one sheet that says what reaches them when', async () => {
  await toPerson()
  await desk.getByRole('button', { name: 'Give them a path…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByRole('heading', { name: 'What reaches them, and when' }).waitFor()
  expect(await dialog.getByText('€428.57 is due', { exact: false }).count()).toBe(6)
  await dialog.getByText('As Beñat Lasarte will read it').click()
  await look(desk, 'give-path')
  await dialog.getByRole('button', { name: 'Give it to Beñat Lasarte' }).click()
  await eventually('it has reached the relay', () => course() !== undefined)
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Ten weeks of voice/)
  expect(mail.text).toContain('one session: First conversation, 60 min')
  await client.goto(/http\S+\/yours\/\S+/.exec(mail.text)![0])
  await client.getByRole('heading', { name: 'Ten weeks of voice' }).waitFor()
  await client.getByText('0 planned, 7 to plan', { exact: false }).waitFor()
  await look(client, 'path')
})

it('its client plans all of it on their page, changes one time, and books it at once', async () => {
  await client.getByRole('button', { name: 'Plan 7 sessions' }).click()
  await client.getByLabel('How often').selectOption({ label: 'Each week' })
  await client.getByRole('button', { name: 'See what that gives' }).click()
  await client.getByRole('heading', { name: 'All 7 sessions have a time' }).waitFor()
  const other = client.getByLabel('Another time that day:').nth(1)
  const times = await other.locator('option').allTextContents()
  await other.selectOption(times.at(-1)!)
  await look(client, 'plan')
  await client.getByRole('button', { name: 'Book all 7 at once' }).click()
  await client.getByText('7 planned, 0 to plan', { exact: false }).waitFor()
  expect(balance()).toMatchObject({ planned: 7, left: 0 })
  expect(balance().sessions.map(({ booking }) => booking!.price)).toEqual([
    75_000,
    ...Array<number>(6).fill(37_500),
  ])
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Confirmed/)
  expect(mail.text.match(/^– /gm)).toHaveLength(7)
  await look(client, 'planned')
})

it('its money stands with all other money, and a transfer of a part is sure by its reference', async () => {
  const part = nextPay(course()!)!
  const said = (part.amount / 100).toFixed(2)
  await desk.goto(`${house.desk}/money`)
  const paths = desk.getByRole('region', { name: 'Paths' })
  await paths.getByRole('link', { name: 'Beñat Lasarte' }).waitFor()
  await paths.getByText(`€${said} by`, { exact: false }).waitFor()
  await look(desk, 'money-paths')
  const statement = {
    ...{ name: 'statement.csv', mimeType: 'text/csv' },
    buffer: Buffer.from(`Date;Name;Amount;Text\n2026-11-24;B. Lasarte;${said};${referenceOf(course()!)}\n`),
  }
  const open = async (): Promise<void> => {
    await desk.getByLabel('Open a statement').setInputFiles(statement)
    await desk.getByRole('button', { name: 'Read it so' }).click()
  }
  await open()
  await desk.getByText('1 entry is sure, 0 to look at').waitFor()
  await desk.getByRole('button', { name: 'Note the sure one' }).click()
  await eventually('the payment', () => course()?.payments?.[0]?.amount === part.amount)
  await desk.getByText(`€${said} by`, { exact: false }).waitFor()
  await desk.reload()
  await open()
  await desk.getByText('0 entries are sure, 0 to look at, 1 noted before').waitFor()
  paid = part.amount
})

it('invoices are made of its parts, saved as PDF, told by mail, and stand on their page', async () => {
  await toPerson()
  await desk.getByRole('button', { name: 'Make an invoice…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('Part 2 of 7', { exact: false }).check()
  await look(desk, 'invoice-parts')
  await dialog.getByRole('button', { name: 'Make it, of €857.14' }).click()
  const [saved] = await Promise.all([
    desk.waitForEvent('download'),
    desk.getByRole('button', { name: 'PDF of IM-1' }).click(),
  ])
  const read = execFileSync('pdftotext', ['-layout', await saved.path(), '-'], { encoding: 'utf8' })
  for (const said of ['Ten weeks of voice, part 1 of 7', '€428.57', referenceOf(course()!)])
    expect(read).toContain(said)
  // The first part has come already.
  expect(read).toContain('Open: €428.57')
  await desk.getByRole('button', { name: 'Take it back…' }).click()
  await dialog.getByLabel('Why').fill('One part at a time, please.')
  await dialog.getByRole('button', { name: 'Take it back' }).click()
  await desk.getByText('IM-2, taking IM-1 back').waitFor()
  await look(desk, 'path-invoices')
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Invoice IM-1/)
  expect(mail.text).toContain('In all: €857.14')
  await client.goto(/http\S+\/yours\/\S+/.exec(mail.text)![0])
  await client.getByText('Invoice IM-1', { exact: false }).first().click()
  await client.getByText('Ten weeks of voice, part 2 of 7').first().waitFor()
  await look(client, 'their-invoices')
})

it('the next part is paid by card, on their page', async () => {
  const said = '€857.14 of €3,000.00'
  await client.getByRole('button', { name: 'Pay €428.57 by card' }).click()
  await payAt(client, '5555 5555 5555 4444')
  await client.getByRole('link', { name: /^Back/ }).click()
  await client.getByText('The payment of €428.57 did not go through. The card was refused.').waitFor()
  await look(client, 'path-card')
  await client.getByRole('button', { name: 'Pay €428.57 by card' }).click()
  await payAt(client, '4111 1111 1111 1111')
  await client.getByRole('link', { name: /^Back/ }).click()
  await client.getByText(said, { exact: false }).waitFor()
  expect(client.url()).not.toContain('back=')
  await toPerson()
  await desk.getByText(said, { exact: false }).waitFor()
  const written = desk.locator('section', { has: desk.getByRole('heading', { name: 'Written to them' }) })
  await written.getByText('Invoice IM-1: Ten weeks of voice', { exact: false }).click()
  await written.getByText('In all: €857.14', { exact: false }).waitFor()
  await look(desk, 'written-to')
  paid += 42_857
})

it('the desk keeps its balance: what has come, longer, and an early end with what is to be given back', async () => {
  await toPerson()
  await desk.getByText('0 used · 7 planned · 0 left').waitFor()
  await desk.getByRole('button', { name: 'Something has come…' }).click()
  const dialog = () => desk.getByRole('dialog')
  await dialog()
    .getByLabel('How much', { exact: false })
    .fill(((300_000 - paid) / 100).toFixed(2))
  await dialog().getByRole('button', { name: 'Note it' }).click()
  await desk.getByText('€3,000.00 of €3,000.00 paid').waitFor()
  await look(desk, 'balance')
  // Moved by hand, a session tells where it lies on its path.
  await desk.getByRole('link', { name: 'Tue 8 Dec', exact: false }).last().click()
  await desk.getByRole('button', { name: 'Move…' }).click()
  await dialog().getByLabel('Day', { exact: true }).fill('2026-11-30')
  await dialog().getByText('On their path it lies from Tue 1 Dec on and until', { exact: false }).waitFor()
  await look(desk, 'move-on-path')
  await desk.keyboard.press('Escape')
  await toPerson()
  await desk.getByRole('button', { name: 'Make it longer…' }).click()
  await dialog().getByRole('button', { name: 'Add 1 session' }).click()
  await desk.getByText('0 used · 7 planned · 1 left').waitFor()
  // It is planned from here, as what it is.
  await desk.getByRole('link', { name: 'Plan 1 session' }).click()
  await desk.getByRole('heading', { name: 'Ten weeks of voice with Beñat Lasarte' }).waitFor()
  await desk.getByRole('button', { name: 'Book 1 session' }).click()
  await desk.getByText('0 used · 8 planned · 0 left').waitFor()
  await desk.getByRole('button', { name: 'End it early…' }).click()
  await dialog().getByText('€3,000.00 is to be given back.').waitFor()
  await look(desk, 'end')
  await dialog().getByRole('button', { name: 'End it', exact: true }).click()
  await eventually('it has ended', () => course()?.ended !== undefined)
})
