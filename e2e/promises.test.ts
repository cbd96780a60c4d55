import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { bookingOf, linkTo } from '@acolhida/relay/tests/inside'
import jsQR from 'jsqr'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { fillIn, goTo, linkIn, mailTo, openMail, pick, sendButton, toTheTimes } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const phone = { viewport: { width: 390, height: 844 } }
const settle = (): void => house.clock.forward(10_000)

it('a request is asked about, answered and welcomed away from the desk, by the link in the mail', async () => {
  const client = await house.visitor()
  await toTheTimes(client, house)
  await pick(client, 6)
  await fillIn(client, 'Branca Luso', 'branca.luso@example.org')
  await sendButton(client).click()
  await client.getByRole('heading', { name: 'One step more' }).waitFor()
  const mine = await openMail(house, 'branca.luso')
  await mine.getByRole('heading', { name: 'Your request has arrived' }).waitFor()

  const news = await mailTo(house, 'iria@', /^A new request/)
  const away = await house.visitor(phone)
  await away.goto(linkIn(news.text))
  await away.getByRole('heading', { name: 'Branca Luso asks for a time' }).waitFor()
  await away.getByRole('button', { name: /^Ask something/ }).click()
  await away.getByLabel('What you would like to know').fill('Do you sing, too?')
  await away.getByRole('button', { name: /^Ask, and keep/ }).click()
  await away.getByText('Asked back.').waitFor()
  settle()

  const asks = await mailTo(house, 'branca.luso', /^A question about your request/)
  await mine.goto(linkIn(asks.text))
  await mine.getByText('Do you sing, too?').waitFor()
  await mine.getByRole('button', { name: 'Send my answer' }).click()
  await mine.getByText('Please write something first.').waitFor()
  await mine.getByLabel('Your answer').fill('In a choir, on Thursdays.')
  await mine.reload()
  expect(await mine.getByLabel('Your answer').inputValue()).toBe('In a choir, on Thursdays.')
  await mine.getByRole('button', { name: 'Send my answer' }).click()
  await mine.getByText('You answered:').waitFor()

  await away.reload()
  await away.getByText('In a choir, on Thursdays.').waitFor()
  await away.getByRole('button', { name: /^Welcome ?, Branca/ }).click()
  await away.getByText('Booked.').waitFor()
  await away.getByRole('button', { name: /^Undo/ }).click()
  await away.getByRole('button', { name: /^Welcome with a word/ }).click()
  await away.getByLabel('A word with it').fill('Bring your choir book.')
  await away.getByRole('button', { name: 'Welcome them' }).click()
  await away.getByText('“Bring your choir book.”').waitFor()
  settle()
  const confirmed = await mailTo(house, 'branca.luso', /^Confirmed/)
  expect(confirmed.text).toContain('Bring your choir book.')
  // What was needed to decide is told no more.
  await away.reload()
  await away.getByText('Booked.').waitFor()
  expect(await away.getByText('What they answered').count()).toBe(0)

  const desk = await house.openDesk()
  const news2 = desk.getByRole('region', { name: 'Since you last looked' })
  await news2.getByText('has your answer, given away from the desk').first().waitFor()
})

