import { describe, expect, it } from 'vitest'
import { parseBlocks } from './parse-blocks.ts'

describe('hours as they are typed', () => {
  const read = (text: string) => parseBlocks(text, []).map((block) => `${block.from}-${block.to}`)

  it('are read in many hands', () => {
    expect(read('9-13, 14:00 – 18:30')).toEqual(['09:00-13:00', '14:00-18:30'])
    expect(read('14h30 to 24:00; 8.15-9')).toEqual(['08:15-09:00', '14:30-24:00'])
    expect(read('  ')).toEqual([])
  })

  it('say what is not a stretch', () => {
    expect(() => read('9-13, mornings')).toThrow('“mornings” is not a stretch of hours')
    expect(() => read('9-25')).toThrow('is not a time of day')
  })

  it('keep what was reserved while a block begins where it did', () => {
    const kept = [{ from: '09:00', to: '10:00', reservedFor: { known: true } }] as never
    expect(parseBlocks('9-12', kept)[0]?.reservedFor).toEqual({ known: true })
    expect(parseBlocks('10-12', kept)[0]?.reservedFor).toBeUndefined()
  })
})
