import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyWay, questionnaireArb } from '../tests/questionnaires.ts'
import { sampleService } from '../tests/sample.ts'
import { type Wrong, wrongWords } from '../words/index.ts'
import { compiled, valuesOf } from './compiled.ts'
import {
  type Answers,
  answerWords,
  asked,
  type Condition,
  holds,
  newcomer,
  plainly,
  problemsIn,
  problemWith,
  type Question,
  type Questionnaire,
  questionsIn,
  type Rule,
  readAnswers,
} from './index.ts'

const said = (wrong: Wrong | undefined): string | undefined => wrong && wrongWords(wrong)

const is = (
  question: string,
  op: '=' | '≠' | '<' | '≥' | 'includes',
  value: string | number | boolean,
): Condition => ({
  question,
  is: op,
  value,
})
const sheet = (rules: Rule[], more: Partial<Questionnaire> = {}): Questionnaire => ({
  id: 'q',
  name: 'Q',
  version: 1,
  questions: [],
  rules,
  bands: [],
  ...more,
})
const number = (id: string): Question => ({ id, kind: 'number', text: id, required: false })

describe('conditions', () => {
  // HL7 FHIR R4 Questionnaire, enableWhen: without an answer no comparison holds; `exists` asks for that.
  it('takes every comparison with a missing answer as false', () => {
    for (const op of ['=', '≠', '<', '≥', 'includes'] as const)
      expect(holds(is('a', op, 1), {}, newcomer)).toBe(false)
    expect(holds({ not: { question: 'a', is: 'answered' } }, {}, newcomer)).toBe(true)
  })

  it('looks at the person and at earlier attempts', () => {
    const asking = { standing: 'known' as const, invited: true, tags: ['speaker'], attempts: 2 }
    expect(
      holds(
        { all: [{ person: 'known' }, { person: 'invited' }, { tag: 'speaker' }, { attempts: 2 }] },
        {},
        asking,
      ),
    ).toBe(true)
    expect(holds({ any: [{ person: 'new' }, { tag: 'singer' }, { attempts: 3 }] }, {}, asking)).toBe(false)
  })

  it('follows the laws of logic', () => {
    const leaf = fc.oneof(
      fc.record({
        question: fc.constantFrom('a', 'b'),
        is: fc.constantFrom('=' as const, '<' as const, '≥' as const),
        value: fc.integer({ min: 0, max: 3 }),
      }),
      fc.record({ question: fc.constantFrom('a', 'b'), is: fc.constant('answered' as const) }),
    )
    const answers = fc.dictionary(fc.constantFrom('a', 'b'), fc.integer({ min: 0, max: 3 }))
    fc.assert(
      fc.property(fc.array(leaf, { maxLength: 4 }), answers, (conditions, given) => {
        const all = conditions as Condition[]
        const negated = all.map((condition): Condition => ({ not: condition }))
        expect(holds({ not: { all } }, given, newcomer)).toBe(holds({ any: negated }, given, newcomer))
        expect(holds({ all }, given, newcomer)).toBe(
          all.every((condition) => holds(condition, given, newcomer)),
        )
      }),
    )
  })

  it('names the questions it looks at', () => {
    expect(
      questionsIn({ all: [is('a', '=', 1), { not: { any: [is('b', '<', 2), { person: 'new' }] } }] }),
    ).toEqual(['a', 'b'])
  })
})

describe('what is asked', () => {
  const questions: Question[] = [
    { id: 'a', kind: 'yesno', text: 'A', required: true },
    { id: 'b', kind: 'short', text: 'B', required: true, when: is('a', '=', true) },
    { id: 'c', kind: 'short', text: 'C', required: true, when: { question: 'b', is: 'answered' } },
  ]

  it('drops answers to what is no longer asked, and what hangs on them', () => {
    const given: Answers = { a: false, b: 'x', c: 'y' }
    expect(asked(questions, given, newcomer).answers).toEqual({ a: false })
    expect(asked(questions, { ...given, a: true }, newcomer).questions).toHaveLength(3)
  })

  it('takes blank text as no answer', () => {
    expect(problemsIn(questions, { a: true, b: '   ' }, newcomer)).toEqual([
      { question: 'b', code: 'answer-this', message: 'Please answer this one.' },
    ])
  })
})

