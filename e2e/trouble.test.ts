import { afterAll, beforeAll, it } from 'vitest'
import { fillIn, linkIn, mailTo, pick, sendButton, toTheTimes } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
beforeAll(async () => {
  house = await openHouse({ held: { byOne: 4, inAll: 2 } })
})
afterAll(() => house.close())

it('what hinders the relay stands at the head of every page with what to do, as long as it does', async () => {
  const desk = await house.openDesk()
  house.relay.health.is('mail.sign-in')
  house.relay.health.is('file.full')
  const said = desk.getByRole('alert').filter({ hasText: 'The mail host refuses the name' })
  await said.getByText(/disk is full/).waitFor()
  if (process.env.LOOK) await desk.screenshot({ path: '/tmp/troubles.png' })
  await said.getByRole('link', { name: 'What waits' }).click()
  await desk.getByRole('heading', { name: 'Outbox', level: 1 }).waitFor()
  await said.waitFor()
  house.relay.health.isWell('mail')
  house.relay.health.isWell('file')
  await said.waitFor({ state: 'detached' })
})

it('where much is held without a proof a client is told so, and can ask all the same', async () => {
  // Two others hold what may be held.
  for (const n of [1, 2]) {
    const other = await house.visitor()
    await toTheTimes(other, house)
    await pick(other, n)
    await eventually(`${n} kept`, () => [...house.relay.here.keeper.house.keeps()].length === n || undefined)
  }
  const client = await house.visitor()
  await toTheTimes(client, house)
  await pick(client, 3)
  await client
    .getByText(/can’t be kept while you fill this in/)
    .first()
    .waitFor()
  await fillIn(client, 'Ada Winterthur', 'ada@example.org')
  await sendButton(client).click()
  await client.getByText(/the time is not kept yet/).waitFor()
  if (process.env.LOOK) await client.screenshot({ path: '/tmp/unheld.png' })
  // Nobody was quicker: opening the link makes it theirs.
  const mail = await mailTo(house, 'ada@example.org', /./)
  const own = await house.visitor()
  await own.goto(linkIn(mail.text))
  await own
    .getByText(/answers by/)
    .first()
    .waitFor()
})
