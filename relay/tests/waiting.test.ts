import { duration, HOUR, MINUTE, SECOND } from '@acolhida/core/time'
import { describe, expect, it } from 'vitest'
import { behind, openStartsOf, request } from './client.ts'
import { bookingOf, bookingsOf, packOf } from './inside.ts'
import {
  agreedNow,
  desk,
  done,
  freed,
  giveUp,
  goOn,
  goTo,
  house,
  LISBON,
  lineOf,
  onDay,
  SERVICE,
  secretsTo,
  stateOf,
  subjectsTo,
  take,
  taken,
  view,
  waitlist,
  waits,
} from './line-house.ts'
import { ask, freshKey } from './setup.ts'

describe('getting in line', () => {
  it('counts once the mailed link is pressed, and ends like a request that was not', async () => {
    const { start, link } = await taken()
    const open = await waits({ windows: onDay(start) }, false)
    await done(open.secret, { do: 'prove' })
    // The link that the page was given proves nothing.
    expect(stateOf(open.id)).toBe('unproved')
    await giveUp(link)
    expect(freed()).toEqual([])
    await goOn(31 * MINUTE)
    expect(stateOf(open.id)).toBe('ended')
    expect((await done(open.secret, { do: 'still' })).body.code).toBe('line-over')
  })

  it('refuses windows in which nobody could ever come, where they are', async () => {
    const { shown: _, start: __, ...body } = await request(house.door, house.slug, 0, { shown: '' })
    const join = async (window: object) => {
      const { status, body: answer } = await ask(
        `${house.door}/api/door/${house.slug}/line`,
        { ...body, windows: [window] },
        { key: freshKey() },
      )
      return [status, answer.code, answer.where]
    }
    const where = 'windows.0'
    expect(await join({ from: '2026-12-05', to: '2026-12-04' })).toEqual([422, 'window', where])
    expect(await join({ to: '2026-11-01' })).toEqual([422, 'window', where])
    expect(await join({ after: '10:00', before: '10:15' })).toEqual([422, 'window', where])
    // The fourth and fifth of December 2026 are Friday and Saturday.
    expect(await join({ from: '2026-12-04', to: '2026-12-05', weekdays: [1] })).toEqual([
      422,
      'window',
      where,
    ])
    expect((await join({ after: '25:00' }))[0]).toBe(400)
  })

  it('keeps one place for one person, the older, with what was said last', async () => {
    const person = { name: 'Nadia Kern', email: 'nadia@example.org', zone: 'Europe/Lisbon' }
    const first = await waits({ person })
    await goOn(HOUR)
    const windows = [{ weekdays: [4 as const] }]
    const again = await waits({ person: { ...person, email: 'Nadia@Example.org' }, windows })
    expect(stateOf(again.id)).toBe('ended')
    expect(lineOf(first.id).wishes.windows).toEqual(windows)
    // The newer link leads to the place that was kept.
    expect((await view(again.secret)).since).toBe(lineOf(first.id).joined.at)
  })

  it('is refused where nobody waits in line', async () => {
    waitlist({ door: false })
    const { shown: _, start: __, ...body } = await request(house.door, house.slug, 0, { shown: '' })
    const { body: answer } = await ask(
      `${house.door}/api/door/${house.slug}/line`,
      { ...body, windows: [] },
      { key: freshKey() },
    )
    expect(answer.code).toBe('no-line')
  })
})

