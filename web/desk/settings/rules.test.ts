import { checkPractice } from '@acolhida/core/practice'
import { duration, parseInstant, zone } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { describe, expect, it } from 'vitest'
import { AFTER, MOVING, TIER, withoutTier, withTier } from './rules.ts'
import { exampleOf } from './rules-example.ts'
import { withTyped } from './setting.ts'
import { costWords } from './would-have-cost.tsx'

const now = parseInstant('2026-11-24T11:00Z')
const { practice } = demoBackup(now)
const start = parseInstant('2026-12-01T10:00Z')
const rules = {
  cancel: [
    { until: duration('PT48H'), share: 0 },
    { until: duration('PT24H'), share: 50 },
  ],
  cancelAfter: 100,
  move: { until: duration('PT24H'), times: 2 },
  graceMinutes: 15,
}
const linesAt = (of: Partial<typeof rules>, at = now): string[] =>
  exampleOf({ ...rules, ...of }, start, at, zone('Europe/Lisbon')).lines

describe('house rules at the desk', () => {
  it('say with real dates what they come to', () => {
    expect(linesAt({})).toEqual([
      'Cancelling is free of charge until Sun 29 Nov, 10:00.',
      'Until Mon 30 Nov, 10:00, cancelling costs 50 % of the price.',
      'After that, cancelling costs the whole price.',
      'Its client can move it until Mon 30 Nov, 10:00, twice at the most.',
      'After 10:15 you can say that it was missed.',
    ])
    expect(linesAt({ cancel: [], cancelAfter: 0, move: { ...rules.move, times: 0 } })).toEqual([
      'Cancelling is free of charge up to the session itself.',
      'Only you can move it.',
      'After 10:15 you can say that it was missed.',
    ])
    expect(linesAt({}, parseInstant('2026-12-01T00:00Z'))).toEqual([
      'Cancelling costs the whole price.',
      'It is too near for its client to move it.',
      'After 10:15 you can say that it was missed.',
    ])
  })

  it('draw what is still to come, in its order', () => {
    const { marks } = exampleOf(rules, start, now, zone('Europe/Lisbon'))
    expect(marks.map(({ name }) => name)).toEqual(['Asked', 'Free to cancel until', '50 % until', 'Session'])
    expect(marks.map(({ at }) => at)).toEqual(marks.map(({ at }) => at).sort((a, b) => a - b))
  })

  it('take one more step that changes nothing, as often as one likes, and lose it again', () => {
    let more = { ...practice, houseRules: rules }
    for (let i = 0; i < 6; i++) more = withTier(more)
    expect(more.houseRules.cancel).toHaveLength(8)
    expect(checkPractice(more).filter(({ path }) => path.startsWith('houseRules'))).toEqual([])
    for (let i = 0; i < 6; i++) more = withoutTier(more, 0)
    expect(more.houseRules).toEqual(rules)
  })

  it('say what a year’s cancellations would have cost', () => {
    expect(costWords({ cancellations: 0, shares: [], dearer: 0 })).toBe(
      'In the last twelve months, no client has cancelled a paid session.',
    )
    expect(
      costWords({
        cancellations: 41,
        shares: [
          { share: 0, count: 37 },
          { share: 50, count: 3 },
          { share: 100, count: 1 },
        ],
        dearer: 1,
      }),
    ).toBe(
      'In the last twelve months, clients cancelled 41 paid sessions; by these rules: 37 free of charge, 3 at 50 % of the price, 1 at the whole price. 1 of them would have cost more than it did.',
    )
  })

  it('refuse more than the whole price, and what is no number', () => {
    expect(() => withTyped(TIER[1]!, rules.cancel[0]!, '101', 2)).toThrow(/more than the whole price/)
    expect(() => withTyped(AFTER[0]!, practice, 'all', 2)).toThrow(/whole number/)
    expect(withTyped(AFTER[0]!, practice, '80', 2).houseRules.cancelAfter).toBe(80)
    expect(withTyped(MOVING[0]!, practice, '3', 2).houseRules.move.times).toBe(3)
    expect(withTyped(MOVING[1]!, practice, '2 days', 2).houseRules.move.until).toBe('P2D')
  })
})
