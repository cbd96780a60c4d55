import 'fake-indexeddb/auto'
import type { Question } from '@acolhida/core/questions'
import { KINDS } from '@acolhida/core/questions'
import { describe, expect, it } from 'vitest'
import { asKind, movedItem, movedQuestion } from './draft.ts'

const before = [
  { id: 'a', text: 'Alone' },
  { id: 'b', text: 'Together', points: 2 },
]

describe('a question of another kind', () => {
  const question: Question = {
    id: 'q',
    kind: 'one',
    text: 'Which?',
    help: 'One.',
    required: true,
    private: true,
    when: { person: 'new' },
    choices: before,
  }

  it('keeps what both have', () => {
    for (const kind of Object.keys(KINDS) as Question['kind'][]) {
      const next = asKind(question, kind)
      expect(next).toMatchObject({
        id: 'q',
        kind,
        text: 'Which?',
        help: 'One.',
        private: true,
        when: { person: 'new' },
      })
      // Nobody must answer what is only read.
      expect(next.required).toBe(kind !== 'section' && kind !== 'passage')
    }
    expect(asKind(asKind(question, 'items'), 'one')).toMatchObject({ choices: [{ id: 'a' }, { id: 'b' }] })
  })
})

it('a list is put in another order', () => {
  expect(movedItem(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a'])
  expect(movedItem(['a', 'b', 'c'], 2, 0)).toEqual(['c', 'a', 'b'])
  expect(movedItem(['a'], 5, 0)).toEqual(['a'])
})

it('a section is put elsewhere with all that stands in it', () => {
  const list = ['a', '#s', 'b', 'c', '#t', 'd'].map(
    (id): Question => ({ id, kind: id.startsWith('#') ? 'section' : 'short', text: id, required: false }),
  )
  const order = (from: number, to: number): string =>
    movedQuestion(list, from, to)
      .map((question) => question.id)
      .join(' ')
  expect(order(1, 5)).toBe('a #t d #s b c')
  expect(order(4, 0)).toBe('#t d a #s b c')
  expect(order(4, 1)).toBe('a #t d #s b c')
  // Over something of its own, or over nothing, it stays.
  expect(order(1, 3)).toBe('a #s b c #t d')
  expect(order(1, 9)).toBe('a #s b c #t d')
  // A question goes alone.
  expect(order(2, 5)).toBe('a #s c #t d b')
})
