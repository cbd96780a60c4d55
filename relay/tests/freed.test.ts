import type { CalendarState } from '@acolhida/core/contract'
import { type Does, deskLine, enter } from '@acolhida/core/house'
import { type PaymentLine, WAITLIST } from '@acolhida/core/practice'
import { DAY, HOUR, instant, SECOND } from '@acolhida/core/time'
import { lineAt } from '@acolhida/core/waiting'
import { describe, expect, it } from 'vitest'
import { behind, newCalled, openStartsOf } from './client.ts'
import { bookingOf, bookingsOf, changePractice, lineLink, linkTo, packOf, putInLine } from './inside.ts'
import {
  agreedNow,
  desk,
  done,
  freed,
  giveUp,
  goOn,
  goTo,
  house,
  lineOf,
  lines,
  onDay,
  SERVICE,
  secretsTo,
  stateOf,
  take,
  taken,
  view,
  waitlist,
  waits,
} from './line-house.ts'
import { ask, BEGINNING, freshKey } from './setup.ts'

describe('an earlier time', () => {
  it('takes the place of the one they have, costs and counts nothing, and frees that one, once', async () => {
    const later = await taken()
    const early = instant((await openStartsOf(house.door, house.slug)).find((at) => at < later.start - DAY)!)
    const { id: holder } = await newCalled(house, { start: early })
    await desk('command', { booking: holder, command: { do: 'welcome' } })
    await goOn(20 * SECOND)
    const own = bookingOf(house.relay, later.id)
    const line = 'earlier-0123456789abcdef'
    const join = { do: 'join', service: SERVICE, place: 'studio', windows: [], person: own.asked.person }
    expect((await desk('waiting', { line, command: { ...join, instead: later.id } })).status).toBe(200)
    // Somebody else has a time that is later still, and wants an earlier one, too.
    const latest = instant((await openStartsOf(house.door, house.slug)).at(-1)!)
    const { id: last } = await newCalled(house, { start: latest })
    await desk('command', { booking: last, command: { do: 'welcome' } })
    await goOn(20 * SECOND)
    const theirs = bookingOf(house.relay, last).asked.person
    const second = 'earlier-second-0123456789'
    await desk('waiting', {
      line: second,
      command: { ...join, person: theirs, windows: onDay(later.start), instead: last },
    })
    await goOn(SECOND)
    await giveUp(linkTo(house.relay, holder))
    const { offer } = lineOf(line)
    expect(offer?.start).toBeLessThan(later.start)
    const mailed = secretsTo(own.asked.person.email).at(-1)!
    const { status } = await take(mailed)
    expect(status).toBe(200)
    const moved = bookingOf(house.relay, later.id)
    expect(moved).toMatchObject({ start: offer!.start, status: 'booked' })
    expect([moved.moves, moved.leastShare]).toEqual([undefined, undefined])
    // Theirs is held out to the next, and what that one gives up is not held out on.
    expect(stateOf(second)).toBe('offered')
    await waits()
    await goOn(SECOND)
    expect((await take(secretsTo(theirs.email).at(-1)!)).status).toBe(200)
    expect(bookingOf(house.relay, last).start).toBeLessThan(latest)
    expect(freed().map(({ depth }) => depth)).toEqual([0, 1])
  })
})

describe('a thousand', () => {
  it('take the same freed time within a second: one booking, 999 kind answers', async () => {
    waitlist({ ask: 'all' })
    const { start, link } = await taken()
    const many = 1_000
    const secrets: string[] = []
    for (let i = 0; i < many; i++) {
      const line = `thousand-${String(i).padStart(8, '0')}`
      const person = { name: `Person ${i}`, email: `thousand.${i}@example.org`, zone: 'Europe/Lisbon' }
      const join = { do: 'join' as const, service: SERVICE, place: 'studio', person, silent: true }
      house.relay.here.call(deskLine, { line, command: { ...join, windows: onDay(start) } })
      secrets.push(lineLink(house.relay, line))
    }
    await giveUp(link)
    const { id } = freed()[0]!
    expect(lines().filter(({ offer }) => offer?.freed === id)).toHaveLength(many)
    const { offer } = await view(secrets[0]!)
    const began = performance.now()
    const answers = await Promise.all(
      secrets.map((secret) =>
        ask<{ link: string }>(
          `${house.door}/api/line/${secret}/take`,
          { freed: id, shown: offer!.shown, agreed: agreedNow() },
          { key: freshKey() },
        ),
      ),
    )
    console.log(`      ${many} took the same time in ${Math.round(performance.now() - began)} ms`)
    const statuses = answers.map(({ status }) => status)
    expect(statuses.filter((status) => status === 200)).toHaveLength(1)
    expect(answers.filter(({ body }) => body.code === 'freed-taken')).toHaveLength(many - 1)
    expect(bookingsOf(house.relay).filter(({ asked }) => asked.line)).toHaveLength(1)
    expect(lines().filter((line) => lineAt(line, house.clock.now()).is === 'waiting')).toHaveLength(many - 1)
  }, 120_000)
})

