import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bookingsOf, packOf } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { answerAssessment, fillIn, goTo as goToPage, openSaid, pick, sendButton } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'
import { sortByKeys } from './sorting.ts'

let house: House
let desk: Page
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(() => house.close())

const goTo = (name: string) => goToPage(desk, name)
const service = (id: string) =>
  house.relay.here.keeper.house.pack?.practice.services.find((service) => service.id === id)
const booked = (name: string) => bookingsOf(house.relay).find((booking) => booking.asked.person.name === name)

async function openService(name: string): Promise<void> {
  await goTo('Services')
  await desk.getByRole('link', { name }).click()
  await desk.getByRole('heading', { level: 1, name }).waitFor()
}

/** A picture of 40 × 30 pixels, drawn in the browser. */
async function pictureFile(): Promise<string> {
  const data = await desk.evaluate(() => {
    const canvas = document.createElement('canvas')
    canvas.width = 1_200
    canvas.height = 900
    const ground = canvas.getContext('2d')!
    ground.fillStyle = '#2c5f4f'
    ground.fillRect(0, 0, 1_200, 900)
    return canvas.toDataURL('image/png').split(',')[1]!
  })
  const path = join(tmpdir(), `acolhida-picture-${process.pid}.png`)
  writeFileSync(path, Buffer.from(data, 'base64'))
  return path
}

