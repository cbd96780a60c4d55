import fc from 'fast-check'
import ICAL from 'ical.js'
import { expect, it } from 'vitest'
import { DAY, instant, MINUTE, parseInstant } from '../time/index.ts'
import { freeBusy } from './free-busy.ts'

const from = parseInstant('2026-11-24T00:00Z')
const to = instant(from + 2 * DAY)

it('says exactly which minutes are busy, read back by another library', () => {
  const entry = fc.record({
    at: fc.integer({ min: -200, max: 3_000 }),
    length: fc.integer({ min: 0, max: 300 }),
  })
  fc.assert(
    fc.property(fc.array(entry, { maxLength: 8 }), (list) => {
      const entries = list.map(({ at, length }, i) => ({
        id: `e${i}`,
        kind: 'session' as const,
        start: instant(from + at * MINUTE),
        end: instant(from + (at + length) * MINUTE),
        clearBefore: 15,
        clearAfter: 15,
      }))
      const text = freeBusy('someone', entries, from, to, from)
      const component = new ICAL.Component(ICAL.parse(text)).getFirstSubcomponent('vfreebusy')!
      const periods = component
        .getAllProperties('freebusy')
        .map((property) => property.getFirstValue() as unknown as ICAL.Period)
      const read = periods.map(
        (period) => [period.start.toUnixTime() * 1000, period.end.toUnixTime() * 1000] as const,
      )
      for (let s = from; s < to; s = instant(s + 7 * MINUTE)) {
        expect(read.some(([a, z]) => s >= a && s < z)).toBe(
          entries.some((entry) => s >= entry.start && s < entry.end),
        )
      }
      for (let i = 1; i < read.length; i++) expect(read[i]![0]).toBeGreaterThan(read[i - 1]![1])
      for (const line of text.split('\r\n')) expect(line.length).toBeLessThanOrEqual(75)
    }),
    { numRuns: 60 },
  )
})

it('has whole seconds, those in which one is busy at all', () => {
  const entry = (start: number, end: number) => ({
    id: `e${start}`,
    kind: 'session' as const,
    start: instant(from + start),
    end: instant(from + end),
    clearBefore: 0,
    clearAfter: 0,
  })
  const now = instant(from + 123)
  const text = freeBusy('someone', [entry(0, 60_400), entry(60_900, 120_001)], now, to, now)
  expect(text).toContain('DTSTAMP:20261124T000000Z')
  expect(text).toContain('DTSTART:20261124T000000Z')
  expect(text.match(/FREEBUSY;.*/g)).toEqual(['FREEBUSY;FBTYPE=BUSY:20261124T000000Z/20261124T000201Z'])
})
