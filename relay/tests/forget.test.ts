import { existsSync, readFileSync } from 'node:fs'
import type { Holdings, Problem } from '@acolhida/core/contract'
import { mailHash } from '@acolhida/core/people'
import type { Path } from '@acolhida/core/practice'
import { DAY, type Instant, shift } from '@acolhida/core/time'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openStartsOf } from './client.ts'
import { changePractice, linkTo, packOf, putInLine } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let start: Instant
beforeEach(async () => {
  house = await startRelay()
  const open = (await openStartsOf(house.door, house.slug)) as Instant[]
  start = open.find((at) => at > house.clock.now() + 2 * DAY)!
})
afterEach(() => house.close())

const NAME = 'Xanthippe Unforgotten'
const person = { name: NAME, email: 'Xanthippe@Example.org', zone: 'Europe/Lisbon' }
const post = <T>(path: string, body: object) =>
  ask<T & Problem>(`${house.desk}${path}`, body, { bearer: house.key, key: freshKey() })
const enter = (id: string, more: object = {}) =>
  post('/api/enter', {
    ...{ id, service: 'coaching', place: 'video', minutes: 50, person, start, clash: true, silent: true },
    ...more,
  })
const forget = (before = house.clock.now() + 1) =>
  post<{ forgot: number }>('/api/forget', {
    people: [{ hashes: [mailHash(person.email, packOf(house.relay).salt)], before }],
  })
const fileOf = (): string => {
  const { file } = house.relay.store.db.prepare('PRAGMA database_list').get() as { file: string }
  return ['', '-wal']
    .map((end) => file + end)
    .flatMap((path) => (existsSync(path) ? [readFileSync(path, 'latin1')] : []))
    .join('')
}

describe('forgetting somebody at the relay', () => {
  it('takes everything of theirs, off the disk as well, and leaves everybody else', async () => {
    await enter('theirs-past')
    await enter('of-another', { person: { ...person, name: 'Another', email: 'another@example.org' } })
    changePractice(house.relay, () => ({
      preparations: [
        { id: 'letter', is: 'read', name: 'L', due: { from: 'given', by: 'P2D' as never }, text: [] },
      ],
    }))
    await post('/api/course', {
      course: 'given-to-them',
      command: { do: 'give', person, preparations: ['letter'], silent: true },
    })
    const link = linkTo(house.relay, 'theirs-past')
    house.clock.forward(start + DAY - house.clock.now())
    house.relay.clock.release(false)
    await house.relay.rounds.turn()
    expect(fileOf()).toContain(NAME)
    const { body } = await forget()
    expect(body.forgot).toBe(2)
    expect(fileOf()).not.toContain(NAME)
    expect(fileOf()).not.toContain('anthippe@')
    const { house: inside } = house.relay.here.keeper
    expect(inside.booking('theirs-past')).toBeUndefined()
    expect(inside.course('given-to-them')).toBeUndefined()
    expect(inside.coursesOf('xanthippe@example.org')).toEqual([])
    expect(inside.booking('of-another')).toBeDefined()
    expect((await ask(`${house.door}/api/link/${link}`)).body.code).toBe('unknown-link')
    // Nothing that is due names them any more.
    expect([...inside.agenda()].filter(({ subject }) => subject.id === 'theirs-past')).toEqual([])
    const { body: holds } = await ask<Holdings>(`${house.desk}/api/holdings`, undefined, {
      bearer: house.key,
    })
    expect(holds.bookings['theirs-past']).toBeUndefined()
    expect(holds.bookings['of-another']).toBeGreaterThan(0)
  })

  it('waits while something of theirs is open, and says how much', async () => {
    await enter('still-to-come')
    expect((await forget()).body).toMatchObject({ code: 'forget-open', data: { many: 1 } })
    putInLine(house.relay, 'xanthippe', NAME)
    expect((await forget()).body.data?.many).toBe(2)
    expect(house.relay.here.keeper.house.booking('still-to-come')).toBeDefined()
  })

  it('waits for a path that goes on, and for none that has ended', async () => {
    const path: Path = {
      ...{ id: 'path', name: 'A path', text: '', price: 0 },
      stations: [{ id: 'all', does: 'sessions', service: 'coaching', minutes: 50, many: 2 }],
    }
    changePractice(house.relay, () => ({ paths: [path] }))
    const course = (command: object) => post('/api/course', { course: 'of-a-path', command })
    expect((await course({ do: 'give', person, preparations: [], path: 'path' })).status).toBe(200)
    house.clock.forward(1_000)
    expect((await forget()).body).toMatchObject({ code: 'forget-open', data: { many: 1 } })
    await course({ do: 'end' })
    expect((await forget()).body.forgot).toBe(1)
  })

  it('leaves what began since: whoever comes again is somebody new', async () => {
    await enter('came-again', { start: shift(start, DAY) })
    expect((await forget(house.clock.now())).body.forgot).toBe(0)
    expect(house.relay.here.keeper.house.booking('came-again')).toBeDefined()
  })
})
