import { type Asked, type Sealable, withOpened } from '@acolhida/core/booking'
import type { Enquiry, LinkView } from '@acolhida/core/contract'
import { deskLine } from '@acolhida/core/house'
import { DAY, HOUR, instant, MINUTE, shift } from '@acolhida/core/time'
import type { PlaceInLine } from '@acolhida/core/waiting'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { newSealKeys, openParts, publicHalf, type SealKeys } from '../../web/seal/open.ts'
import { recordPage } from '../store/record.ts'
import { newCalled, openStartsOf } from './client.ts'
import { bookingOf, linkTo, packOf, publishTo } from './inside.ts'
import { said, startMore } from './more-questions.ts'
import { ANSWERS, ask, freshKey, freshVisit, type TestRelay } from './setup.ts'

let house: TestRelay
let keys: SealKeys
let api: string
beforeEach(async () => {
  house = await startMore()
  api = `${house.door}/api/door/${house.slug}`
  keys = await newSealKeys()
  const pack = packOf(house.relay)
  const practice = {
    ...pack.practice,
    questionnaires: pack.practice.questionnaires.map((questionnaire) => ({
      ...questionnaire,
      questions: questionnaire.questions.map((question) =>
        question.id === 'brings' ? { ...question, eachTime: true } : question,
      ),
    })),
  }
  publishTo(house.relay, { ...pack, practice, seal: publicHalf(keys) })
})
afterEach(() => house.close())

/** What a record begins with, as it stands in the file. */
const begins = <T>(id: string): T =>
  recordPage(house.relay.store.db, 0, house.relay.here.now(), 100_000).items.find(
    ({ subject, seq }) => subject === id && seq === 1,
  )!.body as T

const move = async (ms: number): Promise<void> => {
  house.clock.forward(ms)
  await house.relay.rounds.turn()
}
const decide = async (booking: string, command: object): Promise<void> => {
  const { status } = await ask(
    `${house.desk}/api/command`,
    { booking, command },
    { bearer: house.key, key: freshKey() },
  )
  expect(status).toBe(200)
}
const opened = async <T extends Sealable>(of: T): Promise<T> =>
  withOpened(of, await openParts(of.sealed ?? [], keys))

const asks = async () => {
  const [start] = await openStartsOf(house.door, house.slug)
  const visit = freshVisit()
  await ask(
    `${api}/read`,
    said({ visit, answers: { ...ANSWERS, mood: 'well', brings: 'An earlier wish, told at some length.' } }),
  )
  const answers = { ...ANSWERS, brings: 'The wish itself, told at some length.', mood: 'well' }
  return { visit, ...(await newCalled(house, { visit, start: instant(start!), answers })) }
}

