import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { Service } from '../practice/index.ts'
import { newcomer, plainly, readAnswers } from '../questions/index.ts'
import { build, caseArb } from '../tests/random.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { type Duration, date, type Instant, MINUTE, parseInstant, timeAt, zone } from '../time/index.ts'
import { type Entry, keepsWhole, makeDiary, newClient, openStarts, why } from './index.ts'

const now = parseInstant('2026-11-24T11:00Z')
const lisbon = zone('Europe/Lisbon')

function wholeStarts(entries: Entry[], change: Partial<Service> = {}): string[] {
  const service = sampleService({ notice: 'PT0S' as Duration, ...change })
  const practice = samplePractice({ services: [service] })
  const diary = makeDiary(practice, entries)
  const ask = { service, place: service.places[0]!, minutes: service.minutes, asker: newClient, now }
  return openStarts(practice, diary, ask, date('2026-11-26'), 1)
    .filter(keepsWhole(practice, diary, ask))
    .map((start) => timeAt(lisbon, start))
}

const session = (from: string, to: string): Entry => ({
  id: from,
  kind: 'session',
  start: parseInstant(`2026-11-26T${from}Z`),
  end: parseInstant(`2026-11-26T${to}Z`),
  clearBefore: 15,
  clearAfter: 15,
})

// Hours 09–13 and 14–18, a session of 75 min with 15 clear, a start every 15 (the practice of docs/reckoning.md).
it('keeps an empty day whole at the edges of its blocks', () => {
  expect(wholeStarts([])).toEqual(['09:00', '11:45', '14:00', '16:45'])
})

it('keeps it whole next to a session, the space kept clear taken off', () => {
  expect(wholeStarts([session('10:30', '11:00')])).toEqual(['09:00', '11:15', '11:45', '14:00', '16:45'])
  // 11:15 leaves 30 min before 13:00, just enough to use; with 45 as the least it would not do.
})

it('does not where what is left beside it is too short to use', () => {
  const service = sampleService({ notice: 'PT0S' as Duration })
  const practice = { ...samplePractice({ services: [service] }), shortestUsable: 45 }
  const diary = makeDiary(practice, [session('10:30', '11:00')])
  const ask = { service, place: 'video', minutes: 75, asker: newClient, now }
  const whole = openStarts(practice, diary, ask, date('2026-11-26'), 1).filter(
    keepsWhole(practice, diary, ask),
  )
  expect(whole.map((start) => timeAt(lisbon, start))).toEqual(['09:00', '14:00', '16:45'])
})

it('is never said of a start at which the session does not fit, and every whole start is tidy', () => {
  fc.assert(
    fc.property(caseArb, (c) => {
      const { practice, entries, ask, from, days } = build(c)
      const tidy = { ...ask, service: { ...ask.service, tidy: true } }
      const diary = makeDiary(practice, entries)
      const whole = keepsWhole(practice, diary, ask)
      const begin = Date.parse(from)
      for (let s = begin; s < begin + days * 86_400_000; s += 35 * MINUTE) {
        const start = s as Instant
        if (!whole(start)) continue
        const rules = why(practice, diary, tidy, start).map((closure) => closure.rule)
        for (const rule of ['untidy', 'overlap', 'clear', 'away', 'hours']) expect(rules).not.toContain(rule)
      }
    }),
    { numRuns: 150 },
  )
})

it('lowers the price by the rule of the service, and only there', () => {
  const service = sampleService({ price: { kind: 'fixed', amount: 9_500, whole: 8_500 } })
  const read = (whole: boolean, of = service) =>
    readAnswers(of, undefined, {}, newcomer, { ...plainly, whole }).quote.price
  expect([read(false), read(true)]).toEqual([9_500, 8_500])
  const hourly = sampleService({
    minutes: 90,
    price: { kind: 'hourly', rate: 6_000, whole: 5_000, least: 8_000 },
  })
  // 90 min at 60.00 an hour is 90.00; at 50.00 it is 75.00, and 80.00 the least.
  expect([read(false, hourly), read(true, hourly)]).toEqual([9_000, 8_000])
  const flat = sampleService({ price: { kind: 'fixed', amount: 9_500 } })
  expect(read(true, flat)).toBe(9_500)
})
