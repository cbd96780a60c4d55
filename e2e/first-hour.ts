import type { Locator, Page } from 'playwright-core'
import type { House } from './house.ts'

/** What it took: presses of the pointer, and fields that something was written into. */
export interface Counts {
  clicks: number
  fields: number
}

/** What somebody who begins would write; nothing of it is there already. */
const OWN = {
  name: 'Nadia Ferro',
  email: 'nadia@example.org',
  hours: '10–13, 15–19',
  service: 'Sorting out',
  minutes: '50',
  price: '80',
  question: 'What has been on your mind most?',
  headline: 'Conversations for people between two jobs',
}

/**
 * From the demo’s desk to one’s own open door: own service, own hours, own questions. Every press and every field is
 * counted; nothing is done that a person would not do.
 */
export async function firstHour(house: House): Promise<{ page: Page; counts: Counts; own: typeof OWN }> {
  const page = await house.openDesk()
  const counts: Counts = { clicks: 0, fields: 0 }
  const press = async (what: Locator): Promise<void> => {
    await what.click()
    counts.clicks++
  }
  const write = async (label: string, text: string): Promise<void> => {
    await page.getByRole('textbox', { name: label }).fill(text)
    counts.fields++
  }
  const goOn = (heading: string): Promise<void> =>
    press(page.getByRole('button', { name: 'Go on' })).then(() =>
      page.getByRole('heading', { level: 1, name: heading }).waitFor(),
    )

  await press(page.getByRole('link', { name: 'Begin my own practice' }))
  await write('Your name', OWN.name)
  await write('Where clients’ answers go', OWN.email)
  await goOn('When do you work?')
  await press(page.getByLabel('Friday'))
  await write('Hours, as', OWN.hours)
  await goOn('What can one come to you for?')
  await write('Its name', OWN.service)
  await write('Minutes', OWN.minutes)
  await write('Price', OWN.price)
  await goOn('What do you ask first?')
  await write('Question 2', OWN.question)
  await goOn('What do you agree on?')
  await goOn('Open your door')
  await write('What you do, in a line', OWN.headline)
  await press(page.getByRole('button', { name: 'Open my door' }))
  await page.getByRole('heading', { level: 1, name: 'Hand out the link' }).waitFor()
  return { page, counts, own: OWN }
}
