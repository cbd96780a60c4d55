import { type BookingEvent, upcast } from '@acolhida/core/booking'
import { parseInstant } from '@acolhida/core/time'
import { demoMonths } from '@acolhida/demo/months'
import { describe, expect, it } from 'vitest'
import { happenedWords } from './happened-words.ts'

const now = parseInstant('2026-11-24T11:00Z')
const months = demoMonths(now)
const { practice } = months
const asked = upcast(months.bookings.find(({ events }) => upcast(events[0]!).type === 'asked')!.events[0]!)
const after = (...events: BookingEvent[]): string[] => happenedWords(practice, [asked, ...events]).slice(1)
const start = parseInstant('2026-12-01T10:00Z')

describe('a record in words', () => {
  it('says who did what', () => {
    expect(happenedWords(practice, [asked])[0]).toMatch(/^They asked for .*, .* at the studio in Coimbra\.$/)
    expect(
      after(
        { type: 'proved', at: now },
        { type: 'welcomed', at: now, by: 'rules', settles: now },
        {
          type: 'moved',
          at: now,
          start,
          place: 'studio',
          minutes: 50,
          text: '',
          settles: now,
          by: 'client',
          least: 50,
        },
        { type: 'moved', at: now, start, place: 'studio', minutes: 50, text: 'Sorry.', settles: now },
        { type: 'cancelled', at: now, by: 'client', share: 50, text: 'I am ill.', settles: now },
      ),
    ).toEqual([
      'They opened the link in the mail.',
      'Booked straight in, by your rules.',
      'They moved it to Tue 1 Dec, 10:00 at the studio in Coimbra. Cancelling costs 50 % from now on at the least.',
      'You moved it to Tue 1 Dec, 10:00 at the studio in Coimbra, 50 minutes. “Sorry.”',
      'They cancelled. 50 % of the price is due. “I am ill.”',
    ])
  })

  it('keeps what was taken back, and how it went', () => {
    expect(
      after(
        { type: 'welcomed', at: now, by: 'practitioner', settles: now },
        { type: 'missed', at: now, settles: now },
        { type: 'taken-back', at: now, of: 3 },
        { type: 'attended', at: now, settles: now, late: 1, minutes: 90 },
      ).slice(1),
    ).toEqual([
      'They did not come.',
      'Taken back: “They did not come.”',
      'They were here. 1 minute late. It lasted 90 minutes.',
    ])
  })

  it('says what one’s own side of the rules gives', () => {
    const settles = now
    expect(
      after(
        { type: 'running-late', at: now, minutes: 20, gives: 20, settles },
        {
          type: 'offered',
          at: now,
          starts: [{ start, place: 'studio' }],
          until: start,
          text: '',
          gives: 50,
          settles,
        },
        { type: 'cancelled', at: now, by: 'practitioner', share: 0, text: 'Ill.', gives: 50, settles },
      ),
    ).toEqual([
      'You told them that you come 20 minutes late. By your own side of the rules they get 20 % of the price.',
      'You offered 1 other time: Tue 1 Dec, 10:00 at the studio in Coimbra. By your own side of the rules they get 50 % of the price unless they take one.',
      'You cancelled. By your own side of the rules they get 50 % of the price. “Ill.”',
    ])
  })

  it('has a sentence for all that ever happened in some months', () => {
    for (const { events } of months.bookings) {
      const record = events.map(upcast)
      const lines = happenedWords(practice, record)
      expect(lines).toHaveLength(record.length)
      for (const line of lines) {
        expect(line).toMatch(/^[A-Z].*[.”]$/s)
        expect(line).not.toMatch(/undefined|NaN|\bnull\b/)
      }
    }
  })
})
