import { afterAll, beforeAll, expect, it } from 'vitest'
import { fillIn, goTo, linkIn, mailTo, openMail, pick, sendButton, toTheTimes } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

it('a reminder is begun, moved on its line, said otherwise, held back, and answered', async () => {
  const desk = await house.openDesk()
  await goTo(desk, 'What is sent')
  await desk.getByText('Nothing goes by itself yet').waitFor()
  await desk.getByRole('button', { name: 'Begin with “Light”' }).click()
  const mark = desk.getByRole('button', { name: /^Tomorrow/ })
  await mark.waitFor()
  await desk.getByRole('region', { name: 'Light' }).getByLabel('Voice assessment').check()
  // By the keyboard: a day further from the session.
  await mark.focus()
  await desk.keyboard.press('ArrowLeft')
  await desk.getByText('2 days before at 18:00 · by mail').waitFor()
  await desk.keyboard.press('ArrowRight')
  await desk.getByText('the day before at 18:00 · by mail').waitFor()
  // By the pointer, from the day before towards the session.
  const box = (await mark.boundingBox())!
  await desk.mouse.move(box.x + 8, box.y + 10)
  await desk.mouse.down()
  await desk.mouse.move(box.x + 60, box.y + 12, { steps: 4 })
  await desk.mouse.up()
  await desk.getByText(/^(12|4) h before · by mail$/).waitFor()
  await desk.getByRole('button', { name: /^Undo: when a message goes/ }).click()
  await desk.getByText('the day before at 18:00 · by mail').waitFor()
  // The text, with a field from the list; one that would stay empty is refused beside it.
  const body = desk.getByRole('textbox', { name: 'What it says' })
  await body.click()
  await desk.keyboard.press('Control+End')
  await desk.keyboard.type(' See you, ')
  await desk.getByLabel('Put a field into “What it says”').selectOption('firstName')
  await desk.locator('.chips').getByText('their first name').waitFor()
  await desk.getByLabel('Put a field into “What it says”').selectOption('before')
  await desk.getByText(/would stay empty for Voice assessment/).waitFor()
  await body.click()
  await desk.keyboard.press('Control+End')
  await desk.keyboard.press('Backspace')
  await desk.getByText(/would stay empty/).waitFor({ state: 'detached' })
  await desk.getByRole('region', { name: 'As they read it' }).getByText('See you, Somebody').waitFor()

  const client = await house.visitor()
  await toTheTimes(client, house)
  await pick(client, 12)
  await fillIn(client, 'Branca Luso', 'branca.luso@example.org')
  await sendButton(client).click()
  await client.getByRole('heading', { name: 'One step more' }).waitFor()
  await openMail(house, 'branca.luso')
  await goTo(desk, 'Today')
  await desk
    .getByRole('listitem')
    .filter({ hasText: 'Branca Luso' })
    .getByRole('button', { name: /^Welcome for/ })
    .click()
  await desk
    .getByText(/waits? for your answer|Nobody is waiting/)
    .first()
    .waitFor()
  house.clock.forward(10_000)
  const confirmed = await mailTo(house, 'branca.luso', /^Confirmed/)
  expect(confirmed.html).toContain('<p>Hello Branca Luso,</p>')

  await goTo(desk, 'What is sent')
  await desk.evaluate(() => window.scrollTo({ top: 400 }))
  await desk.getByRole('navigation', { name: 'Desk' }).getByRole('link', { name: 'Outbox' }).click()
  await desk.getByLabel('What goes within').waitFor()
  // Gone to from far down another page, it begins at its top.
  expect(await desk.evaluate(() => window.scrollY)).toBe(0)
  await desk.getByLabel('What goes within').selectOption('30')
  const booking = await desk.getByRole('link', { name: 'Branca Luso' }).first().getAttribute('href')
  await desk.getByRole('button', { name: 'Hold back: Tomorrow to Branca Luso' }).click()
  await desk.getByText('held back').waitFor()
  await desk.getByRole('button', { name: 'Let go: Tomorrow to Branca Luso' }).click()
  await desk.getByRole('button', { name: 'Send now: Tomorrow to Branca Luso' }).click()
  house.clock.forward(1_000)
  await house.relay.rounds.turn()
  const reminder = await mailTo(house, 'branca.luso', /^Tomorrow: Voice assessment/)
  expect(reminder.text).toContain('See you, Branca')
  const coming = reminder.text.split('\n').find((line) => line.includes('?to=come'))!
  await client.goto(linkIn(coming))
  const asks = client.locator('section').filter({ hasText: 'Will you be there?' })
  await asks.getByRole('button', { name: 'I’ll be there' }).click()
  await client.getByText('You have said that you will be there.').waitFor()
  const move = reminder.text.split('\n').find((line) => line.includes('?to=cancel'))!
  await client.goto(linkIn(move))
  await client.getByText(/Cancel this session\? Nothing is owed/).waitFor()

  await desk.goto(new URL(booking!, desk.url()).href)
  await desk.getByText('They said that they will be there.').waitFor()
  // What one takes along holds what they told.
  await desk.getByRole('link', { name: 'Sheet' }).click()
  const told = desk.getByRole('region', { name: 'What they have told' })
  await told.getByText(/^My voice gives out/).waitFor()
  await desk.getByRole('region', { name: 'What is open' }).getByText('to be paid').waitFor()
  await desk.getByRole('link', { name: 'Everything about this session' }).click()
  await desk.getByRole('button', { name: 'Write to them' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByRole('textbox', { name: 'Subject' }).fill('Your voice')
  await dialog.getByRole('textbox', { name: 'What you write' }).fill('Please bring the page.')
  await dialog.getByRole('button', { name: 'Send it to Branca Luso' }).click()
  await dialog.waitFor({ state: 'detached' })
  await eventually('it is with the relay', () =>
    [...house.relay.here.keeper.house.openBookings()].some(({ written }) => written?.length === 1),
  )
  house.clock.forward(10_000)
  await house.relay.rounds.turn()
  expect((await mailTo(house, 'branca.luso', /^Your voice/)).text).toContain('Please bring the page.')

  // Cancelled in silence, nobody is told.
  await desk.getByRole('button', { name: 'Cancel…' }).click()
  await desk.getByLabel('Silently: nothing is sent about it').check()
  await desk.getByText('Branca Luso is not told').waitFor()
  await desk.getByRole('button', { name: 'Cancel it, free for Branca Luso' }).click()
  await eventually('it is cancelled', () =>
    [...house.relay.here.keeper.house.openBookings()].some(({ status }) => status === 'cancelled'),
  )
  house.clock.forward(10_000)
  await house.relay.rounds.turn()
  expect(
    house.mailbox.received.filter(({ to, subject }) => to.includes('branca') && /cancel/i.test(subject)) ??
      [],
  ).toEqual([])
})

it('a client reads in Portuguese, sentences are said otherwise and back, and what lacks is named', async () => {
  const desk = await house.openDesk()
  await goTo(desk, 'Words and languages')
  await desk.getByLabel('Português').check()
  await desk.getByRole('button', { name: /texts of yours lack: write them/ }).click()
  await desk.getByLabel('Voice assessment: name, in Português').fill('Avaliação da voz')
  await desk.getByLabel('Find a sentence').fill('Your time is confirmed')
  await desk.getByRole('button', { name: 'Say it otherwise: Your time is confirmed', exact: true }).click()
  await desk.getByRole('textbox', { name: 'It says' }).fill('It is yours')
  await desk
    .getByText('1 are yours')
    .or(desk.getByText(/are yours; every other is ours/))
    .first()
    .waitFor()
  await eventually('it is published', () => {
    const { practice } = house.relay.here.keeper.house
    return practice?.words?.en?.['door.my.booked'] === 'It is yours' && practice.languages?.includes('pt')
  })
  await desk.getByRole('button', { name: 'Back to ours: It is yours' }).click()
  await eventually('it is ours again', () => {
    const { practice } = house.relay.here.keeper.house
    return practice?.words?.en?.['door.my.booked'] === undefined
  })

  // The terms stand in it, too, as they are agreed to.
  await goTo(desk, 'Terms')
  await desk.getByRole('button', { name: 'Write it in Português' }).first().click()
  const writing = desk.getByRole('region', { name: 'in Português' })
  await writing.getByRole('textbox', { name: 'Title', exact: true }).fill('Condições do estúdio')
  await writing.getByRole('button', { name: 'Publish in Português' }).click()
  await desk.getByRole('button', { name: /^Version \d+ in Português/ }).click()
  await desk.getByRole('heading', { name: 'Condições do estúdio' }).waitFor()
  // What fills its fields is in that language, too.
  await desk.getByText(/duas vezes, até/).waitFor()
  await eventually('the terms are published', () =>
    house.relay.here.keeper.house.practice?.terms.some((one) => one.versions.at(-1)?.also?.pt),
  )

  const client = await house.visitor({ locale: 'pt-PT', viewport: { width: 390, height: 844 } })
  await client.goto(`${house.door}/${house.slug}`)
  await client.getByRole('heading', { name: 'Avaliação da voz' }).waitFor()
  expect(await client.locator('html').getAttribute('lang')).toBe('pt')
  await client.getByLabel('Língua').selectOption('en')
  await client.getByRole('heading', { name: 'Voice assessment' }).waitFor()
  await client.reload()
  await client.getByRole('heading', { name: 'Voice assessment' }).waitFor()
  // The pseudo language runs from right to left: nothing is cut off, and nothing scrolls sideways.
  for (const page of ['', '/voice-assessment', '/write']) {
    await client.goto(`${house.door}/${house.slug}${page}?in=ar-XB`)
    await client.getByText('⟦').first().waitFor()
    expect(await client.evaluate(() => document.documentElement.dir)).toBe('rtl')
    const wide = await client.evaluate(
      () => document.documentElement.scrollWidth > document.documentElement.clientWidth,
    )
    expect([page, wide]).toEqual([page, false])
  }
})

it('a mail that came back is dropped on whoever wrote it, and taken away and put back', async () => {
  const desk = await house.openDesk()
  await goTo(desk, 'People')
  await desk.getByRole('link', { name: 'Tomé Arrais' }).first().click()
  const theirs = desk.locator('section').filter({ hasText: 'Mails from them' })
  await theirs.getByText(/Drop its file here/).waitFor()
  const mail = [
    'From: Tomé <tome@example.net>',
    'Date: Mon, 23 Nov 2026 09:00:00 +0000',
    'Subject: Re: Your voice',
    '',
    'I have the page with me.',
  ].join('\r\n')
  // Dropped, as from a mail program's window.
  const dropped = await desk.evaluateHandle((text) => {
    const data = new DataTransfer()
    data.items.add(new File([text], 'answer.eml', { type: 'message/rfc822' }))
    return data
  }, mail)
  await theirs.dispatchEvent('drop', { dataTransfer: dropped })
  const dialog = desk.getByRole('dialog')
  await dialog.getByText(/It says that it is from tome@example.net/).waitFor()
  await dialog.getByRole('button', { name: 'Put it beside Tomé Arrais' }).click()
  await theirs.getByText('Re: Your voice', { exact: true }).click()
  await theirs.getByText('I have the page with me.').waitFor()
  await theirs.getByRole('button', { name: 'Take it away: Re: Your voice' }).click()
  await theirs.getByRole('button', { name: 'Put it back' }).click()
  await theirs.getByText('Re: Your voice', { exact: true }).waitFor()

  // What is no mail changes nothing, and says so.
  const choose = { name: 'note.eml', mimeType: 'message/rfc822', buffer: Buffer.from('milk, bread') }
  await theirs.locator('input[type=file]').setInputFiles(choose)
  await theirs.getByText(/“note.eml” is no mail/).waitFor()
  await theirs.getByRole('button', { name: 'Paste one' }).click()
  // One begins to paste at once.
  await desk.keyboard.type('And')
  expect(await dialog.getByRole('textbox', { name: 'What they wrote' }).inputValue()).toBe('And')
  await dialog.getByRole('textbox', { name: 'What they wrote' }).fill('')
  await dialog.getByRole('button', { name: 'Put it beside Tomé Arrais' }).click()
  await dialog.getByText('Please put in what they wrote.').waitFor()
  await dialog.getByRole('textbox', { name: 'What they wrote' }).fill('And my mug.')
  await dialog.getByRole('button', { name: 'Put it beside Tomé Arrais' }).click()
  await dialog.waitFor({ state: 'detached' })
  await theirs.getByText('No subject').waitFor()
})
