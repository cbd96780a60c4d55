import { DAY } from '@acolhida/core/time'
import ICAL from 'ical.js'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { openStartsOf } from './client.ts'
import { bookingsOf } from './inside.ts'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
beforeEach(async () => {
  house = await startRelay()
})
afterEach(() => house.close())

const command = async (what: object): Promise<void> => {
  const body = { booking: 'next-benat', command: what }
  const { status } = await ask(`${house.desk}/api/command`, body, { bearer: house.key, key: freshKey() })
  expect(status).toBe(200)
  house.clock.forward(10_000)
  await house.relay.rounds.turn()
}

/** A calendar that applies what is mailed to it as RFC 5546 says (3.2.2, 3.2.5): by UID, the higher SEQUENCE holds. */
class Applied {
  readonly events = new Map<string, { sequence: number; start: number; cancelled: boolean }>()
  take(text: string): void {
    const calendar = new ICAL.Component(ICAL.parse(text))
    const method = String(calendar.getFirstPropertyValue('method'))
    const component = calendar.getFirstSubcomponent('vevent')!
    const event = new ICAL.Event(component)
    const known = this.events.get(event.uid)
    if (known && event.sequence < known.sequence) return
    this.events.set(event.uid, {
      sequence: event.sequence,
      start: event.startDate.toJSDate().getTime(),
      cancelled: method === 'CANCEL',
    })
    expect(component.getFirstPropertyValue('status')).toBe(method === 'CANCEL' ? 'CANCELLED' : 'CONFIRMED')
  }
}

it('a session that is moved, given up for other times and cancelled is what a calendar makes of its mails, in any order', async () => {
  const starts = await openStartsOf(house.door, house.slug)
  const at = starts.at(-1)!
  const booking = () => bookingsOf(house.relay).find(({ id }) => id === 'next-benat')!
  await command({ do: 'move', start: at, place: 'studio', minutes: 75, text: '', clash: false })
  const moved = booking().start
  expect(moved).toBe(at)
  await command({ do: 'move', start: at - DAY, place: 'studio', minutes: 75, text: '', clash: true })
  await command({ do: 'cancel', by: 'practitioner', text: '' })
  const mails = house.mailbox.received.filter(({ calendar }) => calendar).map(({ calendar }) => calendar!)
  expect(mails).toHaveLength(3)

  const inOrder = new Applied()
  const uids = new Set<string>()
  const seen: number[] = []
  for (const mail of mails) {
    inOrder.take(mail)
    for (const [uid, { sequence }] of inOrder.events) {
      uids.add(uid)
      seen.push(sequence)
    }
  }
  expect(uids.size).toBe(1)
  expect(seen).toEqual([...seen].sort((a, b) => a - b))
  expect(new Set(seen).size).toBe(3)
  const [event] = [...inOrder.events.values()]
  expect(event).toMatchObject({ cancelled: true, start: at - DAY })

  // What comes late brings nothing back.
  const late = new Applied()
  for (const mail of [...mails].reverse()) late.take(mail)
  expect([...late.events.values()]).toEqual([event])
})
