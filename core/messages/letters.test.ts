import { describe, expect, it } from 'vitest'
import { apply, type BookingEvent, begin } from '../booking/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { formatInstant, HOUR, shift } from '../time/index.ts'
import { lettersFor } from './index.ts'

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
const after = (event: BookingEvent) => lettersFor(practice, apply(begin('b', asked), event), event)
const at = shift(asked.at, HOUR)

describe('letters', () => {
  it('tell the client in their own zone, and remind the practitioner before the hold runs out', () => {
    const [receipt, reminder] = lettersFor(practice, begin('b', asked), asked)
    expect(receipt).toMatchObject({ to: 'client', due: asked.at })
    expect(receipt?.text).toContain('Friday 27 November, 07:00 – 08:15 (Sao Paulo time)')
    expect(receipt?.text).toContain('I answer by Thu 26 Nov, 09:00.')
    expect(reminder).toMatchObject({ to: 'practitioner', step: 'word-due' })
    expect(formatInstant(reminder!.due)).toBe('2026-11-26T11:00:00Z')
  })

  it('wait until a decision can no longer be taken back', () => {
    const settles = shift(at, 8_000)
    const [welcome] = after({ type: 'welcomed', at, by: 'practitioner', settles })
    expect(welcome).toMatchObject({ due: settles, invite: 'REQUEST' })
    expect(welcome?.text).toContain('You can move or cancel it free of charge until Thu 26 Nov, 07:00.')
    expect(after({ type: 'declined', at, text: 'Not now.', settles })[0]).toMatchObject({ due: settles })
  })

  it('do not tell a place before its time', () => {
    const [welcome] = after({ type: 'welcomed', at, by: 'practitioner', settles: at })
    expect(welcome?.text).not.toContain('video.example.org')
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
      { type: 'cancelled', at, by: 'client', share: 50, text: '' },
    ]
    const letters = [...lettersFor(practice, begin('b', asked), asked), ...all.flatMap(after)]
    expect(letters).toHaveLength(8)
    for (const letter of letters) expect(letter.text + letter.subject).not.toContain('confidence')
    expect(letters.at(-1)?.text).toContain('50 % of the price is due')
  })

  it('say nothing where there is nothing to say', () => {
    expect(after({ type: 'proved', at })).toEqual([])
  })
})
