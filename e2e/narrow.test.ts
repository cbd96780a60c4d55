import { DAY, instant } from '@acolhida/core/time'
import { holdOut, putInLine } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { BEGINNING, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

/** Pages of the desk, by their addresses. */
const DESK = [
  ...[
    '',
    'arrivals',
    'arrivals/asks-tome',
    'diary',
    'diary?view=day',
    'diary?view=list',
    'people',
    'record',
    'money',
    'waiting',
    'people/person-asks-tome',
    'people/person-asks-tome/plan',
    'people/move-in',
    'people/preparing',
    'preparations',
    'paths',
    'practice',
  ],
  ...['profile', 'hours', 'calendars', 'places', 'limits', 'rules', 'services', 'services/voice-assessment'],
  ...['services/reading-aloud', 'services/codes', 'questions', 'questions/voice-questions', 'terms', 'try'],
  ...[
    'sent',
    'outbox',
    'words',
    'hand-out',
    'desk',
    'first/practice',
    'first/hours',
    'first/service',
    'first/questions',
    'first/terms',
  ],
  'first/open',
]
/** Of the door. */
const DOOR = ['', '/voice-assessment', '/reading-aloud', '/first-conversation', '/write']

/** A phone; and what is left of 1280 at 200 % and at 400 % (WCAG 2.2, 1.4.4 and 1.4.10). */
const WIDTHS = [320, 375, 640] as const

/** How wide a page is drawn at each width, where that is wider than it may be. */
async function tooWide(page: Page, of: string): Promise<string[]> {
  const found: string[] = []
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 700 })
    const drawn = await page.evaluate(() => document.documentElement.scrollWidth)
    if (drawn > width) found.push(`${of}: ${drawn} px at ${width}`)
  }
  return found
}

it('no page of the desk scrolls sideways, on a phone or at 400 %', async () => {
  putInLine(house.relay, 'narrow-desk', 'A rather long name for a narrow page')
  holdOut(house.relay, 'narrow-desk', instant(BEGINNING + 8 * DAY))
  const desk = await house.openDesk()
  const wide: string[] = []
  for (const path of DESK) {
    await desk.goto(`${house.desk}/${path}`)
    await desk.getByRole('heading', { level: 1 }).first().waitFor()
    if (path === 'try') await desk.locator('iframe').waitFor()
    wide.push(...(await tooWide(desk, path)))
  }
  expect(wide).toEqual([])
})

it('nor does any of the door', async () => {
  const page = await house.visitor()
  const wide: string[] = []
  const link = putInLine(house.relay, 'narrow-waits', 'A rather long name for a narrow page')
  holdOut(house.relay, 'narrow-waits', instant(BEGINNING + 9 * DAY))
  for (const path of [...DOOR, `/in-line/${link}`]) {
    await page.goto(`${house.door}/${house.slug}${path}`)
    await page.getByRole('heading').first().waitFor()
    wide.push(...(await tooWide(page, `door${path}`)))
  }
  expect(wide).toEqual([])
})
