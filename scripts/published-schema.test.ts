import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { writePracticeFile } from '@acolhida/core/formats'
import { BadData, letIn, practiceFile } from '@acolhida/core/schemas'
import { parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { describe, expect, it } from 'vitest'
import { samplePractice } from '../core/tests/sample.ts'
import { publishedSchema } from './published-schema.ts'

const text = readFileSync(resolve(import.meta.dirname, '..', 'docs', 'practice.schema.json'), 'utf8')
const file = (practice: object) => ({
  format: 'acolhida-practice',
  version: 1,
  practice,
  sessions: [],
  people: [],
})

type Bag = Record<string, unknown>

/** Every place in a value. */
function pathsIn(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [path]
  const inside = Object.entries(value).flatMap(([key, inner]) => pathsIn(inner, [...path, key]))
  return path.length > 0 ? [path, ...inside] : inside
}

const put = (value: unknown) => (parent: Bag, key: string) => {
  parent[key] = value
}
/** One change of so many is tried at a place, another at the next; `npm run soak` tries all of them. */
const EVERY = process.env.EVERY_CHANGE ? 1 : 4

/** What can be done to a place. */
const CHANGES: Record<string, (parent: Bag, key: string) => void> = {
  missing: (parent, key) => {
    if (Array.isArray(parent)) parent.splice(Number(key), 1)
    else delete parent[key]
  },
  nothing: put(null),
  words: put('some words'),
  blank: put(''),
  negative: put(-5),
  fraction: put(1.5),
  huge: put(1e15),
  object: put({}),
  list: put([]),
  yes: put(true),
  more: (parent, key) => {
    const there = parent[key]
    if (typeof there === 'object' && there !== null && !Array.isArray(there))
      Object.assign(there, { more: 1 })
  },
  twice: (parent, key) => {
    if (Array.isArray(parent)) parent.push(structuredClone(parent[Number(key)]))
  },
  'no such day': (parent, key) => {
    if (/^\d{4}-\d\d-\d\d$/.test(String(parent[key]))) parent[key] = '2026-04-31'
  },
  'no such time': (parent, key) => {
    if (/^\d\d:\d\d$/.test(String(parent[key]))) parent[key] = '25:61'
  },
  'no such length': (parent, key) => {
    if (/^P.*\d/.test(String(parent[key]))) parent[key] = 'P1H'
  },
  'no such currency': (parent, key) => {
    if (key === 'currency') parent[key] = 'ABC'
  },
}

const letsIn = (value: unknown): boolean => {
  try {
    letIn(practiceFile, value, 'It')
    return true
  } catch (error) {
    if (error instanceof BadData) return false
    throw error
  }
}

describe('the published schema', () => {
  const valid = new Ajv2020({ strict: false }).compile(JSON.parse(text))

  it('is the one the program uses', () => {
    expect(text).toBe(publishedSchema())
  })

  it('lets in what the program writes', () => {
    const { practice, people } = demoBackup(parseInstant('2026-11-24T11:00Z'))
    const written = writePracticeFile({
      format: 'acolhida-practice',
      version: 1,
      practice,
      people,
      sessions: [],
    })
    expect(valid(JSON.parse(written)), JSON.stringify(valid.errors)).toBe(true)
  })

  it('judges as the program does whatever is changed in a file, but for ids that are there twice', () => {
    const { practice, people } = demoBackup(parseInstant('2026-11-24T11:00Z'))
    const whole: unknown = JSON.parse(JSON.stringify({ ...file(practice), people }))
    const otherwise: string[] = []
    let tried = 0
    for (const [place, path] of pathsIn(whole).entries()) {
      for (const [nth, [name, change]] of Object.entries(CHANGES).entries()) {
        if ((place + nth) % EVERY !== 0) continue
        const changed = structuredClone(whole)
        const parent = path.slice(0, -1).reduce((at, key) => (at as Bag)[key], changed) as Bag
        change(parent, path.at(-1)!)
        tried++
        const program = letsIn(changed)
        if (program !== valid(changed))
          otherwise.push(`${name} ${path.join('.')}: ${program ? 'too strict' : 'too lax'}`)
      }
    }
    expect(tried).toBeGreaterThan(9_000 / EVERY)
    expect(otherwise).toEqual([])
  }, 300_000)

  it('refuses what the program refuses', () => {
    const practice = samplePractice()
    expect(valid(file(practice))).toBe(true)
    expect(valid(file({ ...practice, space: 'huge' }))).toBe(false)
    expect(valid(file({ ...practice, extra: 1 }))).toBe(false)
    expect(valid({ ...file(practice), version: 2 })).toBe(false)
  })
})
