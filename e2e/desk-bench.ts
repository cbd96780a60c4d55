import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { NOW, practiceOfYears, SIZES } from '@acolhida/bench/years'
import { type Backup, writeBackup } from '@acolhida/core/formats'
import { DAY, instant, localDate } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { newPairingCode } from '@acolhida/relay/desk/pairing'
import type { Page } from 'playwright-core'
import { type House, openHouse } from './house.ts'
import { bareWrite, mark, medianOf, press, standingStill, traced } from './measuring.ts'

/**
 * The desk with ten years in it: what each page costs the main thread from the press to when it is shown, by the
 * browser's own tracing, beside the same page of a practice that has nothing but what is shown.
 */
const TIMES = 5

/** Four weeks with twenty sessions a day, a month ahead. */
const BUSY = [instant(NOW - (NOW % DAY) + 27 * DAY), instant(NOW - (NOW % DAY) + 55 * DAY)] as const
/** What the small practice has: this week, and the busy ones. */
const SMALL = [[instant(NOW - (NOW % DAY) + DAY), instant(NOW - (NOW % DAY) + 7 * DAY)], BUSY] as const

/** The requests of the demo that wait for a word, so that there is something to decide. */
const waiting = demoBackup(NOW)
const asking = waiting.bookings.filter(({ id }) => id.startsWith('asks-'))

function withAsking(backup: Backup): Backup {
  const mails = new Set(
    asking.map(({ events: [first] }) => (first?.type === 'asked' ? first.person.email : '')),
  )
  return {
    ...backup,
    cursor: 0,
    bookings: [...backup.bookings, ...asking],
    people: [
      ...backup.people,
      ...waiting.people.filter((person) => person.emails.some((mail) => mails.has(mail))),
    ],
  }
}

const big = (bookings: number, people: number): Backup =>
  withAsking(practiceOfYears(bookings, people, undefined, BUSY))

function small(window: readonly [typeof NOW, typeof NOW]): Backup {
  return withAsking(practiceOfYears(0, 50, window, BUSY))
}

const rail = (href: string): string => `nav[aria-label="Desk"] a[href="${href}"]`

interface Action {
  name: string
  /** Where it begins, by address. */
  from?: string
  /** Pressed before it is measured. */
  before?: [what: string, shown: string]
  what: string
  /** What is typed or chosen there; it is pressed otherwise. */
  to?: string
  shown: string | ((page: Page) => Promise<string>)
  most: number
  /** After it, so that it can be done again. */
  after?: (page: Page) => Promise<void>
}

const busyDay = localDate(Math.floor(BUSY[0] / DAY) as never)
const session = '[data-lane] a[href^="/arrivals/"]'
/** Somebody else in the second row than there is now. */
const anotherRow = async (page: Page): Promise<string> => {
  const now = await page.locator('tbody tr:nth-child(2) a').first().getAttribute('href')
  return `tbody tr:nth-child(2) a[href^="/people/"]:not([href="${now}"])`
}
const ACTIONS: Action[] = [
  { name: 'Today', before: [rail('/practice'), 'h1'], what: rail('/'), shown: 'main h3 a', most: 150 },
  {
    name: 'Arrivals',
    before: [rail('/practice'), 'h1'],
    what: rail('/arrivals'),
    shown: 'tbody a[href^="/arrivals/"]',
    most: 150,
  },
  {
    name: 'People',
    before: [rail('/practice'), 'h1'],
    what: rail('/people'),
    shown: 'tbody a[href^="/arrivals/"]',
    most: 100,
  },
  {
    name: 'People, sorted',
    before: [rail('/people'), 'tbody a'],
    what: 'th button:has-text("Name")',
    shown: anotherRow,
    most: 100,
  },
  {
    name: 'People, filtered',
    before: [rail('/people'), 'tbody a'],
    what: 'main select',
    to: 'new',
    shown: anotherRow,
    most: 100,
  },
  {
    name: 'People, searched',
    before: [rail('/people'), 'tbody a'],
    what: 'main input[type="search"]',
    to: 'Person 1',
    shown: anotherRow,
    most: 100,
  },
  {
    name: 'a person',
    before: [rail('/people'), 'tbody a'],
    what: 'tbody tr button',
    shown: 'dialog[open] textarea',
    most: 150,
    after: async (page) => page.keyboard.press('Escape'),
  },
  { name: 'the week', before: [rail('/practice'), 'h1'], what: rail('/diary'), shown: session, most: 150 },
  {
    name: 'one request',
    before: [rail('/'), 'main h3 a'],
    what: 'main h3 a',
    shown: 'section[aria-label="Deadlines"]',
    most: 150,
  },
  {
    name: 'a decision',
    before: [rail('/'), 'main h3 a'],
    what: 'main .press-go',
    shown: '[role="status"] .rounded-xl',
    most: 150,
    after: async (page) => {
      await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
      await page.getByRole('button', { name: 'Undo', exact: true }).waitFor({ state: 'detached' })
      await page.waitForFunction(() => document.querySelectorAll('main h3 a').length >= 3)
    },
  },
  {
    name: 'four weeks with 400 sessions',
    from: `/diary?view=day&day=${busyDay}`,
    what: 'button:has-text("Four weeks")',
    shown: `li:nth-child(22) ${session}`,
    most: 250,
  },
  {
    name: 'the list of them',
    from: `/diary?view=day&day=${busyDay}`,
    what: 'button:has-text("List")',
    shown: 'tbody a[href^="/arrivals/"]',
    most: 250,
  },
]

