import { replay } from '@acolhida/core/booking'
import type {
  DoorOpenings,
  DoorPackage,
  DoorReading,
  DoorView,
  Kept,
  LinkView,
} from '@acolhida/core/contract'
import type { Place, Service } from '@acolhida/core/practice'
import { DAY, duration, HOUR, MINUTE, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { newCalled } from './client.ts'
import { bookingOf, bookingsOf, letHappen, linkTo, packOf, publishTo } from './inside.ts'
import { ANSWERS, ask, freshKey, freshVisit, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let api: string
beforeEach(async () => {
  house = await startRelay()
  api = `${house.door}/api/door/${house.slug}`
})
afterEach(() => house.close())

/** Publishes the demo practice with its assessment bent, and perhaps another place. */
async function publish(change: Partial<Service>, places: Place[] = []): Promise<void> {
  const pack = packOf(house.relay)
  const next: DoorPackage = {
    ...pack,
    revision: pack.revision + 1,
    practice: {
      ...pack.practice,
      places: [...pack.practice.places, ...places],
      services: pack.practice.services.map((service) =>
        service.id === 'voice-assessment' ? { ...service, ...change } : service,
      ),
    },
  }
  const { status, body } = await ask(`${house.desk}/api/package`, next, {
    method: 'PUT',
    bearer: house.key,
    key: freshKey(),
  })
  expect(body.message).toBeUndefined()
  expect(status).toBe(200)
}

const base = (more: object = {}) => ({
  visit: freshVisit(),
  service: 'voice-assessment',
  answers: ANSWERS,
  ...more,
})
const openings = (more: object = {}) =>
  ask<DoorOpenings>(`${api}/openings`, { ...base(), place: 'studio', days: 40, ...more })
const shown = async (key = ''): Promise<string[]> =>
  (await ask<DoorView>(api + key)).body.services.map((service) => service.id)

describe('what is added', () => {
  const extras = [{ id: 'recording', name: 'A recording', minutes: 15, price: 1_200 }]

  it('is in the reading, the openings, what is kept, and the record', async () => {
    await publish({ extras })
    const more = { extras: ['recording'] }
    const { body: read } = await ask<DoorReading>(`${api}/read`, base(more))
    expect([read.minutes, read.price]).toEqual([90, 10_700])
    const { body: times } = await openings(more)
    expect(times.minutes).toBe(90)
    const wanted = base({ ...more, place: 'studio', start: times.starts[0] })
    const { body: kept } = await ask<Kept>(`${api}/keep`, wanted)
    expect(kept).toMatchObject({ minutes: 90, price: 10_700 })
    expect(kept.lines.map((line) => line.name)).toEqual(['Voice assessment', 'A recording'])
    const booking = await newCalled(house, wanted)
    expect(booking.asked).toMatchObject({ extras: ['recording'], minutes: 90 })
    expect(booking.asked.reading.quote.price).toBe(10_700)
  })

  it('leaves out what the service does not have, and refuses what is no id', async () => {
    await publish({ extras })
    const { body } = await ask<DoorReading>(`${api}/read`, base({ extras: ['gold'] }))
    expect(body.price).toBe(9_500)
    const { status } = await ask(`${api}/read`, base({ extras: ['<b>'] }))
    expect(status).toBe(400)
  })
})

describe('at the client’s', () => {
  const home: Place = {
    id: 'home',
    kind: 'client',
    name: 'at yours',
    told: 'confirmation',
    travel: [
      { id: 'town', name: 'In Coimbra', surcharge: 0, clear: 0, postalCodes: ['30'] },
      { id: 'round', name: 'Around it', surcharge: 1_500, clear: 60, postalCodes: ['31'] },
    ],
  }

  it('asks how far, adds the surcharge, keeps the way clear, and wants an address', async () => {
    await publish({ places: ['studio', 'home'] }, [home])
    const none = await openings({ place: 'home' })
    expect([none.status, none.body.where]).toEqual([422, 'travel'])
    const near = await openings({ place: 'home', travel: 'town' })
    const far = await openings({ place: 'home', travel: 'round' })
    expect(far.body.starts.length).toBeLessThan(near.body.starts.length)
    expect(far.body.starts.every((start) => near.body.starts.includes(start))).toBe(true)
    const wanted = base({ place: 'home', travel: 'round', start: far.body.starts[0] })
    const { body: kept } = await ask<Kept>(`${api}/keep`, wanted)
    expect(kept.price).toBe(11_000)
    const bare = await newCalled(house, wanted).catch((error: Error) => error.message)
    expect(bare).toBe('Please write where I should come.')
    const booking = await newCalled(house, { ...wanted, address: 'Rua das Flores 3' })
    expect(booking.asked).toMatchObject({ travel: 'round', address: 'Rua das Flores 3' })
    // Whoever comes next finds the way there and back kept clear: an hour on top of the fifteen minutes.
    const after = await openings({ place: 'studio' })
    const end = booking.start + booking.asked.minutes * MINUTE
    const near75 = after.body.starts.filter(
      (start) => start + 75 * MINUTE > booking.start - 75 * MINUTE && start < end + 75 * MINUTE,
    )
    expect(near75).toEqual([])
    const secret = linkTo(house.relay, booking.id, true)
    const { body: my } = await ask<LinkView>(`${house.door}/api/link/${secret}`)
    expect(my.address).toBe('Rua das Flores 3')
  })
})

describe('who may come', () => {
  const key = 'k'.repeat(20)

  it('with the link: it is not on the door, its link shows it, and lets anybody book', async () => {
    await publish({ bookableBy: 'link', linkKey: key })
    expect(await shown()).not.toContain('voice-assessment')
    expect(await shown(`?with=${key}`)).toContain('voice-assessment')
    expect(await shown(`?with=${'x'.repeat(20)}`)).not.toContain('voice-assessment')
    // Without it, there is no such service.
    expect((await openings()).body.code).toBe('unknown-service')
    const { body } = await openings({ with: key })
    expect(body.starts.length).toBeGreaterThan(0)
    const wanted = base({ place: 'studio', start: body.starts[0] })
    expect((await ask(`${api}/keep`, wanted)).status).toBe(404)
    const booking = await newCalled(house, { ...wanted, with: key })
    expect(booking.asked.service).toBe('voice-assessment')
  })

  it('invited only: the link shows the way, and who is not invited arrives marked', async () => {
    await publish({ bookableBy: 'invited', linkKey: key })
    const { body } = await openings({ with: key })
    const wanted = base({ place: 'studio', start: body.starts[0], with: key })
    expect((await ask(`${api}/keep`, wanted)).status).toBe(200)
    const booking = await newCalled(house, wanted)
    expect(booking).toMatchObject({ status: 'requested', marks: ['not-invited'] })
  })

  it('taken off the door, it can still be moved, and booked again by whoever has it', async () => {
    const { body } = await openings()
    const booking = await newCalled(house, base({ place: 'studio', start: body.starts.at(-1) }))
    const now = house.clock.now()
    letHappen(house.relay, booking.id, { type: 'welcomed', at: now, by: 'practitioner', settles: now })
    const secret = linkTo(house.relay, booking.id, true)
    await publish({ on: false })
    expect((await openings()).body.code).toBe('service-off')
    const my = (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body
    expect(my.again).toBe('voice-assessment')
    expect(await shown(`?with=${secret}`)).toContain('voice-assessment')
    const again = await openings({ with: secret })
    expect(again.body.starts.length).toBeGreaterThan(0)
    const second = await newCalled(
      house,
      base({ place: 'studio', start: again.body.starts[0], with: secret }),
    )
    expect(second.asked.service).toBe('voice-assessment')
    const move = {
      booking: booking.id,
      command: {
        do: 'move',
        start: again.body.starts[5],
        place: 'studio',
        minutes: 75,
        text: '',
        clash: false,
      },
    }
    const moved = await ask(`${house.desk}/api/command`, move, { bearer: house.key, key: freshKey() })
    expect(moved.status).toBe(200)
    // A link of another service, or of a booking that has ended, opens nothing.
    letHappen(house.relay, booking.id, {
      type: 'cancelled',
      at: now,
      by: 'client',
      share: 0,
      text: '',
      settles: now,
    })
    expect((await openings({ with: secret })).body.code).toBe('service-off')
  })

  it('hides price and length until the questions are answered', async () => {
    await publish({ priceHidden: true, lengthHidden: true })
    const { body } = await ask<DoorView>(api)
    const service = body.services.find((service) => service.id === 'voice-assessment')!
    expect(service.price).toBeUndefined()
    expect(service.minutes).toBeUndefined()
    const { body: read } = await ask<DoorReading>(`${api}/read`, base())
    expect([read.minutes, read.price]).toEqual([75, 9_500])
  })

  it('is off out of season', async () => {
    await publish({ season: { on: true, from: '2020-01-01' as never, to: '2020-12-31' as never } })
    expect(await shown()).not.toContain('voice-assessment')
    const { status, body } = await ask(`${api}/read`, base())
    expect([status, body.code]).toEqual([409, 'service-off'])
  })
})

it('costs less at a start that keeps the day whole, and says so before anybody agrees', async () => {
  await publish({ price: { kind: 'fixed', amount: 9_500, whole: 8_000 } })
  const { body } = await openings()
  expect(body.lower.length).toBeGreaterThan(0)
  expect(body.lower.length).toBeLessThan(body.starts.length)
  const plain = body.starts.find((start) => !body.lower.includes(start))!
  const visit = freshVisit()
  const price = async (start: number): Promise<number> =>
    (await ask<Kept>(`${api}/keep`, base({ visit, place: 'studio', start }))).body.price
  expect(await price(plain)).toBe(9_500)
  expect(await price(body.lower[0]!)).toBe(8_000)
  const booking = await newCalled(house, base({ visit, place: 'studio', start: body.lower[0] }))
  expect(booking.asked.reading.quote.price).toBe(8_000)
})

describe('what the relay does by itself', () => {
  it('calls a group date off once, when too few have come by the last moment', async () => {
    const { rounds } = house.relay
    const pack = packOf(house.relay)
    const group = pack.practice.services.find((service) => service.id === 'reading-aloud')!
    const services = pack.practice.services.map((service) =>
      service.id === group.id ? { ...service, least: { people: 6, by: duration('PT48H') } } : service,
    )
    publishTo(house.relay, { ...pack, revision: pack.revision + 1, practice: { ...pack.practice, services } })
    const here = bookingsOf(house.relay).filter(
      (booking) =>
        booking.service === group.id && booking.start > house.clock.now() && booking.status === 'booked',
    )
    const [first] = here
    expect(first).toBeDefined()
    await rounds.turn()
    house.clock.forward(first!.start - house.clock.now() - 48 * HOUR - MINUTE)
    await rounds.turn()
    expect(bookingOf(house.relay, first!.id).status).toBe('booked')
    house.clock.forward(2 * MINUTE)
    await rounds.turn()
    const now = bookingOf(house.relay, first!.id)
    expect(now).toMatchObject({ status: 'cancelled', cancelledBy: 'practitioner', share: 0 })
    expect(now.text).toMatch(/at least 6 people/)
    const { seq } = now
    await rounds.turn()
    expect(bookingOf(house.relay, first!.id).seq).toBe(seq)
  })

  it('tells a place left to the last reminder a day before, once, and again after a move', async () => {
    const { rounds } = house.relay
    const pack = packOf(house.relay)
    const places = pack.practice.places.map((place) => ({ ...place, told: 'last-reminder' as const }))
    publishTo(house.relay, { ...pack, revision: pack.revision + 1, practice: { ...pack.practice, places } })
    const booking = bookingsOf(house.relay)
      .filter(
        (booking) =>
          booking.status === 'booked' &&
          booking.place === 'studio' &&
          booking.start > house.clock.now() + 2 * DAY,
      )
      .sort((a, b) => a.start - b.start)[0]!
    const letters = (): string[] =>
      (
        house.relay.store.db
          .prepare(`SELECT step FROM messages WHERE subject = ? AND step = 'place'`)
          .all(booking.id) as {
          step: string
        }[]
      ).map((row) => row.step)
    const secret = linkTo(house.relay, booking.id, true)
    const address = async () => (await ask<LinkView>(`${house.door}/api/link/${secret}`)).body.address
    expect(await address()).toBeUndefined()
    house.clock.forward(booking.start - house.clock.now() - DAY - MINUTE)
    await rounds.turn()
    expect(letters()).toEqual([])
    house.clock.forward(MINUTE)
    await rounds.turn()
    await rounds.turn()
    await expect.poll(letters).toEqual(['place'])
    expect(await address()).toBe('Rua dos Oleiros Azuis 12')
    const now = house.clock.now()
    const to = { start: shift(booking.start, 3 * DAY), place: booking.place, minutes: booking.asked.minutes }
    letHappen(house.relay, booking.id, { type: 'moved', at: now, ...to, text: '', settles: now })
    await rounds.turn()
    expect(letters()).toEqual(['place'])
    expect(await address()).toBeUndefined()
    house.clock.forward(3 * DAY)
    await rounds.turn()
    await expect.poll(letters).toEqual(['place', 'place'])
  })

  it('books somebody in by hand with the answers given on the phone', async () => {
    const { body: times } = await openings()
    const id = freshKey()
    const { status } = await ask(
      `${house.desk}/api/enter`,
      {
        id,
        service: 'voice-assessment',
        place: 'studio',
        start: times.starts.at(-1),
        minutes: 75,
        person: { name: 'Zélia Pombo', email: 'zelia@example.org', zone: 'Europe/Lisbon' },
        answers: { ...ANSWERS, price: 'parts' },
        clash: false,
      },
      { bearer: house.key, key: freshKey() },
    )
    expect(status).toBe(201)
    const booking = bookingOf(house.relay, id)
    expect(booking).toMatchObject({ status: 'booked', asked: { proof: 'hand' } })
    expect(booking.asked.answers.price).toBe('parts')
    expect(booking.asked.questionnaire?.id).toBe('voice-questions')
    expect(replay(id, [booking.asked]).asked.reading.reasons.length).toBeGreaterThan(0)
  })
})
