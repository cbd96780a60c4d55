import { resolve } from 'node:path'
import { away, desk, door } from '@acolhida/core/contract'
import { schemas } from '@acolhida/core/contract/schemas'
import { describe, expect, it } from 'vitest'
import { documentOf, MADE, statesTable, withPart } from './documents.ts'
import { isTest, readPlan } from './walls.ts'

describe('the documents', () => {
  it.each(MADE)('%s says what the code says: %s', (file, name, part) => {
    const text = documentOf(file)
    expect(text, 'npm run documents').toBe(withPart(text, name, part()))
  })

  it('tell of every command in every state', () => {
    const rows = statesTable().split('\n').slice(2)
    expect(rows).toHaveLength(40)
    for (const row of rows)
      expect(
        row
          .split('|')
          .slice(2, -1)
          .every((cell) => cell.trim() !== ''),
      ).toBe(true)
    const of = (name: string) => rows.find((row) => row.startsWith(`| ${name} `))!
    expect(of('prove')).toContain('| proved | ')
    // What has ended is never begun again.
    for (const name of ['welcome', 'offer', 'accept', 'move']) {
      const cells = of(name).split('|').slice(2, -1)
      expect(cells.slice(5).every((cell) => cell.includes('*'))).toBe(true)
    }
  })

  it('and a body where one is taken, in a schema of its own', () => {
    const taking = Object.entries({ ...door, ...away, ...desk }).flatMap(([name, { largest }]) =>
      largest > 0 ? [name] : [],
    )
    expect(Object.keys(schemas).sort()).toEqual(taking.sort())
  })

  it('and name every code that anything is refused with', () => {
    const { text } = readPlan(resolve(import.meta.dirname, '..'))
    const code = [...text].filter(([path]) => /^(core|relay)\//.test(path) && !isTest(path))
    const thrown = code.flatMap(([, source]) =>
      [...source.matchAll(/new Refused\(\s*\d+,\s*'([a-z-]+)'/g)].map(([, name]) => name),
    )
    expect(new Set(thrown).size).toBeGreaterThan(30)
    const told = documentOf('relay.md')
    expect([...new Set(thrown)].filter((name) => !told.includes(`\`${name}\``))).toEqual([])
  })
})
