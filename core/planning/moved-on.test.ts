import fc from 'fast-check'
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { samplePractice } from '../tests/sample.ts'
import { type Instant, wallTime } from '../time/index.ts'
import { movedOn } from './index.ts'

describe('sessions that move together', () => {
  it('go by as many days each to one time of day, as luxon has it, through changes of the clock', () => {
    const practice = samplePractice()
    const [place] = practice.places
    const zone = place?.zone ?? practice.profile.zone
    // 2026 to 2028, by the quarter of an hour; times that every day has once: no clock changes between 4 and 23.
    const start = fc
      .integer({ min: 1_767_225_600, max: 1_861_833_600 })
      .map((s) => (Math.floor(s / 900) * 900_000) as Instant)
    fc.assert(
      fc.property(
        fc.array(start, { maxLength: 4 }),
        fc.integer({ min: -400, max: 400 }),
        fc.integer({ min: 240, max: 1_380 }),
        (starts, days, minutes) => {
          const moved = movedOn(
            practice,
            starts.map((one) => ({ place: place?.id ?? '', start: one })),
            days,
            wallTime(minutes),
          )
          const plain = starts.map((one) =>
            DateTime.fromMillis(one, { zone })
              .plus({ days })
              .set({ hour: Math.floor(minutes / 60), minute: minutes % 60, second: 0, millisecond: 0 })
              .toMillis(),
          )
          expect(moved).toEqual(plain)
        },
      ),
      { numRuns: 500 },
    )
  })
})
