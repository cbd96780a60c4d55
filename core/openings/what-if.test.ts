import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Practice, Service } from '../practice/index.ts'
import { openByTheMinute } from '../tests/minute.ts'
import { build, caseArb } from '../tests/random.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { type Duration, date, parseInstant } from '../time/index.ts'
import { type Entry, makeDiary, newClient, whatIf, whatIfWords } from './index.ts'

const now = parseInstant('2026-11-24T11:00Z')

function said(change: Partial<Service>, entries: Entry[] = [], more: Partial<Practice> = {}): string[] {
  const service = sampleService(change)
  const practice = samplePractice({ services: [service], ...more })
  const ask = { service, place: service.places[0]!, minutes: service.minutes, asker: newClient, now }
  return whatIf(practice, makeDiary(practice, entries), ask, date('2026-11-24'), 7).map(
    (whatIf) => `${whatIfWords(whatIf)}, ${whatIf.more} more`,
  )
}

const session = (from: string, to: string): Entry => ({
  id: from,
  kind: 'session',
  start: parseInstant(`${from}Z`),
  end: parseInstant(`${to}Z`),
  clearBefore: 0,
  clearAfter: 0,
  service: 's',
})

describe('what if', () => {
  it('counts what a shorter notice would open', () => {
    // Tuesday 11:00. With 24 h the first start is Wednesday at noon in Lisbon (11:00Z), with 12 h Wednesday 9:00.
    // Wednesday morning has 9:00 to 10:45 by quarters: 8 more starts.
    const all = said({ notice: 'PT24H' as Duration, clearBefore: 0, clearAfter: 0 })
    expect(all).toEqual(['with a notice of 12 h, 8 more'])
  })

  it('says nothing of rules that close nothing, and begins with the most rewarding', () => {
    expect(said({ notice: 'PT0S' as Duration, clearBefore: 0, clearAfter: 0 })).toEqual([])
    const near = said({
      notice: 'PT2H' as Duration,
      reach: { kind: 'days', days: 2 },
      clearBefore: 0,
      clearAfter: 0,
    })
    expect(near[0]).toMatch(/^with a reach of 4 days, \d+ more$/)
    expect(near[1]).toMatch(/^without any notice, \d+ more$/)
  })

  it('looks at limits, time kept clear and tidiness', () => {
    const taken = [session('2026-11-26T09:00', '2026-11-26T10:00')]
    const all = said(
      { notice: 'PT0S' as Duration, perDay: 1, tidy: true, clearBefore: 20, clearAfter: 40 },
      taken,
      { limits: { openRequests: 2, perDay: 1 } },
    )
    // Either limit alone still closes the day; only together would they open it.
    expect(all).toEqual([expect.stringMatching(/^without asking for tidy starts, \d+ more$/)])
    const own = said({ notice: 'PT0S' as Duration, perDay: 1, clearBefore: 0, clearAfter: 0 }, taken)
    expect(own).toEqual([expect.stringMatching(/^with 2 of these a day, \d+ more$/)])
    const clear = said({ notice: 'PT0S' as Duration, clearBefore: 30, clearAfter: 60 }, taken)
    expect(clear).toEqual([expect.stringMatching(/^with 15 and 30 min kept clear, \d+ more$/)])
    // The sessions of this service would be given the other space, too; those of others keep theirs.
    const wide = (service: string): Entry[] => [
      { ...session('2026-11-26T10:00', '2026-11-26T10:30'), service, clearBefore: 60, clearAfter: 60 },
    ]
    const same = { notice: 'PT0S' as Duration, clearBefore: 60, clearAfter: 60 }
    expect(said(same, wide('s'))).toHaveLength(1)
    expect(said(same, wide('other'))).toEqual([])
  })

  it('agrees with the minute oracle on random practices', () => {
    fc.assert(
      fc.property(caseArb, (c) => {
        const { practice, entries, ask, from, days } = build(c)
        const count = (p: Practice, service: Service): number =>
          openByTheMinute(p, entries, { ...ask, service }, from, days).length
        const before = count(practice, ask.service)
        for (const { change, more } of whatIf(practice, makeDiary(practice, entries), ask, from, days)) {
          if (change.rule !== 'notice' && change.rule !== 'untidy') continue
          const easier =
            change.rule === 'notice'
              ? { ...ask.service, notice: change.notice }
              : { ...ask.service, tidy: false }
          expect(count(practice, easier) - before).toBe(more)
        }
      }),
      { numRuns: 40 },
    )
  }, 60_000)
})