describe('what else comes free', () => {
  /** Somebody takes all seats of a group date but none is left; then somebody waits for it. */
  const groupFull = async () => {
    const { practice } = packOf(house.relay)
    const service = practice.services.find(({ id }) => id === 'reading-aloud')!
    changePractice(house.relay, ({ services }) => ({
      services: services.map((one) =>
        one.id === service.id ? { ...one, waitlist: { ...WAITLIST, ask: 1 }, approval: straight } : one,
      ),
    }))
    const date = service.groupDates[0]!
    const [seat] = bookingsOf(house.relay).filter((one) => one.service === service.id)
    const start = seat!.start
    const taken = bookingsOf(house.relay).filter((one) => one.service === service.id && one.start === start)
    for (let i = taken.length; i < service.seats; i++)
      house.relay.here.call(enter, {
        ...{ id: `seat-${i}-0123456789abcdef`, service: service.id, place: date.place, start, minutes: 90 },
        ...{ clash: false, silent: true },
        person: { name: `Seat ${i}`, email: `seat.${i}@example.org`, zone: 'Europe/Lisbon' },
      })
    const link = putInLine(house.relay, 'waits-for-a-seat', 'Nadia Kern', service.id)
    return { service, start, link }
  }
  const straight = { new: 'straight' as const, known: 'straight' as const }

  it('is a seat of a full group that somebody gives up: one, for one', async () => {
    const { start } = await groupFull()
    putInLine(house.relay, 'waits-for-a-seat-2', 'Ravi Stone', 'reading-aloud')
    await desk('command', {
      ...{ booking: 'seat-5-0123456789abcdef' },
      command: { do: 'cancel', by: 'practitioner', text: '' },
    })
    await goOn(20 * SECOND)
    expect(lineOf('waits-for-a-seat').offer?.start).toBe(start)
    expect(stateOf('waits-for-a-seat-2')).toBe('waiting')
  })

  it('is a seat where there are more of them now', async () => {
    const { start } = await groupFull()
    const pack = packOf(house.relay)
    const services = pack.practice.services.map((one) =>
      one.id === 'reading-aloud' ? { ...one, seats: one.seats + 1 } : one,
    )
    const next = { ...pack, revision: pack.revision + 1, practice: { ...pack.practice, services } }
    const { status } = await ask(`${house.desk}/api/package`, next, {
      ...{ method: 'PUT', bearer: house.key, key: freshKey() },
    })
    expect(status).toBe(200)
    expect(lineOf('waits-for-a-seat').offer?.start).toBe(start)
    expect(freed()).toMatchObject([{ cause: 'seats' }])
  })

  it('is what another calendar lets go', async () => {
    const starts = await openStartsOf(house.door, house.slug)
    const start = instant(starts.find((at) => at > BEGINNING + 4 * DAY)!)
    const state = (busy: boolean): CalendarState => ({
      ...{ id: 'other', url: 'https://example.org/other.ics', tried: house.clock.now(), skipped: [] },
      entries: busy
        ? [
            {
              id: 'busy',
              kind: 'outside',
              start,
              end: instant(start + 9 * HOUR),
              clearBefore: 0,
              clearAfter: 0,
            },
          ]
        : [],
    })
    const reads: Does<boolean, void> = (work, busy) => {
      work.changes.push({ type: 'calendar', state: state(busy) })
    }
    house.relay.here.call(reads, true)
    const first = await waits({ windows: onDay(start) })
    expect(await openStartsOf(house.door, house.slug)).not.toContain(start)
    house.relay.here.call(reads, false)
    expect(stateOf(first.id)).toBe('offered')
    expect(freed()).toMatchObject([{ cause: 'calendar' }])
  })

  it('is what was taken and not paid for in time: then it goes to the next', async () => {
    const first: PaymentLine = {
      ...{ id: 'first', much: { kind: 'rest' }, due: { kind: 'word' }, first: true },
    }
    const { start, link } = await taken()
    changePractice(house.relay, ({ services }) => ({
      transfer: { name: 'Iria', iban: 'PT50000201231234567890154' },
      services: services.map((one) => (one.id === SERVICE ? { ...one, payment: [first] } : one)),
    }))
    const one = await waits({ windows: onDay(start) })
    const other = await waits({ windows: onDay(start) })
    await desk('waiting', { line: one.id, command: { do: 'look' } })
    await giveUp(link)
    expect((await view(one.secret)).offer?.first?.amount).toBe(9_500)
    const { body } = await take(one.secret)
    const { id } = behind(house.relay, body.link)
    expect(bookingOf(house.relay, id)).toMatchObject({ status: 'requested', owes: {} })
    expect(stateOf(other.id)).toBe('waiting')
    await goTo(bookingOf(house.relay, id).until + SECOND)
    expect(bookingOf(house.relay, id).status).toBe('lapsed')
    expect(stateOf(other.id)).toBe('offered')
  })

  it('says where nothing could ever be open by the hours there are', async () => {
    const { secret } = await waits({ windows: [{ weekdays: [7] }] })
    expect((await view(secret)).outside).toBe(true)
    const { body } = await done(secret, { do: 'change', windows: [{ weekdays: [1] }] })
    expect(body.outside).toBeUndefined()
  })
})
