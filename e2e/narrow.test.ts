import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

/** Pages of the desk, by their addresses. */
const PAGES = [
  ...['', 'arrivals', 'arrivals/asks-tome', 'diary', 'people', 'practice', 'profile', 'hours', 'calendars'],
  ...[
    'places',
    'limits',
    'services',
    'services/voice-assessment',
    'services/reading-aloud',
    'services/codes',
  ],
  ...['questions', 'questions/voice-questions', 'terms', 'try', 'hand-out', 'desk'],
  ...['first/practice', 'first/hours', 'first/service', 'first/questions', 'first/terms', 'first/open'],
]

// 320 px are what is left of 1280 at 400 % (WCAG 2.2, 1.4.10).
it('no page of the desk scrolls sideways at 320 px', async () => {
  const desk = await house.openDesk()
  await desk.setViewportSize({ width: 320, height: 700 })
  const wide: string[] = []
  for (const page of PAGES) {
    await desk.goto(`${house.desk}/${page}`)
    await desk.getByRole('heading', { level: 1 }).first().waitFor()
    const width = await desk.evaluate(() => document.documentElement.scrollWidth)
    if (width > 320) wide.push(`${page}: ${width} px`)
  }
  expect(wide).toEqual([])
})