describe('answers', () => {
  const base = { id: 'q', text: 'Q', required: true }
  const choices = [
    { id: 'x', text: 'Ex' },
    { id: 'y', text: 'Why' },
  ]
  const cases: [Question, Answers[string], string | undefined][] = [
    [
      { ...base, kind: 'long', leastWords: 3 },
      'two words',
      'A little more, please: at least 3 words (2 so far).',
    ],
    [
      { ...base, kind: 'long', mostWords: 2 },
      'one two three',
      'A little shorter, please: at most 2 words (3 now).',
    ],
    [{ ...base, kind: 'long' }, 'I <b>shout</b> all day', 'Please write in plain words, without HTML.'],
    [{ ...base, kind: 'short' }, '<!-- x', 'Please write in plain words, without HTML.'],
    [{ ...base, kind: 'short' }, 'less < more > less', undefined],
    [{ ...base, kind: 'one', choices }, 'z', 'Please choose one of these.'],
    [{ ...base, kind: 'one', choices }, 'x', undefined],
    [{ ...base, kind: 'several', choices, least: 2 }, ['x'], 'Please choose at least 2.'],
    [{ ...base, kind: 'several', choices }, ['x', 'x'], 'Please choose among these.'],
    [{ ...base, kind: 'yesno' }, 'yes', 'Please answer yes or no.'],
    [{ ...base, kind: 'number', least: 1, most: 17 }, 18, 'It can’t be more than 17.'],
    [{ ...base, kind: 'number', whole: true }, 1.5, 'Please answer with a whole number.'],
    [{ ...base, kind: 'number' }, 'seven', 'Please answer with a number.'],
    [
      { ...base, kind: 'scale', least: 0, most: 10, leastName: '', mostName: '' },
      -1,
      'It can’t be less than 0.',
    ],
    [{ ...base, kind: 'date' }, '2026-02-30', 'Please give a date, as 24 November 2026.'],
    [
      { ...base, kind: 'url' },
      'javascript:alert(1)',
      'Please give a web address, as example.org or https://example.org.',
    ],
    [{ ...base, kind: 'url' }, 'https://example.org/a?b', undefined],
    [{ ...base, kind: 'short' }, 'x'.repeat(501), 'Please keep it under 500 characters.'],
  ]
  it.each(cases)('%j answered %j: %s', (question, value, expected) => {
    expect(said(problemWith(question, value))).toBe(expected)
  })

  it('writes answers as people read them', () => {
    expect(answerWords({ ...base, kind: 'several', choices }, ['x', 'y'])).toBe('Ex, Why')
    expect(answerWords({ ...base, kind: 'number', unit: 'years' }, 9)).toBe('9 years')
    expect(answerWords({ ...base, kind: 'yesno' }, false)).toBe('No')
    expect(answerWords({ ...base, kind: 'short' }, undefined)).toBe('—')
  })
})

