import { readFileSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { DAY, HOUR, instant } from '@acolhida/core/time'
import { holdOut, linkTo, putInLine } from '@acolhida/relay/tests/inside'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { edges, violations } from './axe.ts'
import { fillIn, goTo, openSaid, pick, sendButton, toTheTimes } from './client.ts'
import { BEGINNING, type House, lookRound, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

describe.each(['light', 'dark'] as const)('in the %s theme', (colorScheme) => {
  it('the door has nothing that keeps anybody out, on a phone', async () => {
    const page = await house.visitor({ colorScheme, viewport: { width: 390, height: 844 } })
    const check = async (where: string): Promise<void> => {
      expect.soft([...(await violations(page)), ...(await edges(page))], where).toEqual([])
      const wide = await page.evaluate(
        () => document.documentElement.scrollWidth > document.documentElement.clientWidth,
      )
      expect.soft(wide, `${where} scrolls sideways`).toBe(false)
    }
    await page.goto(`${house.door}/${house.slug}`)
    await page.getByRole('heading', { name: 'Voice assessment' }).waitFor()
    await check('services')
    await page.goto(`${house.door}/${house.slug}/voice-assessment`)
    await page.getByRole('button', { name: 'Go on', exact: true }).click()
    await check('questions with problems')
    await toTheTimes(page, house)
    await page.getByRole('button', { name: 'I am somewhere else' }).click()
    await page.locator('main button[aria-pressed]').first().waitFor()
    await check('times')
    await page.getByRole('button', { name: 'Nothing suits? Wait for a time' }).click()
    await page.getByRole('button', { name: 'Type it' }).click()
    await page.getByRole('button', { name: 'Get in line' }).click()
    await check('waiting for a time, with problems')
    await page.getByRole('button', { name: 'Draw it on the next days' }).click()
    await check('when one could come, drawn')
    await page.getByRole('button', { name: 'Back to the times' }).click()
    await page.locator('main button[aria-pressed]').first().waitFor()
    await pick(page, colorScheme === 'light' ? 2 : 9)
    await sendButton(page).click()
    await check('terms with problems')
    await fillIn(page, 'Axel', `axel.${colorScheme}@example.org`)
    await sendButton(page).click()
    await page.getByRole('heading', { name: 'One step more' }).waitFor()
    await check('where things stand')
    await page.goto(`${house.door}/${house.slug}/write`)
    await page.getByRole('heading', { name: 'Write to Iria Montalvar' }).waitFor()
    await check('a message')
    const line = `axel-waits-${colorScheme}`
    const link = putInLine(house.relay, line, 'Axel')
    await page.goto(`${house.door}/${house.slug}/in-line/${link}`)
    await page.getByRole('heading', { name: 'You wait for Voice assessment' }).waitFor()
    await check('a place in line')
    holdOut(house.relay, line, instant(BEGINNING + 9 * DAY + (colorScheme === 'light' ? 0 : 4 * HOUR)))
    await page.reload()
    await page.getByRole('button', { name: /^Take Thu/ }).waitFor()
    await check('a freed time')
    await page.goto(`${house.door}/nobody`)
    await page.getByRole('heading', { name: 'There is no door here' }).waitFor()
    await check('nowhere')
  })

  it('the desk has none either', async () => {
    const page = await house.visitor({ colorScheme })
    const check = async (where: string): Promise<void> =>
      expect.soft([...(await violations(page)), ...(await edges(page))], where).toEqual([])
    await page.goto(house.desk)
    await page.getByRole('button', { name: 'Look round' }).waitFor()
    await check('begin')
    await lookRound(house.relay, page)
    await page.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
    await check('today')
    await page.getByRole('button', { name: /^Offer other times.*Tomé Arrais/ }).click()
    await page.getByRole('dialog').waitFor()
    await check('offering')
    await page.keyboard.press('Escape')
    await page.getByRole('link', { name: 'Tomé Arrais' }).click()
    await page.getByRole('heading', { name: 'Answers' }).waitFor()
    await check('a request')
    for (const name of [
      'Arrivals',
      'Diary',
      'People',
      'Waiting',
      'My practice',
      'Who I am',
      'Hours',
      'Places',
      'Other calendars',
      'Services',
      'Questions',
      'Limits',
      'Outbox',
      'What is sent',
      'Words and languages',
      'Terms',
      'Try it',
      'Hand out the link',
      'This desk',
    ]) {
      await goTo(page, name)
      await page.getByRole('heading', { level: 1 }).waitFor()
      if (name === 'Waiting') {
        await page.getByRole('region', { name: 'Free just now' }).waitFor()
        await check('who waits')
        await page.getByRole('button', { name: /^Look/ }).first().click()
        await page.getByRole('dialog').waitFor()
        await check('somebody in line')
        await page.keyboard.press('Escape')
        await page.getByRole('button', { name: 'Put somebody in line…' }).click()
        await page.getByRole('dialog').waitFor()
        await check('putting somebody in line')
        await page.keyboard.press('Escape')
      }
      if (name === 'Diary') {
        await page.getByRole('slider').nth(4).focus()
        await page.keyboard.press('ArrowRight')
      }
      await check(name)
    }
    await page.getByRole('button', { name: 'Pair a phone' }).click()
    const url = await page.getByRole('link', { name: /\/day#/ }).getAttribute('href')
    await check('a phone to be paired')
    const phone = await house.visitor({ colorScheme, viewport: { width: 390, height: 844 } })
    await phone.goto(url ?? '')
    await phone
      .getByRole('button', { name: /^Turn down/ })
      .first()
      .click()
    expect.soft([...(await violations(phone)), ...(await edges(phone))], 'the day').toEqual([])
    for (const [path, heading] of [
      ['arrivals/asks-tome/sheet', 'What is open'],
      ['people/person-asks-tome', 'Missed and cancelled late'],
      ['people/person-asks-tome/plan', 'What is wished for'],
      ['people/move-in', 'Moved in before'],
      ['people/preparing', 'Getting ready'],
      ['preparations', 'What clients prepare'],
      ['paths', 'Paths'],
      ['rules', 'Not coming'],
      ['record', 'The record'],
      ['money', 'Money'],
    ] as const) {
      await page.goto(`${house.desk}/${path}`)
      await page.getByRole('heading', { name: heading }).waitFor()
      await check(path)
    }
    for (const step of ['practice', 'hours', 'service', 'questions', 'terms', 'open']) {
      await page.goto(`${house.desk}/first/${step}`)
      await page.getByRole('heading', { level: 1 }).waitFor()
      await check(`the first steps: ${step}`)
    }
    await goTo(page, 'Services')
    await page.getByRole('link', { name: 'Voice assessment' }).click()
    await (await openSaid(page, 'Length')).waitFor()
    await check('a service')
    await page.goto(`${house.desk}/services/codes`)
    await page.getByRole('heading', { level: 1, name: 'Price codes' }).waitFor()
    await check('price codes')
    await page.goto(`${house.desk}/questions/voice-questions`)
    await page.getByText('of the ways').first().waitFor()
    await page.getByRole('button', { name: /^4 ?Has a doctor/ }).click()
    await page.getByRole('button', { name: /^1 ?See a doctor first/ }).click()
    await check('questions being written')
    await page.getByRole('button', { name: 'As a client answers' }).click()
    await check('questions being tried')
    await page.goto(`${house.desk}/arrivals`)
    await page.getByRole('button', { name: 'A quote for somebody …' }).click()
    await page.getByRole('dialog').waitFor()
    await check('a quote')
    await page.goto(`${house.desk}/people/person-asks-tome`)
    await page.getByRole('button', { name: 'Paste one' }).click()
    await page.getByRole('dialog').waitFor()
    await check('a mail put beside somebody')
    await page.goto(`${house.desk}/words`)
    await page.getByLabel('Português').check()
    await page.getByText(/texts? of yours lack/).waitFor()
    await page.goto(`${house.desk}/terms`)
    await page.getByRole('button', { name: 'Write it in Português' }).first().click()
    await page.getByRole('textbox', { name: 'Text of Your time' }).waitFor()
    await check('terms being written in another language')
  })
})

it('the way to the till has none, nor the till', async () => {
  const page = await house.visitor({ viewport: { width: 320, height: 700 } })
  await page.goto(`${house.door}/${house.slug}/my/${linkTo(house.relay, 'next-odile')}`)
  await page.getByRole('button', { name: /^Pay .* by card/ }).click()
  await page.getByLabel('Number of the card').waitFor()
  expect(await violations(page)).toEqual([])
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320)
  await page.getByRole('button', { name: 'Back without paying' }).click()
  await page.getByRole('link', { name: /^Back/ }).click()
  await page.getByText('did not go through').waitFor()
  expect(await violations(page)).toEqual([])
  await page.goto(house.till.url)
  expect(await violations(page)).toEqual([])
})

it('the letterbox has none', async () => {
  const page = await house.visitor()
  await page.goto(house.letterbox)
  await page.getByRole('heading', { name: 'Letterbox' }).waitFor()
  expect(await violations(page)).toEqual([])
})

it.each([
  ['door', 160],
  ['desk', 150],
] as const)('the first page of the %s has at most %i KB of script over the wire', (application, most) => {
  const folder = resolve(import.meta.dirname, '..', 'web', 'dist', application, 'assets')
  const page = readFileSync(join(folder, '..', 'index.html'), 'utf8')
  // What the page loads by itself, with all that this names; what comes later, when it is wanted, is not counted.
  const wanted = new Set<string>()
  const want = (name: string): void => {
    if (wanted.has(name)) return
    wanted.add(name)
    const code = readFileSync(join(folder, name), 'utf8')
    for (const [, next] of code.matchAll(/(?:from|import)\s*["`]\.\/([^"`]+\.js)["`]/g)) want(next!)
  }
  for (const [, name] of page.matchAll(/\/assets\/([^"]+\.js)"/g)) want(name!)
  // As the relay sends them: compressed when they were built.
  const bytes = [...wanted].reduce((sum, name) => sum + statSync(join(folder, `${name}.br`)).size, 0)
  console.log(`      ${application}: ${(bytes / 1024).toFixed(1)} KB in ${wanted.size} files`)
  expect(wanted.size).toBeGreaterThan(2)
  expect(bytes).toBeLessThanOrEqual(most * 1024)
})
