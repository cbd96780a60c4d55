import { bookingsOf, letKeepsGo } from '@acolhida/relay/tests/inside'
import ICAL from 'ical.js'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { answerAssessment, fillIn, linkIn, mailTo, openMail, pick, sendButton, toTheTimes } from './client.ts'
import { type House, openHouse } from './house.ts'

let house: House
let desk: Page

beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(() => house.close())

it('goes from a link to a yes', async () => {
  const client = await house.visitor({ timezoneId: 'America/Sao_Paulo' })
  await toTheTimes(client, house)
  await client
    .getByText('The times are Lisbon time, where we meet; beside each stands Sao Paulo time.')
    .waitFor()
  const when = await pick(client, 3)
  await client
    .getByText(/You can cancel free of charge until/)
    .last()
    .waitFor()
  await sendButton(client).click()
  await client.getByText('Please agree to “Studio terms” first.').waitFor()
  await fillIn(client, 'Elske <b>Vos</b>', 'elske.vos@example.org')
  await sendButton(client).click()
  await client.getByText('Please write your name on one line, without HTML or a web address.').waitFor()
  await client.getByLabel('Your name').fill('Elske < Vos')
  await sendButton(client).click()
  await client.getByRole('heading', { name: 'One step more' }).waitFor()
  await client.getByText(/Please open its link by/).waitFor()

  // Until the mailed link is opened, the request is held and alerts nobody.
  await desk.getByRole('link', { name: /^Arrivals/ }).click()
  await desk.getByRole('row', { name: /Elske < Vos.*has not opened the mailed link yet/i }).waitFor()
  await desk.getByRole('link', { name: /^Today/ }).click()
  await desk.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
  expect(await desk.getByRole('link', { name: 'Elske < Vos' }).count()).toBe(0)
  const inbox = await openMail(house, 'elske.vos@example.org', { timezoneId: 'America/Sao_Paulo' })
  await inbox.getByRole('heading', { name: 'Your request has arrived' }).waitFor()

  // The desk is open in another browser and shows it within a second; a busy machine takes longer.
  await desk.getByRole('link', { name: 'Elske < Vos' }).waitFor({ timeout: 10_000 })
  await desk.getByRole('link', { name: 'Elske < Vos' }).click()
  await desk.getByText('mail address proved').waitFor()
  await desk.getByText('You look at every newcomer to this service.').waitFor()
  await desk.getByText(/typed “Elske < Vos”/).waitFor()

  // Welcome, a few seconds to undo, and again.
  await desk.getByRole('button', { name: /^Welcome for .*Elske/ }).click()
  await desk.getByRole('button', { name: 'Undo', exact: true }).click()
  await desk.getByRole('button', { name: /^Welcome for .*Elske/ }).click()
  await desk.getByText('Booked.').waitFor()
  const confirmation = await mailTo(house, 'elske.vos@example.org', /^Confirmed/)
  expect(
    house.mailbox.received.filter((mail) => /^Confirmed/.test(mail.subject) && mail.to.includes('elske')),
  ).toHaveLength(1)
  expect(confirmation.subject).toContain(when)
  expect(confirmation.text).toContain('Rua dos Oleiros Azuis 12')

  // The invitation, read by another library (RFC 5545, RFC 5546).
  const calendar = new ICAL.Component(ICAL.parse(confirmation.calendar!))
  const event = new ICAL.Event(calendar.getFirstSubcomponent('vevent')!)
  expect(calendar.getFirstPropertyValue('method')).toBe('REQUEST')
  expect(event.sequence).toBe(0)
  expect(event.duration.toSeconds()).toBe(75 * 60)

  await inbox.reload()
  await inbox.getByRole('heading', { name: 'Your time is confirmed' }).waitFor()
  // Moved by its client: the open times, what the rules say, and a second press; the desk hears of it.
  await inbox.getByRole('button', { name: 'Move it', exact: true }).click()
  await inbox.getByText(/You can move it until .*, twice at the most\./).waitFor()
  await inbox
    .getByRole('button', { name: /^\d\d:\d\d/ })
    .last()
    .click()
  await inbox
    .getByText(/^Move it to/)
    .last()
    .waitFor()
  await inbox.getByRole('button', { name: 'Yes, move it' }).click()
  await inbox.getByText(/^You have moved it\. It is now on/).waitFor()
  const moved = await mailTo(house, 'elske.vos@example.org', /^Moved/)
  const later = new ICAL.Event(
    new ICAL.Component(ICAL.parse(moved.calendar!)).getFirstSubcomponent('vevent')!,
  )
  expect(later.uid).toBe(event.uid)
  expect(later.sequence).toBe(1)
  expect(later.startDate.compare(event.startDate)).toBe(1)
  await desk.getByRole('link', { name: /^Today/ }).click()
  await desk
    .getByRole('listitem')
    .filter({ hasText: /Elske < Vos has moved a session to another time:/ })
    .waitFor()

  await inbox.getByRole('button', { name: 'Cancel this session' }).click()
  await inbox.getByText('Nothing is owed.').waitFor()
  await inbox.getByRole('button', { name: 'Yes, cancel it' }).click()
  await inbox.getByRole('heading', { name: 'This session is cancelled' }).waitFor()
  const cancelled = await mailTo(house, 'elske.vos@example.org', /^Cancelled/)
  const withdrawn = new ICAL.Component(ICAL.parse(cancelled.calendar!))
  const gone = new ICAL.Event(withdrawn.getFirstSubcomponent('vevent')!)
  expect(withdrawn.getFirstPropertyValue('method')).toBe('CANCEL')
  expect(gone.uid).toBe(event.uid)
  expect(gone.sequence).toBe(2)
})

