import { replay, takes } from '@acolhida/core/booking'
import { writeBackup } from '@acolhida/core/formats'
import { checkPractice } from '@acolhida/core/practice'
import { readBackup } from '@acolhida/core/schemas'
import { DAY, HOUR, instant, MINUTE, parseInstant } from '@acolhida/core/time'
import { expect, it } from 'vitest'
import { demoBackup } from './story.ts'

it('is whole at every hour of the year: three wait, nothing overlaps, all of it valid', () => {
  for (
    let at = parseInstant('2026-11-24T00:17Z');
    at < parseInstant('2027-12-01T00:00Z');
    at = instant(at + 5 * DAY + 7 * HOUR + 11 * MINUTE)
  ) {
    const backup = demoBackup(at)
    expect(checkPractice(backup.practice)).toEqual([])
    const bookings = backup.bookings.map(({ id, events }) => replay(id, events))
    expect(bookings).toHaveLength(14)
    const waiting = bookings.filter(
      (booking) => booking.status === 'requested' && booking.until > at && booking.start > at,
    )
    expect(waiting.map((booking) => booking.id).sort()).toEqual(['asks-lucjan', 'asks-tome', 'asks-wanda'])
    const taken = bookings
      .filter((booking) => booking.asked.service !== 'reading-aloud')
      .flatMap((booking) =>
        takes(booking, at).map(({ start, minutes }) => [start, start + minutes * MINUTE] as const),
      )
      .sort((a, b) => a[0] - b[0])
    for (let i = 1; i < taken.length; i++) expect(taken[i]![0]).toBeGreaterThanOrEqual(taken[i - 1]![1])
  }
}, 60_000)

it('is a backup like any other', () => {
  const text = writeBackup(demoBackup(parseInstant('2026-11-24T11:00Z')))
  expect(writeBackup(readBackup(text))).toBe(text)
})
