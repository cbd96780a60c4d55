import { describe, expect, it } from 'vitest'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { date, instant, instantOf, type LocalDateTime, MINUTE, zone } from '../time/index.ts'
import { CLOSURE_RULES, type Closure, closureWords, type Entry } from './index.ts'

const lisbon = zone('Europe/Lisbon')
const practice = samplePractice({ services: [sampleService({ name: 'Voice assessment' })] })
const start = instantOf(lisbon, '2026-11-25T16:45' as LocalDateTime)
const entry: Entry = {
  id: 'e',
  kind: 'session',
  start: instant(start + 15 * MINUTE),
  end: instant(start + 65 * MINUTE),
  clearBefore: 15,
  clearAfter: 15,
}
const words = (closure: Closure): string =>
  closureWords(closure, {
    practice,
    start,
    minutes: 75,
    zone: lisbon,
    nameOf: () => 'Coaching with L. Bielak',
  })

const CASES: [Closure, string][] = [
  [{ rule: 'past' }, 'It has passed.'],
  [
    { rule: 'notice', service: 's', from: instant(start + 60 * MINUTE), week: false },
    'It is too soon: Voice assessment needs a notice of 24 h, so times open from Wed 25 Nov, 17:45.',
  ],
  [
    { rule: 'notice', service: 's', from: start, week: true },
    'That week is closed already; the next open one begins Wed 25 Nov.',
  ],
  [
    { rule: 'reach', service: 's', last: date('2026-12-03') },
    'It is too far ahead: Voice assessment can be booked until Thu 3 Dec.',
  ],
  [{ rule: 'away', away: 'a' }, 'You are away then.'],
  [{ rule: 'away', away: 'a', note: 'choir week' }, 'You are away then: choir week.'],
  [
    { rule: 'hours', date: date('2026-11-28'), because: 'none', changed: false },
    'There are no hours on Sat 28 Nov.',
  ],
  [
    { rule: 'hours', date: date('2026-11-25'), because: 'outside', changed: true },
    'It does not lie inside one block of your hours on Wed 25 Nov. That day has changed hours.',
  ],
  [
    { rule: 'hours', date: date('2026-11-25'), because: 'reserved', changed: false },
    'These hours on Wed 25 Nov are reserved for something else.',
  ],
  [
    { rule: 'hours', date: date('2026-11-25'), because: 'clear', changed: false },
    'The time kept clear would reach outside your hours on Wed 25 Nov.',
  ],
  [
    { rule: 'grid', service: 's' },
    'Voice assessment does not start at 16:45, but every 15 min from the beginning of a block.',
  ],
  [{ rule: 'day-edge', service: 's', edge: 'latest' }, 'Voice assessment does not start so late in the day.'],
  [{ rule: 'overlap', entry }, 'It would run until 18:00, into Coaching with L. Bielak (17:00 – 17:50).'],
  [
    { rule: 'clear', entry, side: 'before', needed: 15, left: 5 },
    'Only 5 of 15 min stay clear after Coaching with L. Bielak (17:00 – 17:50).',
  ],
  [
    { rule: 'clear', entry, side: 'after', needed: 15, left: 0 },
    'It would run until 18:00; only 0 of 15 min stay clear before Coaching with L. Bielak (17:00 – 17:50).',
  ],
  [{ rule: 'day-limit', of: 'practice', service: 's', limit: 3 }, 'Your daily limit of 3 is reached.'],
  [
    { rule: 'week-limit', of: 'service', service: 's', limit: 9 },
    "Voice assessment's weekly limit of 9 is reached.",
  ],
  [{ rule: 'full', service: 's', because: 'no-seat' }, 'Every seat is taken.'],
  [{ rule: 'full', service: 's', because: 'no-date' }, 'Voice assessment has no date then.'],
  [
    { rule: 'untidy', service: 's', side: 'after', left: 20 },
    'It would leave 20 min free after it, too short to use.',
  ],
  [{ rule: 'person', because: 'blocked' }, 'This person can’t book online.'],
  [{ rule: 'person', because: 'invited-only' }, 'It is for invited people only.'],
  [
    { rule: 'person', because: 'path', from: '2026-12-03' as never, to: '2026-12-17' as never },
    'On their path it lies from Thu 3 Dec on and until Thu 17 Dec.',
  ],
]

describe('closures in words', () => {
  it.each(CASES)('%j', (closure, expected) => {
    expect(words(closure)).toBe(expected)
  })

  it('leave no rule without words', () => {
    expect(new Set(CASES.map(([closure]) => closure.rule))).toEqual(new Set(CLOSURE_RULES))
  })

  it('do without a service that has gone meanwhile', () => {
    expect(words({ rule: 'grid', service: 'gone' })).toBe('this service does not start at 16:45.')
  })
})
