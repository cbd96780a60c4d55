import { DAY } from '@acolhida/core/time'
import { bookingsOf, changePractice } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { answerAssessment, fillIn, mailTo, openMail, pick, sendButton, toTheTimes } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const booked = (name: string) => bookingsOf(house.relay).find((booking) => booking.asked.person.name === name)
const raiseTo = (amount: number): void =>
  changePractice(house.relay, ({ services }) => ({
    services: services.map((service) =>
      service.id === 'voice-assessment' ? { ...service, price: { kind: 'fixed' as const, amount } } : service,
    ),
  }))
const summary = (page: Page) => page.getByRole('complementary')

describe('what was shown is what is sent', () => {
  it('a price raised while somebody fills in is shown before they are booked at it', async () => {
    const client = await house.visitor()
    await toTheTimes(client, house)
    await pick(client, 4)
    await fillIn(client, 'Bente Kofoed', 'bente.kofoed@example.org')
    await summary(client).getByText('€95.00').first().waitFor()
    raiseTo(50_000)
    await sendButton(client).click()
    await client.getByText(/^Something has changed since you chose this time/).waitFor()
    await summary(client).getByText('€500.00').first().waitFor()
    expect(await client.getByLabel('Your name').inputValue()).toBe('Bente Kofoed')
    expect(booked('Bente Kofoed')).toBeUndefined()
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    expect(booked('Bente Kofoed')?.price).toBe(50_000)
    raiseTo(9_500)
    await client.context().close()
  })

  it('a price that can’t be told just now is not told wrong', async () => {
    const client = await house.visitor()
    await client.route('**/so-far', (route) =>
      route.fulfill({ status: 429, json: { code: 'too-many', message: 'Too many requests.' } }),
    )
    await client.goto(`${house.door}/${house.slug}/voice-assessment`)
    await client.getByLabel('What brings you here?').fill('My voice gives out by the end of the day.')
    await summary(client).getByText('What this comes to can’t be told just now.').waitFor()
    expect(await summary(client).getByText('€95.00').count()).toBe(0)
    await client.unroute('**/so-far')
    await client.context().close()
  })
})

describe('questions published while somebody chooses a time', () => {
  it('lead to what is new, with a word about it and nothing typed lost', async () => {
    const client = await house.visitor()
    await toTheTimes(client, house)
    await pick(client, 5)
    await fillIn(client, 'Oda Lindqvist', 'oda.lindqvist@example.org')
    changePractice(house.relay, ({ questionnaires }) => ({
      questionnaires: questionnaires.map((questionnaire) => ({
        ...questionnaire,
        questions: [
          ...questionnaire.questions,
          { id: 'since-when', kind: 'short' as const, text: 'Since when?', required: true },
        ],
      })),
    }))
    await sendButton(client).click()
    await client.getByText(/^The questions have changed while you were here/).waitFor()
    await client.getByLabel('Since when?').fill('Since spring.')
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await pick(client, 5)
    expect(await client.getByLabel('Your name').inputValue()).toBe('Oda Lindqvist')
    expect(await client.getByLabel('I agree to Studio terms').isChecked()).toBe(true)
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    expect(booked('Oda Lindqvist')?.asked.answers).toMatchObject({
      brings: 'My voice gives out by the end of the day.',
      'since-when': 'Since spring.',
    })
    changePractice(house.relay, ({ questionnaires }) => ({
      questionnaires: questionnaires.map((questionnaire) => ({
        ...questionnaire,
        questions: questionnaire.questions.filter(({ id }) => id !== 'since-when'),
      })),
    }))
    await client.context().close()
  })
})

describe('two tabs of one visit', () => {
  it('share what is filled in, and overwrite nothing', async () => {
    const first = await house.visitor()
    await first.goto(`${house.door}/${house.slug}/voice-assessment`)
    const second = await first.context().newPage()
    await second.goto(`${house.door}/${house.slug}/voice-assessment`)
    await first.getByLabel('What brings you here?').fill('I read to many people.')
    await expect
      .poll(() => second.getByLabel('What brings you here?').inputValue())
      .toBe('I read to many people.')
    await second.getByLabel('Teaching', { exact: true }).check()
    await second.getByLabel('I am not hoarse').check()
    await expect.poll(() => first.getByLabel('I am not hoarse').isChecked()).toBe(true)
    expect(await first.getByLabel('What brings you here?').inputValue()).toBe('I read to many people.')
    await first.context().close()
  })
})

