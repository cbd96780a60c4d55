import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from '@formatjs/icu-messageformat-parser'
import { describe, expect, it } from 'vitest'
import { pseudoDoor } from '../../scripts/pseudo.ts'
import { LANGUAGES, localeOf, moment, parseInstant, speaking, zone } from '../time/index.ts'
import './all.ts'
import { sentenceFaults } from './check.ts'
import { BOOKS, bookIn, bookInForce, hasBook, refusalWords } from './index.ts'
import { VOICES } from './voices.ts'

describe('catalogues', () => {
  it.each(BOOKS)('%s is whole in every language, and fills its sentences with the same', (book) => {
    const ours = bookIn('en', book) as Record<string, string>
    for (const language of LANGUAGES) {
      expect(hasBook(language, book)).toBe(true)
      const theirs = bookIn(language, book) as Record<string, string>
      expect(Object.keys(theirs).sort()).toEqual(Object.keys(ours).sort())
      for (const [name, text] of Object.entries(theirs))
        expect([name, sentenceFaults(text, ours[name]!)]).toEqual([name, []])
    }
  })

  it('follow CLDR’s plural categories in both languages', () => {
    // CLDR 48, plural rules, cardinal samples, from memory: en one is 1; pt-PT one is 1, and 0 is other.
    const samples = {
      en: { one: [1], other: [0, 2, 5, 100, 1.5] },
      pt: { one: [1], other: [0, 2, 17, 100, 1.5] },
    }
    for (const [language, by] of Object.entries(samples))
      for (const [category, numbers] of Object.entries(by))
        for (const n of numbers)
          expect([language, n, new Intl.PluralRules(localeOf(language)).select(n)]).toEqual([
            language,
            n,
            category,
          ])
    const lots = (language: string, seats: number): string =>
      bookInForce('door', { language }).text('time.seats', { seats })
    expect([1, 2].map((n) => lots('en', n))).toEqual(['one place left', '2 places left'])
    expect([1, 2].map((n) => lots('pt', n))).toEqual(['resta um lugar', 'restam 2 lugares'])
  })

  it('speak the tongue in force, while something is done in it and no longer', () => {
    const at = parseInstant('2026-11-25T15:00Z')
    const said = () => [refusalWords('too-late'), moment(at, zone('Europe/Lisbon'))]
    const english = said()
    expect(speaking({ language: 'pt' }, said)).toEqual([
      'A sessão já começou.',
      'quarta, 25 de novembro, 15:00',
    ])
    expect(() =>
      speaking({ language: 'pt' }, () => {
        throw new Error('no')
      }),
    ).toThrow('no')
    expect(said()).toEqual(english)
    expect(speaking({ language: 'en', own: { 'refusals.too-late': 'Over.' } }, said)[0]).toBe('Over.')
  })

  it('has voices whose every sentence can stand for ours', () => {
    for (const { words } of VOICES)
      for (const [language, said] of Object.entries(words))
        for (const [key, text] of Object.entries(said)) {
          const [book, ...name] = key.split('.')
          const ours = (bookIn(language, book as 'door') as Record<string, string>)[name.join('.')]
          expect([key, ours && sentenceFaults(text, ours)]).toEqual([key, []])
        }
  })

  it('keeps its pseudo catalogue as it is made, with every sentence readable', () => {
    const { file, text } = pseudoDoor(join(import.meta.dirname, '..', '..'))
    expect(readFileSync(file, 'utf8')).toBe(text)
    for (const said of Object.values(JSON.parse(text) as Record<string, string>)) {
      expect(said).toMatch(/^⟦.*⟧$/s)
      parse(said)
    }
  })
})

describe('a sentence of one’s own', () => {
  it('is filled with nothing that ours is not', () => {
    const ours = 'You can move it until {until}, {left, plural, one {once} other {# times}}.'
    expect(sentenceFaults('Until {until}.', ours)).toEqual([])
    expect(sentenceFaults('Until {when}.', ours)).toEqual(['There is no field “when” in it.'])
    expect(sentenceFaults('Until {until', ours)[0]).toContain('can’t be read')
    expect(sentenceFaults('<i>Until</i> {until}', ours)).toEqual(['There is no mark “i” in it.'])
    expect(sentenceFaults('  ', ours)).toEqual(['It says nothing.'])
  })
})
