import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, dayNumber, type Instant, type LocalDate, zone } from '../time/index.ts'
import { daysOnPath, type PathSession } from './index.ts'

const lisbon = zone('Europe/Lisbon')
const day = (n: number): LocalDate => addDays('2027-01-01' as LocalDate, n)
const noon = (n: number): Instant => lisbon.toInstant(dayNumber(day(n)), 720)
const session = (n: number, apart: { least?: number; most?: number } = {}): PathSession => ({
  ...{ id: `s${n}`, service: 'a', name: 'A', minutes: 50, worth: 0 },
  ...apart,
})

describe('where a session of a path may lie', () => {
  it('is after the one before it and before the one after it, as far apart as was agreed', () => {
    const sessions = [session(0), session(1, { least: 7, most: 21 }), session(2, { least: 7 }), session(3)]
    const at = (days: Record<string, number>) => (id: string) =>
      days[id] === undefined ? undefined : noon(days[id]!)
    expect(daysOnPath(sessions, 's1', at({}), lisbon)).toEqual({})
    expect(daysOnPath(sessions, 's1', at({ s0: 10 }), lisbon)).toEqual({ from: day(17), to: day(31) })
    // The third needs its week after the second, wherever that will lie.
    expect(daysOnPath(sessions, 's2', at({ s0: 10 }), lisbon)).toEqual({ from: day(24) })
    expect(daysOnPath(sessions, 's1', at({ s0: 10, s3: 26 }), lisbon)).toEqual({ from: day(17), to: day(19) })
    expect(daysOnPath(sessions, 's0', at({ s1: 30 }), lisbon)).toEqual({ from: day(9), to: day(23) })
  })

  it('lets in just the days with which all distances between neighbours can hold', () => {
    const apart = fc.record({
      least: fc.option(fc.integer({ min: 1, max: 4 }), { nil: undefined }),
      more: fc.option(fc.nat({ max: 4 }), { nil: undefined }),
    })
    const DAYS = 12
    fc.assert(
      fc.property(
        fc.array(apart, { minLength: 2, maxLength: 3 }),
        fc.array(fc.option(fc.nat({ max: DAYS - 1 }), { nil: undefined }), { minLength: 3, maxLength: 3 }),
        fc.nat({ max: 2 }),
        (distances, given, nth) => {
          const sessions = distances.map(({ least, more }, i) =>
            session(i, {
              ...(least === undefined ? {} : { least }),
              ...(more === undefined ? {} : { most: (least ?? 0) + more }),
            }),
          )
          const which = nth % sessions.length
          const days = given.slice(0, sessions.length).map((one, i) => (i === which ? undefined : one))
          const found = daysOnPath(
            sessions,
            `s${which}`,
            (id) => {
              const one = days[Number(id.slice(1))]
              return one === undefined ? undefined : noon(one)
            },
            lisbon,
          )
          // Plainly: each day against the nearest before and after that have a time; greatest distances bind neighbours.
          for (let d = -6; d < DAYS + 12; d++) {
            const fits = (a: number, b: number, from: number, to: number): boolean => {
              const needed = sessions.slice(a + 1, b + 1).reduce((sum, { least = 0 }) => sum + least, 0)
              const { most } = sessions[b]!
              return to - from >= needed && (b - a > 1 || most === undefined || to - from <= most)
            }
            const before = days.findLastIndex((one, i) => i < which && one !== undefined)
            const after = days.findIndex((one, i) => i > which && one !== undefined)
            const plain =
              (before < 0 || fits(before, which, days[before]!, d)) &&
              (after < 0 || fits(which, after, d, days[after]!))
            const lies =
              (found.from === undefined || found.from <= day(d)) &&
              (found.to === undefined || day(d) <= found.to)
            expect(lies).toBe(plain)
          }
        },
      ),
      { numRuns: 1_000 },
    )
  })
})
