import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { practiceOfYears } from '@acolhida/bench/years'
import { writeBackup } from '@acolhida/core/formats'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { goTo as goToPage } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

/** A desk with years in it, opened from a file. */
const PEOPLE = 600
const BOOKINGS = 2_000

let house: House
let desk: Page
const folder = mkdtempSync(join(tmpdir(), 'acolhida-years-'))
const file = join(folder, 'years.json')
const goTo = (name: string) => goToPage(desk, name)
const rows = () => desk.locator('tbody tr[data-index]')

beforeAll(async () => {
  house = await openHouse()
  writeFileSync(file, writeBackup(practiceOfYears(BOOKINGS, PEOPLE)))
  desk = await house.visitor()
  await desk.goto(house.desk)
  await desk.getByLabel('Choose a file').setInputFiles(file)
  await desk.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true, force: true })
})

it('lists everybody, and draws those in sight', async () => {
  await goTo('People')
  await desk.getByText(`${PEOPLE} people`).waitFor()
  await desk.getByRole('cell', { name: /^Person 0 / }).waitFor()
  expect(await rows().count()).toBeLessThan(60)
  const table = desk.getByRole('table', { name: 'People' })
  expect(await table.getAttribute('aria-rowcount')).toBe(String(PEOPLE + 1))
  await desk.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
  await desk.getByRole('cell', { name: /^Person 99 / }).waitFor()
  expect(await rows().count()).toBeLessThan(60)
})

it('keeps what a list shows in the address', async () => {
  await goTo('People')
  await desk.getByLabel('Search by name or mail address').fill('person 17')
  await desk.getByText('11 people').waitFor()
  await desk.getByLabel('Who is shown').selectOption('new')
  await desk.getByText('Nobody of that kind.').waitFor()
  await desk.getByLabel('Who is shown').selectOption('known')
  await desk.getByRole('button', { name: 'Newest booking' }).click()
  await desk.getByText('11 people').waitFor()
  expect(new URL(desk.url()).search).toBe('?q=person+17&show=known&by=latest')
  await desk.reload()
  await desk.getByText('11 people').waitFor()
  expect(await desk.getByLabel('Search by name or mail address').inputValue()).toBe('person 17')
  const newest = desk.getByRole('columnheader', { name: 'Newest booking' })
  expect(await newest.getAttribute('aria-sort')).toBe('ascending')
  // The way back and the list from its beginning are told by the field, too.
  await goTo('People')
  await expect.poll(() => desk.getByLabel('Search by name or mail address').inputValue()).toBe('')
  await desk.goBack()
  await expect.poll(() => desk.getByLabel('Search by name or mail address').inputValue()).toBe('person 17')
  await desk.getByText('11 people').waitFor()
})

it('finds a request among all, by the keyboard alone', async () => {
  await goTo('Arrivals')
  await desk.getByText('2,000 requests').waitFor()
  await desk.getByLabel('Search by name or mail address').focus()
  await desk.keyboard.type('person 42')
  await desk.getByText(/^\d+ requests$/).waitFor()
  // How many there are is known before what stands in their rows.
  await desk
    .getByRole('link', { name: /Person 42/ })
    .first()
    .waitFor()
  await desk.keyboard.press('Tab')
  await desk.keyboard.press('Tab')
  await desk.keyboard.press('Tab')
  await desk.keyboard.press('Tab')
  await desk.keyboard.press('Enter')
  await desk.getByRole('heading', { level: 1, name: /^Person 42/ }).waitFor()
})

it('picks a person among those of one name by their address', async () => {
  await goTo('Diary')
  await desk.getByRole('button', { name: 'Book somebody in' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('Name').fill('person.599@')
  await dialog.getByRole('option', { name: /person\.599@example\.org/ }).click()
  const value = (label: string) => dialog.getByLabel(label).inputValue()
  await eventually('the address', async () => (await value('Mail address')) === 'person.599@example.org')
  expect(await value('Name')).toBe('Person 599')
  await desk.keyboard.press('Escape')
  await dialog.waitFor({ state: 'detached' })
})

it('opens another backup without losing what is here, until one says so', async () => {
  await goTo('This desk')
  const broken = join(folder, 'broken.json')
  writeFileSync(broken, '{"format":"acolhida-backup","version":1}')
  await desk.getByLabel('Open a backup').setInputFiles(broken)
  await desk.getByText(/practice.*Everything is as it was\./).waitFor()
  await desk.getByLabel('Open a backup').setInputFiles(file)
  await desk.getByRole('button', { name: 'Stop' }).click()
  await desk.getByText('Open a backup').waitFor()
  const small = join(folder, 'small.json')
  writeFileSync(small, writeBackup(practiceOfYears(400, 3)))
  await desk.getByLabel('Open a backup').setInputFiles(small)
  await desk.getByText(/holds Iria Montalvar with 3 people and \d+ requests/).waitFor()
  await desk.getByRole('button', { name: 'Leave it' }).click()
  await goTo('People')
  await desk.getByText(`${PEOPLE} people`).waitFor()
  // Another window follows when the desk is replaced.
  const other = await desk.context().newPage()
  await other.goto(`${house.desk}/people`)
  await other.getByText(`${PEOPLE} people`).waitFor()
  await goTo('This desk')
  await desk.getByLabel('Open a backup').setInputFiles(small)
  await desk.getByRole('button', { name: 'Replace it' }).click()
  await desk.getByText('Everything is as it was in the file.').waitFor()
  await other.getByText('3 people', { exact: true }).waitFor()
  await goTo('People')
  await desk.getByText('3 people', { exact: true }).waitFor()
})
