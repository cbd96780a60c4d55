import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkPractice } from '../practice/check.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { gad7 } from './beginnings/gad7.ts'
import { BEGINNINGS } from './beginnings/index.ts'
import { newcomer, type Question, type Questionnaire, readAnswers } from './index.ts'
import { checkPaths } from './paths.ts'
import { draftFaults } from './versions.ts'

const service = sampleService()

/** So many questions with so many choices worth 0, 1, 2 …, and bands at the published cut points. */
function instrument(questions: number, choices: number, cuts: [number, string][], factor = 1): Questionnaire {
  return {
    id: 'i',
    name: 'I',
    version: 1,
    questions: Array.from(
      { length: questions },
      (_, i): Question => ({
        id: `q${i}`,
        kind: 'one',
        text: `Q${i}`,
        required: true,
        choices: Array.from({ length: choices }, (_, n) => ({
          id: `c${n}`,
          text: `C${n}`,
          points: n * factor,
        })),
      }),
    ),
    rules: [],
    bands: cuts.map(([from, name]) => ({ from, outcome: 'look', name })),
  }
}

/** Answers whose choices are these. */
const answersOf = (questionnaire: Questionnaire, chosen: readonly number[]) =>
  Object.fromEntries(
    questionnaire.questions
      .filter((question) => question.kind === 'one')
      .map((question, i) => [question.id, 'choices' in question ? question.choices[chosen[i]!]!.id : '']),
  )

const severity = (questionnaire: Questionnaire, points: number[]): string | undefined =>
  readAnswers(service, questionnaire, answersOf(questionnaire, points), newcomer).reasons[0]?.name.split(
    ': ',
  )[1]

/** Choices that come to a sum, each at most `most`. */
const sumTo = (sum: number, count: number, most: number): number[] =>
  Array.from({ length: count }, (_, i) => Math.max(0, Math.min(most, sum - i * most)))

describe('published instruments, by their ranges and cut points (from memory)', () => {
  it('GAD-7 runs from 0 to 21, with 5, 10 and 15 (Spitzer et al. 2006)', () => {
    const { bands } = gad7
    expect(bands.map((band) => band.from)).toEqual([0, 5, 10, 15])
    const read = (sum: number) => readAnswers(service, gad7, answersOf(gad7, sumTo(sum, 7, 3)), newcomer)
    expect(read(21).points).toBe(21)
    expect([4, 5, 9, 10, 14, 15, 21].map((sum) => read(sum).outcome)).toEqual([
      'fits',
      'fits',
      'fits',
      'look',
      'look',
      'look',
      'look',
    ])
    expect(read(12).reasons.map((reason) => reason.name)).toEqual(['12 points: moderate'])
    expect(read(15).reasons.map((reason) => reason.name)).toEqual(['15 points: severe'])
  })

  it('PHQ-9 runs from 0 to 27, with 5, 10, 15 and 20 (Kroenke et al. 2001)', () => {
    const phq9 = instrument(9, 4, [
      [5, 'mild'],
      [10, 'moderate'],
      [15, 'moderately severe'],
      [20, 'severe'],
    ])
    const at = (sum: number) => severity(phq9, sumTo(sum, 9, 3))
    expect([0, 4, 5, 9, 10, 14, 15, 19, 20, 27].map(at)).toEqual([
      undefined,
      undefined,
      'mild',
      'mild',
      'moderate',
      'moderate',
      'moderately severe',
      'moderately severe',
      'severe',
      'severe',
    ])
  })

  it('WHO-5 is the sum of five answers of 0 to 5, times 4, from 0 to 100 (Topp et al. 2015)', () => {
    const who5 = instrument(5, 6, [[51, 'above the cut point of 50']], 4)
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 5, maxLength: 5 }), (chosen) => {
        const sum = chosen.reduce((a, b) => a + b, 0)
        const { points, outcome } = readAnswers(service, who5, answersOf(who5, chosen), newcomer)
        expect(points).toBe(sum * 4)
        expect(outcome).toBe(sum * 4 > 50 ? 'look' : 'fits')
      }),
    )
  })
})

describe('questionnaires to begin with', () => {
  it.each(BEGINNINGS.map((beginning) => [beginning.questionnaire.name, beginning.questionnaire] as const))(
    '%s is whole, and no way through it is broken',
    (_, questionnaire) => {
      expect(draftFaults(questionnaire)).toEqual([])
      const check = checkPaths(questionnaire, service)!
      expect(check.proven).toBe(true)
      expect(check.findings.filter((finding) => finding.grade === 'error')).toEqual([])
      const practice = samplePractice({
        questionnaires: [questionnaire],
        services: [
          sampleService({ questionnaire: questionnaire.id, approval: { new: 'ask', known: 'ask' } }),
        ],
      })
      expect(checkPractice(practice).filter((fault) => fault.grade === 'error')).toEqual([])
    },
  )
})