it('the day lies on a paired phone: running late, attended, and taken back', async () => {
  const desk = await house.openDesk()
  await desk.goto(`${house.desk}/desk`)
  await desk.getByRole('button', { name: 'Pair a phone' }).click()
  const url = await desk.getByRole('link', { name: /\/day#/ }).getAttribute('href')
  const day = await house.visitor(phone)
  await day.goto(url!)
  await day.getByRole('heading', { name: 'My day' }).waitFor()
  expect(new URL(day.url()).hash).toBe('')
  const amara = day.getByRole('listitem').filter({ hasText: 'Amara Dindi' })
  await amara.getByRole('button', { name: /^Running late/ }).click()
  await amara.getByRole('button', { name: '10 minutes late' }).click()
  await amara.getByText('They know that you come 10 minutes late.').waitFor()
  settle()
  await mailTo(house, 'amara', /^I will be 10 minutes late/)
  const rhys = day.getByRole('listitem').filter({ hasText: 'Rhys Penhallow' })
  await rhys.getByRole('button', { name: /^Attended/ }).click()
  await rhys.getByText('They were here.').waitFor()
  await rhys.getByRole('button', { name: /^Undo/ }).click()
  await rhys.getByRole('button', { name: /^Attended/ }).waitFor()
  await desk.getByRole('button', { name: 'End the phone' }).click()
  await desk.getByText('No phone is paired any more.').waitFor()
  await day.reload()
  await day.getByText('This phone is not paired any more.').waitFor()
})

it('a new version of the terms is written, told to those it is asked of, agreed to, and proved by a PDF', async () => {
  const desk = await house.openDesk()
  await goTo(desk, 'Terms')
  const text = desk.locator('section.sheet', { hasText: 'Studio terms' }).first()
  await text.getByRole('button', { name: 'Write a new version' }).click()
  const late = desk.getByRole('textbox', { name: 'Text of Coming late' })
  await late.click()
  await late.press('End')
  await desk.keyboard.type(' After 40 minutes I leave.')
  await desk.getByText('“40 minutes” is typed, and no house rule says so.').waitFor()
  for (let i = 0; i < ' After 40 minutes I leave.'.length; i++) await desk.keyboard.press('Backspace')
  await desk.keyboard.type(' Please ring, ')
  await desk.getByRole('button', { name: 'Bold' }).nth(2).click()
  await desk.keyboard.type('whoever')
  await desk.getByRole('button', { name: 'Bold' }).nth(2).click()
  await desk.keyboard.type(' you are.')
  await desk.reload()
  await desk.getByText('whoever', { exact: true }).waitFor()
  await desk.getByLabel('Who must agree to it').selectOption('before')
  await desk.getByRole('button', { name: 'Publish as version 5' }).click()
  await desk.getByText('version 5 · fingerprint').waitFor()
  await desk.getByRole('button', { name: 'What differs from version 4' }).click()
  await desk.locator('ins', { hasText: 'whoever' }).waitFor()

  // Whoever has something booked is asked, and agrees through their link.
  const asks = await mailTo(house, 'odile', /^Something to agree to/)
  const mine = await house.visitor(phone)
  await mine.goto(linkIn(asks.text))
  await mine.getByRole('heading', { name: 'Before we meet' }).waitFor()
  await mine.getByText('whoever').first().waitFor()
  await mine.getByRole('button', { name: 'I agree' }).click()
  await mine.getByText('Please agree to “Studio terms” first.').waitFor()
  await mine.getByLabel('I agree to Studio terms').check()
  await mine.getByRole('button', { name: 'I agree' }).click()
  await mine.getByText(/^Studio terms, version 5/).waitFor()
  expect(bookingOf(house.relay, 'next-odile').agreed?.[0]?.version).toBe(5)

  await desk.goto(`${house.desk}/arrivals/next-odile`)
  await desk.getByText('Studio terms, version 5').waitFor()
  const download = desk.waitForEvent('download')
  await desk.getByRole('button', { name: 'Save as PDF' }).click()
  const file = (await (await download).path())!
  const read = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).replaceAll(/\s+/g, ' ')
  const { fingerprint, name } = bookingOf(house.relay, 'next-odile').agreed![0]!
  for (const part of ['What Odile Ferrand agreed to', name, fingerprint, 'Please ring, whoever you are.'])
    expect(read).toContain(part)
})

it('somebody is asked to sign a text by itself, and everything about a session goes out as one file', async () => {
  const desk = await house.openDesk()
  await desk.goto(`${house.desk}/arrivals/next-benat`)
  await desk.getByRole('button', { name: 'Ask to sign…' }).click()
  await desk.getByLabel('Consent to a recording').check()
  await desk.getByRole('button', { name: 'Ask for it' }).click()
  await desk.getByText('Not agreed to yet: “Consent to a recording”', { exact: false }).waitFor()
  settle()
  const mine = await house.visitor(phone)
  await mine.goto(`${house.door}/${house.slug}/my/${linkTo(house.relay, 'next-benat')}`)
  await mine.getByLabel('I agree to Consent to a recording').check()
  await mine.getByRole('button', { name: 'I agree' }).click()
  await mine.getByText(/^Consent to a recording, version 1/).waitFor()
  await eventually(
    'the agreement at the desk',
    async () => (await desk.getByText('Consent to a recording, version 1').count()) > 0,
  )
  const files: string[] = []
  desk.on('download', (download) => {
    void download.path().then((path) => files.push(path))
  })
  await desk.getByRole('button', { name: 'Everything as a file' }).click()
  await eventually('both files', () => files.length === 2)
  const texts = files.map((path) => readFileSync(path, 'latin1'))
  const pdf = files[texts.findIndex((text) => text.startsWith('%PDF'))]!
  const data = JSON.parse(readFileSync(files[texts.findIndex((text) => text.startsWith('{'))]!, 'utf8'))
  expect(data.terms.map(({ id }: { id: string }) => id)).toContain('recording-consent')
  expect(data.record.at(-1).type).toBe('agreed')
  const read = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  expect(read).toContain('What happened')
  expect(read).toContain('You asked them to sign “Consent to a recording”.')
})

it('a day one can’t keep is closed in one act: everybody is told, offered other times, and chooses', async () => {
  const desk = await house.openDesk()
  await goTo(desk, 'Today')
  await desk.getByRole('button', { name: 'I can’t today…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByText(/(person is|people are) touched by it/).waitFor()
  await dialog
    .getByText(/Offer /)
    .first()
    .waitFor()
  await dialog.getByLabel(/^What they all read/).fill('I have lost my voice.')
  await dialog.getByRole('button', { name: /^Tell / }).click()
  await desk.getByRole('heading', { name: 'Other times offered, and no answer yet' }).waitFor()
  expect(
    await eventually('the day away at the relay', () =>
      house.relay.here.keeper.house.pack?.practice.away.find(({ note }) => note === undefined)
        ? true
        : undefined,
    ),
  ).toBe(true)
  settle()
  const mail = await mailTo(house, 'amara', /^Other times for you/)
  expect(mail.text).toContain('I have lost my voice.')
  expect(mail.text).toContain('Nothing is owed.')
  expect(mail.calendar).toContain('METHOD:CANCEL')
  const client = await house.visitor(phone)
  await client.goto(linkIn(mail.text))
  await client
    .getByRole('button', { name: /^Take / })
    .first()
    .click()
  await client.getByRole('heading', { name: 'Your time is confirmed' }).waitFor()
  const confirmed = await mailTo(house, 'amara', /^Confirmed/)
  expect(confirmed.calendar).toMatch(/SEQUENCE:2/)
  await desk.getByText('has taken a time you offered:').first().waitFor()
})

it('money: a transfer with a reference of its own, scanned, matched in a statement, and noted once', async () => {
  const desk = await house.openDesk()
  await desk.goto(`${house.desk}/arrivals/next-odile`)
  await desk.getByRole('heading', { name: 'Money', exact: true }).last().waitFor()
  const reference = (await desk.getByText(/^Reference for transfers/).textContent())!.split(': ')[1]!
  const mine = await house.visitor(phone)
  await mine.goto(`${house.door}/${house.slug}/my/${linkTo(house.relay, 'next-odile')}`)
  await mine.getByText('Still open: €68.00').waitFor()
  await mine.getByText(reference).waitFor()
  // The code is read back by another program than drew it.
  const code = mine.getByRole('img', { name: /This transfer as a code/ })
  const { side, pixels } = await code.evaluate((svg) => {
    const size = (svg as unknown as SVGSVGElement).viewBox.baseVal.width
    const canvas = document.createElement('canvas')
    const side = size * 6
    canvas.width = side
    canvas.height = side
    const draw = canvas.getContext('2d')!
    draw.fillStyle = '#fff'
    draw.fillRect(0, 0, side, side)
    draw.scale(6, 6)
    draw.fillStyle = '#000'
    draw.fill(new Path2D(svg.querySelector('path')!.getAttribute('d')!))
    return { side, pixels: [...draw.getImageData(0, 0, side, side).data] }
  })
  const read = jsQR(new Uint8ClampedArray(pixels), side, side)
  expect(read?.data.split('\n')).toEqual([
    ...['BCD', '002', '1', 'SCT', '', 'Iria Montalvar', 'PT50000201231234567890154', 'EUR68.00', ''],
    reference,
  ])

  const statement = (ref: string): { name: string; mimeType: string; buffer: Buffer } => ({
    name: 'statement.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `Date;Name;Amount;Text\n2026-11-24;O. FERRAND;68,00;${ref}\n2026-11-24;ODILE FERRAND;5,00;thanks\n`,
    ),
  })
  await goTo(desk, 'Money')
  await desk.getByLabel('Open a statement').setInputFiles(statement(reference))
  await desk.getByRole('button', { name: 'Read it so' }).click()
  await desk.getByText('1 entry is sure, 1 to look at').waitFor()
  await desk
    .getByText(/by name alone, another amount/)
    .first()
    .waitFor()
  await desk.getByRole('button', { name: 'Note the sure one' }).click()
  await eventually('the payment', () => bookingOf(house.relay, 'next-odile').payments?.[0]?.amount === 6_800)
  await mine.reload()
  await mine.getByText('Paid so far: €68.00').waitFor()
  settle()
  await desk.reload()
  await desk.getByLabel('Open a statement').setInputFiles(statement(reference))
  await desk.getByRole('button', { name: 'Read it so' }).click()
  await desk.getByText(/0 entries are sure, 1 to look at, 1 noted before/).waitFor()

  // An invoice has its number from the relay, and its PDF says so.
  await desk.goto(`${house.desk}/arrivals/next-odile`)
  await desk.getByRole('button', { name: 'Make the invoice' }).click()
  await desk.getByRole('button', { name: 'PDF of IM-1' }).waitFor()
  const [invoice] = await Promise.all([
    desk.waitForEvent('download'),
    desk.getByRole('button', { name: 'PDF of IM-1' }).click(),
  ])
  const said = execFileSync('pdftotext', ['-layout', await invoice.path(), '-'], { encoding: 'utf8' })
  for (const words of [
    'Invoice IM-1',
    'PT 999 999 990',
    'Coaching session',
    '€68.00',
    'Of that VAT 23 %',
    '€12.72',
  ])
    expect(said).toContain(words)
  await desk.getByRole('button', { name: 'Take it back…' }).click()
  await desk.getByLabel('Why').fill('It was for somebody else.')
  await desk.getByRole('button', { name: 'Take it back', exact: true }).click()
  await desk.getByRole('button', { name: 'PDF of IM-2' }).waitFor()

  // What was paid for what one cancels oneself is to be given back, with what was promised for doing so late.
  await desk.goto(`${house.desk}/arrivals/next-odile`)
  await desk.getByRole('button', { name: 'Cancel…' }).click()
  await desk.getByText('By your own side of the rules, Odile Ferrand gets €34.00 for it.').waitFor()
  await desk.getByRole('button', { name: /^Cancel it, free for/ }).click()
  await desk.getByText('€102.00 to give back').waitFor()
  settle()
  await desk.getByRole('button', { name: 'Give something back…' }).click()
  await desk.getByRole('button', { name: 'Keep it' }).click()
  await desk.getByText('settled', { exact: true }).waitFor()
  settle()
  await mine.reload()
  await mine.getByText('As I promised, you get €34.00 for it.').waitFor()
  await mine.getByText('Given to you: €34.00').waitFor()
})
