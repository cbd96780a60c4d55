import type { DoorView } from '@acolhida/core/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { packOf } from './inside.ts'
import { ask, freshKey, freshVisit, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeAll(async () => {
  house = await startRelay()
})
afterAll(() => house.close())

describe('a service for invited people', () => {
  it('tells name, length and price to nobody without its link, by no call', async () => {
    const api = `${house.door}/api/door/${house.slug}`
    const { practice } = packOf(house.relay)
    const own = practice.services.find(({ bookableBy }) => bookableBy === 'invited')!
    const wish = { visit: freshVisit(), service: own.id, answers: {} }
    const calls: [string, object][] = [
      ['read', wish],
      ['so-far', wish],
      ['openings', { ...wish, place: own.places[0], days: 7 }],
      ['keep', { ...wish, place: own.places[0], start: house.clock.now() }],
      ['part', { ...wish, upTo: 'brings' }],
    ]
    for (const [call, body] of calls) {
      const closed = await ask(`${api}/${call}`, body)
      const unknown = await ask(`${api}/${call}`, { ...body, service: 'no-such-service' })
      expect([call, closed.status, closed.body]).toEqual([call, unknown.status, unknown.body])
      if (call !== 'so-far') expect(closed.body.code).toBe('unknown-service')
    }
    const shown = await ask<DoorView>(api)
    expect(JSON.stringify(shown.body)).not.toContain(own.name)
    const opened = await ask<{ minutes: number }>(`${api}/so-far`, { ...wish, with: own.linkKey })
    expect(opened.status).toBe(200)
  })
})

describe('private questions', () => {
  it('are not published without the key that seals their answers', async () => {
    const pack = packOf(house.relay)
    const [first, ...others] = pack.practice.questionnaires
    const [question, ...rest] = first!.questions
    const questionnaires = [{ ...first!, questions: [{ ...question!, private: true }, ...rest] }, ...others]
    const { seal: _, ...bare } = pack
    const next = { ...bare, revision: pack.revision + 1, practice: { ...pack.practice, questionnaires } }
    const { status, body } = await ask(`${house.desk}/api/package`, next, {
      method: 'PUT',
      bearer: house.key,
      key: freshKey(),
    })
    expect([status, body.code]).toEqual([422, 'no-seal'])
    expect(packOf(house.relay).revision).toBe(pack.revision)
  })
})
