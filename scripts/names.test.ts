import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { namesWithTwoHomes } from './names.ts'
import { readPlan } from './walls.ts'

describe('exported names', () => {
  it('have one home each', () => {
    expect(namesWithTwoHomes(readPlan(dirname(dirname(fileURLToPath(import.meta.url)))))).toEqual([])
  })

  it('are found out when they have two, tests aside', () => {
    const text = new Map([
      ['core/a.ts', 'export const same = 1\nexport function other(): void {}\n'],
      ['web/b.tsx', 'export interface same {}\n'],
      ['web/b.test.tsx', 'export const other = 1\n'],
    ])
    expect(namesWithTwoHomes({ text })).toEqual([['same', ['core/a.ts', 'web/b.tsx']]])
  })
})
