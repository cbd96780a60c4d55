import { enter } from '@acolhida/core/house'
import type { Instant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { look } from './axe.ts'
import { mailTo } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

/** The demo, whose questions before an assessment ask for a number as well. */
const askingForANumber = (at: Instant) => {
  const { practice, ...demo } = demoBackup(at)
  const [first, ...others] = practice.questionnaires
  const number = { id: 'number', kind: 'phone', text: 'Where can I reach you?', required: false } as const
  const asking = { ...first!, questions: [...first!.questions, number] }
  return { ...demo, practice: { ...practice, questionnaires: [asking, ...others] } }
}

let house: House
let desk: Page
let client: Page
beforeAll(async () => {
  house = await openHouse({ demo: askingForANumber })
  desk = await house.openDesk()
  client = await house.visitor({ viewport: { width: 390, height: 844 } })
})
afterAll(() => house.close())

const EMAIL = 'benat.lasarte@example.org'
const theirs = () => [...house.relay.here.keeper.house.courses()]

it('what clients prepare is written, and goes out with a service', async () => {
  await desk.goto(`${house.desk}/preparations`)
  await desk.getByText('will stand here').waitFor()
  await look(desk, 'empty')
  const card = (name: string) => desk.getByRole('region', { name, exact: true })
  await desk.getByRole('button', { name: 'A letter' }).click()
  await card('How to reach me').getByText('listening service', { exact: false }).first().waitFor()
  await card('How to reach me').getByLabel('Coaching session').check()
  await card('How to reach me').getByText('Goes out with Coaching session.').waitFor()
  const pdf = (name: string, text: string) => ({
    name,
    mimeType: 'application/pdf',
    buffer: Buffer.from(text),
  })
  const choose = card('How to reach me').getByLabel('A PDF with it, or instead…')
  await choose.setInputFiles(pdf('letter.pdf', 'no such thing'))
  await card('How to reach me').getByText('“letter.pdf” is no PDF.').waitFor()
  await choose.setInputFiles(pdf('My house.pdf', '%PDF-1.7 A letter'))
  await card('How to reach me').getByText('My house, 1 KB').waitFor()
  await look(desk, 'letter')
  for (const name of ['Something to sign', 'A questionnaire', 'A file to bring', 'Something to do'])
    await desk.getByRole('button', { name, exact: true }).click()
  await desk.getByRole('region', { name: 'Something to do' }).getByLabel('What it is called').waitFor()
  await look(desk, 'preparations')
})

it('one message and one page: given to one person, as they will read it', async () => {
  await desk.goto(`${house.desk}/people`)
  await desk.getByRole('link', { name: 'Beñat Lasarte' }).first().click()
  await desk.getByRole('button', { name: 'Give them something…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Give it to Beñat Lasarte' }).click()
  await dialog.getByText('Please choose what they get.').waitFor()
  for (const box of await dialog.getByRole('checkbox').all())
    if (!(await box.isChecked()) && (await box.getAttribute('class'))?.includes('checkbox')) await box.check()
  await dialog.getByLabel('A word that goes with it').fill('Before our first long session.')
  await dialog.getByText('Here is everything to read', { exact: false }).waitFor()
  await look(desk, 'give')
  await dialog.getByRole('button', { name: 'Give it to Beñat Lasarte' }).click()
  await eventually('it has reached the relay', () => theirs().length === 1)
  await desk.getByText('Given to Beñat Lasarte').waitFor()
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^To prepare/)
  expect(mail.text).toContain('Before our first long session.')
  const link = /http\S+\/yours\/\S+/.exec(mail.text)![0]
  await client.goto(link)
  await client.getByRole('heading', { name: '5 things to do' }).waitFor()
  const [saved] = await Promise.all([
    client.waitForEvent('download'),
    client.getByRole('link', { name: 'Open “My house” (PDF, 1 KB)' }).click(),
  ])
  expect(saved.suggestedFilename()).toBe('My house.pdf')
  await look(client, 'yours')
})

