import { describe, expect, it } from 'vitest'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { duration } from '../time/index.ts'
import { oddFigures, rulesFor, termsValues } from './index.ts'
import type { HouseRules, Practice } from './types.ts'

const rules: HouseRules = {
  cancel: [
    { until: duration('PT4H'), share: 50 },
    { until: duration('P2D'), share: 0 },
  ],
  cancelAfter: 100,
  move: { until: duration('PT24H'), times: 2 },
  graceMinutes: 15,
}
const service = { ...sampleService(), notice: duration('PT12H') }
const practice = (houseRules: HouseRules): Practice => ({
  ...samplePractice(),
  houseRules,
  services: [service],
})

describe('the fields of terms', () => {
  it('say what the rules say', () => {
    expect(termsValues(practice(rules), service)).toMatchObject({
      'free-until': 'until 2 days before the session',
      'late-cost': '50 % of the price until 4 h before, then the whole price',
      moves: 'twice, until 24 h before the session',
      grace: '15 minutes',
      notice: '12 h before',
    })
    const none = { ...rules, cancel: [], move: { ...rules.move, times: 0 }, graceMinutes: 1 }
    expect(termsValues(practice(none), service)).toMatchObject({
      'free-until': 'at no time',
      'late-cost': 'the whole price',
      moves: 'not at all',
      grace: '1 minute',
    })
    expect(termsValues(practice({ ...rules, cancelAfter: 0 }), service)).toMatchObject({
      'free-until': 'until the session begins',
      'late-cost': 'nothing',
      'my-side': 'nothing',
    })
    const mine = { within: duration('PT24H'), cancelled: 50, grace: 10, late: 20 }
    expect(termsValues(practice({ ...rules, mine }), service)['my-side']).toBe(
      '50 % of the price where I cancel later than 24 h before; 20 % off it where I come more than 10 minutes late',
    )
  })

  it('are those of the service where it has rules of its own; what counts stays the practice’s', () => {
    const counting = { missed: 1, late: 1, leads: [] }
    const own = {
      ...service,
      houseRules: { ...rules, cancelAfter: 70, counting: { ...counting, missed: 9 } },
    }
    const of = practice({ ...rules, counting })
    expect(rulesFor(of, own)).toEqual({ ...rules, cancelAfter: 70, counting })
    expect(rulesFor(of, service)).toEqual({ ...rules, counting })
    expect(rulesFor(practice(rules), own).counting).toBeUndefined()
    expect(termsValues(of, own)['late-cost']).toContain('70 %')
  })

  it.each([
    ['Cancel until 48 hours before.', []],
    ['Cancel until two days before; then 50 percent.', []],
    ['Cancel until 24 hours before; after 15 minutes I go.', []],
    ['After twenty minutes it costs 80 %.', ['twenty minutes', '80 %']],
    ['Within 3 days', ['3 days']],
    ['On the 3rd of May, at 15:00', []],
  ])('stand beside typed figures that no rule has: %s', (text, odd) => {
    expect(oddFigures(practice(rules), [service], text)).toEqual(odd)
  })
})
