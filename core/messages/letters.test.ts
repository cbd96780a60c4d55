import { describe, expect, it } from 'vitest'
import { apply, type Booking, type BookingEvent, begin } from '../booking/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { HOUR, type Instant, shift } from '../time/index.ts'
import { type Letter, letterFor, plannedLetters, type Step } from './index.ts'
import { DOOR_TOKEN } from './tokens.ts'

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
  return letterNow(booking, booking.tells!.step, now)
}

/** A letter that has something to say. */
function letterNow(booking: Booking, step: Step, now: Instant, by = practice): Letter {
  const letter = letterFor(by, booking, { step, anchor: booking.seq }, now)
  if (!letter) throw new Error(`${step} is of no use then.`)
  return letter
}

describe('letters', () => {
  it('are not written where they are of no use any more', () => {
    const booked = apply(fresh, { type: 'welcomed', at, by: 'practitioner', settles: at })
    const told = {
      ...practice,
      places: practice.places.map((place) => ({ ...place, told: 'last-reminder' as const, address: 'R. 1' })),
    }
    expect(letterFor(told, booked, { step: 'place', anchor: 1 }, booked.start)?.to).toBe('client')
    expect(letterFor(told, booked, { step: 'place', anchor: 1 }, shift(booked.start, 1))).toBeUndefined()
    expect(() => letterNow(booked, 'quote', at)).toThrow('about no booking')
  })

  it('tell the client in their own zone, and remind the practitioner', () => {
    const receipt = letterNow(fresh, 'asked', at)
    expect(receipt.to).toBe('client')
    expect(receipt.text).toContain('Friday 27 November, 07:00 – 08:15 (Sao Paulo time)')
    expect(receipt.text).toContain('I answer by Thu 26 Nov, 09:00 (Sao Paulo time).')
    expect(letterNow(fresh, 'word-due', at)).toMatchObject({ to: 'practitioner' })
  })

  it('ask for the proof of an address before anything else', () => {
    const open = begin('b', sampleAsked({ proof: 'open', until: shift(asked.at, HOUR / 2) }))
    const { text } = letterNow(open, 'asked', asked.at)
    expect(text).toContain(
      'The time is kept for you until Wed 25 Nov, 09:30 (Sao Paulo time). Please open this link before then',
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
    const letter = letterNow(booked, 'confirmation', at)
    expect(letter.invite).toBe('REQUEST')
    expect(letter.text).toContain('You can cancel free of charge until Thu 26 Nov, 07:00 (Sao Paulo time).')
    expect(letter.text).toMatch(/move/i)
    const fixed = apply(
      begin(
        'b',
        sampleAsked({ houseRules: { ...asked.houseRules, move: { ...asked.houseRules.move, times: 0 } } }),
      ),
      { type: 'welcomed', at, by: 'practitioner', settles: at },
    )
    expect(letterNow(fixed, 'confirmation', at).text).not.toMatch(/move/i)
    expect(letter.text).toMatch(/The price is €95\.00\.\n {2}€30\.00, .*\n {2}€65\.00, Fri 27 Nov, 07:00/)
  })

  it('tell whoever has moved it themselves how often they still can, and nobody else that it may not suit', () => {
    const booked = apply(fresh, { type: 'welcomed', at, by: 'practitioner', settles: at })
    const to = {
      start: shift(booked.start, 48 * HOUR),
      place: booked.place,
      minutes: 75,
      text: '',
      settles: at,
    }
    const mine = letterNow(apply(booked, { type: 'moved', at, ...to, by: 'client' }), 'moved', at).text
    expect(mine).toContain('You have moved Voice assessment.')
    expect(mine).toMatch(/You can move it yourself until .*, once at the most\./)
    expect(mine).not.toContain('If that does not suit you')
    const theirs = letterNow(apply(booked, { type: 'moved', at, ...to }), 'moved', at).text
    expect(theirs).toContain('If that does not suit you')
    expect(theirs).not.toContain('You have moved')
  })

  it('tell a session at a place by the clock there, with the client’s own beside it', () => {
    const studio = {
      ...practice,
      places: [
        {
          id: 'video',
          kind: 'studio' as const,
          name: 'at the studio',
          address: 'R. 1',
          told: 'confirmation' as const,
        },
      ],
    }
    const booked = apply(fresh, { type: 'welcomed', at, by: 'practitioner', settles: at })
    const { text, subject } = letterNow(booked, 'confirmation', at, studio)
    expect(text).toContain('Friday 27 November, 10:00 – 11:15 (Lisbon time; 07:00 – 08:15 in Sao Paulo)')
    expect(subject).toContain('Fri 27 Nov, 10:00 (Lisbon time)')
    expect(text).toContain('Where: at the studio, R. 1')
    expect(letterNow(fresh, 'declined', at, studio).text).toContain(`choose another time:\n${DOOR_TOKEN}`)
  })

  it('tell the practitioner of a new request, a cancellation and a request that has run out', () => {
    const planned = (booking: Booking): Step[] => plannedLetters(booking, practice).map(({ step }) => step)
    expect(planned(fresh)).toContain('new-request')
    const booked = apply(fresh, { type: 'welcomed', at, by: 'practitioner', settles: at })
    expect(planned(booked)).toEqual(['place'])
    const gone = apply(booked, { type: 'cancelled', at, by: 'client', share: 0, text: 'Ill.', settles: at })
    expect(planned(gone)).toEqual(['client-cancelled'])
    expect(
      planned(apply(booked, { type: 'cancelled', at, by: 'practitioner', share: 0, text: '', settles: at })),
    ).toEqual([])
    const lapsed = apply(apply(fresh, { type: 'proved', at }), { type: 'lapsed', at })
    expect(planned(lapsed)).toEqual(['has-lapsed'])
    expect(letterNow(lapsed, 'has-lapsed', at)).toMatchObject({
      to: 'practitioner',
      subject: expect.stringContaining('has run out'),
    })
    // What a client writes with their cancelling does not come back to them under the practitioner's name.
    expect(letterNow(gone, 'cancelled', at).text).not.toContain('Ill.')
    const own = { type: 'cancelled', at, by: 'practitioner', share: 0, text: '', settles: at } as const
    expect(letterNow(apply(booked, own), 'cancelled', at).text).not.toContain('promised')
    expect(
      letterNow(apply({ ...booked, price: 9_500 }, { ...own, gives: 50 }), 'cancelled', at).text,
    ).toMatch(/As I promised, you get 50 % of the price for it: €\d/)
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
    expect(letterNow(moved, 'confirmation', at).text).toContain('Saturday 28 November, 07:00 – 08:00')
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
    const letters = [...own.map((step) => letterNow(fresh, step, at)), ...all.map((event) => after(event))]
    for (const letter of letters) expect(letter.text + letter.subject).not.toContain('confidence')
    // It costs nothing, so half of it is nothing.
    expect(letters.at(-1)?.text).toContain('Nothing is owed.')
  })
})
