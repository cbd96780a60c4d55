import { describe, expect, it } from 'vitest'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { date, time } from '../time/index.ts'
import { missingFor, type Practice } from './index.ts'

const today = date('2026-11-24')
const block = [{ from: time('09:00'), to: time('10:00') }]
const noWeek = [[], [], [], [], [], [], []] as unknown as Practice['hours']['weekly']
const whole = samplePractice({ services: [sampleService({ terms: ['t'] })] } as Partial<Practice>)
const practice = { ...whole, profile: { ...whole.profile, headline: 'Talks' } }
const missing = (more: Partial<Practice>) => missingFor({ ...practice, ...more }, today)

describe('what a door still needs', () => {
  it('is nothing where all is there', () => {
    expect(missing({})).toEqual([])
  })

  it('is a line, hours and a service, in the order in which one sets them up', () => {
    const hours = { weekly: noWeek, changedDays: [] }
    expect(missing({ profile: { ...practice.profile, headline: ' ' }, hours, services: [] })).toEqual([
      { what: 'headline' },
      { what: 'hours' },
      { what: 'service' },
    ])
  })

  it('counts hours of a single day or place, and not a changed day without any', () => {
    const days = (blocks: typeof block) => ({ weekly: noWeek, changedDays: [{ date: today, blocks }] })
    expect(missing({ hours: days(block) })).toEqual([])
    expect(missing({ hours: days([]) })).toEqual([{ what: 'hours' }])
    const places = practice.places.map((place) => ({ ...place, hours: days(block) }))
    expect(missing({ hours: days([]), places })).toEqual([])
  })

  it('looks at services that are offered today alone, each with its terms', () => {
    const bare = sampleService({ id: 'bare', terms: [] })
    expect(missing({ services: [bare] })).toEqual([{ what: 'terms', service: 'bare' }])
    expect(missing({ services: [{ ...bare, on: false }] })).toEqual([{ what: 'service' }])
  })
})
