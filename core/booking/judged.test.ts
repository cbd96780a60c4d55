import { describe, expect, it } from 'vitest'
import type { Practice } from '../practice/index.ts'
import { forRelay, newcomer, type Questionnaire, readAnswers } from '../questions/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { type Booking, begin } from './index.ts'
import { deskReading, judged, nearestFor, questionsAsked } from './judged.ts'

const questionnaire: Questionnaire = {
  id: 'q',
  name: 'Q',
  version: 2,
  questions: [
    {
      id: 'price',
      kind: 'one',
      text: 'Price?',
      required: true,
      choices: [
        { id: 'ok', text: 'Ok' },
        { id: 'no', text: 'No' },
      ],
    },
    { id: 'ill', kind: 'yesno', text: 'Ill?', required: false, private: true },
    {
      id: 'mood',
      kind: 'one',
      text: 'Mood?',
      required: false,
      private: true,
      choices: [{ id: 'low', text: 'Low', points: 6 }],
    },
  ],
  rules: [
    {
      id: 'no',
      name: 'Too dear',
      when: { question: 'price', is: '=', value: 'no' },
      effect: { do: 'look', note: '' },
    },
    {
      id: 'ill',
      name: 'Ill',
      when: { question: 'ill', is: '=', value: true },
      effect: { do: 'look', note: 'Ask.' },
    },
    {
      id: 'tag',
      name: 'Tag',
      when: { question: 'ill', is: '=', value: true },
      effect: { do: 'tag', tag: 'careful' },
    },
  ],
  bands: [{ from: 5, outcome: 'look', name: 'low' }],
  past: [{ version: 1, questions: [{ id: 'old', kind: 'short', text: 'Old?', required: false }] }],
}
const service = sampleService({ questionnaire: 'q' })
const practice: Practice = samplePractice({ questionnaires: [questionnaire], services: [service] })

/** A booking as the relay has read it: without the rules on private answers. */
function booking(answers: Booking['asked']['answers'], version = 2): Booking {
  const reading = readAnswers(service, forRelay(questionnaire), answers, newcomer)
  return begin('b', { ...sampleAsked(), service: 's', answers, reading, questionnaire: { id: 'q', version } })
}

describe('what the desk makes of a request', () => {
  it('adds what follows from private answers to what the relay said, and nothing twice', () => {
    const both = booking({ price: 'no', ill: true })
    expect(both.asked.reading.reasons.map((reason) => reason.name)).toEqual(['Too dear'])
    expect(deskReading(practice, both)).toMatchObject({ outcome: 'look', tags: ['careful'] })
    expect(deskReading(practice, both).reasons.map((reason) => reason.name)).toEqual(['Too dear', 'Ill'])
    expect(judged(practice, booking({ price: 'ok' }))).toBe('fits')
    expect(judged(practice, booking({ price: 'ok', ill: true }))).toBe('look')
  })

  it('counts the points of private answers', () => {
    const low = deskReading(practice, booking({ price: 'ok', mood: 'low' }))
    expect([low.outcome, low.points, low.reasons.map((reason) => reason.name)]).toEqual([
      'look',
      6,
      ['6 points: low'],
    ])
  })

  it('tells once that it is worth more than goes through alone', () => {
    const dear = { ...questionnaire, lookAbove: 0 }
    const priced = sampleService({ questionnaire: 'q', price: { kind: 'fixed', amount: 500 } })
    const answers = { price: 'ok', ill: true }
    const reading = readAnswers(priced, forRelay(dear), answers, newcomer)
    const asked = { ...sampleAsked(), service: 's', answers, reading, questionnaire: { id: 'q', version: 2 } }
    const of = samplePractice({ questionnaires: [dear], services: [priced] })
    expect(deskReading(of, begin('b', asked)).reasons.map((reason) => reason.name)).toEqual([
      'Ill',
      'The price is higher than you book without looking',
    ])
  })

  it('keeps to the practitioner’s own judgement', () => {
    const own = {
      ...booking({ price: 'no' }),
      overruled: { at: 0 as never, outcome: 'fits' as const, text: 'I know them.' },
    }
    expect(judged(practice, own)).toBe('fits')
  })

  it('shows the questions of the version that was answered', () => {
    expect(questionsAsked(practice, booking({}, 1)).map((question) => question.id)).toEqual(['old'])
    expect(questionsAsked(practice, booking({}, 2)).map((question) => question.id)).toEqual([
      'price',
      'ill',
      'mood',
    ])
  })

  it('tells the nearest change by the version in force, and no other', () => {
    expect(nearestFor(practice, booking({ price: 'no' }))).toEqual([
      { question: 'price', from: 'no', to: 'ok' },
    ])
    expect(nearestFor(practice, booking({ price: 'no' }, 1))).toBeUndefined()
  })
})
