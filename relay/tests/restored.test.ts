import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { GiveBackBody, Holdings, RecordItem, RecordPage } from '@acolhida/core/contract'
import type { Path } from '@acolhida/core/practice'
import { HOUR } from '@acolhida/core/time'
import { afterAll, describe, expect, it } from 'vitest'
import { backup } from '../commands.ts'
import { MovableClock } from '../ground/clock.ts'
import { Relay } from '../relay.ts'
import { behind, openStartsOf, prove, request, sendIt } from './client.ts'
import { bookingOf, changePractice } from './inside.ts'
import { ask, BEGINNING, freshKey, relays, startRelay } from './setup.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-restored-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** The whole record, as a desk has fetched it. */
async function fetched(
  desk: string,
  bearer: string,
): Promise<{ items: RecordItem[]; print: string; cursor: number }> {
  const items: RecordItem[] = []
  let print = ''
  for (;;) {
    const after = items.at(-1)?.n ?? 0
    const { body } = await ask<RecordPage>(`${desk}/api/record?after=${after}`, undefined, { bearer })
    if (after > 0) expect(body.before).toBe(print)
    print = body.print
    if (body.items.length === 0) return { items, print, cursor: after }
    items.push(...body.items)
  }
}

describe('an older copy of the file, put in place of it', () => {
  it('is noticed by its record, given back what it lacks, and sends none of it again', async () => {
    const one = await startRelay()
    const [first] = await openStartsOf(one.door, one.slug)
    const early = await sendIt(one.door, one.slug, await request(one.door, one.slug, first!))
    const { id: known } = behind(one.relay, early.body.link)
    const copy = join(folder, 'older.sqlite')
    backup(one.relay.settings.file, copy, [])
    copyFileSync(`${one.relay.settings.file}.key`, `${copy}.key`)

    // What happens after the copy: one is proved and booked by hand, another is asked for, mails go.
    await prove(one, known)
    const [second] = await openStartsOf(one.door, one.slug)
    const late = await sendIt(one.door, one.slug, await request(one.door, one.slug, second!))
    const { id: unknown } = behind(one.relay, late.body.link)
    await prove(one, unknown)
    const say = (command: object) =>
      ask(`${one.desk}/api/command`, { booking: unknown, command }, { bearer: one.key, key: freshKey() })
    await say({ do: 'welcome', text: '' })
    await say({ do: 'invoice' })
    await say({ do: 'correct-invoice', number: 'IM-1', text: 'Wrong.' })
    one.clock.forward(HOUR / 60)
    await one.relay.rounds.turn()
    const told = await fetched(one.desk, one.key)
    const mailed = one.mailbox.received.length
    const states = [known, unknown].map((id) => bookingOf(one.relay, id).status)

    // The copy is started in its place.
    const relay = new Relay(
      { ...one.relay.settings, file: copy },
      new MovableClock(one.clock.now() - BEGINNING, undefined, () => BEGINNING),
    )
    const { desk, door } = await relay.start({ door: 0, desk: 0 })
    relays.set(door, relay)
    const bearer = one.key
    const page = await ask<RecordPage>(`${desk}/api/record?after=${told.cursor}`, undefined, { bearer })
    expect(page.body.last).toBeLessThan(told.cursor)
    // Where as many lines have been written since, the hash tells.
    const own = await fetched(desk, bearer)
    const there = told.items.filter(({ n }) => n <= own.cursor)
    expect(there.at(-1)?.n).toBe(own.cursor)

    const { body: has } = await ask<Holdings>(`${desk}/api/holdings`, undefined, { bearer })
    expect(has.bookings[unknown]).toBeUndefined()
    const lacking = new Map<string, GiveBackBody['bookings'][number]>()
    for (const item of told.items) {
      if (item.kind !== 'booking') continue
      const record = lacking.get(item.subject) ?? { id: item.subject, events: [] }
      record.events.push(item.body)
      lacking.set(item.subject, record)
    }
    const body: GiveBackBody = {
      bookings: [...lacking.values()].filter(({ id, events }) => events.length > (has.bookings[id] ?? 0)),
      ...{ lines: [], freed: [], courses: [], enquiries: [] },
    }
    expect(body.bookings.map(({ id }) => id).sort()).toEqual([known, unknown].sort())
    const given = await ask<{ took: number; differ: string[] }>(`${desk}/api/give-back`, body, {
      bearer,
      key: freshKey(),
    })
    expect(given.body).toMatchObject({ took: 2, differ: [] })
    // The next invoice goes on after what was made since the copy, and after what the desk knows besides.
    const invoice = async (): Promise<string | undefined> => {
      const command = { booking: unknown, command: { do: 'invoice' } }
      await ask(`${desk}/api/command`, command, { bearer, key: freshKey() })
      return bookingOf(relay, unknown).invoices?.at(-1)?.number
    }
    expect([known, unknown].map((id) => bookingOf(relay, id).status)).toEqual(states)
    expect(await openStartsOf(door, one.slug)).not.toContain(second)
    await relay.rounds.turn()
    await relay.rounds.turn()
    expect(one.mailbox.received.length).toBe(mailed)
    expect(await invoice()).toBe('IM-3')
    // Given back once more, there is nothing to take; what went on otherwise is named, and stays.
    const again = await ask<{ took: number }>(`${desk}/api/give-back`, body, { bearer, key: freshKey() })
    expect(again.body.took).toBe(0)
    const bent = body.bookings.map(({ id, events }) => ({
      id,
      events: [...events.slice(0, -1), { type: 'withdrawn' as const, at: one.clock.now() }],
    }))
    const other = await ask<{ differ: string[] }>(
      `${desk}/api/give-back`,
      { ...body, bookings: bent },
      { bearer, key: freshKey() },
    )
    expect(other.body.differ.sort()).toEqual([known, unknown].sort())
    expect([known, unknown].map((id) => bookingOf(relay, id).status)).toEqual(states)
    await relay.stop()
    await one.close()
  })

  it('is given back what people were given to do, and its invoices, and tells none of it again', async () => {
    const one = await startRelay()
    const path = {
      ...{ id: 'ten-weeks', name: 'Ten weeks', text: '', price: 60_000 },
      stations: [{ id: 'short', does: 'sessions', service: 'coaching', minutes: 50, many: 3 }],
    } as Path
    changePractice(one.relay, () => ({ paths: [path] }))
    const copy = join(folder, 'before-the-path.sqlite')
    backup(one.relay.settings.file, copy, [])
    copyFileSync(`${one.relay.settings.file}.key`, `${copy}.key`)
    const person = { name: 'Ilse Maas', email: 'ilse@example.org', zone: 'Europe/Lisbon' }
    const say = (desk: string, command: object) =>
      ask<{ seq: number }>(
        `${desk}/api/course`,
        { course: 'the-course', command },
        { bearer: one.key, key: freshKey() },
      )
    await say(one.desk, { do: 'give', person, preparations: [], path: path.id })
    await say(one.desk, { do: 'invoice', parts: ['whole'] })
    one.clock.forward(HOUR / 60)
    await one.relay.rounds.turn()
    const mailed = one.mailbox.received.filter(({ to }) => to.includes(person.email)).length
    expect(mailed).toBe(2)
    const { items } = await fetched(one.desk, one.key)
    const events = items.flatMap((item) => (item.kind === 'course' ? [item.body] : []))
    expect(events.map(({ type }) => type)).toEqual(['given', 'invoiced'])
    const relay = new Relay(
      { ...one.relay.settings, file: copy },
      new MovableClock(one.clock.now() - BEGINNING, undefined, () => BEGINNING),
    )
    const { desk } = await relay.start({ door: 0, desk: 0 })
    const body: GiveBackBody = {
      ...{ bookings: [], lines: [], freed: [], enquiries: [], courses: [{ id: 'the-course', events }] },
    }
    const given = await ask<{ took: number }>(`${desk}/api/give-back`, body, {
      bearer: one.key,
      key: freshKey(),
    })
    expect(given.body.took).toBe(1)
    await relay.rounds.turn()
    await relay.rounds.turn()
    expect(one.mailbox.received.filter(({ to }) => to.includes(person.email))).toHaveLength(mailed)
    // The next number goes on after the one it was given back with.
    await say(desk, { do: 'correct-invoice', number: 'IM-1', text: 'Wrong.' })
    expect(relay.here.keeper.house.course('the-course')?.invoices?.map(({ number }) => number)).toEqual([
      'IM-1',
      'IM-2',
    ])
    await relay.stop()
    await one.close()
  })

  it('that has gone on since tells another hash at the same line', async () => {
    const one = await startRelay()
    const copy = join(folder, 'gone-on.sqlite')
    backup(one.relay.settings.file, copy, [])
    copyFileSync(`${one.relay.settings.file}.key`, `${copy}.key`)
    const write = async (to: string, text: string): Promise<void> => {
      const message = { visit: 'a-visit-of-somebody', name: 'Mo', email: 'mo@example.org', message: text }
      expect((await ask(`${to}/api/door/${one.slug}/enquire`, message, { key: freshKey() })).status).toBe(201)
    }
    await write(one.door, 'The first.')
    const told = await fetched(one.desk, one.key)
    const relay = new Relay(
      { ...one.relay.settings, file: copy },
      new MovableClock(0, undefined, () => BEGINNING),
    )
    const { desk, door } = await relay.start({ door: 0, desk: 0 })
    await write(door, 'Another one.')
    const page = await ask<RecordPage>(`${desk}/api/record?after=${told.cursor}`, undefined, {
      bearer: one.key,
    })
    expect(page.body.last).toBe(told.cursor)
    expect(page.body.before).not.toBe(told.print)
    await relay.stop()
    await one.close()
  })
})
