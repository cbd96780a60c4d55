import type { Booking } from '@acolhida/core/booking'
import type { Practice } from '@acolhida/core/practice'
import { duration, HOUR, shift } from '@acolhida/core/time'
import { expect, it } from 'vitest'
import { sampleAsked } from '../../../core/tests/asked.ts'
import { fresh } from '../../../core/tests/deciding.ts'
import { samplePractice } from '../../../core/tests/sample.ts'
import { ifMissedWords } from './if-missed-words.ts'

const lead = { points: 2, within: duration('P6M'), to: 'ask', lasts: duration('P6M') } as const
const base = samplePractice()
const practice: Practice = {
  ...base,
  houseRules: { ...base.houseRules, cancelAfter: 100, counting: { missed: 1, late: 1, leads: [lead] } },
}
const asked = sampleAsked({ houseRules: practice.houseRules })
const booking: Booking = { ...fresh, asked, status: 'booked', price: 9_500 }
const now = shift(booking.start, HOUR)
const before = { booking: 'other', at: shift(booking.start, -24 * HOUR), points: 1 }

it('says what is owed, what it counts and what that leads to, before it is said', () => {
  expect(ifMissedWords(practice, booking, { counted: [], exempt: false }, now)).toBe(
    '€95.00 would be due. It counts 1 point.',
  )
  expect(ifMissedWords(practice, booking, { counted: [before], exempt: false }, now)).toMatch(
    /^€95\.00 would be due\. It counts 1 point\. You look at every request of theirs first until /,
  )
  expect(ifMissedWords(practice, booking, { counted: [before], exempt: true }, now)).toBe(
    '€95.00 would be due.',
  )
  expect(ifMissedWords(base, { ...booking, price: 0, asked: sampleAsked() }, undefined, now)).toBe('')
})
