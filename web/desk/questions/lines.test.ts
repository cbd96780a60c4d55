import { describe, expect, it } from 'vitest'
import { changedBand, choiceLines, choicesFrom, itemLines, itemsFrom } from './lines.ts'

const before = [
  { id: 'a', text: 'Alone' },
  { id: 'b', text: 'Together', points: 2 },
]

describe('choices as lines', () => {
  it('keep their names, so that conditions go on looking at them', () => {
    expect(choicesFrom('Together | 2\nAlone', before).map((choice) => choice.id)).toEqual(['b', 'a'])
    // A line that was only reworded is the choice that stood there; a new one gets a name of its own.
    expect(choicesFrom('By myself\nTogether', before).map((choice) => choice.id)).toEqual(['a', 'b'])
    expect(choicesFrom('Alone\nTogether\nBoth', before).map((choice) => choice.id)).toEqual(['a', 'b', 'c3'])
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

describe('bands', () => {
  const bands = [
    { from: 5, outcome: 'look' as const },
    { from: 10, outcome: 'closed' as const, name: 'severe' },
  ]

  it('are changed one by one, and never begin at the same number twice', () => {
    expect(changedBand(bands, 1, (band) => ({ ...band, from: 12.5 }))).toEqual([
      bands[0],
      { ...bands[1], from: 12.5 },
    ])
    expect(() => changedBand(bands, 1, (band) => ({ ...band, from: 5 }))).toThrow(
      'begins at this number of points already',
    )
  })
})