async function measure(house: House, page: Page, action: Action): Promise<number> {
  const found: number[] = []
  for (let i = 0; i <= TIMES; i++) {
    if (action.from) {
      await page.goto(house.desk + action.from)
      await page.locator('[data-lane]').first().waitFor()
    }
    if (action.before) {
      await page.locator(action.before[0]).first().click()
      await page.locator(action.before[1]).first().waitFor()
    }
    await page.waitForTimeout(400)
    const shown = typeof action.shown === 'string' ? action.shown : await action.shown(page)
    const { cpu } = await traced(house, page, () => press(page, action.what, shown, action.to))
    await action.after?.(page)
    // The first is for warming up.
    if (i > 0) found.push(cpu)
  }
  return medianOf(found)
}

interface Opened {
  page: Page
  restored: number
  longest: number
}

/** A desk in a profile of its own that has opened a backup and is paired. */
async function openDesk(house: House, backup: Backup, folder: string): Promise<Opened> {
  const path = join(folder, 'backup.json')
  writeFileSync(path, writeBackup(backup))
  const page = await house.visitor()
  if (process.env.LOUD) page.on('console', (m) => console.log('   ', m.text()))
  page.setDefaultTimeout(120_000)
  await page.goto(house.desk)
  await page.getByText('Choose a file').waitFor()
  const began = Date.now()
  let restored = 0
  const { longest } = await traced(house, page, async () => {
    await mark(page, 'bench-begin')
    await page.getByLabel('Choose a file').setInputFiles(path)
    // Until the page is loaded anew, which is the end of it.
    for (let there = true; there; ) {
      await new Promise((resolve) => setTimeout(resolve, 50))
      there = await page
        .evaluate(() => {
          const still =
            document.body.textContent?.includes('Choose a file') ||
            document.querySelector('progress') ||
            /Reading|One moment/.test(document.body.textContent ?? '')
          if (still) performance.mark('bench-end')
          return Boolean(still)
        })
        .catch(() => false)
    }
    await page.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
    restored = Date.now() - began
  })
  await page.locator(rail('/desk')).first().click()
  await page.getByLabel(/The code the relay printed/).fill(newPairingCode(house.relay.store))
  await page.getByRole('button', { name: 'Pair this desk' }).click()
  const other = page.getByRole('button', { name: /cut the other off/ })
  if (
    await other.waitFor({ timeout: 2_000 }).then(
      () => true,
      () => false,
    )
  )
    await other.click()
  await page.getByText('Your door is open').waitFor()
  page.setDefaultTimeout(20_000)
  return { page, restored, longest }
}

async function still(page: Page): Promise<string> {
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Performance.enable')
  const found: string[] = []
  for (const [name, href] of [
    ['Today', '/'],
    ['the week', '/diary'],
    ['People', '/people'],
  ] as const) {
    await page.locator(rail(href)).first().click()
    found.push(`${name} ${(await standingStill(page, cdp)).toFixed(2)} %`)
  }
  return found.join(', ')
}

async function measureAll(backup: Backup, folder: string, really: boolean): Promise<Map<string, number>> {
  const house = await openHouse({ at: NOW })
  try {
    const { page, restored, longest } = await openDesk(house, backup, folder)
    const found = new Map<string, number>()
    for (const action of ACTIONS) {
      if (process.env.ONLY && !action.name.includes(process.env.ONLY)) continue
      const spent = await measure(house, page, action)
      if (process.env.LOUD) console.log(`    ${action.name} ${spent.toFixed(0)}`)
      found.set(action.name, spent)
    }
    if (really) {
      console.log(`  standing still: ${await still(page)} (at most 2)`)
      const bare = await bareWrite(page)
      console.log(
        `  restore: ${(restored / 1_000).toFixed(1)} s (at most 30), ${(restored / bare).toFixed(1)} × a bare write of the same rows (at most 3); longest task of the page meanwhile ${longest.toFixed(0)} ms (at most 100)`,
      )
    }
    return found
  } finally {
    await house.close().catch((error: unknown) => console.error(error))
  }
}

const folder = mkdtempSync(join(tmpdir(), 'acolhida-desk-bench-'))
const few =
  process.env.ONLY === 'restore'
    ? new Map<string, number>()
    : await measureAll(small([SMALL[0][0], BUSY[1]]), folder, false)
for (const [bookings, people] of SIZES) {
  if (process.argv[2] && Number(process.argv[2]) !== bookings) continue
  console.log(
    `The desk with ${bookings} bookings of ${people} people: main thread CPU from press to shown, median of ${TIMES}`,
  )
  const many = await measureAll(big(bookings, people), folder, true)
  for (const { name, most } of ACTIONS) {
    if (!many.has(name)) continue
    const [a, b] = [many.get(name)!, few.get(name)!]
    console.log(
      `  ${name}: ${a.toFixed(0)} ms (at most ${most}), ${(a / b).toFixed(2)} × with what is shown alone (at most 1.5)`,
    )
  }
}
rmSync(folder, { recursive: true, force: true })
process.exit(0)