describe('what a service can say and ask', () => {
  it('extras, a picture and a heading, from the desk to the client’s quote', async () => {
    await openService('Voice assessment')
    await (await openSaid(desk, 'Heading at the door')).fill('Your voice')
    await desk.getByLabel('Choose a picture').setInputFiles(await pictureFile())
    const extras = desk.getByRole('region', { name: 'What a client can add' })
    await extras.getByLabel('Something more to add').fill('Tea and a talk')
    await extras.getByRole('button', { name: 'Add it' }).click()
    await extras.getByLabel('Minutes').nth(2).fill('20')
    await extras.getByLabel('Price in €').nth(2).fill('12')
    await (await openSaid(desk, 'Show the price before the questions')).uncheck()
    const published = await eventually('all of it at the relay', () => {
      const found = service('voice-assessment')
      return found?.extras?.[2]?.price === 1_200 && found.picture && found.priceHidden ? found : undefined
    })
    expect(published.picture).toMatch(/^data:image\/jpeg;base64,/)
    expect(published.picture!.length).toBeLessThan(60_000)

    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}`)
    await client.getByRole('heading', { name: 'Your voice' }).waitFor()
    const card = client.getByRole('link', { name: /Voice assessment/ })
    expect(await card.locator('img').count()).toBe(1)
    expect(await card.textContent()).not.toContain('€95')
    await card.click()
    await client.getByText('The price follows from your answers.').waitFor()
    await answerAssessment(client)
    await client.getByLabel(/Tea and a talk/).check()
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    const summary = client.getByRole('complementary', { name: 'Summary' })
    await summary.getByText('95 minutes').waitFor()
    await summary.getByText('€107.00').waitFor()
    await pick(client, 3)
    await fillIn(client, 'Beatriz Louro', 'beatriz.louro@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    expect(booked('Beatriz Louro')?.asked).toMatchObject({ extras: ['extra-3'], minutes: 95 })
  })

  it('a link of its own, that shows and opens it to whoever has it', async () => {
    await openService('Voice assessment')
    await (await openSaid(desk, 'Who may book it')).selectOption('link')
    await eventually('it off the door', () => service('voice-assessment')?.bookableBy === 'link')
    const address = await desk.getByRole('textbox', { name: 'Its link' }).inputValue()
    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}`)
    await client.getByRole('heading', { name: 'First conversation' }).waitFor()
    expect(await client.getByRole('heading', { name: 'Voice assessment' }).count()).toBe(0)
    await client.goto(address)
    await answerAssessment(client)
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await pick(client, 1)
    await fillIn(client, 'Nele Aarden', 'nele@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    // A new link ends the old one.
    await desk.getByRole('button', { name: /Make a new link/ }).click()
    await eventually('the new link', () => !address.endsWith(service('voice-assessment')?.linkKey ?? 'none'))
    const late = await house.visitor()
    await late.goto(address)
    await late.getByText('This is not offered at the moment').waitFor()
    await (await openSaid(desk, 'Who may book it')).selectOption('everyone')
  })

  it('warns beside the field when nobody could ever book', async () => {
    await openService('Voice assessment')
    await (await openSaid(desk, 'Length')).fill('400')
    await desk.getByText('Nobody can ever book this: the longest block of hours is 5 h.').waitFor()
    await (await openSaid(desk, 'At most a day')).fill('0')
    await desk.getByText(/With a limit of 0 nobody can ever book this/).waitFor()
    expect(await (await openSaid(desk, 'At most a day')).inputValue()).toBe('0')
    await (await openSaid(desk, 'At most a day')).fill('2')
    await (await openSaid(desk, 'Length')).fill('75')
    await eventually('it as it was', () => service('voice-assessment')?.minutes === 75)
    expect(await desk.getByText('Nobody can ever book this').count()).toBe(0)
  })

  it('some settings copied to others, and another order by the keyboard alone', async () => {
    await openService('First conversation')
    await desk.getByRole('button', { name: 'Copy settings to other services' }).click()
    const dialog = desk.getByRole('dialog')
    await dialog.getByLabel('Time kept clear').check()
    await dialog.getByLabel('Voice assessment').check()
    await dialog.getByRole('button', { name: 'Copy these settings' }).click()
    await eventually('the copy', () => service('voice-assessment')?.clearBefore === 10)
    expect(service('voice-assessment')?.notice).toBe('PT24H')
    await goTo('Services')
    await sortByKeys(desk, 'Drag First conversation', 'First conversation', [1, 2])
    await eventually(
      'the new order',
      () => house.relay.here.keeper.house.pack?.practice.services[0]?.id === 'voice-assessment',
    )
    await desk.getByRole('button', { name: 'Undo: the order of the services' }).click()
  })

  it('a group on repeated dates', async () => {
    await openService('Reading aloud')
    const before = service('reading-aloud')!.groupDates.length
    await desk.getByLabel('Day', { exact: true }).fill('2027-09-04')
    await desk.getByLabel('How many dates').fill('3')
    await desk.getByLabel('Weeks between').fill('2')
    await desk.getByRole('button', { name: 'Add these dates' }).click()
    const dates = await eventually('three more', () => {
      const all = service('reading-aloud')?.groupDates
      return all?.length === before + 3 ? all : undefined
    })
    expect(dates.slice(-3).map((date) => date.start)).toEqual([
      '2027-09-04T11:00',
      '2027-09-18T11:00',
      '2027-10-02T11:00',
    ])
    await desk.getByRole('button', { name: 'Add these dates' }).click()
    await desk.getByText('Please give a day and a time that are not there yet.').waitFor()
  })
})

