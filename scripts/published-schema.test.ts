import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { writePracticeFile } from '@acolhida/core/formats'
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

  it('refuses what the program refuses', () => {
    const practice = samplePractice()
    expect(valid(file(practice))).toBe(true)
    expect(valid(file({ ...practice, space: 'huge' }))).toBe(false)
    expect(valid(file({ ...practice, extra: 1 }))).toBe(false)
    expect(valid({ ...file(practice), version: 2 })).toBe(false)
  })
})