describe('reading', () => {
  it('makes the quote of the worked example', () => {
    const service = sampleService({
      minutes: 20,
      leastMinutes: 55,
      lengthStep: 5,
      price: { kind: 'hourly', rate: 7_200 },
    })
    const always: Condition = { all: [] }
    const questionnaire = sheet(
      [
        { id: 'm', name: 'M', when: always, effect: { do: 'minutes', minutes: 12, times: 'pages' } },
        {
          id: 'i',
          name: 'I',
          when: always,
          effect: { do: 'item', name: 'Page', price: 750, times: 'pages' },
        },
      ],
      { questions: [number('pages')] },
    )
    const { quote } = readAnswers(service, questionnaire, { pages: 4 }, newcomer)
    expect(quote).toEqual({
      minutes: 70,
      price: 11_400,
      deposit: 0,
      lines: [
        { name: 'First conversation', quantity: 1, amount: 8_400 },
        { name: 'Page', quantity: 4, amount: 3_000 },
      ],
    })
    expect(readAnswers(service, questionnaire, {}, newcomer).quote.minutes).toBe(55)
  })

  it('reckons with numbers as they are written, in decimals', () => {
    const pages: Question = { id: 'n', kind: 'number', text: 'How many?', required: true }
    const half: Question = {
      id: 'c',
      kind: 'several',
      text: 'Which?',
      required: false,
      choices: [
        { id: 'x', text: 'X', points: 0.7 },
        { id: 'y', text: 'Y', points: 0.1 },
      ],
    }
    const sheet: Questionnaire = {
      id: 'q',
      name: 'Q',
      version: 1,
      questions: [pages, half],
      rules: [
        {
          id: 'a',
          name: 'A',
          when: { all: [] },
          effect: { do: 'item', name: 'Page', price: 110, times: 'n' },
        },
        { id: 'b', name: 'B', when: { all: [] }, effect: { do: 'minutes', minutes: 10, times: 'n' } },
      ],
      bands: [{ from: 0.8, outcome: 'look' }],
    }
    const one = sampleService({ minutes: 10, lengthStep: 1, price: { kind: 'free' } })
    // 1.15 × 1.10 is 1.265, which a machine's own numbers make 1.26; 10 × 1.1 is 11, and not a little more.
    expect(readAnswers(one, sheet, { n: 1.15 }, newcomer).quote.lines).toEqual([
      { name: 'Page', quantity: 1.15, amount: 127 },
    ])
    expect(readAnswers(one, sheet, { n: 1.1 }, newcomer).quote.minutes).toBe(21)
    expect(readAnswers(one, sheet, { n: 1, c: ['x', 'y'] }, newcomer)).toMatchObject({
      points: 0.8,
      outcome: 'look',
    })
  })

  it('fires every rule in order, and the worst outcome counts', () => {
    const questionnaire = sheet(
      [
        { id: '1', name: 'Look', when: is('n', '≥', 1), effect: { do: 'look', note: 'note' } },
        {
          id: '2',
          name: 'Close',
          when: is('n', '≥', 2),
          effect: { do: 'close', message: 'Kindly no', services: [], enquiry: true },
        },
        { id: '3', name: 'Tag', when: is('n', '≥', 1), effect: { do: 'tag', tag: 't' } },
        { id: '4', name: 'Other', when: is('n', '≥', 1), effect: { do: 'suggest', service: 'x' } },
        { id: '5', name: 'Deposit', when: is('n', '≥', 1), effect: { do: 'deposit', amount: 300 } },
      ],
      { questions: [number('n')] },
    )
    const priced = sampleService({ price: { kind: 'fixed', amount: 5_000 } })
    const read = (n: number) => readAnswers(priced, questionnaire, { n }, newcomer)
    expect(read(0)).toMatchObject({ outcome: 'fits', reasons: [], tags: [] })
    // Nobody pays more beforehand than in the end.
    expect(readAnswers(sampleService(), questionnaire, { n: 1 }, newcomer).quote.deposit).toBe(0)
    expect(read(1)).toMatchObject({ outcome: 'look', tags: ['t'], suggested: ['x'], quote: { deposit: 300 } })
    expect(read(2)).toMatchObject({ outcome: 'closed', kind: { message: 'Kindly no' } })
    expect(read(2).reasons.map((reason) => [reason.rule, reason.questions])).toEqual([
      ['1', ['n']],
      ['2', ['n']],
    ])
  })

  it('decides by bands of points and by value', () => {
    const points = (n: number): Rule => ({
      id: `p${n}`,
      name: 'P',
      when: is('n', '≥', n),
      effect: { do: 'points', points: 2 },
    })
    const questionnaire = sheet([points(1), points(2), points(3)], {
      questions: [number('n')],
      bands: [
        { from: 4, outcome: 'look' },
        { from: 6, outcome: 'closed' },
      ],
      lookAbove: 5_000,
      enquiryAbove: 9_000,
    })
    const free = sampleService({ price: { kind: 'free' } })
    expect([1, 2, 3].map((n) => readAnswers(free, questionnaire, { n }, newcomer).outcome)).toEqual([
      'fits',
      'look',
      'closed',
    ])
    const at = (amount: number) =>
      readAnswers(sampleService({ price: { kind: 'fixed', amount } }), questionnaire, {}, newcomer)
    expect(
      [at(5_000), at(5_001), at(9_001)].map((reading) => [reading.outcome, reading.enquiryInstead]),
    ).toEqual([
      ['fits', false],
      ['look', false],
      ['look', true],
    ])
  })

  it('ignores rules on answers that are no longer asked', () => {
    const questionnaire = sheet(
      [{ id: '1', name: 'Look', when: is('b', '=', true), effect: { do: 'look', note: '' } }],
      {
        questions: [
          { id: 'a', kind: 'yesno', text: 'A', required: true },
          { id: 'b', kind: 'yesno', text: 'B', required: true, when: is('a', '=', true) },
        ],
      },
    )
    expect(readAnswers(sampleService(), questionnaire, { a: false, b: true }, newcomer).outcome).toBe('fits')
  })
})

