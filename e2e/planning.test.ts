import { enter } from '@acolhida/core/house'
import { dateTimeAt, zone } from '@acolhida/core/time'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { faultsOf } from './axe.ts'
import { mailTo } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
let desk: Page
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(() => house.close())

const LISBON = zone('Europe/Lisbon')
const EMAIL = 'benat.lasarte@example.org'
const theirs = () =>
  [...house.relay.here.keeper.house.openBookings()]
    .filter(({ asked, status }) => asked.person.email === EMAIL && status === 'booked')
    .sort((a, b) => a.start - b.start)
const times = () => theirs().map(({ start }) => dateTimeAt(LISBON, start))
const plan = () => desk.getByRole('region', { name: 'The plan' })

const planAhead = async (): Promise<void> => {
  await desk.goto(`${house.desk}/people`)
  await desk.getByRole('link', { name: 'Beñat Lasarte' }).first().click()
  await desk.getByRole('link', { name: 'Plan ahead' }).click()
  await desk.getByRole('heading', { name: 'All 6 as meant' }).waitFor()
}

it('sessions are planned ahead with somebody, one moved by hand, and booked at once', async () => {
  const before = times()
  await planAhead()
  await desk.getByLabel('How many').fill('4')
  await desk.getByRole('button', { name: 'Type it' }).click()
  await desk.getByLabel('Not before', { exact: true }).fill('14:00')
  await desk.getByLabel('Over by', { exact: true }).fill('19:00')
  await desk.getByRole('button', { name: 'Add these times' }).click()
  // Mornings are meant, and they can come in the afternoon: each gives way, and says by how much.
  await plan().getByText('3 h 45 later in the day').nth(3).waitFor()
  expect(await plan().getByText('They can’t come then.').count()).toBe(4)
  await desk.getByRole('button', { name: 'Move session 2' }).click()
  await plan().getByRole('button', { name: '16:30', exact: true }).click()
  await plan().getByText('Moved by you').waitFor()
  await desk.getByRole('button', { name: 'Book 4 sessions' }).click()
  await desk.getByRole('heading', { name: 'Beñat Lasarte' }).waitFor()
  await eventually('they are booked', () => theirs().length === before.length + 4)
  // What was booked at once can be undone at once, and fills no screen.
  await desk.getByRole('button', { name: /^Undo all/ }).waitFor()
  expect(await desk.getByRole('button', { name: /^Undo \(/ }).count()).toBe(0)
  expect(times().filter((time) => !before.includes(time))).toEqual([
    '2026-12-03T14:00',
    '2026-12-10T16:30',
    '2026-12-17T14:00',
    '2026-12-24T14:00',
  ])
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Confirmed/)
  expect(mail.text.match(/^– .*$/gm)).toEqual([
    '– Thu 3 Dec, 14:00',
    '– Thu 10 Dec, 16:30',
    '– Thu 17 Dec, 14:00',
    '– Thu 24 Dec, 14:00',
  ])
})

it('what was taken meanwhile is named at the desk, and nothing of the plan is booked', async () => {
  await planAhead()
  const before = theirs().length
  // The desk has not heard of it yet: it is away while somebody is quicker.
  await desk.context().setOffline(true)
  const [first] = await plan().getByRole('listitem').locator('time').all()
  const start = Date.parse((await first!.getAttribute('datetime'))!)
  const body = {
    ...{ id: 'somebody-quicker', service: 'voice-assessment', place: 'studio', start, minutes: 90 },
    ...{ person: { name: 'Q', email: 'q@example.org', zone: 'UTC' }, clash: false, silent: true },
  }
  house.relay.here.call(enter, body as never)
  await desk.getByRole('button', { name: 'Book 6 sessions' }).click()
  await desk.getByRole('heading', { name: 'Beñat Lasarte' }).waitFor()
  await desk.context().setOffline(false)
  await desk.getByRole('link', { name: /^Today/ }).click()
  await desk.getByText(/This time is not free any more: .*Nothing was booked/).waitFor()
  expect(theirs().length).toBe(before)
})

it('what is planned ends from one session on, with one message that tells which', async () => {
  const before = times()
  await desk.goto(`${house.desk}/people`)
  await desk.getByRole('link', { name: 'Beñat Lasarte' }).first().click()
  await desk.getByRole('button', { name: 'End sessions from one on…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('From this one on').selectOption({ label: 'Thu 17 Dec, 14:00, Voice assessment' })
  await dialog.getByLabel(/^A word with it/).fill('Well done.')
  await dialog.getByRole('button', { name: 'Cancel 2 sessions' }).click()
  await eventually('they have ended', () => times().length === before.length - 2)
  expect(times()).toEqual(before.slice(0, -2))
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Cancelled/)
  expect(mail.text).toContain('Well done.')
  expect(mail.text.match(/^– .*$/gm)).toEqual(['– Thu 17 Dec, 14:00', '– Thu 24 Dec, 14:00'])
  expect(
    house.mailbox.received.filter(({ to, subject }) => to.includes(EMAIL) && /^Cancelled/.test(subject)),
  ).toHaveLength(1)
})

it('what is left of it moves from one session on, with one message that tells where to', async () => {
  await desk.getByRole('button', { name: 'Move sessions from one on…' }).click()
  const dialog = desk.getByRole('dialog')
  await dialog.getByLabel('From this one on').selectOption({ label: 'Thu 3 Dec, 14:00, Voice assessment' })
  await dialog.getByLabel('It goes to this day').fill('Fri 4 December 2026')
  await dialog.getByLabel('All of them at').fill('15:00')
  await dialog.getByLabel(/^A word with it/).fill('As you asked.')
  await dialog.getByText('→ Fri 4 Dec, 15:00').waitFor()
  await dialog.getByText('→ Fri 11 Dec, 15:00').waitFor()
  if (process.env.LOOK) await desk.screenshot({ path: '/tmp/look-move-sessions.png' })
  expect.soft(await faultsOf(desk)).toEqual([])
  await dialog.getByRole('button', { name: 'Move 2 sessions' }).click()
  const moved = ['2026-12-04T15:00:00Z', '2026-12-11T15:00:00Z'].map((at) => Date.parse(at))
  await eventually(
    'they have moved',
    () =>
      String(
        theirs()
          .slice(-2)
          .map(({ start }) => start),
      ) === String(moved),
  )
  house.clock.forward(20_000)
  await house.relay.rounds.turn()
  const mail = await mailTo(house, EMAIL, /^Moved/)
  expect(mail.text).toContain('As you asked.')
  expect(mail.text.match(/^– .*$/gm)).toEqual(['– Fri 4 Dec, 15:00', '– Fri 11 Dec, 15:00'])
})
