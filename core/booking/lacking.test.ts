import { describe, expect, it } from 'vitest'
import type { Practice } from '../practice/types.ts'
import type { Again, Agreement, TermsVersion } from '../terms/types.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { DAY, HOUR, shift } from '../time/index.ts'
import { afterEvents, agreedTo, agreementsIn, type Booking, begin, lackingIn, mustAgree } from './index.ts'

const version = (number: number, again?: Again): TermsVersion => ({
  number,
  title: 'T',
  text: 'x',
  ...(again ? { again } : {}),
})
const practiceWith = (...versions: TermsVersion[]): Practice => ({
  ...samplePractice(),
  services: [{ ...sampleService(), terms: ['t'] }],
  terms: [
    { id: 't', versions },
    { id: 'waiver', separate: true, versions: [version(1)] },
  ],
})
const agreement = (number: number, terms = 't'): Agreement => ({
  ...{ terms, version: number, fingerprint: '', shown: '', name: 'N', service: 's', previous: '' },
  at: sampleAsked().at,
})
const { start, at } = sampleAsked()
const booked = (proof: 'hand' | 'link', ...agreements: Agreement[]): Booking =>
  afterEvents(begin('b', sampleAsked({ proof, agreements })), [
    { type: 'welcomed', at, by: 'rules', settles: at },
  ])
const now = shift(at, HOUR)
const lacks = (practice: Practice, booking: Booking, known = {}, when = now): string[] =>
  lackingIn(practice, booking, known, when).map(({ id }) => id)

describe('what is still to be agreed to', () => {
  it('is everything for whoever was booked in by hand, unless they agreed before', () => {
    const practice = practiceWith(version(1), version(2))
    expect(lacks(practice, booked('hand'))).toEqual(['t'])
    expect(lacks(practice, booked('hand'), { t: 2 })).toEqual([])
    expect(lacks(practice, booked('hand'), { t: 1 })).toEqual(['t'])
    expect(lacks(practiceWith(version(1), version(2, 'newcomers')), booked('hand'), { t: 1 })).toEqual([])
    expect(lacks(practiceWith(version(1), version(2, 'newcomers')), booked('hand'))).toEqual(['t'])
  })

  it('is a new version for what is booked only where that was asked for', () => {
    const one = booked('link', agreement(1))
    expect(lacks(practiceWith(version(1), version(2)), one)).toEqual([])
    expect(lacks(practiceWith(version(1), version(2, 'newcomers')), one)).toEqual([])
    const before = practiceWith(version(1), version(2, 'before'))
    expect(lacks(before, one)).toEqual(['t'])
    expect(lacks(before, booked('link', agreement(2)))).toEqual([])
    expect(lacks(before, one, { t: 2 })).toEqual(['t'])
    // Whoever came before there were terms is asked, too, and nobody once it is over.
    expect(lacks(before, booked('link'))).toEqual(['t'])
    expect(lacks(before, one, {}, shift(start, DAY))).toEqual([])
    const agreed = afterEvents(one, [{ type: 'agreed', at: now, agreements: [agreement(2)] }])
    expect(lacks(before, agreed)).toEqual([])
    expect(agreedTo(agreementsIn(agreed))).toEqual({ t: 2 })
  })

  it('is what somebody was asked to sign by itself, once', () => {
    const practice = practiceWith(version(1))
    const asked = afterEvents(booked('link', agreement(1)), [
      { type: 'asked-to-sign', at: now, terms: ['waiver'], settles: now },
    ])
    expect(lacks(practice, asked)).toEqual(['waiver'])
    const signed = afterEvents(asked, [{ type: 'agreed', at: now, agreements: [agreement(1, 'waiver')] }])
    expect(lacks(practice, signed)).toEqual([])
  })

  it('at the door is not asked of those who have agreed to one before, where only newcomers must', () => {
    const wanted = [{ id: 't', version: version(2, 'newcomers') }]
    expect(mustAgree(wanted, {})).toEqual(wanted)
    expect(mustAgree(wanted, { t: 1 })).toEqual([])
    expect(mustAgree([{ id: 't', version: version(2) }], { t: 2 })).toHaveLength(1)
  })
})