describe('what was answered', () => {
  it('is sealed a day after the decision, but for what is needed until after the session', async () => {
    const { id, asked, visit } = await asks()
    expect(asked.attempts).toHaveLength(1)
    await decide(id, { do: 'welcome', text: '' })
    await move(23 * HOUR)
    expect(begins<Asked>(id)).toEqual(asked)
    await move(2 * HOUR)
    const first = begins<Asked>(id)
    expect(Object.keys(first.answers).sort()).toEqual(
      Object.keys(asked.answers)
        .filter((one) => one !== 'brings')
        .sort(),
    )
    expect([first.attempts, first.reading.reasons]).toEqual([[], []])
    expect(first.reading).toEqual({ ...asked.reading, reasons: [] })
    expect(JSON.stringify(first)).not.toMatch(/wish/)
    expect(bookingOf(house.relay, id).asked).toEqual(first)
    expect(house.relay.store.attempts(visit)).toEqual([])
    const link = linkTo(house.relay, id)
    const view = async () => (await ask<LinkView>(`${house.door}/api/link/${link}`)).body
    expect((await view()).answers?.map(({ question }) => question.id)).toEqual(['mood'])

    const { start, minutes } = bookingOf(house.relay, id)
    await move(start + minutes * MINUTE + DAY + MINUTE - house.relay.here.now())
    const last = begins<Asked>(id)
    expect(last.answers).toEqual({})
    expect((await view()).answers).toEqual([])
    expect((await view()).answersBefore).toEqual({})
    // Nothing is lost: the desk has all of it again.
    expect(last.sealed).toHaveLength(2)
    expect(await opened(last)).toEqual(asked)
    const stranger = await openParts(last.sealed!, await newSealKeys())
    expect(withOpened(last, stranger)).toEqual(last)
  })

  it('of a request that came to nothing is sealed whole; of one that waits, nothing', async () => {
    const { id, asked, until } = await asks()
    await move(until - house.relay.here.now())
    expect(begins<Asked>(id)).toEqual(asked)
    await move(2 * DAY)
    expect(bookingOf(house.relay, id).status).toBe('lapsed')
    const left = begins<Asked>(id)
    expect([left.answers, left.attempts]).toEqual([{}, []])
    expect(await opened(left)).toEqual(asked)
  })

  it('of a place in line is sealed when nobody waits in it any more', async () => {
    const person = { name: 'Nadia Kern', email: 'nadia@example.org', zone: 'Europe/Lisbon' }
    const answers = { ...ANSWERS, brings: 'The wish itself, told at some length.' }
    const line = 'waits-with-a-wish'
    const wait = (command: object) => house.relay.here.call(deskLine, { line, command } as never)
    wait({
      ...{ do: 'join', service: 'voice-assessment', place: 'studio', windows: [] },
      ...{ person, answers, silent: true },
    })
    const joined = begins<PlaceInLine['joined']>(line)
    expect(joined.answers).toEqual(answers)
    await move(3 * DAY)
    expect(begins<PlaceInLine['joined']>(line)).toEqual(joined)
    wait({ do: 'out', text: '' })
    await move(2 * DAY)
    const left = begins<PlaceInLine['joined']>(line)
    expect(left.answers).toEqual({})
    expect(await opened(left)).toEqual(joined)
    expect(house.relay.here.keeper.house.line(line)!.joined).toEqual(left)
  })

  it('of an enquiry is sealed when no quote of it stands any more, and the quote keeps none', async () => {
    await ask(
      `${api}/enquire`,
      {
        ...{ visit: freshVisit(), name: 'Tove Lind', email: 'tove@example.org', message: 'Hello' },
        ...{
          service: 'voice-assessment',
          answers: { ...ANSWERS, brings: 'The wish itself, told at some length.' },
        },
      },
      { key: freshKey() },
    )
    const now = house.relay.here.now()
    const id = recordPage(house.relay.store.db, 0, now, 100_000).items.findLast(
      ({ kind }) => kind === 'enquiry',
    )!.subject
    const asked = begins<Enquiry>(id)
    const quote = {
      ...{ enquiry: id, service: 'voice-assessment', answers: ANSWERS, until: shift(now, 3 * DAY), text: '' },
      person: { name: 'Tove Lind', email: 'tove@example.org', zone: 'UTC' },
    }
    const { status } = await ask(`${house.desk}/api/quote`, quote, { bearer: house.key, key: freshKey() })
    expect(status).toBe(201)
    await move(2 * DAY)
    expect(begins<Enquiry>(id)).toEqual(asked)
    await move(3 * DAY)
    const left = begins<Enquiry>(id)
    expect(left.answers).toEqual({})
    expect(await opened(left)).toEqual(asked)
    const [kept] = house.relay.store.quotesOf(id)
    expect(kept!.answers).toEqual({})
  })

  it('stays as it came where the desk’s key is none, and the relay goes on', async () => {
    const pack = packOf(house.relay)
    const [x, y] = ['A'.repeat(43), `${'A'.repeat(42)}E`]
    publishTo(house.relay, { ...pack, seal: { kty: 'EC', crv: 'P-256', x, y } })
    const { id, asked } = await asks()
    await decide(id, { do: 'decline', text: 'No.' })
    await move(3 * DAY)
    expect(begins<Asked>(id)).toEqual(asked)
    // With its own key again, it is sealed an hour later.
    publishTo(house.relay, pack)
    await move(HOUR + MINUTE)
    expect(begins<Asked>(id).answers).toEqual({})
  })

  it('stays as it came where the desk has no key', async () => {
    const { seal: _, ...bare } = packOf(house.relay)
    publishTo(house.relay, bare)
    const { id, asked } = await asks()
    await decide(id, { do: 'decline', text: 'No.' })
    await move(3 * DAY)
    expect(begins<Asked>(id)).toEqual(asked)
  })
})
