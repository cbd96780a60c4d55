import { describe, expect, it } from 'vitest'
import { apply, type BookingEvent, begin } from '../booking/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { HOUR, shift } from '../time/index.ts'
import { letterFor, type Step } from './index.ts'

const asked = sampleAsked({ answers: { secret: 'something told in confidence' } })
const practice = samplePractice({
  services: [sampleService({ name: 'Voice assessment' })],
  places: [
    {
      id: 'video',
      kind: 'video',
      name: 'by video',
      address: 'https://video.example.org/x',
      told: 'last-reminder',
    },
  ],
})
const at = shift(asked.at, HOUR)
const fresh = begin('b', asked)
const after = (event: BookingEvent, now = at) => {
  const booking = apply(fresh, event)
  return letterFor(practice, booking, booking.tells!.step, now)
}

describe('letters', () => {
  it('tell the client in their own zone, and remind the practitioner', () => {
    const receipt = letterFor(practice, fresh, 'asked', at)
    expect(receipt.to).toBe('client')
    expect(receipt.text).toContain('Friday 27 November, 07:00 – 08:15 (Sao Paulo time)')
    expect(receipt.text).toContain('I answer by Thu 26 Nov, 09:00.')
    expect(letterFor(practice, fresh, 'word-due', at)).toMatchObject({ to: 'practitioner' })
  })

  it('ask for the proof of an address before anything else', () => {
    const open = begin('b', sampleAsked({ proof: 'open', until: shift(asked.at, HOUR / 2) }))
    const { text } = letterFor(practice, open, 'asked', asked.at)
    expect(text).toContain(
      'The time is kept for you until Wed 25 Nov, 09:30. Please open this link before then',
    )
    expect(text).not.toContain('I answer by')
  })

  it('say what is free until when, what it costs, and what is asked beforehand', () => {
    const priced = begin(
      'b',
      sampleAsked({
        reading: { ...asked.reading, quote: { minutes: 75, lines: [], price: 9_500, deposit: 3_000 } },
      }),
    )
    const booked = apply(priced, { type: 'welcomed', at, by: 'practitioner', settles: at })
    const letter = letterFor(practice, booked, 'confirmation', at)
    expect(letter.invite).toBe('REQUEST')
    expect(letter.text).toContain('You can move or cancel it free of charge until Thu 26 Nov, 07:00.')
    expect(letter.text).toContain('The price is €95.00, of which €30.00 is asked before the session.')
  })

  it('tell a place from its time on, whenever they are written', () => {
    const welcomed: BookingEvent = { type: 'welcomed', at, by: 'practitioner', settles: at }
    expect(after(welcomed).text).not.toContain('video.example.org')
    expect(after(welcomed, shift(asked.start, -HOUR)).text).toContain('video.example.org')
  })

  it('are written from how things stand when they go', () => {
    const booked = apply(fresh, { type: 'welcomed', at, by: 'practitioner', settles: at })
    const moved = apply(booked, {
      type: 'moved',
      at,
      start: shift(asked.start, 24 * HOUR),
      place: 'video',
      minutes: 60,
      text: '',
      settles: at,
    })
    expect(letterFor(practice, moved, 'confirmation', at).text).toContain(
      'Saturday 28 November, 07:00 – 08:00',
    )
  })

  it('never carry answers', () => {
    const all: BookingEvent[] = [
      { type: 'welcomed', at, by: 'practitioner', settles: at },
      { type: 'declined', at, text: '', settles: at },
      {
        type: 'offered',
        at,
        starts: [{ start: asked.start, place: 'video' }],
        until: at,
        text: '',
        settles: at,
      },
      { type: 'lapsed', at },
      { type: 'withdrawn', at },
      { type: 'cancelled', at, by: 'client', share: 50, text: '', settles: at },
    ]
    const own: Step[] = ['asked', 'word-due', 'place']
    const letters = [
      ...own.map((step) => letterFor(practice, fresh, step, at)),
      ...all.map((one) => after(one)),
    ]
    for (const letter of letters) expect(letter.text + letter.subject).not.toContain('confidence')
    expect(letters.at(-1)?.text).toContain('50 % of the price is due')
  })
})
