import { date, parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { expect, it } from 'vitest'
import { findables, found } from './findable.ts'

const { practice } = demoBackup(parseInstant('2026-11-24T11:00Z'))
const all = findables(practice, date('2026-11-24'))
const hits = (typed: string, most = 12) => found(all, typed, most).map(({ name, to }) => `${name} ${to}`)

it('finds pages, services, settings and doings by the beginnings of their words, in any order', () => {
  expect(hits('hours')[0]).toBe('Hours /hours')
  expect(hits('assess voi')[0]).toBe('Voice assessment /services/voice-assessment')
  expect(hits('holid')).toContain('Time away, vacation, public holidays /hours')
  expect(hits('backup')[0]).toMatch(/\/desk$/)
  expect(hits('length voice').some((hit) => hit.endsWith('/services/voice-assessment?set=minutes'))).toBe(
    true,
  )
})

it('puts what is called so before what only belongs to it, and no more than asked for', () => {
  const names = found(all, 'voice', 50).map(({ name }) => /voice/i.test(name))
  expect(names.lastIndexOf(true)).toBeLessThan(names.includes(false) ? names.indexOf(false) : names.length)
  expect(hits('voice', 3)).toHaveLength(3)
})

it('finds nothing for nothing, and for words that nothing has', () => {
  expect(hits('  ')).toEqual([])
  expect(hits('zzz')).toEqual([])
})

it('leads to every service whatever its name', () => {
  for (const { id, name } of practice.services) expect(hits(name, 50)).toContain(`${name} /services/${id}`)
})
