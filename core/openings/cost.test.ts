import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { build, caseArb } from '../tests/random.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import {
  date,
  duration,
  instant,
  instantOf,
  type LocalDateTime,
  MINUTE,
  parseInstant,
  zone,
} from '../time/index.ts'
import { type Ask, costOfRules, makeDiary, newClient, openStarts } from './index.ts'

describe('what the rules cost', () => {
  const practice = samplePractice()
  const now = parseInstant('2026-11-24T11:00Z')
  const start = instantOf(zone('Europe/Lisbon'), '2026-11-25T10:00' as LocalDateTime)
  const entry = {
    id: 'a',
    kind: 'session' as const,
    start,
    end: instant(start + 50 * MINUTE),
    clearBefore: 15,
    clearAfter: 15,
    service: 'x',
  }
  const ask = (hours: number): Ask => ({
    service: sampleService({ notice: duration(`PT${hours}H`) }),
    place: 'video',
    minutes: 75,
    asker: newClient,
    now,
  })

  it('is counted by rule, and by what each closes alone', () => {
    const cost = costOfRules(practice, makeDiary(practice, [entry]), ask(48), date('2026-11-25'), 2)
    expect(cost.hours).toBe(16)
    // Twelve starts in each of four blocks; notice of 48 hours ends on the 26th at 11:00.
    expect(cost.starts).toBe(48)
    expect(cost.closed.find((rule) => rule.rule === 'notice')).toEqual({
      rule: 'notice',
      starts: 24 + 8,
      alone: 15 + 8,
    })
    expect(cost.open).toBe(16)
  })

  it('tells how many starts a smaller notice would open', () => {
    const diary = makeDiary(practice, [entry])
    const cost = costOfRules(practice, diary, ask(48), date('2026-11-25'), 2)
    const none = openStarts(practice, diary, ask(0), date('2026-11-25'), 2).length
    expect(none - cost.open).toBe(cost.closed.find((rule) => rule.rule === 'notice')!.alone)
  })

  it('agrees with the openings on random practices', () => {
    fc.assert(
      fc.property(caseArb, (c) => {
        const { practice, entries, from, days, ask } = build({ ...c, fixed: undefined })
        const diary = makeDiary(practice, entries)
        const cost = costOfRules(practice, diary, ask, from, days)
        expect(cost.open).toBe(openStarts(practice, diary, ask, from, days).length)
        expect(
          cost.closed.every((rule) => rule.alone <= rule.starts && rule.starts <= cost.starts - cost.open),
        ).toBe(true)
      }),
      { numRuns: 150 },
    )
  })
})
