import { describe, expect, it } from 'vitest'
import type { Practice } from '../practice/index.ts'
import { withoutService } from '../practice/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { type Instant, type LocalDateTime, parseInstant } from '../time/index.ts'
import { type Booking, hurtBy, mayHurt } from './index.ts'

const now = parseInstant('2026-11-24T11:00Z')
const at = (text: string): LocalDateTime => text as LocalDateTime
const away = (from: string, to: string, repeat?: string) => ({
  id: `away-${from}`,
  from: at(from),
  to: at(to),
  ...(repeat ? { repeat } : {}),
})
const group = sampleService({
  id: 'g',
  seats: 8,
  groupAt: 'dates',
  groupDates: [{ id: 'd', start: at('2026-12-02T18:00'), place: 'p' }],
})
const practice = samplePractice({
  places: [
    { id: 'p', kind: 'studio', name: 'the studio', told: 'door' },
    { id: 'q', kind: 'video', name: 'by video', told: 'door' },
  ],
  services: [sampleService(), group],
} as Partial<Practice>)

const booking = (id: string, start: string, more: Partial<Booking> = {}): Booking =>
  ({
    id,
    status: 'booked',
    service: 's',
    place: 'p',
    start: parseInstant(start),
    minutes: 60,
    until: parseInstant(start),
    unproved: false,
    offers: [],
    ...more,
  }) as unknown as Booking

const hurt = (after: Practice, bookings: Booking[], at: Instant = now, before: Practice = practice) =>
  hurtBy(before, after, bookings, at).map(({ booking, harm }) => [booking.id, harm])

const bookings = [
  booking('later', '2026-12-03T10:00Z'),
  booking('soon', '2026-11-25T10:00Z'),
  booking('over', '2026-11-24T10:00Z'),
  booking('cancelled', '2026-11-25T12:00Z', { status: 'cancelled' }),
  booking('group', '2026-12-02T18:00Z', { service: 'g' }),
]

describe('what a change takes from what is booked', () => {
  it('is nothing where nothing of it is looked at', () => {
    const after = { ...practice, profile: { ...practice.profile, name: 'Another name' } }
    expect(mayHurt(practice, after)).toBe(false)
    expect(hurt(after, bookings)).toEqual([])
  })

  it('is told of a service and a place that go, in order of starts, not of what is over or cancelled', () => {
    const after = withoutService(practice, 's')
    expect(mayHurt(practice, after)).toBe(true)
    expect(hurt(after, bookings)).toEqual([
      ['soon', 'service'],
      ['later', 'service'],
    ])
    const places = { ...practice, places: practice.places.filter(({ id }) => id !== 'p') }
    expect(hurt(places, bookings).map(([, harm]) => harm)).toEqual(['place', 'place', 'place'])
  })

  it('is told of new time away that meets a session by a minute, and not of one that only touches it', () => {
    const with_ = (...more: ReturnType<typeof away>[]) => ({ ...practice, away: more })
    expect(hurt(with_(away('2026-11-25T10:59', '2026-11-25T12:00')), bookings)).toEqual([['soon', 'away']])
    expect(hurt(with_(away('2026-11-25T11:00', '2026-11-25T12:00')), bookings)).toEqual([])
    expect(hurt(with_(away('2026-11-25T09:00', '2026-11-25T10:00')), bookings)).toEqual([])
    // Every week at that time, from long ago on.
    const weekly = away('2026-01-07T10:00', '2026-01-07T11:00', 'FREQ=WEEKLY')
    expect(hurt(with_(weekly), bookings)).toEqual([['soon', 'away']])
    // Whoever was away anyway is not told again; nor when time away is taken back.
    const before = with_(weekly)
    expect(hurt(with_(weekly, away('2026-11-25T00:00', '2026-11-26T00:00')), bookings, now, before)).toEqual(
      [],
    )
    expect(hurt(practice, bookings, now, before)).toEqual([])
  })

  it('is told of a group date that goes, and of a least number that its people do not reach', () => {
    const withGroup = (more: Partial<typeof group>) => ({
      ...practice,
      services: practice.services.map((service) => (service.id === 'g' ? { ...service, ...more } : service)),
    })
    expect(hurt(withGroup({ groupDates: [] }), bookings)).toEqual([['group', 'date']])
    const least = (people: number) => withGroup({ least: { people, by: 'P1D' } } as Partial<typeof group>)
    expect(hurt(least(2), bookings)).toEqual([['group', 'least']])
    expect(hurt(least(1), bookings)).toEqual([])
    const second = booking('second', '2026-12-02T18:00Z', { service: 'g' })
    expect(hurt(least(2), [...bookings, second])).toEqual([])
    const unproved = { ...second, status: 'requested', unproved: true } as Booking
    expect(hurt(least(2), [...bookings, unproved])).toContainEqual(['group', 'least'])
    // Lowering it hurts nobody.
    expect(mayHurt(least(3), least(2))).toBe(false)
  })
})
