import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bookingsOf } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  answerAssessment,
  fillIn,
  goTo as goToPage,
  openMail,
  pick,
  sendButton,
  toTheTimes,
} from './client.ts'
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
const published = (id: string) =>
  house.relay.here.keeper.house.pack?.practice.questionnaires.find((questionnaire) => questionnaire.id === id)
const bookingOf = (name: string) =>
  bookingsOf(house.relay).find((booking) => booking.asked.person.name === name)
async function write(name: string): Promise<void> {
  await goTo('Questions')
  await desk.getByRole('link', { name: new RegExp(`^${name}`) }).click()
  await desk.getByRole('heading', { level: 1, name }).waitFor()
}

describe('writing questions', () => {
  it('proves them while they are written, and leaves the door alone until they are published', async () => {
    await write('Before the group')
    await desk.getByText('Every way a newcomer can answer').waitFor()
    await desk.getByRole('button', { name: 'Add a question' }).click()
    await desk.getByLabel('Question 5', { exact: true }).fill('Do you read music?')
    await desk.getByLabel('Kind').selectOption('yesno')
    await desk.getByRole('button', { name: 'Ask it only after certain answers' }).click()
    // The condition begins with the question before; it is turned to the first one.
    await desk.getByLabel('What is looked at').selectOption({ label: 'To whom do you read?' })
    await desk.getByLabel('With what').selectOption({ label: 'Nobody yet' })
    await desk.getByText('asked when “To whom do you read?” is “Nobody yet”').waitFor()

    await desk.getByRole('button', { name: 'Add a rule' }).click()
    const rule = desk.getByRole('region', { name: 'A new rule' })
    await rule.getByRole('button', { name: 'Say when' }).click()
    await rule.getByLabel('What is looked at').selectOption({ label: 'Do you read music?' })
    await rule.getByLabel('then').selectOption('close')
    await desk.getByText('One thing stands in the way').waitFor()
    await rule.getByText('Please write what they read when they are closed.').waitFor()
    expect(await desk.getByRole('button', { name: /^Publish/ }).isDisabled()).toBe(true)
    await rule.getByLabel('What they read').fill('The choir would suit you better.')
    await rule.getByText('When “Do you read music?” is yes: close').waitFor()
    await desk.getByText(/not a match: \d+ % of the ways/).waitFor()
    expect(published('reading-questions')?.version).toBe(1)

    await desk.getByRole('button', { name: 'Publish as version 2' }).click()
    await desk.getByText('Version 2, at your door as it stands.').waitFor()
    await eventually('the door has it', () => published('reading-questions')?.questions.length === 5)
    // What is being written, and what was asked before, is nobody else's business.
    expect(JSON.stringify(published('reading-questions'))).not.toMatch(/"draft"|"past"/)

    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/reading-aloud`)
    await client.getByLabel('Children', { exact: true }).check()
    expect(await client.getByText('Do you read music?').count()).toBe(0)
    await client.getByLabel('Nobody yet').check()
    await client.getByRole('group', { name: 'Do you read music?' }).getByLabel('Yes').check()
    await client
      .getByRole('group', { name: /How much at ease/ })
      .getByText('5', { exact: true })
      .click()
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await client.getByText('The choir would suit you better.').waitFor()
    await client.context().close()
  })

  it('marks each thing beside its place, keeps what was typed, and takes it all back', async () => {
    await write('First conversation')
    await desk.getByRole('button', { name: /^2 ?Whose voice/ }).click()
    const choices = desk.getByLabel('Choices, a line each')
    await choices.fill('My own\nMy own')
    await desk.getByText(/Two lines are the same/).waitFor()
    expect(await choices.inputValue()).toBe('My own\nMy own')
    await choices.fill('My own\nMy child’s\nA team’s or a class’s\nA friend’s')
    await desk.getByText('It stays here').waitFor({ state: 'detached' })
    // The age of a child is asked after this one: put before it, it would look at what comes later.
    await sortByKeys(desk, 'Drag question 3', 'How old is your child?', [3, 2, 1])
    await desk.getByText('Its condition looks at “Whose voice is it about?”, which is asked later.').waitFor()
    expect(await desk.getByRole('button', { name: /^Publish/ }).isDisabled()).toBe(true)
    await desk.getByRole('button', { name: 'Undo: the order of questions' }).click()
    await desk.getByText('which is asked later.').waitFor({ state: 'detached' })
    await desk.getByRole('button', { name: 'Leave it as it was' }).click()
    await desk.getByText('Version 2, at your door as it stands.').waitFor()
  })

  it('says what private questions can do, and lets nobody straight in where they decide', async () => {
    await write('Before the group')
    await desk.getByRole('button', { name: /^4 ?A text you would/ }).click()
    await desk.getByLabel('Private: only I read the answer').check()
    await desk.getByText('opened at this desk alone').waitFor()
    await desk.getByRole('button', { name: 'Add a rule' }).click()
    const rule = desk.getByRole('region', { name: 'A new rule' })
    await rule.getByRole('button', { name: 'Say when' }).click()
    await rule.getByLabel('What is looked at').selectOption({ label: 'A text you would like to read' })
    await rule.getByLabel('How it is compared').selectOption('answered')
    await rule.getByLabel('then').selectOption('minutes')
    await rule.getByText('A rule on a private answer can say look, points or tag only').waitFor()
    await rule.getByLabel('then').selectOption('look')
    await rule.getByText('can say look, points or tag only').waitFor({ state: 'detached' })
    await desk.getByRole('button', { name: /^Publish as version/ }).click()
    // Those I know are booked straight into the group: that can't be, and nothing has changed.
    const straight = published('reading-questions')!.version
    await desk.getByText('nobody can be booked straight in').waitFor()
    expect(published('reading-questions')!.version).toBe(straight)
    await desk.getByRole('button', { name: 'Leave it as it was' }).click()
  })

  it('begins with what is ready, and takes questions from a file', async () => {
    await goTo('Questions')
    await desk.getByRole('button', { name: 'Use “GAD-7”' }).click()
    await desk.getByRole('heading', { level: 1, name: 'GAD-7' }).waitFor()
    await desk.getByText(/look first: \d+ % of the ways/).waitFor()
    await desk.getByRole('button', { name: 'As a client answers' }).click()
    for (let n = 0; n < 7; n++) await desk.getByLabel('Nearly every day').nth(n).check()
    await desk.getByText('21 points: severe').waitFor()
    await desk.getByText('No service asks these questions yet.').waitFor()
    const download = desk.waitForEvent('download')
    await desk.getByRole('button', { name: 'Save the questions' }).click()
    const saved = JSON.parse(readFileSync(await (await download).path(), 'utf8'))
    expect([saved.resourceType, saved.title]).toEqual(['Questionnaire', 'GAD-7'])

    const file = join(tmpdir(), 'questions-from-elsewhere.json')
    writeFileSync(
      file,
      JSON.stringify({
        resourceType: 'Questionnaire',
        status: 'active',
        title: 'From elsewhere',
        item: [
          { linkId: '1', type: 'boolean', text: 'Have you sung before?' },
          { linkId: '2', type: 'reference', text: 'Who is your teacher?' },
        ],
      }),
    )
    await goTo('Questions')
    await desk.getByLabel('Take questions from a file').setInputFiles(file)
    await desk.getByText('“Who is your teacher?”: questions of the kind “reference” are not read.').waitFor()
    await desk.getByRole('button', { name: 'Add 1 questions as they are' }).click()
    await desk.getByRole('heading', { level: 1, name: 'From elsewhere' }).waitFor()
    await desk.getByRole('button', { name: /^1 ?Have you sung before/ }).waitFor()
  })
})

describe('answering', () => {
  it('goes part by part, with length and price as answers change them, a code, a file, and private answers', async () => {
    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/voice-assessment`)
    const summary = client.getByRole('complementary', { name: 'Summary' })
    await client.getByText('Part 1 of 2').waitFor()
    await client.getByLabel('Singing').check()
    await summary.getByText('90 minutes').waitFor()
    await client.getByLabel('Singing').uncheck()
    await answerAssessment(client, 'In two parts, please')
    await client.getByText('Part 2 of 2').waitFor()
    await client
      .getByRole('group', { name: /written summary/ })
      .getByLabel('Yes')
      .check()
    await summary.getByText('€113.00').waitFor()
    // Coming back on the same device goes on where one was.
    await client.reload()
    await client.getByText('Part 2 of 2').waitFor()
    expect(await client.getByLabel('In two parts, please').isChecked()).toBe(true)

    const field = client.getByLabel(/A recording of your voice/)
    await field.setInputFiles({
      name: 'notes.pdf',
      mimeType: 'application/pdf',
      buffer: Buffer.from('%PDF-1.7'),
    })
    await client.getByText('“notes.pdf” is a PDF; asked for is a recording').waitFor()
    const sound = Buffer.concat([Buffer.from('ID3'), Buffer.alloc(2_000, 7)])
    await field.setInputFiles({ name: 'me.mp3', mimeType: 'audio/mpeg', buffer: sound })
    await client.getByText('me.mp3 (2 KB)').waitFor()

    await summary.getByText('I have a code').click()
    await summary.getByLabel('Code').fill('nonsense')
    await summary.getByRole('button', { name: 'Use it' }).click()
    await summary.getByText('I don’t know this code.').waitFor()
    await summary.getByLabel('Code').fill('open house')
    await summary.getByRole('button', { name: 'Use it' }).click()
    await summary.getByText('Free of charge', { exact: true }).waitFor()

    await client.getByRole('button', { name: 'Go on to the times' }).click()
    // Also on the way a code is taken away and used, and nobody is sent back for it.
    await summary.getByRole('button', { name: 'Take it away' }).click()
    await summary.getByText('€113.00').waitFor()
    await client.getByRole('heading', { name: 'When suits you?' }).waitFor()
    await client.locator('main button[aria-pressed]').first().click()
    await client.getByRole('button', { name: /^Go on with/ }).waitFor()
    await summary.getByText('I have a code').click()
    await summary.getByLabel('Code').fill('open house')
    await summary.getByRole('button', { name: 'Use it' }).click()
    await summary.getByText('Free of charge', { exact: true }).waitFor()
    await client.getByRole('button', { name: /^Go on with/ }).waitFor()
    await pick(client, 3)
    await fillIn(client, 'Fatou Diallo', 'fatou.diallo@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    await openMail(house, 'fatou.diallo@example.org')

    await goTo('Arrivals')
    await desk.getByRole('link', { name: /Fatou Diallo/ }).click()
    await desk.getByText('It would fit with one other answer:').waitFor()
    await desk.getByText('€95 for an assessment: That is all right').waitFor()
    await desk.getByText('Code OPEN HOUSE').waitFor()
    const download = desk.waitForEvent('download')
    await desk.getByRole('button', { name: 'Save me.mp3 (2 KB)' }).click()
    expect((await download).suggestedFilename()).toBe('me.mp3')
    await client.context().close()
  })

  it('is judged otherwise by the practitioner, with a reason that stays', async () => {
    const reasons = desk.locator('section', { hasText: 'Why it came to you' })
    await reasons.getByRole('button', { name: 'I see it differently' }).click()
    await reasons.getByRole('button', { name: 'Keep my judgement' }).click()
    await reasons.getByText('Please write why').waitFor()
    await reasons.getByLabel('because').fill('We spoke about it on the phone.')
    await reasons.getByRole('button', { name: 'Keep my judgement' }).click()
    await reasons.getByText('“We spoke about it on the phone.”').waitFor()
    await eventually('the relay has it', () => bookingOf('Fatou Diallo')?.overruled?.outcome === 'fits')
    await desk.reload()
    await reasons.getByText('The rules said look first.').waitFor()
  })

  it('is not asked again of whoever books once more, unless something has changed', async () => {
    const client = await house.visitor()
    await toTheTimes(client, house)
    await pick(client, 12)
    await fillIn(client, 'Runa Dahl', 'runa.dahl@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    await openMail(house, 'runa.dahl@example.org')
    await goTo('Arrivals')
    await desk.getByRole('link', { name: /Runa Dahl/ }).click()
    await desk.getByRole('button', { name: /^Welcome/ }).click()
    await eventually('it is booked', () => bookingOf('Runa Dahl')?.status === 'booked')
    house.clock.forward(20_000)
    await house.relay.rounds.turn()
    await client.reload()
    await client.getByRole('link', { name: 'Book Voice assessment once more' }).click()
    const before = client.getByRole('region', { name: 'What you told me before' })
    await before.getByText('My voice gives out by the end of the day.').waitFor()
    expect(await client.getByLabel('What brings you here?').count()).toBe(0)
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await client.getByRole('heading', { name: 'When suits you?' }).waitFor()
    await client.goBack()
    await before.getByRole('button', { name: 'Something has changed' }).click()
    await client.getByLabel('What brings you here?').waitFor()
    await client.context().close()
  })

  it('keeps private answers sealed on the way: the relay has them, and can not read them', async () => {
    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/first-conversation`)
    await client.getByLabel('What brings you here?').fill('I would like to read to my children.')
    await client.getByLabel('My own').check()
    await client.getByLabel(/anything about your health/).fill('A nodule, three years ago.')
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await pick(client, 2)
    await fillIn(client, 'Noor Haddad', 'noor.haddad@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    const mailed = await openMail(house, 'noor.haddad@example.org')
    await mailed.getByRole('heading', { name: 'Your time is confirmed' }).waitFor()
    await mailed.context().close()
    const rows = house.relay.store.db.prepare('SELECT body FROM record').all() as { body: string }[]
    const attempts = house.relay.store.db.prepare('SELECT answers FROM attempts').all()
    expect(JSON.stringify([rows, attempts])).not.toContain('nodule')
    expect(bookingOf('Noor Haddad')?.asked.answers.health).toHaveProperty('sealed')
    await goTo('Arrivals')
    await desk.getByRole('link', { name: /Noor Haddad/ }).click()
    await desk.getByText('A nodule, three years ago.').waitFor()
    expect(JSON.stringify(house.mailbox.received)).not.toContain('nodule')
    await client.context().close()
  })
})

describe('instead of a booking', () => {
  it('a message is answered, and a quote from the phone is accepted and booked through its link', async () => {
    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/write`)
    await client.getByLabel('Your message').fill('Do you also teach on Saturdays?')
    await client.getByLabel('Your name').fill('Ivo Marek')
    await client.getByLabel('Your mail address').fill('ivo.marek@example.org')
    await client.getByRole('button', { name: 'Send the message' }).click()
    await goTo('Arrivals')
    const card = desk.getByRole('listitem').filter({ hasText: 'Ivo Marek' })
    await card.getByRole('button', { name: 'Answer …' }).click()
    await card.getByLabel('Your answer to Ivo Marek').fill('On some. Let us find one.')
    await card.getByRole('button', { name: 'Send the answer' }).click()
    await card.getByText('On some. Let us find one.').waitFor()
    const answered = () => house.mailbox.received.find((mail) => mail.to.includes('ivo.marek@example.org'))
    await eventually('the answer arrives', () => answered()?.text.includes('Let us find one.') ?? false)

    await card.getByRole('button', { name: 'Send a quote …' }).click()
    const dialog = desk.getByRole('dialog')
    await dialog.getByLabel('It goes').selectOption('text')
    await dialog.getByLabel('Phone number').fill('+44 7700 900321')
    await dialog.getByLabel('Service').selectOption('voice-assessment')
    await dialog.getByLabel('What brings you here?').fill('He wants to read to his grandchildren.')
    await dialog.getByLabel('Singing').check()
    await dialog.getByLabel('I am not hoarse').check()
    await dialog
      .getByRole('group', { name: /How tired/ })
      .getByText('4', { exact: true })
      .click()
    await dialog.getByLabel('That is all right').check()
    await dialog.getByText('90 min').waitFor()
    await dialog.getByLabel('What you write with it').fill('As we said.')
    await dialog.getByRole('button', { name: 'Send the quote of €95.00' }).click()
    await card.getByText(/Quote sent by text message .* 90 min, €95.00/).waitFor()
    const quote = () =>
      house.texts.taken.find(({ to, text }) => to === '+44 7700 900321' && /quote=/.test(text))
    await eventually('the quote arrives', () => quote() !== undefined)
    const [link] = /http\S+quote=\S+/.exec(quote()!.text)!

    await client.goto(link)
    await client.getByRole('heading', { name: 'What we have spoken about' }).waitFor()
    await client.getByText('As we said.').waitFor()
    await client.getByRole('button', { name: 'Accept, and go on to the times' }).click()
    await pick(client, 5)
    expect(await client.getByLabel('Your name').inputValue()).toBe('Ivo Marek')
    await client.getByLabel('I agree to Studio terms').check()
    await client.getByRole('button', { name: /^Book / }).click()
    await client.getByRole('heading', { name: 'Your time is confirmed' }).waitFor()
    await card.getByRole('link', { name: /Accepted and booked/ }).waitFor()
    await client.goto(link)
    await client.getByText('This has been booked already.').waitFor()
    // A quote is for its own service, and no other asks for it.
    await client.goto(`${house.door}/${house.slug}/first-conversation`)
    await client.getByLabel('What brings you here?').waitFor()
    await client.context().close()
  })

  it('people are invited, tagged, and kept out', async () => {
    await goTo('People')
    await desk.getByRole('button', { name: 'Add or invite somebody' }).click()
    const dialog = desk.getByRole('dialog')
    await dialog.getByLabel('Name').fill('Oona Leppik')
    await dialog.getByLabel('Mail address').fill('oona')
    await dialog.getByRole('button', { name: /^Keep / }).click()
    await dialog.getByText(/write it as name@example.org/).waitFor()
    await dialog.getByLabel('Mail address').fill('oona.leppik@example.org')
    await dialog.getByLabel('Coaching session').check()
    await dialog.getByLabel(/^Tags/).fill('choir, early')
    await dialog.getByRole('button', { name: /^Keep / }).click()
    await desk.getByText('“choir”').waitFor()
    await eventually('the relay knows', () =>
      Boolean(
        house.relay.here.keeper.house.pack?.people.some(
          (person) => person.tags?.includes('early') && person.invited.includes('coaching'),
        ),
      ),
    )
    expect(JSON.stringify(house.relay.here.keeper.house.pack?.people)).not.toContain('oona')
  })
})