describe('hours and places', () => {
  it('hours kept for somebody are closed to the others, and bind the practitioner not', async () => {
    await goTo('Hours')
    for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday']) {
      await desk.getByRole('button', { name: `Keep for …, hours of ${day}` }).click()
      const dialog = desk.getByRole('dialog')
      await dialog.getByLabel('Only people I know').first().waitFor()
      // A quick hand: all of them before the first has been kept.
      await dialog.getByLabel('Only people I know').evaluateAll((boxes) => {
        for (const box of boxes) (box as HTMLInputElement).click()
      })
      await desk.keyboard.press('Escape')
    }
    await desk.getByText('09:00 – 12:30 kept for people I know').waitFor()
    await eventually(
      'the hours at the relay',
      () => house.relay.here.keeper.house.pack?.practice.hours.weekly[4]?.[0]?.reservedFor?.known,
    )
    await desk.goto(`${house.desk}/diary?service=voice-assessment&view=weeks`)
    await desk.getByText(/^0 starts/).waitFor()
    await desk.getByLabel('Openings for').selectOption('known')
    await desk.getByText(/^[1-9]\d* starts/).waitFor()
    await goTo('Hours')
    await eventually('the hours as they were', async () => {
      const undo = desk.getByRole('button', { name: /^Undo: the hours of/ })
      if (await undo.count()) await undo.click()
      return !JSON.stringify(house.relay.here.keeper.house.pack?.practice.hours).includes('reservedFor')
    })
  })

  it('a place with hours of its own and travel zones, down to the client’s address', async () => {
    await goTo('Places')
    await desk.getByRole('button', { name: 'Add a place' }).click()
    await desk
      .getByRole('region', { name: 'somewhere else' })
      .getByLabel(/^How it reads/)
      .fill('at yours')
    const place = desk.getByRole('region', { name: 'at yours' })
    await place.getByLabel('Kind').selectOption('client')
    await place.getByRole('button', { name: 'Add a zone' }).click()
    await place.getByLabel('Zone', { exact: true }).fill('Around Coimbra')
    await place.getByLabel('Surcharge').fill('15')
    await place.getByLabel('Postal codes begin with').fill('30, 31')
    await eventually('the zone at the relay', () =>
      house.relay.here.keeper.house.pack?.practice.places.some(
        (place) => place.travel?.[0]?.postalCodes.length === 2,
      ),
    )
    await place.getByRole('link', { name: 'Your usual hours count here' }).click()
    await desk.getByText('The usual hours count at yours.').waitFor()
    await desk.getByText('Hours of its own').click()
    await desk.getByLabel('Saturday', { exact: true }).fill('10 – 16')
    await eventually('its own hours', () => {
      const { practice } = packOf(house.relay)
      return practice.places.at(-1)?.hours?.weekly[5]?.length === 1 && practice.hours.weekly[5]?.length === 0
    })
    await openService('Voice assessment')
    await desk.getByLabel('at yours').check()
    await eventually('the service there', () => service('voice-assessment')?.places.length === 2)

    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/voice-assessment`)
    await answerAssessment(client)
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await client.getByLabel('at yours').check()
    await client.getByLabel('Your postal code').fill('9000-1')
    await client.getByText('That is farther than I go without talking first.').waitFor()
    expect(await client.locator('main button[aria-pressed]').count()).toBe(0)
    await client.getByLabel('Your postal code').fill('3100-20')
    expect(await client.getByLabel('Around Coimbra').isChecked()).toBe(true)
    await pick(client, 2)
    await client.getByText('€110.00').waitFor()
    await fillIn(client, 'Rui Penedo', 'rui@example.org')
    await sendButton(client).click()
    await client.getByText('Please write street, number and town.').waitFor()
    await client.getByLabel('Where I should come').fill('Rua das Flores 3, Coimbra')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    expect(booked('Rui Penedo')?.asked).toMatchObject({ address: 'Rua das Flores 3, Coimbra' })
  })

  it('go out as a file and come back from one', async () => {
    await goTo('Hours')
    const download = desk.waitForEvent('download')
    await desk.getByRole('button', { name: 'Save these hours' }).click()
    const text = readFileSync((await (await download).path())!, 'utf8')
    expect(text).toContain('BEGIN:VAVAILABILITY')
    const path = join(tmpdir(), `acolhida-hours-${process.pid}.ics`)
    writeFileSync(path, text.replaceAll('T090000', 'T083000'))
    const bad = join(tmpdir(), `acolhida-no-hours-${process.pid}.ics`)
    writeFileSync(bad, 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR\r\n')
    await desk.getByLabel('Take hours from a file').setInputFiles(bad)
    await desk.getByText(/says nothing of when somebody is available/).waitFor()
    await desk.getByLabel('Take hours from a file').setInputFiles(path)
    await desk.getByText('Monday: 08:30 – 13:00, 14:00 – 18:00').waitFor()
    await desk.getByRole('button', { name: 'Take these hours' }).click()
    await eventually(
      'the hours at the relay',
      () => house.relay.here.keeper.house.pack?.practice.hours.weekly[0]?.[0]?.from === '08:30',
    )
    await desk.getByRole('button', { name: 'Undo: hours taken from a file' }).click()
  })
})

it('understands a large calendar file in a worker, can be stopped, and saves bookings as a file', async () => {
  const lines = Array.from({ length: 6_000 }, (_, i) =>
    [
      'BEGIN:VEVENT',
      `UID:${i}`,
      `DTSTART:20270${1 + (i % 9)}${String(1 + (i % 28)).padStart(2, '0')}T090000Z`,
      'DURATION:PT30M',
      ...(i % 5 === 0 ? ['RRULE:FREQ=WEEKLY;COUNT=300'] : []),
      'END:VEVENT',
    ].join('\r\n'),
  )
  const path = join(tmpdir(), `acolhida-large-${process.pid}.ics`)
  writeFileSync(path, ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n'))
  await goTo('Other calendars')
  await desk.getByLabel('Choose a calendar file').setInputFiles(path)
  await desk.getByRole('button', { name: 'Stop' }).click()
  await desk.getByText('Stopped; nothing was changed.').waitFor()
  expect(house.relay.here.keeper.house.pack?.practice.calendars ?? []).toEqual([])
  await desk.getByLabel('Choose a calendar file').setInputFiles(path)
  await desk.getByText(/^\d{4,} busy times are in your diary/).waitFor({ timeout: 60_000 })
  await desk.getByRole('button', { name: 'No longer read this' }).click()
  const download = desk.waitForEvent('download')
  await desk.getByRole('button', { name: 'Save them as a file' }).click()
  const text = readFileSync((await (await download).path())!, 'utf8')
  expect(text).toContain('SUMMARY:Beatriz Louro\\, Voice assessment (held)')
})

it('is tried as a client would, on a phone, from elsewhere, another day, without a trace', async () => {
  await goTo('Try it')
  const frame = desk.frameLocator('iframe[title="Your door, to try"]')
  await frame.getByText('This is a trial, as a newcomer.').waitFor()
  const before = bookingsOf(house.relay).length
  const later = new Date(house.clock.now() + 6 * 86_400_000).toISOString().slice(0, 10)
  await desk.getByLabel(/^As if it were/).fill(later)
  await desk.getByLabel('At', { exact: true }).fill('8:00')
  await desk.getByRole('combobox', { name: /^As/ }).selectOption('known')
  await desk.getByRole('combobox', { name: /^From/ }).selectOption('Asia/Tokyo')
  await eventually('the trial from Tokyo', async () =>
    (await desk.locator('iframe').getAttribute('src'))?.endsWith('Asia%2FTokyo'),
  )
  await frame.getByText('This is a trial, as somebody you know.').waitFor()
  // Nothing is asked for it, so it begins with the times.
  await frame.getByRole('link', { name: /Coaching session/ }).click()
  await frame.getByText('Tokyo').waitFor()
  await frame.locator('main button[aria-pressed]').first().click()
  await frame
    .getByRole('button', { name: /^Go on with/ })
    .first()
    .click()
  await frame.getByLabel('I agree to Studio terms').check()
  await frame.getByLabel('Your name').fill('Nobody At All')
  await frame.getByLabel('Your mail address').fill('nobody@example.org')
  await frame.getByRole('button', { name: /^Book / }).click()
  await frame.getByRole('heading', { name: 'Your time is confirmed' }).waitFor()
  expect(bookingsOf(house.relay).length).toBe(before)
  expect(house.mailbox.received.some((mail) => JSON.stringify(mail).includes('nobody@example.org'))).toBe(
    false,
  )
  const slug = new URL((await desk.locator('iframe').getAttribute('src'))!).pathname
  const policy = (await fetch(house.door + slug)).headers.get('content-security-policy')
  expect(policy).toContain(`frame-ancestors ${house.desk}`)
  const own = (await fetch(`${house.door}/${house.slug}`)).headers.get('content-security-policy')
  expect(own).toContain("frame-ancestors 'none'")
})
