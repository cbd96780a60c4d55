import type { Practice } from '@acolhida/core/practice'
import { date, type LocalDateTime, parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { describe, expect, it } from 'vitest'
import { PRACTICE_PARTS } from './practice-parts.ts'

const { practice } = demoBackup(parseInstant('2026-11-24T11:00Z'))
const today = date('2026-11-24')
const said = (name: string, more: Partial<Practice> = {}): string =>
  PRACTICE_PARTS.find((part) => part.name === name)!.now({ ...practice, ...more }, today)
const away = (from: string, to: string, repeat?: string) => [
  { id: 'a', from: from as LocalDateTime, to: to as LocalDateTime, ...(repeat ? { repeat } : {}) },
]

describe('the practice in lines', () => {
  it('says the hours of a week, and the days that have any', () => {
    const [day] = practice.hours.weekly
    const week = (...days: number[]): string =>
      said('Hours', {
        away: [],
        hours: {
          changedDays: [],
          weekly: [1, 2, 3, 4, 5, 6, 7].map((at) => (days.includes(at) ? day : [])) as never,
        },
      })
    expect(week()).toBe('No hours yet')
    expect(week(1, 2, 3)).toMatch(/ hours a week, Monday to Wednesday$/)
    expect(week(1, 3)).toMatch(/ hours a week, Monday, Wednesday$/)
  })

  it('says when one is away next, also where that comes again and began long ago', () => {
    expect(said('Hours', { away: away('2026-12-14T00:00', '2026-12-16T00:00') })).toMatch(
      /; away next from Mon 14 Dec$/,
    )
    expect(said('Hours', { away: away('2026-01-07T10:00', '2026-01-07T11:00', 'FREQ=WEEKLY') })).toMatch(
      /; away next from Wed 25 Nov$/,
    )
    expect(said('Hours', { away: away('2026-11-23T00:00', '2026-11-25T00:00') })).toMatch(/; away today$/)
    expect(said('Hours', { away: away('2026-11-01T00:00', '2026-11-02T00:00') })).not.toMatch(/away/)
  })

  it('says limits whole, each by itself', () => {
    expect(said('Limits', { limits: { openRequests: 2, perWeek: 20 } })).toMatch(
      /^20 sessions a week at most, /,
    )
    expect(said('Limits', { limits: { openRequests: 2, perDay: 1 } })).toMatch(/^1 session a day at most, /)
    expect(said('Limits', { limits: { openRequests: 2 } })).toMatch(/^requests wait /)
  })
})
