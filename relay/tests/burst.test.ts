import { apply, begin } from '@acolhida/core/booking'
import type { Change } from '@acolhida/core/house'
import { Doorkeeper, hand, MapStore, replan, went } from '@acolhida/core/house'
import { DAY, duration, HOUR, parseInstant, SECOND, shift } from '@acolhida/core/time'
import { expect, it } from 'vitest'
import { rowOf } from '../../core/house/changes.ts'
import { sampleAsked } from '../../core/tests/asked.ts'
import { samplePractice, sampleService } from '../../core/tests/sample.ts'

/** When the mail host takes mails again. */
const BACK = parseInstant('2027-01-14T12:00Z')
const MANY = 10_000

const practice = samplePractice({
  services: [sampleService({ sequence: 'q' })],
  texts: [{ id: 't', name: 'T', subject: 'Tomorrow', body: 'See you {when}.' }],
  sequences: [
    {
      id: 'q',
      name: 'Q',
      steps: [
        {
          id: 'day-before',
          anchor: 'start',
          before: true,
          by: duration('PT24H'),
          channel: 'email',
          text: 't',
        },
      ],
    },
  ],
})

it('10,000 messages due at once after a day go once each, and none whose session has begun', () => {
  const store = new MapStore()
  const changes: Change[] = [
    { type: 'package', pack: { revision: 1, practice, sessions: [], people: [], salt: 'salt' } },
  ]
  // Sessions from six hours ago until a day ahead: all of their reminders were due while nothing could go.
  for (let i = 0; i < MANY; i++) {
    const start = shift(BACK, -6 * HOUR + i * 10 * SECOND)
    const at = shift(BACK, -3 * DAY)
    const person = { name: 'Tomé', email: `t${i}@example.org`, zone: 'Europe/Lisbon' }
    const asked = sampleAsked({ at, start, until: at, person })
    const id = `b${i}`
    const first = begin(id, asked)
    const welcomed = { type: 'welcomed', at, by: 'rules', settles: at } as const
    changes.push({ type: 'event', booking: id, seq: 1, event: asked, row: rowOf(first) })
    const row = rowOf(apply(first, welcomed))
    changes.push({ type: 'event', booking: id, seq: 2, event: welcomed, was: 'requested', row })
  }
  store.write(changes)
  const keeper = new Doorkeeper(store)
  let names = 0
  const ids = () => `name-${++names}`
  keeper.act(replan, {}, { now: shift(BACK, -3 * DAY), ids })
  const isReminder = (key: string): boolean => key.includes('day-before')

  let now = BACK
  const gone = new Map<string, number>()
  const failed: string[] = []
  for (;;) {
    const due = keeper.due(now, ({ doing }) => doing.do === 'message')
    if (!due) break
    const handed = keeper.act(hand, { due }, { now, ids })
    if (!handed) {
      if (isReminder(due.key)) failed.push(due.subject.id)
      continue
    }
    const { recipient, subject, text } = handed
    keeper.act(went, { due, recipient, subject, text }, { now, ids })
    if (isReminder(due.key)) {
      gone.set(due.key, (gone.get(due.key) ?? 0) + 1)
      expect(keeper.house.booking(due.subject.id)!.start).toBeGreaterThan(now)
    }
    // Each takes a while.
    now = shift(now, SECOND / 10)
  }
  expect(failed.length + gone.size).toBe(MANY)
  expect(failed.length).toBeGreaterThanOrEqual((6 * HOUR) / (10 * SECOND))
  expect([...gone.values()].every((times) => times === 1)).toBe(true)
})
