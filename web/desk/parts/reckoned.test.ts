import 'fake-indexeddb/auto'
import { begin } from '@acolhida/core/booking'
import { Doorkeeper, enter, MapStore } from '@acolhida/core/house'
import { knownPeople } from '@acolhida/core/people'
import { parseInstant, shift } from '@acolhida/core/time'
import { describe, expect, it } from 'vitest'
import { sampleAsked } from '../../../core/tests/asked.ts'
import { samplePractice, sampleService } from '../../../core/tests/sample.ts'
import { personRow } from '../data/rows.ts'
import { printOf, reckonFor } from './reckoned.ts'

const now = parseInstant('2026-11-24T11:00Z')
const email = 'ana@example.org'
const practice = samplePractice({
  services: [sampleService({ price: { kind: 'fixed', amount: 9_500 }, questionnaire: 'q' })],
  questionnaires: [
    {
      id: 'q',
      name: 'Q',
      version: 1,
      questions: [],
      rules: [
        {
          id: 'known',
          name: 'Whom I know',
          when: { person: 'known' },
          effect: { do: 'item', name: 'For coming back', price: -2_000 },
        },
      ],
      bands: [],
    },
  ],
})
const past = {
  ...begin('past', sampleAsked({ person: { name: 'Ana', email, zone: 'UTC' } })),
  status: 'attended' as const,
}
const person = { id: 'ana', name: 'Ana', emails: [email], invited: [], blocked: false, note: '' }
const ana = { person: personRow(person, [past]), withCode: [] }
const nobody = { person: undefined, withCode: [] }
const wish = { service: 's', place: 'video', answers: {} }

describe('what is reckoned at the desk for somebody on the phone', () => {
  it('is what they pay, as the person behind their address', () => {
    expect(reckonFor(practice, wish, ana, now).reading.quote.price).toBe(7_500)
    expect(reckonFor(practice, wish, nobody, now).reading.quote.price).toBe(9_500)
  })

  it('is what the relay reckons, and it books at nothing else', () => {
    const salt = 'salt'
    const store = new MapStore()
    const people = knownPeople([person], [past], practice, salt, now)
    store.write([{ type: 'package', pack: { revision: 1, practice, sessions: [], people, salt } }])
    const keeper = new Doorkeeper(store)
    const body = (id: string, shown: string) => ({
      ...wish,
      id,
      start: parseInstant('2026-11-27T10:00Z'),
      minutes: 75,
      person: { name: 'Ana', email, zone: 'UTC' },
      clash: false,
      shown,
    })
    const about = { now: shift(now, 1_000), ids: () => 'name' }
    const stranger = printOf(reckonFor(practice, wish, nobody, now), 75)
    expect(() => keeper.act(enter, body('booked-1', stranger), about)).toThrow('has changed')
    const own = printOf(reckonFor(practice, wish, ana, now), 75)
    keeper.act(enter, body('booked-2', own), about)
    expect(keeper.house.booking('booked-2')?.price).toBe(7_500)
    expect(keeper.house.booking('booked-1')).toBeUndefined()
  })
})
