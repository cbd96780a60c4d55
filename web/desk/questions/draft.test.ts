import type { Question } from '@acolhida/core/questions'
import { describe, expect, it } from 'vitest'
import {
  asKind,
  bandLines,
  bandsFrom,
  choiceLines,
  choicesFrom,
  itemLines,
  itemsFrom,
  KINDS,
  moved,
  movedQuestion,
} from './draft.ts'

const before = [
  { id: 'a', text: 'Alone' },
  { id: 'b', text: 'Together', points: 2 },
]

describe('choices as lines', () => {
  it('keep their names, so that conditions go on looking at them', () => {
    expect(choicesFrom('Together | 2\nAlone', before).map((one) => one.id)).toEqual(['b', 'a'])
    // A line that was only reworded is the choice that stood there; a new one gets a name of its own.
    expect(choicesFrom('By myself\nTogether', before).map((one) => one.id)).toEqual(['a', 'b'])
    expect(choicesFrom('Alone\nTogether\nBoth', before).map((one) => one.id)).toEqual(['a', 'b', 'c3'])
    expect(choicesFrom('Together', before)).toEqual([{ id: 'b', text: 'Together' }])
  })

  it('are written as they are read, with what they are worth', () => {
    expect(choiceLines(before)).toBe('Alone\nTogether | 2')
    expect(choicesFrom(choiceLines(before), before)).toEqual(before)
    expect(choicesFrom('Not at all | 0\nMinus|-3', [])).toEqual([
      { id: 'c1', text: 'Not at all', points: 0 },
      { id: 'c2', text: 'Minus', points: -3 },
    ])
  })

  it('say what is wrong with them', () => {
    expect(() => choicesFrom(' \n', before)).toThrow('at least one choice')
    expect(() => choicesFrom('Alone\nAlone | 3', before)).toThrow('Two lines are the same')
  })
})

describe('items as lines', () => {
  it('keep how many there can be', () => {
    const items = [{ id: 's', text: 'Song', most: 3 }]
    expect(itemsFrom(itemLines(items), items)).toEqual(items)
    expect(itemsFrom('Song\nPoem', items)).toEqual([...items, { id: 'c2', text: 'Poem', most: 10 }])
    expect(() => itemsFrom('Song | 0', items)).toThrow('“Song” can be asked for at least once.')
  })
})

describe('bands as lines', () => {
  it('are read in order, with their names', () => {
    const bands = bandsFrom('15 look first severe\nfrom 5 fits mild\n20 not a match')
    expect(bands).toEqual([
      { from: 5, outcome: 'fits', name: 'mild' },
      { from: 15, outcome: 'look', name: 'severe' },
      { from: 20, outcome: 'closed' },
    ])
    expect(bandsFrom(bandLines(bands))).toEqual(bands)
    expect(bandsFrom('')).toEqual([])
  })

  it('say which line is not read', () => {
    expect(() => bandsFrom('ten look')).toThrow('“ten look” is not read')
    expect(() => bandsFrom('5 fits\n5 look')).toThrow('begin at the same number')
  })
})

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
  expect(moved(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a'])
  expect(moved(['a', 'b', 'c'], 2, 0)).toEqual(['c', 'a', 'b'])
  expect(moved(['a'], 5, 0)).toEqual(['a'])
})

it('a section is put elsewhere with all that stands in it', () => {
  const list = ['a', '#s', 'b', 'c', '#t', 'd'].map(
    (id): Question => ({ id, kind: id.startsWith('#') ? 'section' : 'short', text: id, required: false }),
  )
  const order = (from: number, to: number): string =>
    movedQuestion(list, from, to)
      .map((one) => one.id)
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