describe('a freed time', () => {
  it('is held for who has waited longest, in the same moment, until its own', async () => {
    const { id, start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    await goOn(MINUTE)
    const second = await waits({ windows: onDay(start) })
    const other = await waits({ windows: [{ from: '2027-03-01' as never, to: '2027-03-02' as never }] })
    await giveUp(link)
    expect(bookingOf(house.relay, id).status).toBe('cancelled')
    expect([stateOf(first.id), stateOf(second.id), stateOf(other.id)]).toEqual([
      'offered',
      'waiting',
      'waiting',
    ])
    expect(freed()).toMatchObject([{ cause: 'cancelled', service: SERVICE, depth: 0 }])
    // Nobody else can slip in.
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
    const told = await view(first.secret)
    expect(told.offer).toMatchObject({ minutes: 75, price: 9_500, toAgree: [] })
    expect(subjectsTo(first.id).at(-1)).toMatch(/^A time is free for you: Voice assessment/)
  })

  it('of six hours made at 14:00 is taken at 20:00:00, and lapsed a moment later', async () => {
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    const second = await waits({ windows: onDay(start) })
    // Source: docs/reckoning.md, a check value of this trade's own.
    const two = LISBON.toInstant(LISBON.toWall(house.clock.now()).day, 14 * 60)
    await goTo(two)
    await giveUp(link)
    const until = lineOf(first.id).offer!.until
    expect(until).toBe(two + 6 * HOUR)
    await goTo(until)
    expect((await view(first.secret)).state).toBe('offered')
    await goTo(until + SECOND)
    expect([stateOf(first.id), stateOf(second.id)]).toEqual(['waiting', 'offered'])
    expect((await take(first.secret, { freed: freed()[0]!.id, shown: '0'.repeat(64) })).body.code).toBe(
      'freed-over',
    )
  })

  it('becomes a booking by one press, at what was shown, and answers nothing again', async () => {
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    expect((await desk('waiting', { line: first.id, command: { do: 'look' } })).status).toBe(200)
    await giveUp(link)
    expect((await take(first.secret, { shown: '0'.repeat(64) })).body.code).toBe('changed')
    const { status, body } = await take(first.secret)
    expect(status).toBe(200)
    const booking = behind(house.relay, body.link)
    expect(booking).toMatchObject({ status: 'booked', price: 9_500 })
    expect(booking.asked).toMatchObject({ proof: 'link', line: first.id })
    expect(booking.asked.agreements).toEqual(lineOf(first.id).joined.agreements)
    expect(stateOf(first.id)).toBe('taken')
    expect(freed()[0]?.ended?.how).toBe('taken')
    const again = await take(first.secret, { freed: freed()[0]?.id, shown: '0'.repeat(64) })
    expect(again.body.code).toBe('line-over')
  })

  it('is a request for whoever has not been looked at, where the practitioner looks first', async () => {
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    await giveUp(link)
    expect((await view(first.secret)).offer?.wordUntil).toBeGreaterThan(house.clock.now())
    expect(behind(house.relay, (await take(first.secret)).body.link).status).toBe('requested')
  })

  it('turned down goes to the next, and they are told of neither', async () => {
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    const second = await waits({ windows: onDay(start) })
    await giveUp(link)
    const { freed: name } = (await view(first.secret)).offer!
    const { body } = await done(first.secret, { do: 'turn', freed: name })
    expect(body).toMatchObject({ state: 'waiting', last: { how: 'turned' } })
    expect(stateOf(second.id)).toBe('offered')
    expect((await done(first.secret, { do: 'turn', freed: name })).body.code).toBe('freed-gone')
  })

  it('with all asked goes to the first; the others read so, and stay in line', async () => {
    waitlist({ ask: 'all' })
    const { start, link } = await taken()
    const all = await Promise.all([1, 2, 3].map(() => waits({ windows: onDay(start) })))
    await giveUp(link)
    expect(all.map(({ id }) => stateOf(id))).toEqual(['offered', 'offered', 'offered'])
    const answers = await Promise.all(all.map(({ secret }) => take(secret)))
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409])
    const kind = answers.filter(({ status }) => status === 409)
    expect(kind.every(({ body }) => body.code === 'freed-taken')).toBe(true)
    expect(all.map(({ id }) => stateOf(id)).sort()).toEqual(['taken', 'waiting', 'waiting'])
    expect(bookingsOf(house.relay).filter(({ asked }) => asked.line)).toHaveLength(1)
  })

  it('is asked of nobody before the practitioner says so, and open to all meanwhile', async () => {
    waitlist({ ask: 'none' })
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    await giveUp(link)
    expect(stateOf(first.id)).toBe('waiting')
    expect(await openStartsOf(house.door, house.slug)).toContain(start)
    const mails = house.mailbox.received.map(({ subject }) => subject)
    expect(mails.some((subject) => subject.startsWith('A time is free:'))).toBe(true)
    const { id } = freed()[0]!
    expect((await desk('freed', { freed: id, command: { do: 'go', ask: 1 } })).status).toBe(200)
    expect(stateOf(first.id)).toBe('offered')
    await desk('freed', { freed: id, command: { do: 'stop' } })
    expect(stateOf(first.id)).toBe('waiting')
    expect(lineOf(first.id).last?.how).toBe('stopped')
  })

  it('asks whoever let several go by whether they still wait', async () => {
    waitlist({ letGo: 1 })
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    await giveUp(link)
    await goTo(lineOf(first.id).offer!.until + SECOND)
    expect(stateOf(first.id)).toBe('doubted')
    await goOn(SECOND)
    expect(subjectsTo(first.id).at(-1)).toBe('Do you still wait for Voice assessment?')
    await done(first.secret, { do: 'still' })
    expect(stateOf(first.id)).toBe('waiting')
  })

  it('comes of hours that are added, too', async () => {
    const sunday = '2026-12-06'
    const first = await waits({ windows: [{ from: sunday as never, to: sunday as never }] })
    expect(stateOf(first.id)).toBe('waiting')
    const pack = packOf(house.relay)
    const { practice } = pack
    const hours = { date: sunday, blocks: [{ from: '10:00', to: '12:00' }] }
    const { status, body } = await ask(
      `${house.desk}/api/package`,
      {
        ...pack,
        revision: pack.revision + 1,
        practice: {
          ...practice,
          hours: { ...practice.hours, changedDays: [...practice.hours.changedDays, hours] },
        },
      },
      { method: 'PUT', bearer: house.key, key: freshKey() },
    )
    expect([body.message, status]).toEqual([undefined, 200])
    expect(stateOf(first.id)).toBe('offered')
    expect(freed()).toMatchObject([{ cause: 'hours' }])
  })

  it('is not held out so late that it could not be answered in time', async () => {
    waitlist({ least: duration('P6D') })
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    await giveUp(link)
    expect(stateOf(first.id)).toBe('waiting')
    expect(freed()).toEqual([])
  })
})

