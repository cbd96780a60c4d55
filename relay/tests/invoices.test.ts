import type { LinkView } from '@acolhida/core/contract'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { bookingsOf, linkTo, packOf } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
})
afterEach(() => house.close())

const command = (id: string, what: object, key = freshKey()) =>
  ask<{ seq: number }>(
    `${house.desk}/api/command`,
    { booking: id, command: what },
    { bearer: house.key, key },
  )
const booking = (id: string) => bookingsOf(house.relay).find((one) => one.id === id)!
const numbers = (): string[] =>
  bookingsOf(house.relay)
    .flatMap(({ invoices = [] }) => invoices)
    .map(({ number }) => number)
    .sort((a, b) => Number(a.slice(3)) - Number(b.slice(3)))

it('gives invoices running numbers without a gap, also to those that take one back, whatever is refused or said twice', async () => {
  const owed = bookingsOf(house.relay)
    .filter(({ status, price }) => status === 'booked' && price > 0)
    .map(({ id }) => id)
  expect(owed.length).toBeGreaterThan(3)
  const key = freshKey()
  await command(owed[0]!, { do: 'invoice' }, key)
  await command(owed[0]!, { do: 'invoice' }, key)
  expect((await command(owed[0]!, { do: 'invoice' })).body.code).toBe('invoiced-already')
  expect((await command('asks-lucjan', { do: 'invoice' })).body.code).toBe('nothing-to-invoice')
  // All at once.
  await Promise.all(owed.slice(1).map((id) => command(id, { do: 'invoice' })))
  expect((await command(owed[0]!, { do: 'correct-invoice', number: 'IM-1', text: 'Twice.' })).status).toBe(
    200,
  )
  expect((await command(owed[0]!, { do: 'correct-invoice', number: 'IM-1', text: 'Twice.' })).body.code).toBe(
    'no-invoice',
  )
  await command(owed[0]!, { do: 'invoice' })
  expect(numbers()).toEqual(Array.from({ length: owed.length + 2 }, (_, i) => `IM-${i + 1}`))

  // Told to the client once each, and shown behind the link.
  await house.relay.rounds.turn()
  const { email } = booking(owed[1]!).asked.person
  const mail = house.mailbox.received.find(
    ({ to, subject }) => to.includes(email) && subject.startsWith('Invoice IM-'),
  )
  expect(mail?.text).toContain('In all:')
  const view = (await ask<LinkView>(`${house.door}/api/link/${linkTo(house.relay, owed[0]!)}`)).body
  expect(view.invoices?.map(({ corrects }) => corrects)).toEqual([undefined, 'IM-1', undefined])
})

it('keeps to the tax and currency of the day one asked, also when they are set up later, and goes on from a higher number', async () => {
  const pack = packOf(house.relay)
  const next = {
    ...pack,
    revision: pack.revision + 1,
    practice: {
      ...pack.practice,
      invoicing: { prefix: 'N', first: 500 },
      profile: { ...pack.practice.profile, tax: { name: 'VAT', rate: 600, onTop: true } },
    },
  }
  await ask(`${house.desk}/api/package`, next, { bearer: house.key, key: freshKey(), method: 'PUT' })
  await command('next-odile', { do: 'invoice' })
  const { price, asked } = booking('next-odile')
  expect(booking('next-odile').invoices).toMatchObject([{ number: 'N500', total: price }])
  expect(asked.tax?.rate).toBe(2_300)
})
