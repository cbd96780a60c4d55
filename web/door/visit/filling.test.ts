import '@acolhida/core/words/all'
import type { DoorReading, DoorService, Kept, Problem } from '@acolhida/core/contract'
import { instant } from '@acolhida/core/time'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { afterHappening, emptyFilling, type Filling, type Happening, stageOf } from './filling.ts'

const zone = (id: string, postalCodes: string[]) => ({
  id,
  name: id,
  surcharge: 500,
  clear: 0,
  postalCodes,
})
const service: DoorService = {
  id: 's',
  name: 'S',
  description: '',
  extras: [],
  seats: 1,
  byDate: false,
  places: [
    {
      id: 'home',
      kind: 'client',
      zone: 'Europe/Lisbon',
      name: 'at yours',
      travel: [zone('near', ['30']), zone('far', ['31'])],
    },
  ],
  questionnaire: {
    id: 'q',
    version: 1,
    questions: [
      { id: 'where', kind: 'address', text: 'Where?', required: true, travel: true },
      { id: 'why', kind: 'short', text: 'Why?', required: true },
    ],
  },
  terms: [],
  straight: false,
  colour: 'leaf',
}
const read: DoorReading = {
  open: true,
  minutes: 60,
  lines: [],
  price: 9_500,
  deposit: 0,
  shown: 'a',
  enquiryInstead: false,
}
const kept: Kept = {
  start: instant(1),
  place: 'home',
  until: instant(2),
  minutes: 60,
  lines: [],
  price: 9_500,
  deposit: 0,
  shown: 'b',
  renewable: true,
  deadlines: [],
  shareAfter: 0,
  now: instant(0),
}
const after = (from: Filling, ...happenings: Happening[]): Filling => happenings.reduce(afterHappening, from)
const fresh = emptyFilling('key')
const answered = (question: string, value: string): Happening => ({
  is: 'answered',
  service,
  question,
  value,
})
const full = after(fresh, answered('why', 'Because.'), { is: 'read', read }, { is: 'kept', kept })
const refused = (code: string, more: Partial<Problem> = {}): Happening => ({
  is: 'refused',
  problem: { code, message: 'No.', ...more },
  key: 'next-key',
})

describe('filling in', () => {
  it('goes from a wish over what was read to a start that is kept', () => {
    expect(stageOf(fresh)).toBe('wish')
    expect(stageOf(after(fresh, { is: 'read', read }))).toBe('read')
    expect(stageOf(full)).toBe('kept')
    expect(stageOf(after(fresh, { is: 'read', read: { ...read, open: false } }))).toBe('wish')
  })

  it('leads back to the furthest stage that still holds', () => {
    const stage = (happening: Happening) => stageOf(after(full, happening))
    expect(stage(answered('why', 'For another reason.'))).toBe('wish')
    expect(stage({ is: 'added', extras: ['x'] })).toBe('wish')
    expect(stage({ is: 'placed', place: 'studio' })).toBe('read')
    expect(stage({ is: 'travels', travel: 'near' })).toBe('read')
    expect(stage({ is: 'person', person: { name: 'A' } })).toBe('kept')
    expect(stage({ is: 'agreed', text: 'f', yes: true })).toBe('kept')
    expect(stage(refused('not-open'))).toBe('read')
    expect(stage(refused('answers'))).toBe('wish')
    expect(stage(refused('closed'))).toBe('wish')
    expect(stage(refused('changed'))).toBe('kept')
    expect(stage(refused('malformed'))).toBe('kept')
  })

  it('never shows a price that rests on other answers', () => {
    const changed = after(full, answered('why', 'Something else.'))
    expect([changed.read, changed.kept]).toEqual([undefined, undefined])
  })

  it('takes a corrected address for where to come, whatever was said before', () => {
    const first = after(fresh, answered('where', 'Rua 1\n3000\nCoimbra'))
    expect(first).toMatchObject({ travel: 'near', address: 'Rua 1, 3000 Coimbra' })
    const own = after(first, { is: 'travels', travel: 'far' }, { is: 'addressed', address: 'Elsewhere 9' })
    expect(own).toMatchObject({ travel: 'far', address: 'Elsewhere 9' })
    const corrected = after(
      own,
      { is: 'read', read },
      { is: 'kept', kept },
      answered('where', 'Rua 2\n3100\nPombal'),
    )
    expect(corrected).toMatchObject({ travel: 'far', address: 'Rua 2, 3100 Pombal' })
    expect(corrected.kept).toBeUndefined()
    expect(after(corrected, answered('where', 'Rua 3\n9999\nFaro')).travel).toBeUndefined()
  })

  it('comes to a question that is new, with a word about it, and nothing typed lost', () => {
    const back = after(
      full,
      refused('answers', { problems: [{ question: 'new', code: 'answer-this', message: 'Please.' }] }),
    )
    expect(back).toMatchObject({ look: 'new', answers: { why: 'Because.' }, sendKey: 'next-key' })
    expect(back.note).toMatch('The questions have changed')
    expect(after(back, answered('new', 'Yes.')).note).toBeUndefined()
  })

  it('brings along what was answered before only where nothing has been begun', () => {
    const brought: Happening = { is: 'brought', answers: { why: 'As ever.' } }
    expect(after(fresh, brought)).toMatchObject({ answers: { why: 'As ever.' }, known: ['why'] })
    expect(after(full, brought).answers).toEqual({ why: 'Because.' })
  })

  it('keeps what was typed, whatever happens in whatever order', () => {
    const codes = ['answers', 'closed', 'not-open', 'changed', 'travel', 'terms-changed', 'malformed', 'code']
    const happening: fc.Arbitrary<Happening> = fc.oneof(
      fc.constantFrom<Happening>(
        { is: 'read', read },
        { is: 'kept', kept },
        { is: 'placed', place: 'home' },
        { is: 'asked-anew' },
        { is: 'turned', part: 1 },
        { is: 'sealed', sealed: {} },
      ),
      fc.constantFrom(...codes).map((code) => refused(code)),
    )
    fc.assert(
      fc.property(fc.array(happening, { maxLength: 12 }), (list) => {
        const begun = after(
          fresh,
          answered('why', 'Because.'),
          { is: 'addressed', address: 'Rua 1' },
          { is: 'person', person: { name: 'Ana', email: 'ana@example.org' } },
          { is: 'agreed', text: 'f', yes: true },
        )
        const end = after(begun, ...list)
        expect(end).toMatchObject({
          answers: { why: 'Because.' },
          address: 'Rua 1',
          person: { name: 'Ana', email: 'ana@example.org' },
          agreed: ['f'],
        })
      }),
    )
  })
})