it('what is read, ticked, signed and brought is done, and what is half answered is kept, sealed', async () => {
  await client.getByRole('button', { name: 'I have read it' }).click()
  await client.getByRole('heading', { name: '4 things to do' }).waitFor()
  // The next thing is open at once, and has the focus.
  const focused = () => client.evaluate(() => document.activeElement?.textContent ?? '')
  await expect.poll(focused).toContain('Consent to a recording')
  await client.getByRole('checkbox', { name: /I agree/ }).check()
  await client.getByRole('button', { name: 'Sign it' }).click()
  await client.getByRole('heading', { name: '3 things to do' }).waitFor()
  await client.getByLabel('What brings you here?').first().fill('My voice goes by noon.')
  await client.getByText('Kept, sealed', { exact: false }).waitFor()
  await look(client, 'questions')
  const [course] = theirs()
  expect(Object.values(course!.progress).some(({ filled }) => filled?.answered === 1)).toBe(true)
  // Elsewhere, by the same link, one goes on; what both pages have is put together.
  const other = await house.visitor({ viewport: { width: 390, height: 844 } })
  await other.goto(client.url())
  const brings = other.getByLabel('What brings you here?').first()
  await expect.poll(() => brings.inputValue()).toBe('My voice goes by noon.')
  await other.getByLabel('My own').check()
  await other.getByText('Kept, sealed', { exact: false }).waitFor()
  await client.getByLabel('Is there a page', { exact: false }).fill('https://example.org/noon')
  await expect.poll(() => client.getByLabel('My own').isChecked()).toBe(true)
  await client.getByLabel('Where can I reach you?').fill('+34 943 555 010')
  await client.getByText('4 of 6 answered · Kept, sealed', { exact: false }).waitFor()
  await client.getByRole('button', { name: 'Send the answers' }).click()
  await client.getByRole('heading', { name: '2 things to do' }).waitFor()
  const file = { name: 'page.txt', mimeType: 'text/plain', buffer: Buffer.from('Once upon a time') }
  await client.getByLabel('Choose one or more files', { exact: false }).setInputFiles(file)
  await client.getByRole('button', { name: 'Send the file' }).click()
  await client.getByRole('heading', { name: 'One thing to do' }).waitFor()
  // The same page shows the session, and what was signed.
  await client.getByText('Consent to a recording, version', { exact: false }).waitFor()
  // At the relay nothing that was answered can be read.
  expect(JSON.stringify(theirs())).not.toContain('by noon')
})

it('the desk reads what was answered, sees how far everybody is, and asks again by one key', async () => {
  await desk.goto(`${house.desk}/people`)
  await desk.getByRole('link', { name: 'Beñat Lasarte' }).first().click()
  await desk.getByText('4 of 5 done').waitFor()
  await desk.getByText('Read the answers').click()
  await desk.getByText('My voice goes by noon.').waitFor()
  await desk.getByRole('button', { name: /^Save page.txt/ }).waitFor()
  // What they say of how they are reached is kept with them by a press.
  await desk.getByRole('button', { name: 'Keep as their number' }).click()
  await desk.getByText('As it stands with them.').waitFor()
  await desk.getByRole('link', { name: '+34 943 555 010' }).waitFor()
  await look(desk, 'person')
  await desk.goto(`${house.desk}/people/preparing`)
  await desk.getByRole('heading', { name: 'Getting ready' }).waitFor()
  await desk.getByText('1 person has something left to do; nobody is late.').waitFor()
  await look(desk, 'who')
  await desk.getByRole('button', { name: /^Ask again/ }).click()
  await desk.getByRole('dialog').getByRole('button', { name: 'Ask again', exact: true }).click()
  await desk.getByText('Asked again: Beñat Lasarte').waitFor()
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Still open: Something to do$/)
  expect(mail.text).not.toContain('How to reach me')
})

it('a booking gets what its service has, and its tile says how far it is', async () => {
  await desk.goto(`${house.desk}/diary`)
  const booked = () =>
    [...house.relay.here.keeper.house.openBookings()].find(({ id }) => id === 'booked-for-coaching')
  const start = house.clock.now() + 6 * 86_400_000
  const body = {
    ...{ id: 'booked-for-coaching', service: 'coaching', place: 'video', minutes: 50 },
    ...{ start: start - (start % 3_600_000), clash: true },
    person: { name: 'Tove Lind', email: 'tove.lind@example.org', zone: 'Europe/Lisbon' },
  }
  house.relay.here.call(enter, body as never)
  expect(booked()?.course?.done).toBeUndefined()
  await desk.goto(`${house.desk}/arrivals/booked-for-coaching`)
  await desk
    .getByRole('img', { name: /preparation waiting/ })
    .first()
    .waitFor()
  await desk.getByText('0 of 1 done').waitFor()
  await desk.getByRole('button', { name: /^It is done.*How to reach me/ }).click()
  await desk
    .getByRole('img', { name: /preparation done/ })
    .first()
    .waitFor()
  await look(desk, 'request')
})