describe('cancelled by the practitioner', () => {
  it('shows what it means, takes a word, and can be undone before anybody hears of it', async () => {
    const desk = await house.openDesk()
    const { asked } = bookingsOf(house.relay).find((booking) => booking.id === 'next-odile')!
    const { name, email } = asked.person
    await desk.goto(`${house.desk}/arrivals/next-odile`)
    const cancel = async (word: string): Promise<void> => {
      await desk.getByRole('button', { name: 'Cancel…' }).click()
      const dialog = desk.getByRole('dialog', { name: new RegExp(`^Cancel .* with ${name}`) })
      await dialog.getByText(/gets a mail, and owes nothing/).waitFor()
      await dialog.getByLabel(/^A word with it/).fill(word)
      await dialog.getByRole('button', { name: `Cancel it, free for ${name}` }).click()
    }
    const status = () => bookingsOf(house.relay).find((booking) => booking.id === 'next-odile')?.status
    await cancel('A burst pipe.')
    await eventually('the cancelling', () => status() === 'cancelled')
    await desk.getByRole('button', { name: /^Undo/ }).click()
    await eventually('the undoing', () => status() === 'booked')
    await cancel('The pipe after all; I am sorry.')
    await eventually('the second cancelling', () => status() === 'cancelled')
    const mail = await mailTo(house, email, /^Cancelled/)
    expect(mail.text).toContain('The pipe after all; I am sorry.')
    const told = house.mailbox.received.filter((mail) => mail.to.includes(email))
    expect(told.map(({ subject }) => subject.split(':')[0])).toEqual(['Cancelled'])
    await desk.context().close()
  })
})

describe('an address that is not proved', () => {
  it('is not believed, and the practitioner is not troubled with it', async () => {
    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/voice-assessment`)
    await answerAssessment(client)
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await pick(client, 9)
    await fillIn(client, 'Hege Moe', 'hege.moe@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    const desk = await house.openDesk()
    expect(await desk.getByRole('button', { name: /Welcome.*Hege Moe/ }).count()).toBe(0)
    const mailed = await openMail(house, 'hege.moe@example.org')
    await mailed.getByRole('heading', { name: /^Your request/ }).waitFor()
    await desk.getByText('Hege Moe').first().waitFor()
    await desk.context().close()
    await mailed.context().close()
    await client.context().close()
  })
})

describe('an address corrected after going back', () => {
  it('is where to come from then on: its zone, its surcharge and the address itself', async () => {
    const where = {
      id: 'where',
      kind: 'address' as const,
      text: 'Where shall I come?',
      required: true,
      travel: true,
    }
    const zones = [
      { id: 'near', name: 'Around Coimbra', postalCodes: ['30'], clear: 15, surcharge: 1_000 },
      { id: 'far', name: 'Towards the sea', postalCodes: ['31'], clear: 40, surcharge: 2_500 },
    ]
    changePractice(house.relay, ({ places, services, questionnaires }) => ({
      places: [
        ...places,
        {
          id: 'yours',
          kind: 'client' as const,
          name: 'at yours',
          told: 'confirmation' as const,
          travel: zones,
        },
      ],
      services: services.map((service) =>
        service.id === 'voice-assessment' ? { ...service, places: ['yours'] } : service,
      ),
      questionnaires: questionnaires.map((questionnaire) =>
        questionnaire.id === services.find(({ id }) => id === 'voice-assessment')?.questionnaire
          ? { ...questionnaire, questions: [...questionnaire.questions, where] }
          : questionnaire,
      ),
    }))
    const client = await house.visitor()
    await client.goto(`${house.door}/${house.slug}/voice-assessment`)
    await answerAssessment(client)
    const lives = async (street: string, code: string, town: string): Promise<void> => {
      await client.getByLabel('Street and number').fill(street)
      await client.getByLabel('Postal code').fill(code)
      await client.getByLabel('Town').fill(town)
    }
    await lives('Rua Velha 1', '3000-100', 'Coimbra')
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await pick(client, 2)
    await summary(client).getByText('€105.00').first().waitFor()
    await client.getByRole('button', { name: 'Questions', exact: true }).click()
    await client.getByLabel('Street and number').waitFor()
    await lives('Rua Nova 2', '3100-200', 'Pombal')
    await client.getByRole('button', { name: 'Go on to the times' }).click()
    await pick(client, 2)
    await summary(client).getByText('€120.00').first().waitFor()
    await fillIn(client, 'Iker Solano', 'iker.solano@example.org')
    await sendButton(client).click()
    await client.getByRole('heading', { name: 'One step more' }).waitFor()
    const { asked, price } = booked('Iker Solano')!
    expect([asked.travel, asked.address, price]).toEqual(['far', 'Rua Nova 2, 3100-200 Pombal', 12_000])
    expect(asked.answers.where).toContain('Rua Nova 2')
    await client.context().close()
  })
})

describe('a clock that has leapt', () => {
  it('pauses what happens by itself until the practitioner has said that it is right', async () => {
    const leaping = await openHouse({ seesLeaps: true })
    const desk = await leaping.openDesk()
    const status = () => leaping.relay.here.keeper.house.booking('asks-tome')?.status
    leaping.clock.forward(40 * DAY)
    await leaping.relay.rounds.turn()
    await desk.reload()
    await desk.getByText('The relay’s clock has leapt').waitFor()
    expect(status()).toBe('requested')
    await desk.getByRole('button', { name: /is right$/ }).click()
    await desk.getByText('The relay’s clock has leapt').waitFor({ state: 'detached' })
    await eventually('the lapse', () => status() === 'lapsed')
    await desk.context().close()
    await leaping.close()
  })
})
