import type { DoorOpenings, LinkView } from '@acolhida/core/contract'
import { visitorOf } from '@acolhida/core/house'
import { brokenAt, chainHead } from '@acolhida/core/terms'
import { DAY, HOUR, MINUTE, shift } from '@acolhida/core/time'
import ICAL from 'ical.js'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { invitation } from '../mail/invitation.ts'
import { behind, openStartsOf, request, sendIt } from './client.ts'
import { bookingsOf, linkTo, packOf } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
})
afterEach(() => house.close())

const { parse, Component, Event } = ICAL
const booking = (id: string) => bookingsOf(house.relay).find((booking) => booking.id === id)!
const command = (id: string, what: object) =>
  ask<{ seq: number }>(
    `${house.desk}/api/command`,
    { booking: id, command: what },
    { bearer: house.key, key: freshKey() },
  )
const view = async (secret: string) => (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body
/** Does something through a link, on what is shown there now. */
const act = async (secret: string, what: string, body: object = {}) => {
  const binds = ['accept', 'cancel', 'move'].includes(what) ? { shown: (await view(secret)).shown } : {}
  const text = what === 'cancel' || what === 'refuse' ? { text: '' } : {}
  return ask<LinkView>(
    `${house.door}/api/link/${secret}/${what}`,
    { ...text, ...binds, ...body },
    { key: freshKey() },
  )
}

/** Offers two times of next week for a request, and lets the undo pass. */
async function offer(id: string): Promise<{ start: number; place: string }[]> {
  const open = await openStartsOf(house.door, house.slug)
  const starts = [open[10]!, open.at(-3)!].map((start) => ({ start, place: 'studio' }))
  await command(id, { do: 'offer', text: 'One of these?', starts })
  house.clock.forward(10_000)
  return starts
}

describe('a private link', () => {
  it('proves the address when it came by mail, once, and only by the page’s own word', async () => {
    const secret = linkTo(house.relay, 'asks-lucjan')
    await view(secret)
    expect(booking('asks-lucjan').mailProved).toBe(false)
    expect((await act(secret, 'prove')).body.mailProved).toBe(true)
    const { seq } = booking('asks-lucjan')
    await act(secret, 'prove')
    expect(booking('asks-lucjan').seq).toBe(seq)
  })

  it('tells what would hold at another time before one moves there: no cheaper than now', async () => {
    const secret = linkTo(house.relay, 'next-odile')
    const before = await view(secret)
    // Far enough before to be moved, too near to be free.
    house.clock.forward(Math.max(0, before.move!.until - house.relay.here.now()))
    const { shareNow } = await view(secret)
    const start = shift(before.start, 14 * DAY)
    const { body } = await ask<DoorOpenings>(`${house.door}/api/link/${secret}/openings`, { days: 1, start })
    const cancels = body.holds!.deadlines.filter(({ kind }) => kind === 'cancel')
    expect(cancels.length).toBeGreaterThan(0)
    for (const { until, share } of cancels) {
      expect(share).toBeGreaterThanOrEqual(shareNow)
      expect(until).toBeGreaterThan(before.start)
    }
    // What is told is what holds once it is done.
    const { starts } = (await ask<DoorOpenings>(`${house.door}/api/link/${secret}/openings`, { days: 40 }))
      .body
    const open = starts.at(-1)!
    const told = (
      await ask<DoorOpenings>(`${house.door}/api/link/${secret}/openings`, { days: 1, start: open })
    ).body
    await act(secret, 'move', { start: open, place: before.placeId })
    const after = await view(secret)
    expect({ deadlines: after.deadlines, shareAfter: after.shareAfter, mine: after.mine }).toEqual(told.holds)
  })

  it('says what the practitioner promises, and gives it when they cancel late', async () => {
    const secret = linkTo(house.relay, 'next-odile')
    const { mine, start, price } = await view(secret)
    expect(mine).toEqual({ until: shift(start, -24 * HOUR), cancelled: 50, grace: 10, late: 20 })
    house.clock.forward(mine!.until + 1 - house.relay.here.now())
    await command('next-odile', { do: 'cancel', by: 'practitioner', text: '' })
    expect((await view(secret)).money?.promised).toBeUndefined()
    house.clock.forward(11_000)
    expect((await view(secret)).money).toMatchObject({ promised: price / 2, open: -price / 2 })
    await command('next-odile', { do: 'give-back', amount: price / 2, way: 'cash' })
    house.clock.forward(11_000)
    expect((await view(secret)).money).toMatchObject({ paid: -price / 2, open: 0 })
  })

  it('shows offered times, and keeps them from others until one is taken', async () => {
    const secret = linkTo(house.relay, 'asks-lucjan')
    const own = booking('asks-lucjan').start
    const starts = await offer('asks-lucjan')
    expect((await view(secret)).offers.map((offer) => offer.start)).toEqual(
      starts.map((start) => start.start),
    )
    const open = await openStartsOf(house.door, house.slug)
    for (const { start } of starts) expect(open).not.toContain(start)
    expect(open).toContain(own)
    expect((await act(secret, 'accept', { start: own, place: 'studio' })).body.code).toBe('not-offered')
    const { body } = await act(secret, 'accept', starts[1]!)
    expect(body).toMatchObject({ state: 'booked', start: starts[1]!.start, offers: [] })
    expect(await openStartsOf(house.door, house.slug)).toContain(starts[0]!.start)
    expect((await act(secret, 'accept', starts[0]!)).body.code).toBe('not-waiting')
  })

  it('closes the request kindly when none of the times suits', async () => {
    const secret = linkTo(house.relay, 'asks-lucjan')
    const starts = await offer('asks-lucjan')
    expect((await act(secret, 'refuse', { text: '' })).body.state).toBe('withdrawn')
    expect(await openStartsOf(house.door, house.slug)).toContain(starts[0]!.start)
  })

  it('lets offered times lapse together', async () => {
    const secret = linkTo(house.relay, 'asks-lucjan')
    await offer('asks-lucjan')
    const { until } = await view(secret)
    house.clock.forward(until - house.clock.now() + 1)
    expect((await view(secret)).state).toBe('lapsed')
    await house.relay.rounds.turn()
    expect(booking('asks-lucjan').status).toBe('lapsed')
  })

  it('tells what cancelling costs before and after each deadline, and not the place before its time', async () => {
    const secret = linkTo(house.relay, 'next-benat')
    const { start } = booking('next-benat')
    expect(await view(secret)).toMatchObject({
      state: 'booked',
      shareNow: 0,
      address: 'Rua dos Oleiros Azuis 12',
    })
    house.clock.forward(start - 20 * HOUR - house.clock.now())
    expect((await view(secret)).shareNow).toBe(50)
    house.clock.forward(17 * HOUR)
    expect((await act(secret, 'cancel', { text: 'I am ill.' })).body).toMatchObject({
      state: 'cancelled',
      share: 100,
      cancelledBy: 'client',
    })
    expect((await view(linkTo(house.relay, 'asks-tome'))).address).toBeUndefined()
  })

  it('moves to what is open, by the rules of the day one asked, and cancelling costs no less for it', async () => {
    const secret = linkTo(house.relay, 'next-benat')
    const before = booking('next-benat')
    const shown = await view(secret)
    expect(shown.move?.left).toBe(2)
    const openings = async (body: object = { days: 28 }) =>
      (await ask<DoorOpenings>(`${house.door}/api/link/${secret}/openings`, body)).body
    const { starts } = await openings()
    expect(starts.length).toBeGreaterThan(5)
    expect(starts).not.toContain(before.start)
    const to = { start: starts.at(-1)!, place: before.place }
    // What is not open, was shown otherwise, or is no place of this service changes nothing.
    const taken = booking('asks-lucjan').start
    expect((await act(secret, 'move', { start: taken, place: before.place })).body.code).toBe('not-open')
    expect((await act(secret, 'move', { ...to, place: 'nowhere' })).body.code).toBe('not-open')
    expect((await act(secret, 'move', { ...to, shown: 'e'.repeat(64) })).body.code).toBe('changed')
    expect(booking('next-benat')).toEqual(before)

    const { body } = await act(secret, 'move', to)
    expect(body).toMatchObject({ state: 'booked', start: to.start, shareNow: 0, move: { left: 1 } })
    expect(booking('next-benat').sequence).toBe(before.sequence + 1)
    expect((await openings()).starts).toContain(before.start)
    await house.relay.rounds.turn()
    const told = (who: string) =>
      house.mailbox.received.filter((mail) => mail.to.includes(who)).map((mail) => mail.subject.split(':')[0])
    await expect.poll(() => told('benat.lasarte')).toEqual(['Moved'])
    await expect.poll(() => told('iria@montalvar')).toContain('Moved by the client')
    // The last time it may; then the way is gone, from the page as well.
    await act(secret, 'move', { start: before.start, place: before.place })
    expect((await view(secret)).move).toBeUndefined()
    expect((await act(secret, 'move', to)).body.code).toBe('too-late')
  })

  it('refuses what can not be done any more, and changes nothing', async () => {
    const secret = linkTo(house.relay, 'next-benat')
    house.clock.forward(booking('next-benat').start - house.clock.now() + MINUTE)
    const { seq } = booking('next-benat')
    expect((await act(secret, 'cancel')).body.code).toBe('too-late')
    expect((await act(secret, 'withdraw')).body.code).toBe('not-waiting')
    expect((await act(secret, 'refuse')).body.code).toBe('not-waiting')
    expect((await act(secret, 'accept', { start: 1, place: 'studio' })).status).toBe(409)
    expect(
      (
        await ask(`${house.door}/api/link/${secret}/cancel`, {
          text: '',
          shown: '0'.repeat(64),
        })
      ).body.code,
    ).toBe('no-key')
    expect(booking('next-benat').seq).toBe(seq)
  })
})

describe('the invitation', () => {
  it('is read by another library, with everything where RFC 5545 and 5546 want it', () => {
    const { practice } = packOf(house.relay)
    const session = booking('next-benat')
    const named = {
      ...session,
      asked: { ...session.asked, person: { ...session.asked.person, name: 'Ana "A"; Sá,\nline two' } },
    }
    const calendar = new Component(parse(invitation(practice, named, 'REQUEST', house.clock.now())))
    const component = calendar.getFirstSubcomponent('vevent')!
    const event = new Event(component)
    expect(calendar.getFirstPropertyValue('version')).toBe('2.0')
    expect(calendar.getFirstPropertyValue('prodid')).toBeTruthy()
    expect(event.startDate.toUnixTime() * 1000).toBe(session.start)
    expect(event.endDate.toUnixTime() * 1000).toBe(shift(session.start, session.asked.minutes * MINUTE))
    expect(event.uid).toBe('next-benat@iria-montalvar.acolhida')
    expect(component.getFirstPropertyValue('status')).toBe('CONFIRMED')
    expect(component.getFirstPropertyValue('dtstamp')).toBeTruthy()
    expect(String(component.getFirstPropertyValue('organizer')).toLowerCase()).toBe(
      'mailto:iria@montalvar.example.org',
    )
    expect(String(component.getFirstPropertyValue('attendee')).toLowerCase()).toBe(
      'mailto:benat.lasarte@example.org',
    )
  })
})

describe('several bookings of one person', () => {
  it('stand on one page, each reached by the link of another, once the address is proved', async () => {
    const enter = (id: string, email: string, start: number) =>
      ask(
        `${house.desk}/api/enter`,
        {
          ...{ id, service: 'coaching', place: 'video', start, minutes: 50, clash: true },
          person: { name: 'Ana', email, zone: 'Europe/Lisbon' },
        },
        { bearer: house.key, key: freshKey() },
      )
    const now = house.relay.here.now()
    await enter('first-of-two', 'two@example.org', now + 50 * HOUR)
    await enter('second-of-two', 'Two@Example.org', now + 60 * HOUR)
    await enter('of-another', 'another@example.org', now + 70 * HOUR)
    house.clock.forward(10_000)
    const secret = linkTo(house.relay, 'first-of-two')
    // Whose address is not proved sees nothing else.
    expect((await view(secret)).others).toEqual([])
    for (const id of ['first-of-two', 'second-of-two', 'of-another'])
      await act(linkTo(house.relay, id), 'prove')
    expect((await view(secret)).others).toMatchObject([{ booking: 'second-of-two', state: 'booked' }])
    const other = async (booking: string) =>
      ask<LinkView>(`${house.door}/api/link/${secret}?booking=${booking}`)
    expect((await other('of-another')).body.code).toBe('unknown-link')
    const { body } = await other('second-of-two')
    expect(body.start).toBe(now + 60 * HOUR)
    const done = await ask<LinkView>(
      `${house.door}/api/link/${secret}/cancel?booking=second-of-two`,
      { text: '', shown: body.shown },
      { key: freshKey() },
    )
    expect(done.body.state).toBe('cancelled')
    expect(booking('first-of-two').status).toBe('booked')
    expect((await view(secret)).others).toEqual([])
  })
})

describe('whoever typed the address of somebody else', () => {
  it('learns nothing of them by the page’s own link, also when its owner has opened the mailed one', async () => {
    const { person } = booking('next-odile').asked
    await act(linkTo(house.relay, 'next-odile'), 'prove')
    const [start] = await openStartsOf(house.door, house.slug)
    const asked = await request(house.door, house.slug, start!, { person: { ...person, name: 'Somebody' } })
    const page = (await sendIt(house.door, house.slug, asked)).body.link
    const mailed = linkTo(house.relay, behind(house.relay, page).id)
    await act(mailed, 'prove')
    expect((await view(mailed)).others).toMatchObject([{ booking: 'next-odile' }])
    expect((await view(page)).others).toEqual([])
    const url = `${house.door}/api/link/${page}/cancel?booking=next-odile`
    const { shown } = await view(linkTo(house.relay, 'next-odile'))
    expect((await ask(url, { text: '', shown }, { key: freshKey() })).body.code).toBe('unknown-link')
    expect(booking('next-odile').status).toBe('booked')

    // Nor is anybody read as them, or believed to be them, who comes by it.
    const { house: inside } = house.relay.here.keeper
    expect(visitorOf(inside, page)).toBeUndefined()
    expect(visitorOf(inside, mailed)?.standing).toBe('known')
    const later = (await openStartsOf(house.door, house.slug)).at(-1)
    const again = { person, with: page }
    const second = await sendIt(house.door, house.slug, await request(house.door, house.slug, later!, again))
    expect(behind(house.relay, second.body.link).asked.proof).toBe('open')
  })
})

describe('a room of its own', () => {
  it('is each booking’s alone, and is told nobody before', async () => {
    const pack = packOf(house.relay)
    const places = pack.practice.places.map((place) =>
      place.id === 'video'
        ? {
            ...place,
            address: 'https://video.example.org/{code}',
            told: 'door' as const,
            roomKey: 'a-key-of-some-length',
          }
        : place,
    )
    await ask(
      `${house.desk}/api/package`,
      { ...pack, revision: pack.revision + 1, practice: { ...pack.practice, places } },
      { bearer: house.key, key: freshKey(), method: 'PUT' },
    )
    const { body } = await ask<{ services: { places: { id: string; address?: string }[] }[] }>(
      `${house.door}/api/door/${house.slug}`,
    )
    expect(JSON.stringify(body)).not.toContain('video.example.org')
    const video = bookingsOf(house.relay).filter((one) => one.place === 'video' && one.status === 'booked')
    const rooms = await Promise.all(
      video.map(async ({ id }) => (await view(linkTo(house.relay, id))).address),
    )
    expect(rooms.length).toBeGreaterThan(2)
    expect(new Set(rooms).size).toBe(rooms.length)
    for (const room of rooms) expect(room).toMatch(/^https:\/\/video\.example\.org\/[0-9a-f]{20}$/)
    const entry = invitation(packOf(house.relay).practice, video[0]!, 'REQUEST', house.relay.here.now())
    expect(entry.replaceAll('\r\n ', '')).toContain(rooms[0]!)
  })
})

describe('agreements', () => {
  it('make one chain over all requests, whose head the relay keeps', async () => {
    const chain = bookingsOf(house.relay)
      .sort((a, b) => a.asked.at - b.asked.at)
      .flatMap((booking) => booking.asked.agreements)
    const before = chain.length
    const open = await openStartsOf(house.door, house.slug)
    const days = [...new Map(open.map((start) => [Math.floor(start / DAY), start])).values()]
    for (const start of days.slice(3, 6))
      await sendIt(house.door, house.slug, await request(house.door, house.slug, start))
    const bookings = bookingsOf(house.relay).slice(-3)
    const added = bookings.flatMap((booking) => booking.asked.agreements)
    expect(added).toHaveLength(3)
    expect(chainHead(added[2]!)).toBe(house.relay.store.setting('chain-head'))
    expect(added[1]!.previous).toBe(chainHead(added[0]!))
    expect(brokenAt([...demoChain(), ...added], house.relay.store.setting('chain-head')!)).toBe(-1)
    expect(before).toBeGreaterThan(0)
  })

  /** The demo's agreements in the order in which its story made them. */
  const demoChain = () => {
    const all = bookingsOf(house.relay)
      .slice(0, -3)
      .flatMap((booking) => booking.asked.agreements)
    const ordered: typeof all = []
    let head = ''
    for (
      let next = all.find((agreement) => agreement.previous === head);
      next;
      next = all.find((agreement) => agreement.previous === head)
    ) {
      ordered.push(next)
      head = chainHead(next)
    }
    return ordered
  }
})
