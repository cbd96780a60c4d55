import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { segmentsOf } from './index.ts'

/** The default alphabet as 3GPP TS 23.038, table 6.2.1, lists it by code; from memory. */
const TABLE = [
  '@£$¥èéùìòÇ\nØø\rÅå',
  'Δ_ΦΓΛΩΠΨΣΘΞ ÆæßÉ'.replace(' ', ''),
  ' !"#¤%&\'()*+,-./',
  '0123456789:;<=>?',
  '¡ABCDEFGHIJKLMNO',
  'PQRSTUVWXYZÄÖÑÜ§',
  '¿abcdefghijklmno',
  'pqrstuvwxyzäöñüà',
]
const EXTENSION = '\f^{}\\[~]|€'

describe('segments of a text', () => {
  it('know the default alphabet, 127 characters beside the escape, and its extension', () => {
    const all = TABLE.join('')
    expect([...all]).toHaveLength(127)
    for (const one of all) expect(segmentsOf(one)).toMatchObject({ alphabet: 'gsm', units: 1 })
    for (const one of EXTENSION) expect(segmentsOf(one)).toMatchObject({ alphabet: 'gsm', units: 2 })
    for (const one of 'ãõçáíóúâêôÀ–’“☺ع')
      expect(segmentsOf(one)).toMatchObject({ alphabet: 'ucs2', because: one })
  })

  it('hold 160 or 70 alone, 153 or 67 each of several (3GPP TS 23.040)', () => {
    const many = (one: string, n: number) => segmentsOf(one.repeat(n)).segments
    expect([0, 160, 161, 306, 307].map((n) => many('a', n))).toEqual([0, 1, 2, 2, 3])
    expect([70, 71, 134, 135].map((n) => many('ع', n))).toEqual([1, 2, 2, 3])
    expect([80, 81].map((n) => many('€', n))).toEqual([1, 2])
    // An escape pair is not split: 152 plain letters and one pair fill 154 places, so the pair goes on.
    expect(segmentsOf(`${'a'.repeat(152)}€${'a'.repeat(151)}`)).toMatchObject({ segments: 2, left: 0 })
    expect(segmentsOf(`${'a'.repeat(152)}€${'a'.repeat(152)}`).segments).toBe(3)
    // Nor a surrogate pair: 67 places hold 33 of them.
    expect([35, 36, 66, 67].map((n) => many('🙂', n))).toEqual([1, 2, 2, 3])
  })

  it('are as a plain packing, character by character, has them', () => {
    const letters = fc.array(fc.constantFrom('a', '€', '[', 'é', 'ع', '🙂', '\n'), { maxLength: 400 })
    fc.assert(
      fc.property(letters, (list) => {
        const plain = list.every((one) => one !== 'ع' && one !== '🙂')
        const size = (one: string): number => (plain ? (EXTENSION.includes(one) ? 2 : 1) : one.length)
        const units = list.reduce((sum, one) => sum + size(one), 0)
        const packs: number[] = []
        for (const one of list) {
          const last = packs.length - 1
          if (last >= 0 && packs[last]! + size(one) <= (plain ? 153 : 67)) packs[last]! += size(one)
          else packs.push(size(one))
        }
        const alone = units <= (plain ? 160 : 70)
        expect(segmentsOf(list.join(''))).toMatchObject({
          units,
          segments: units === 0 ? 0 : alone ? 1 : packs.length,
        })
      }),
    )
  })
})