it('closes the way kindly, lets people answer differently, and shows both attempts', async () => {
  const client = await house.visitor()
  await client.goto(`${house.door}/${house.slug}/voice-assessment`)
  await client.getByRole('button', { name: 'Go on', exact: true }).click()
  await client.getByText('4 answers need another look.').waitFor()
  await client.getByLabel('More than 3 weeks').check()
  await client.getByRole('group', { name: 'Has a doctor looked at your throat?' }).waitFor()
  await answerAssessment(client, 'That is more than I can pay')
  await client.getByRole('button', { name: 'Go on to the times' }).click()
  await client.getByRole('heading', { name: /not the right thing just now/ }).waitFor()
  await client.getByRole('link', { name: 'See Reading aloud' }).waitFor()
  expect(await client.locator('main button[aria-pressed]').count()).toBe(0)

  await client.getByRole('link', { name: 'Write a message' }).click()
  await client.getByLabel('Your message').fill('<script>alert(1)</script> Is there another way?')
  await client.getByLabel('Your name').fill('Ruta Kalnina')
  await client.getByLabel('Your mail address').fill('ruta.kalnina@example.org')
  await client.getByRole('button', { name: 'Send the message' }).click()
  await client.getByRole('heading', { name: 'Thank you for writing' }).waitFor()
  await desk.getByRole('link', { name: /^Arrivals/ }).click()
  await desk.getByText('<script>alert(1)</script> Is there another way?').waitFor()

  await client.goto(`${house.door}/${house.slug}/voice-assessment`)
  await client.getByRole('button', { name: 'I would like to answer differently' }).click()
  await client.getByLabel('In two parts, please').check()
  await client.getByRole('button', { name: 'Go on to the times' }).click()
  await pick(client, 6)
  await fillIn(client, 'Ruta Kalnina', 'ruta.kalnina@example.org')
  await sendButton(client).click()
  await client.getByRole('heading', { name: 'One step more' }).waitFor()
  await openMail(house, 'ruta.kalnina@example.org')
  await desk.getByRole('link', { name: /Ruta Kalnina/ }).click()
  const earlier = desk.locator('section.note', { hasText: 'Before that' })
  await earlier.getByText('That is more than I can pay').waitFor()
  expect(await earlier.textContent()).toContain('not a match')
})

