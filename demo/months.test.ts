import { replay, stateAt, takes } from '@acolhida/core/booking'
import { writeBackup } from '@acolhida/core/formats'
import { checkPractice } from '@acolhida/core/practice'
import { readBackup } from '@acolhida/core/schemas'
import { verifyAgreements } from '@acolhida/core/terms'
import { MINUTE, parseInstant } from '@acolhida/core/time'
import { agreementsOf, lineAt, replayLine } from '@acolhida/core/waiting'
import { describe, expect, it } from 'vitest'
import { demoMonths } from './months.ts'

const NOW = parseInstant('2026-11-24T11:00Z')
const months = demoMonths(NOW)
const bookings = months.bookings.map(({ id, events }) => replay(id, events))
const ended = (is: string): number => bookings.filter((booking) => stateAt(booking, NOW).is === is).length

describe('some months of the demo practice', () => {
  it('follow from their moment and seed alone', () => {
    expect(writeBackup(demoMonths(NOW))).toBe(writeBackup(months))
    expect(writeBackup(demoMonths(NOW, 2))).not.toBe(writeBackup(months))
  })

  it('have something of everything', () => {
    console.log(
      `      ${bookings.length} requests of ${months.people.length} people, ${months.enquiries.length} messages: ` +
        ['booked', 'attended', 'missed', 'waiting', 'declined', 'lapsed', 'cancelled', 'offered']
          .map((is) => `${ended(is)} ${is}`)
          .join(', '),
    )
    expect(bookings.length).toBeGreaterThan(150)
    expect(months.people.length).toBeGreaterThan(80)
    expect(months.enquiries.length).toBeGreaterThan(5)
    for (const is of ['booked', 'attended', 'missed', 'waiting', 'declined', 'lapsed', 'cancelled'])
      expect([is, ended(is) > 0]).toEqual([is, true])
    const types = new Set(months.bookings.flatMap(({ events }) => events.map(({ type }) => type)))
    for (const type of ['asked', 'proved', 'welcomed', 'offered', 'accepted', 'moved', 'cancelled'])
      expect([type, types.has(type as never)]).toEqual([type, true])
    expect(bookings.some((booking) => booking.status === 'booked' && booking.start > NOW)).toBe(true)
    expect(bookings.some(({ movedBy, late }) => movedBy === 'client' || late)).toBe(true)
    expect(bookings.some((booking) => booking.asked.service === 'coaching')).toBe(true)
    expect(bookings.some((booking) => booking.asked.proof === 'hand')).toBe(true)
  })

  it('hold together: nothing overlaps, agreements make one chain, the file is one like any other', () => {
    expect(checkPractice(months.practice)).toEqual([])
    const taken = bookings
      .filter((booking) => booking.asked.service !== 'reading-aloud')
      .flatMap((booking) =>
        takes(booking, NOW).map(({ start, minutes }) => [start, start + minutes * MINUTE] as const),
      )
      .sort((a, b) => a[0] - b[0])
    for (let i = 1; i < taken.length; i++) expect(taken[i]![0]).toBeGreaterThanOrEqual(taken[i - 1]![1])
    const agreements = agreementsOf(bookings, months.lines ?? [], months.courses ?? []).map(
      ({ agreement }) => agreement,
    )
    expect(agreements.length).toBeGreaterThan(100)
    expect(verifyAgreements(months.practice.terms, agreements).faults).toEqual([])
    const text = writeBackup(months)
    expect(writeBackup(readBackup(text))).toBe(text)
  })

  it('have people who wait, times that found somebody, and one that is held out just now', () => {
    const lines = (months.lines ?? []).map(({ id, events }) => replayLine(id, events))
    const are = (is: string): number => lines.filter((line) => lineAt(line, NOW).is === is).length
    for (const is of ['waiting', 'offered', 'taken', 'ended']) expect([is, are(is) > 0]).toEqual([is, true])
    expect(bookings.filter(({ asked }) => asked.line).length).toBeGreaterThan(3)
  })

  it('name nobody twice, and nobody outside example.org', () => {
    const mails = months.people.flatMap(({ emails }) => emails)
    expect(new Set(mails).size).toBe(mails.length)
    for (const mail of mails) expect(mail).toMatch(/@example\.org$/)
  })
})
