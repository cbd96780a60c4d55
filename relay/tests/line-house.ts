import type { JoinBody, LineDoes, LineView, LinkView } from '@acolhida/core/contract'
import { WAITLIST, type Waitlist } from '@acolhida/core/practice'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { DAY, dateAt, type Instant, instant, MINUTE, SECOND, zone } from '@acolhida/core/time'
import { lineAt, type PlaceInLine } from '@acolhida/core/waiting'
import { afterEach, beforeEach, expect } from 'vitest'
import { newCalled, openStartsOf, request } from './client.ts'
import { bookingOf, changePractice, linkTo, packOf } from './inside.ts'
import { ask, BEGINNING, freshKey, startRelay, type TestRelay } from './setup.ts'

export const SERVICE = 'voice-assessment'
export const LISBON = zone('Europe/Lisbon')

/** A house with a waitlist, another for each test of whoever asks for it. */
export let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
  waitlist({})
})
afterEach(() => house.close())

export const lines = (): PlaceInLine[] => [...house.relay.here.keeper.house.inLine()]
export const freed = () => [...house.relay.here.keeper.house.freedTimes()]
export const goTo = async (at: number): Promise<void> => {
  house.clock.forward(at - house.clock.now())
  await house.relay.rounds.turn()
}
export const goOn = (ms: number): Promise<void> => goTo(house.clock.now() + ms)
export const waitlist = (change: Partial<Waitlist>): void =>
  changePractice(house.relay, ({ services, limits }) => ({
    limits: { ...limits, openRequests: 100 },
    services: services.map((service) =>
      service.id === SERVICE ? { ...service, waitlist: { ...WAITLIST, ...change } } : service,
    ),
  }))

/** A session of somebody's, booked far enough ahead; when it is given up, its time is free. */
export async function taken(): Promise<{ id: string; start: Instant; link: string }> {
  const starts = await openStartsOf(house.door, house.slug)
  const start = instant(starts.find((at) => at > BEGINNING + 4 * DAY)!)
  const { id } = await newCalled(house, { start })
  await desk('command', { booking: id, command: { do: 'welcome' } })
  await goOn(20 * SECOND)
  expect(bookingOf(house.relay, id).status).toBe('booked')
  return { id, start, link: linkTo(house.relay, id) }
}

export const desk = (path: string, body: unknown) =>
  ask<{ code?: string; seq?: number }>(`${house.desk}/api/${path}`, body, {
    bearer: house.key,
    key: freshKey(),
  })

let nth = 0
/** Somebody gets in line, and proves their address by the link in the mail. */
export async function waits(
  change: Partial<JoinBody> = {},
  proves = true,
): Promise<{ secret: string; id: string }> {
  const email = `waits.${++nth}@example.org`
  const { shown: _, start: __, ...body } = await request(house.door, house.slug, 0, { shown: '' })
  const { status, body: answer } = await ask<{ link: string }>(
    `${house.door}/api/door/${house.slug}/line`,
    { ...body, windows: [], person: { name: 'Nadia Kern', email, zone: 'Europe/Lisbon' }, ...change },
    { key: freshKey() },
  )
  expect([answer.message, status]).toEqual([undefined, 201])
  const id = house.relay.here.keeper.house.link(sha256Hex(answer.link))!.subject.id
  if (proves) {
    await house.relay.rounds.turn()
    const mailed = secretsTo(change.person?.email ?? email).at(-1)!
    const { body: view } = await done(mailed, { do: 'prove' })
    expect(view.state).toBeDefined()
    expect(view.state).not.toBe('unproved')
    await goOn(MINUTE)
    return { secret: mailed, id }
  }
  return { secret: answer.link, id }
}

/** The private links that have been mailed to an address, in order. */
export const secretsTo = (email: string): string[] =>
  house.mailbox.received
    .filter(({ to }) => to.toLowerCase().includes(email.toLowerCase()))
    .flatMap(({ text }) => [...text.matchAll(/\/in-line\/([\w-]+)/g)].map((found) => found[1]!))
export const subjectsTo = (id: string): string[] => {
  const { email } = lineOf(id).joined.person
  return house.mailbox.received.filter(({ to }) => to.includes(email)).map(({ subject }) => subject)
}
export const lineOf = (id: string): PlaceInLine => lines().find((line) => line.id === id)!
export const stateOf = (id: string): string => lineAt(lineOf(id), house.relay.here.now()).is
export const view = async (secret: string): Promise<LineView> =>
  (await ask<LineView>(`${house.door}/api/line/${secret}`)).body
export const done = (secret: string, command: LineDoes) =>
  ask<LineView>(`${house.door}/api/line/${secret}`, command, { key: freshKey() })
export const take = async (secret: string, change: object = {}) => {
  const { offer } = await view(secret)
  return ask<{ link: string }>(
    `${house.door}/api/line/${secret}/take`,
    { freed: offer?.freed, shown: offer?.shown, agreed: [], ...change },
    { key: freshKey() },
  )
}
export const giveUp = async (link: string): Promise<void> => {
  const { body } = await ask<LinkView>(`${house.door}/api/link/${link}`)
  const { status } = await ask(
    `${house.door}/api/link/${link}/cancel`,
    { text: '', shown: body.shown },
    { key: freshKey() },
  )
  expect(status).toBe(200)
  await goOn(20 * SECOND)
}
/** Agreement to everything there is. */
export const agreedNow = () =>
  packOf(house.relay).practice.terms.map(({ id, versions }) => {
    const version = versions.at(-1)!
    return { terms: id, number: version.number, fingerprint: versionFingerprint(id, version) }
  })
export const onDay = (start: Instant) => {
  const date = dateAt(LISBON, start)
  return [{ from: date, to: date }]
}
