import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { ADDED } from './added.ts'

describe('what is tried to be added', () => {
  it.each(ADDED)('%s has one place, in %s', (_, path, before) => {
    const source = readFileSync(fileURLToPath(new URL(`../${path}`, import.meta.url)), 'utf8')
    expect(source.split(before)).toHaveLength(2)
  })
})
