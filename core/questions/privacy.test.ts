import { describe, expect, it } from 'vitest'
import { checkPractice } from '../practice/index.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { type Wrong, wrongWords } from '../words/index.ts'
import {
  draftFaults,
  forRelay,
  holds,
  newcomer,
  openAnswers,
  problemWith,
  type Questionnaire,
  type Rule,
  readAnswers,
  readsPrivately,
  withoutPoints,
} from './index.ts'

const said = (wrong: Wrong | undefined): string | undefined => wrong && wrongWords(wrong)

const look = (id: string, question: string): Rule => ({
  id,
  name: id,
  when: { question, is: '=', value: true },
  effect: { do: 'look', note: '' },
})
const questionnaire: Questionnaire = {
  id: 'q',
  name: 'Before',
  version: 3,
  questions: [
    { id: 'open', kind: 'yesno', text: 'Open?', required: true },
    { id: 'ill', kind: 'yesno', text: 'Ill?', required: true, private: true },
    {
      id: 'mood',
      kind: 'one',
      text: 'Mood?',
      required: false,
      private: true,
      choices: [
        { id: 'good', text: 'Good', points: 0 },
        { id: 'bad', text: 'Bad', points: 5 },
      ],
    },
  ],
  rules: [look('on-open', 'open'), look('on-ill', 'ill')],
  bands: [{ from: 4, outcome: 'look' }],
  draft: { questions: [], rules: [], bands: [] },
  past: [{ version: 2, questions: [] }],
}

describe('private answers', () => {
  it('are decided on at the desk alone: the relay gets neither their rules nor their points', () => {
    const told = forRelay(questionnaire)
    expect(told.rules.map((rule) => rule.id)).toEqual(['on-open'])
    expect(JSON.stringify(told)).not.toMatch(/points|on-ill|draft|past/)
    expect(readsPrivately(questionnaire)).toBe(true)
    expect(readsPrivately(told)).toBe(false)
    const answers = { open: false, ill: true, mood: 'bad' }
    expect(readAnswers(sampleService(), told, answers, newcomer).outcome).toBe('fits')
    expect(readAnswers(sampleService(), questionnaire, answers, newcomer)).toMatchObject({
      outcome: 'look',
      points: 5,
    })
  })

  it('are left out where others read', () => {
    expect(openAnswers(questionnaire.questions, { open: true, ill: true, gone: 1 })).toEqual({
      open: true,
      gone: 1,
    })
  })

  it('let nothing a client could notice depend on them', () => {
    const faults = draftFaults({
      questions: [
        ...questionnaire.questions,
        {
          id: 'then',
          kind: 'short',
          text: 'Then?',
          required: false,
          when: { question: 'ill', is: '=', value: true },
        },
        { id: 'count', kind: 'number', text: 'How many?', required: false, private: true },
      ],
      rules: [
        { ...look('closes', 'ill'), effect: { do: 'close', message: 'No.', services: [], enquiry: true } },
        { ...look('tags', 'ill'), effect: { do: 'tag', tag: 'careful' } },
        { ...look('longer', 'open'), effect: { do: 'minutes', minutes: 5, times: 'count' } },
      ],
      bands: [{ from: 3, outcome: 'closed' }],
    })
    expect(faults.map((fault) => fault.question ?? fault.rule ?? 'whole')).toEqual([
      'then',
      'closes',
      'longer',
      'whole',
    ])
    expect(faults[1]!.message).toBe(
      'A rule on a private answer can say look, points or tag only: clients would notice the rest.',
    )
  })

  it('are no files, which wait at the relay as they are', () => {
    const file = { id: 'f', kind: 'file', text: 'F?', required: false, private: true } as const
    expect(
      draftFaults({ questions: [{ ...file, accepts: ['pdf'], mostBytes: 2_000 }], rules: [], bands: [] }),
    ).toEqual([{ question: 'f', message: 'A file can’t be private: it waits at the relay as it is.' }])
  })

  it('count as answered while they are sealed, and as nothing else', () => {
    const sealed = { sealed: 'aGVhZA..aXY.dGV4dA.dGFn' }
    const ill = questionnaire.questions[1]!
    expect(problemWith(ill, sealed)).toBeUndefined()
    expect(said(problemWith(questionnaire.questions[0]!, sealed))).toBe('Please answer this one once more.')
    for (const is of ['=', '≠', '<', 'includes'] as const)
      expect(holds({ question: 'ill', is, value: true }, { ill: sealed }, newcomer)).toBe(false)
    expect(holds({ question: 'ill', is: 'answered' }, { ill: sealed }, newcomer)).toBe(true)
    expect(readAnswers(sampleService(), questionnaire, { open: false, ill: sealed }, newcomer).outcome).toBe(
      'fits',
    )
  })

  it('keep a service from being booked straight in', () => {
    const at = (approval: 'straight' | 'ask') =>
      checkPractice(
        samplePractice({
          questionnaires: [questionnaire],
          services: [sampleService({ questionnaire: 'q', approval: { new: 'ask', known: approval } })],
        }),
      ).filter((fault) => fault.grade === 'error')
    expect(at('ask')).toEqual([])
    expect(at('straight')).toEqual([
      {
        path: 'services[0].approval.known',
        message: '“Before” reads private answers, which only you can see: nobody can be booked straight in.',
        grade: 'error',
      },
    ])
  })

  it('have no points where a client could read them', () => {
    expect(JSON.stringify(questionnaire.questions.map(withoutPoints))).not.toContain('points')
  })
})