describe('the practitioner', () => {
  let nth = 0
  /** Somebody put in line by hand. */
  const byHand = async (change: object = {}, name = 'Nadia Kern') => {
    const line = `by-hand-${++nth}-${'x'.repeat(12)}`
    const person = { name, email: `by.hand.${nth}@example.org`, zone: 'Europe/Lisbon' }
    const join = { do: 'join', service: SERVICE, place: 'studio', windows: [], person, ...change }
    const { status, body } = await desk('waiting', { line, command: join })
    return { line, status, code: body.code }
  }

  it('puts somebody in line by hand, once, who is told so and needs no second word', async () => {
    const { start, link } = await taken()
    const { line, status } = await byHand({ windows: onDay(start) })
    expect(status).toBe(200)
    await goOn(SECOND)
    expect(subjectsTo(line)).toEqual(['You wait for Voice assessment'])
    const { email } = lineOf(line).joined.person
    const twice = { person: { name: 'Nadia', email, zone: 'Europe/Lisbon' } }
    expect((await byHand(twice)).code).toBe('in-line-already')
    await giveUp(link)
    const { body } = await take(secretsTo(email).at(-1)!, { agreed: agreedNow() })
    expect(behind(house.relay, body.link).status).toBe('booked')
  })

  it('takes somebody out, and puts them back as long as that can be undone', async () => {
    const { line } = await byHand({ silent: true })
    await desk('waiting', { line, command: { do: 'out', text: 'We have spoken.' } })
    expect(stateOf(line)).toBe('ended')
    await desk('waiting', { line, command: { do: 'back' } })
    expect(stateOf(line)).toBe('waiting')
    await goOn(MINUTE)
    expect(subjectsTo(line)).toEqual([])
    await desk('waiting', { line, command: { do: 'out', text: 'We have spoken.' } })
    await goOn(20 * SECOND)
    expect((await desk('waiting', { line, command: { do: 'back' } })).body.code).toBe('nothing-to-take-back')
    expect(subjectsTo(line)).toEqual(['You no longer wait for Voice assessment'])
  })

  it('leaves somebody out of a freed time, and books whom they choose: the others are told', async () => {
    waitlist({ ask: 'all' })
    const { start, link } = await taken()
    const [first, second, third] = [
      await waits({ windows: onDay(start) }),
      await waits({ windows: onDay(start) }),
      await waits({ windows: onDay(start) }),
    ]
    await giveUp(link)
    const { id } = freed()[0]!
    await desk('freed', { freed: id, command: { do: 'skip', line: first.id } })
    expect([first, second, third].map((one) => stateOf(one.id))).toEqual(['waiting', 'offered', 'offered'])
    const at = lineOf(third.id).offer!.start
    const book = { do: 'book', line: third.id, start: at, booking: 'chosen-by-hand-0123456789' }
    expect((await desk('freed', { freed: id, command: book })).status).toBe(200)
    expect(bookingOf(house.relay, book.booking)).toMatchObject({ status: 'booked', start: at })
    expect([stateOf(second.id), stateOf(third.id)]).toEqual(['waiting', 'taken'])
    expect(lineOf(second.id).last?.how).toBe('taken')
    expect((await take(second.secret, { freed: id, shown: '0'.repeat(64) })).body.code).toBe('freed-taken')
  })

  it('offers a time of their own choosing, which is held and goes back', async () => {
    const starts = await openStartsOf(house.door, house.slug)
    const start = starts.at(-1)!
    const { secret, id } = await waits()
    const own = 'freed-by-hand-0123456789'
    const { status } = await desk('freed', { freed: own, command: { do: 'offer', line: id, start } })
    expect(status).toBe(200)
    expect((await view(secret)).offer?.start).toBe(start)
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
    await done(secret, { do: 'turn', freed: own })
    expect(await openStartsOf(house.door, house.slug)).toContain(start)
    expect(freed()[0]?.ended?.how).toBe('nobody')
  })

  it('books the same time that somebody is just taking: one of the two has it', async () => {
    const { start, link } = await taken()
    const first = await waits({ windows: onDay(start) })
    await giveUp(link)
    const at = lineOf(first.id).offer!.start
    const [taking, entering] = await Promise.all([
      take(first.secret),
      desk('enter', {
        ...{ id: 'entered-by-hand-0123456789', service: SERVICE, place: 'studio', minutes: 75, clash: false },
        start: at,
        person: { name: 'Noor', email: 'noor@example.org', zone: 'Europe/Lisbon' },
      }),
    ])
    expect([taking.status, entering.status].sort()).toEqual([200, 409])
  })
})
