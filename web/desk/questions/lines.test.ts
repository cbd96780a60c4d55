import { describe, expect, it } from 'vitest'
import { bandLines, bandsFrom, choiceLines, choicesFrom, itemLines, itemsFrom } from './lines.ts'

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
