import { describe, expect, it } from 'vitest'
import { entryFor, makeDiary, newClient, why } from '../openings/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { date } from '../time/index.ts'
import { begin } from './index.ts'
import { otherTimesFor } from './other-times.ts'

const asked = sampleAsked()
const practice = samplePractice()
const [a, b, c] = ['a', 'b', 'c'].map((id) => begin(id, asked)) as [
  ReturnType<typeof begin>,
  ReturnType<typeof begin>,
  ReturnType<typeof begin>,
]

describe('other times for everybody whom a day away touches', () => {
  it('are open to clients, up to three each, and no two people are offered what can’t both be', () => {
    const found = otherTimesFor(practice, [], [a, b, c], asked.at, date('2026-12-01'))
    const all = [...found].flatMap(([id, starts]) => starts.map(({ start, place }) => ({ id, start, place })))
    expect([...found.values()].map((starts) => starts.length)).toEqual([3, 3, 3])
    for (const one of all) {
      const others = all.filter(({ id }) => id !== one.id)
      const diary = makeDiary(
        practice,
        others.map(({ id, start, place }) =>
          entryFor(practice, {
            ...{ id: `${id} ${start}`, kind: 'hold', start, place },
            service: 's',
            minutes: 75,
          }),
        ),
      )
      const ask = {
        ...{ service: sampleService(), place: one.place, minutes: 75, now: asked.at },
        asker: { ...newClient, invited: ['s'] },
      }
      expect(why(practice, diary, ask, one.start)).toEqual([])
    }
  })

  it('are none for a group, and none where nothing is open', () => {
    const group = { ...practice, services: [{ ...sampleService(), seats: 4 }] }
    expect(otherTimesFor(group, [], [a], asked.at, date('2026-12-01')).size).toBe(0)
    const closed = {
      ...practice,
      hours: { weekly: [[], [], [], [], [], [], []] as typeof practice.hours.weekly, changedDays: [] },
    }
    expect(otherTimesFor(closed, [], [a], asked.at, date('2026-12-01')).size).toBe(0)
  })
})