it('turns down with kind words and frees the time', async () => {
  await desk.getByRole('link', { name: /^Today/ }).click()
  await desk.getByRole('button', { name: /^Turn down….*Wanda Okoro/ }).click()
  await desk
    .getByLabel('What Wanda Okoro will read')
    .fill('Teams are not my field; I wish you a full last row.')
  await desk.getByRole('button', { name: 'Turn down and send this' }).click()
  await desk.getByText('Turned down Wanda Okoro').waitFor()
  const mail = await mailTo(house, 'wanda.okoro@example.org', /^About your request/)
  expect(mail.text).toContain('I wish you a full last row.')
  expect(bookingsOf(house.relay).find((booking) => booking.id === 'asks-wanda')?.status).toBe('declined')
})

it('offers other times, of which the client takes one', async () => {
  await desk.getByRole('link', { name: /^Today/ }).click()
  await desk.getByRole('button', { name: /^Offer other times.*Lucjan Bielak/ }).click()
  const times = desk.locator('dialog button[aria-pressed]')
  await times.nth(2).click()
  await times.nth(12).click()
  await desk.getByLabel(/A word with it/).fill('One of these, perhaps?')
  await desk.getByRole('button', { name: 'Offer these 2 times' }).click()
  const mail = await mailTo(house, 'lucjan.bielak@example.org', /^Other times for you/)
  expect(mail.text).toContain('One of these, perhaps?')
  const client = await house.visitor({ timezoneId: 'Europe/Warsaw' })
  await client.goto(linkIn(mail.text))
  await client
    .getByRole('button', { name: /^Take / })
    .nth(1)
    .click()
  await client.getByRole('heading', { name: 'Your time is confirmed' }).waitFor()
  await mailTo(house, 'lucjan.bielak@example.org', /^Confirmed/)
  await desk.getByRole('link', { name: /^Arrivals/ }).click()
  await desk.getByRole('row', { name: /Lucjan Bielak.*Booked/ }).waitFor()
})

it('tells the second of two at once, with nothing typed lost', async () => {
  const first = await house.visitor()
  const second = await house.visitor()
  await toTheTimes(first, house)
  await toTheTimes(second, house)
  await first.locator('main button[aria-pressed]').nth(8).waitFor()
  const name = await first.locator('main button[aria-pressed]').nth(8).textContent()
  await pick(second, 8)
  await fillIn(second, 'Second Comer', 'second@example.org')
  // The second one's ten minutes pass; the first takes the time, which is free again.
  letKeepsGo(house.relay)
  await first.reload()
  await pick(first, 8)
  await fillIn(first, 'First Comer', 'first@example.org')
  await sendButton(first).click()
  await first.getByRole('heading', { name: 'One step more' }).waitFor()

  await sendButton(second).click()
  await second.getByText('This time is no longer free. Here are the times that are left.').waitFor()
  await second.locator('main button[aria-pressed]').nth(10).click()
  await second.getByRole('button', { name: /^Go on with/ }).click()
  expect(await second.getByLabel('Your name').inputValue()).toBe('Second Comer')
  expect(await second.getByLabel('I agree to Studio terms').isChecked()).toBe(true)
  await sendButton(second).click()
  await second.getByRole('heading', { name: 'One step more' }).waitFor()
  expect(name).toMatch(/\d\d:\d\d/)
})

it('lets a hold lapse by itself, also while the desk is closed', async () => {
  await desk.context().close()
  const box = await house.visitor()
  await box.goto(house.letterbox)
  await box.getByRole('button', { name: 'Forward 1 day' }).click()
  const mail = await mailTo(house, 'tome.arrais@example.org', /^Your request has run out/)
  const tome = bookingsOf(house.relay).find((booking) => booking.id === 'asks-tome')!
  expect(tome.status).toBe('lapsed')
  const client = await house.visitor()
  await client.goto(linkIn(mail.text))
  await client.getByRole('heading', { name: 'This request has run out' }).waitFor()
  await client.getByText('The clock of this demo has been moved').waitFor()
})