describe('what is added', () => {
  const service = sampleService({
    minutes: 50,
    lengthStep: 5,
    price: { kind: 'fixed', amount: 6_800 },
    extras: [
      { id: 'recording', name: 'A recording', minutes: 0, price: 1_200 },
      { id: 'warm-up', name: 'A longer warm-up', minutes: 12, price: 900 },
    ],
  })
  const travel = { id: 'round', name: 'Around Coimbra', surcharge: 1_500, clear: 30, postalCodes: ['31'] }

  it('lengthens the session and adds a line each, in the order of the service', () => {
    const { quote } = readAnswers(service, undefined, {}, newcomer, {
      extras: ['warm-up', 'recording', 'nothing-like-it'],
      travel,
      whole: false,
    })
    expect(quote.minutes).toBe(65)
    expect(quote.lines.map((line) => [line.name, line.amount])).toEqual([
      [service.name, 6_800],
      ['A recording', 1_200],
      ['A longer warm-up', 900],
      ['Around Coimbra', 1_500],
    ])
    expect(quote.price).toBe(10_400)
  })

  it('counts towards the value from which the practitioner looks', () => {
    const questionnaire = sheet([], { lookAbove: 7_500 })
    const outcome = (extras: string[]) =>
      readAnswers(service, questionnaire, {}, newcomer, { ...plainly, extras }).outcome
    expect([outcome([]), outcome(['recording'])]).toEqual(['fits', 'look'])
  })
})

describe('reading many', () => {
  it('asks and decides as the plain definition does, question by question', () => {
    fc.assert(
      fc.property(
        questionnaireArb(3),
        fc.nat(),
        fc.record({
          standing: fc.constantFrom('new' as const, 'known' as const),
          invited: fc.boolean(),
          tags: fc.constantFrom([], ['t']),
          attempts: fc.nat(2),
        }),
        (questionnaire, pick, asking) => {
          // Answers of any way, also to what is not asked on this one.
          const ways = everyWay({
            ...questionnaire,
            questions: questionnaire.questions.map(({ when: _, ...one }) => one) as Question[],
          })
          const given = ways[pick % ways.length]!
          const { answers } = asked(questionnaire.questions, given, asking)
          const ready = compiled(questionnaire)
          const values = valuesOf(ready, given, asking)
          expect(
            Object.fromEntries(
              ready.ids.flatMap((id, i) => (values[i] === undefined ? [] : [[id, values[i]]])),
            ),
          ).toEqual(answers)
          for (const { rule, test } of ready.rules)
            expect(test(values, asking)).toBe(holds(rule.when, answers, asking))
        },
      ),
      { numRuns: 400 },
    )
  })
})
