import { hasBegun } from '@acolhida/core/booking'
import { type KnownPerson, mailHash } from '@acolhida/core/people'
import { DAY, HOUR, type Instant, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { behind, openStartsOf, prove, request, sendIt } from './client.ts'
import { bookingOf, linkTo, packOf, publishTo } from './inside.ts'
import { ask, freshKey, freshVisit, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
})
afterEach(() => house.close())

const who = { name: 'Ana Serrano', email: 'ana.serrano@example.org', zone: 'Europe/Lisbon' }
const command = (id: string, what: object) =>
  ask<{ seq: number }>(
    `${house.desk}/api/command`,
    { booking: id, command: what },
    { bearer: house.key, key: freshKey() },
  )

/** Books them in by hand, lets the time pass, and says that they did not come. */
async function missedBy(person: typeof who, start: Instant): Promise<string> {
  const id = `missed-${freshVisit()}`
  await ask(
    `${house.desk}/api/enter`,
    { id, service: 'coaching', place: 'video', start, minutes: 50, person, clash: true },
    { bearer: house.key, key: freshKey() },
  )
  house.clock.forward(start + HOUR - house.relay.here.now())
  expect((await command(id, { do: 'miss' })).status).toBe(200)
  house.clock.forward(10_000)
  return id
}

/** Asks for the first open start, and opens the mailed link. */
async function asks(person: typeof who) {
  const [start] = await openStartsOf(house.door, house.slug)
  const body = await request(house.door, house.slug, start!, { person })
  const { body: sent } = await sendIt(house.door, house.slug, body)
  const { id } = behind(house.relay, sent.link)
  await prove(house, id)
  return bookingOf(house.relay, id)
}

/** As the desk would publish them. */
function publish(person: Partial<KnownPerson>): void {
  const pack = packOf(house.relay)
  const known = pack.people.find(({ id }) => id === 'p-ana')
  const others = pack.people.filter(({ id }) => id !== 'p-ana')
  publishTo(house.relay, {
    ...pack,
    people: [...others, { ...(known as KnownPerson), ...person } as KnownPerson],
  })
}

describe('who has missed too much', () => {
  it('is looked at first, then can’t book online, and can again once it is forgiven', async () => {
    const now = house.relay.here.now()
    const first = await missedBy(who, shift(now, DAY))
    const once = await asks(who)
    expect(once.marks).toEqual(['ask'])
    expect(once.status).toBe('requested')
    await command(once.id, { do: 'decline', text: '' })
    const second = await missedBy(who, shift(now, 3 * DAY))
    const twice = await asks(who)
    expect(twice).toMatchObject({ status: 'declined', marks: ['not-online', 'ask'] })
    expect(twice.text).toMatch(/can’t be booked online/)
    // By their own link they read so before they have written anything.
    const secret = linkTo(house.relay, second)
    const [start] = await openStartsOf(house.door, house.slug)
    const wish = await request(house.door, house.slug, start!, { person: who, with: secret })
    const { body: kept } = await ask(`${house.door}/api/door/${house.slug}/keep`, {
      ...{ visit: wish.visit, service: wish.service, place: wish.place, start, answers: wish.answers },
      with: secret,
    })
    expect(kept.code).toBe('not-online')
    // Whoever types their address only learns nothing by it.
    expect((await sendIt(house.door, house.slug, { ...wish, with: undefined })).status).toBe(201)

    expect((await command(first, { do: 'forgive', text: 'Was ill.' })).status).toBe(200)
    // One receipt an hour goes to an address that nobody has shown to be theirs.
    house.clock.forward(HOUR + 10_000)
    expect((await asks(who)).marks).toEqual(['ask'])
    expect((await command(once.id, { do: 'forgive', text: 'So.' })).body.code).toBe('not-counted')
    await command(second, { do: 'forgive', text: 'Was ill, too.' })
    expect(bookingOf(house.relay, second).forgiven?.text).toBe('Was ill, too.')
    expect((await asks(who)).marks).toEqual([])
  })

  it('does not matter for whom an exception was made, and what the desk remembers counts', async () => {
    const id = await missedBy(who, shift(house.relay.here.now(), DAY))
    expect(hasBegun(bookingOf(house.relay, id), house.relay.here.now())).toBe(true)
    const base = {
      id: 'p-ana',
      mailHashes: packOf(house.relay)
        .people.flatMap(({ mailHashes }) => mailHashes)
        .slice(0, 0),
      standing: 'new' as const,
      invited: [],
      blocked: false,
    }
    publish({ ...base, mailHashes: [mailHash(who.email, packOf(house.relay).salt)], exempt: true })
    expect((await asks(who)).marks).toEqual([])
    publish({
      exempt: false,
      counted: [{ booking: 'long-ago', at: shift(house.relay.here.now(), -40 * DAY), points: 2 }],
    })
    expect((await asks(who)).marks).toEqual(['not-online', 'ask'])
    publish({ asks: true, exempt: true })
    expect((await asks(who)).marks).toEqual(['ask-always'])
  })

  it('goes straight in where the practitioner always lets them', async () => {
    const other = { ...who, email: 'straight@example.org' }
    publish({
      ...{ id: 'p-ana', standing: 'new', invited: [], blocked: false, straight: ['voice-assessment'] },
      mailHashes: [mailHash(other.email, packOf(house.relay).salt)],
    })
    expect((await asks(other)).status).toBe('booked')
    expect((await asks({ ...who, email: 'another@example.org' })).status).toBe('requested')
  })
})
