import 'fake-indexeddb/auto'
import { replay } from '@acolhida/core/booking'
import type { Closure } from '@acolhida/core/openings'
import { CLOSURE_RULES } from '@acolhida/core/openings'
import { instant, parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { describe, expect, it } from 'vitest'
import { closureLink } from '../diary/closure-link.ts'
import { datesOf } from '../hours/changed-days.tsx'
import { bookingLine, currencyOf, marksOf, reasonLine } from './words.ts'

const now = parseInstant('2026-11-24T11:00Z')
const { practice, bookings } = demoBackup(now)
const booking = (id: string) => {
  const { events } = bookings.find((booking) => booking.id === id)!
  return replay(id, events)
}

describe('a booking in words', () => {
  it('tells length, place, price and the client’s own time', () => {
    expect(bookingLine(practice, booking('asks-tome'))).toMatch(
      /^75 min at the studio in Coimbra · €95\.00 · there, in Sao Paulo, \d\d:\d\d$/,
    )
    expect(bookingLine(practice, booking('past-amara'))).toBe('75 min at the studio in Coimbra · €95.00')
  })

  it('tells why it came, and that somebody answered differently before', () => {
    const line = (id: string): string => {
      const { reading, answers } = booking(id).asked
      return reasonLine(booking(id), reading, answers)
    }
    expect(line('asks-tome')).toBe(
      'Hoarse for more than 3 weeks, and no doctor yet · Wants to pay in two parts · answered differently before',
    )
    expect(line('asks-lucjan')).toBe('I have begun to teach online and talk against the fan all day.')
    expect(line('today-rhys')).toBe('Nothing speaks against it.')
  })

  it('has the moments of its lead line, in the order they mean', () => {
    const marks = marksOf(practice, booking('asks-tome'))
    expect(marks.map((mark) => mark.name)).toEqual([
      'Asked',
      'Your word due',
      'Free to cancel until',
      '50 % until',
      'Session',
    ])
    expect(marks.every((mark, i) => i === 0 || mark.at >= marks[i - 1]!.at)).toBe(true)
    expect(marksOf(practice, booking('next-benat')).map((mark) => mark.name)).not.toContain('Your word due')
  })

  it('knows the decimals of a currency from the standard', () => {
    expect(currencyOf('HUF')).toEqual({ code: 'HUF', decimals: 2 })
  })
})

describe('runs of days', () => {
  it('include both ends, and one day is a run', () => {
    expect(datesOf('2026-12-30', '2027-01-02')).toEqual([
      '2026-12-30',
      '2026-12-31',
      '2027-01-01',
      '2027-01-02',
    ])
    expect(datesOf('2026-12-30', '')).toEqual(['2026-12-30'])
  })

  it.each([
    ['', ''],
    ['2026-12-30', '2026-12-29'],
    ['2026-01-01', '2026-12-31'],
  ])('from “%s” to “%s” is none', (first, last) => {
    expect(() => datesOf(first, last)).toThrow()
  })
})

describe('the way to the rule behind a closure', () => {
  const entry = { id: 'e', start: instant(0), end: instant(1), clearBefore: 0, clearAfter: 0 }
  it('leads to the session, the calendar, the hours or the service', () => {
    const href = (closure: Closure) => [closureLink(closure)?.to, closureLink(closure)?.words]
    expect(href({ rule: 'overlap', entry: { ...entry, kind: 'session', request: 'asks-tome' } })).toEqual([
      '/arrivals/asks-tome',
      'See it',
    ])
    expect(href({ rule: 'overlap', entry: { ...entry, kind: 'outside' } })).toEqual([
      '/calendars',
      'See the calendar',
    ])
    expect(
      href({
        rule: 'clear',
        entry: { ...entry, kind: 'session', service: 's' },
        side: 'after',
        needed: 1,
        left: 0,
      })[0],
    ).toBe('/services/s')
    expect(href({ rule: 'away', away: 'a' })).toEqual(['/hours?set=away', 'See the hours'])
    expect(href({ rule: 'notice', service: 's', from: now, week: false })).toEqual([
      '/services/s?set=notice',
      'See the rule',
    ])
    expect(href({ rule: 'person', because: 'blocked' })[0]).toBe('/people')
    expect(closureLink({ rule: 'past' })).toBeUndefined()
    expect(CLOSURE_RULES).toHaveLength(14)
  })
})
