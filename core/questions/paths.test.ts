import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  bruteForce,
  everyWay,
  largeQuestionnaire,
  questionnaireArb,
  typedQuestionnaireArb,
  VERY_MUCH,
} from '../tests/questionnaires.ts'
import { sampleService } from '../tests/sample.ts'
import {
  asked,
  type Condition,
  type Effect,
  isUnfinished,
  newcomer,
  problemsIn,
  type Question,
  type Questionnaire,
  type Rule,
  readAnswers,
} from './index.ts'
import { nearestChange } from './nearest.ts'
import { checkPaths, type Finding } from './paths.ts'

const service = sampleService({ minutes: 50, lengthStep: 5, price: { kind: 'fixed', amount: 5_000 } })
const hourly = sampleService({
  minutes: 20,
  leastMinutes: 25,
  lengthStep: 5,
  price: { kind: 'hourly', rate: 7_000 },
})

describe('the path check, against every way walked one by one', () => {
  it('reaches what is reached, fires what fires, and ends where the ways end', () => {
    fc.assert(
      fc.property(questionnaireArb(), fc.constantFrom(service, hourly), (questionnaire, of) => {
        const brute = bruteForce(questionnaire, of)
        const check = checkPaths(questionnaire, of)!
        expect(check.proven).toBe(true)
        expect(check.ways).toBe(brute.ways.length)
        for (const outcome of ['fits', 'look', 'closed', 'enquiry'] as const)
          expect(check.shares[outcome]).toBeCloseTo(brute.shares[outcome], 9)
        questionnaire.questions.forEach((question, i) => {
          expect(check.asked[i]).toBeCloseTo(brute.met.get(question.id) ?? 0, 9)
        })
        expect([check.shortest, check.longest]).toEqual([
          Math.min(...brute.lengths),
          Math.max(...brute.lengths),
        ])
        if (brute.minutes.length > 0) {
          expect(check.minutes).toEqual({
            least: Math.min(...brute.minutes),
            most: Math.max(...brute.minutes),
          })
          expect(check.price).toEqual({ least: Math.min(...brute.prices), most: Math.max(...brute.prices) })
        }
        // People of other standing may reach more; nothing a newcomer reaches is called unreachable.
        for (const finding of check.findings) {
          if (finding.kind === 'never-asked' || finding.kind === 'hidden-required')
            expect(brute.reached).not.toContain(finding.question)
          if (finding.kind === 'never-fires') expect(brute.fired).not.toContain(finding.rule)
        }
        const personal = /"person"/.test(JSON.stringify(questionnaire))
        if (!personal) {
          const unreached = questionnaire.questions
            .filter((question) => !brute.reached.has(question.id))
            .map((question) => question.id)
          const found = check.findings.flatMap((finding) =>
            finding.kind === 'never-asked' || finding.kind === 'hidden-required' ? [finding.question] : [],
          )
          expect(found).toEqual(unreached)
          const idle = questionnaire.rules
            .filter((rule) => !brute.fired.has(rule.id) && !isUnfinished(rule))
            .map((rule) => rule.id)
          expect(
            check.findings.flatMap((finding) => (finding.kind === 'never-fires' ? [finding.rule] : [])),
          ).toEqual(idle)
        }
      }),
      { numRuns: 600 },
    )
  }, 120_000)

  it('knows what can really be typed: fractions, days, times, texts, and what has no end', () => {
    const endless = (found: number): number => (found > VERY_MUCH / 2 ? Number.POSITIVE_INFINITY : found)
    fc.assert(
      fc.property(typedQuestionnaireArb(), fc.constantFrom(service, hourly), (questionnaire, of) => {
        const brute = bruteForce(questionnaire, of)
        fc.pre(brute.ways.length <= 20_000)
        const check = checkPaths(questionnaire, of)!
        for (const outcome of ['fits', 'look', 'closed', 'enquiry'] as const)
          if (check.proven || brute.shares[outcome] === 0)
            expect(check.shares[outcome] > 0, outcome).toBe(brute.shares[outcome] > 0)
        for (const [i, { id }] of questionnaire.questions.entries())
          expect(check.asked[i]! > 0, id).toBe((brute.met.get(id) ?? 0) > 0)
        if (check.proven && brute.minutes.length > 0) {
          expect(check.minutes).toEqual({
            least: Math.min(...brute.minutes),
            most: endless(Math.max(...brute.minutes)),
          })
          expect(check.price).toEqual({
            least: Math.min(...brute.prices),
            most: endless(Math.max(...brute.prices)),
          })
        }
        const idle = check.findings.flatMap((finding) =>
          finding.kind === 'never-fires' ? [finding.rule] : [],
        )
        if (!/"person"/.test(JSON.stringify(questionnaire)))
          expect(idle).toEqual(
            questionnaire.rules
              .filter((rule) => !brute.fired.has(rule.id) && !isUnfinished(rule))
              .map(({ id }) => id),
          )
        for (const answers of Object.values(check.examples))
          expect(problemsIn(questionnaire.questions, answers, newcomer)).toEqual([])
      }),
      { numRuns: 600 },
    )
  }, 120_000)

  it('names the nearest number, and whether all beyond it would do', () => {
    const years: Question = { id: 'o', kind: 'number', text: 'How many?', required: true, whole: true }
    const above = rule('r', { question: 'o', is: '>', value: 8 }, close)
    const only = rule('s', { question: 'o', is: '<', value: 5 }, close)
    const near = (rules: Rule[], o: number) => nearestChange(service, sheet([years], rules), { o }, newcomer)
    expect(near([above], 30)).toEqual([{ question: 'o', from: 30, to: 8, beyond: 'less' }])
    expect(near([above, only], 30)).toEqual([{ question: 'o', from: 30, to: 8 }])
    expect(near([above, only], 1)).toEqual([{ question: 'o', from: 1, to: 5 }])
  })

  it('gives as an example of each end answers that are read so', () => {
    fc.assert(
      fc.property(questionnaireArb(), (questionnaire) => {
        const { examples } = checkPaths(questionnaire, service)!
        for (const [end, answers] of Object.entries(examples)) {
          const { outcome, enquiryInstead } = readAnswers(service, questionnaire, answers, newcomer)
          expect(outcome !== 'closed' && enquiryInstead ? 'enquiry' : outcome).toBe(end)
        }
      }),
      { numRuns: 300 },
    )
  }, 60_000)

  it('finds the nearest change, never farther and never nearer than any way', () => {
    fc.assert(
      fc.property(questionnaireArb(4), fc.nat(), (questionnaire, pick) => {
        const ways = everyWay(questionnaire)
        const given = ways[pick % ways.length]!
        const found = nearestChange(service, questionnaire, given, newcomer)
        const fits = (answers: (typeof ways)[number]): boolean => {
          const { outcome, enquiryInstead } = readAnswers(service, questionnaire, answers, newcomer)
          return outcome === 'fits' && !enquiryInstead
        }
        if (readAnswers(service, questionnaire, given, newcomer).outcome === 'fits') {
          expect(found).toBeUndefined()
          return
        }
        const distance = (answers: (typeof ways)[number]): number =>
          questionnaire.questions.filter(
            ({ id }) =>
              JSON.stringify(answers[id]) !== JSON.stringify(given[id]) &&
              // An answer that is dropped because its question is no longer asked is no change of mind.
              !(answers[id] === undefined && !isAsked(questionnaire, answers, id)),
          ).length
        const distances = ways.filter(fits).map(distance)
        if (distances.length === 0) expect(found).toBeUndefined()
        else expect(found).toHaveLength(Math.min(...distances))
      }),
      { numRuns: 500 },
    )
  }, 120_000)
})

const isAsked = (
  questionnaire: Questionnaire,
  answers: ReturnType<typeof everyWay>[number],
  id: string,
): boolean =>
  asked(questionnaire.questions, answers, newcomer).questions.some((question) => question.id === id)

const yes = (id: string, more: Partial<Question> = {}): Question =>
  ({ id, kind: 'yesno', text: `Is it ${id}?`, required: true, ...more }) as Question
const is = (question: string, value: string | number | boolean): Condition => ({ question, is: '=', value })
const rule = (id: string, when: Condition, effect: Rule['effect']): Rule => ({ id, name: id, when, effect })
const sheet = (
  questions: Question[],
  rules: Rule[] = [],
  more: Partial<Questionnaire> = {},
): Questionnaire => ({
  id: 'q',
  name: 'Q',
  version: 1,
  questions,
  rules,
  bands: [],
  ...more,
})
const close: Effect = { do: 'close', message: 'Not now.', services: [], enquiry: true }
const kinds = (questionnaire: Questionnaire): string[] =>
  checkPaths(questionnaire, service)!.findings.map(({ kind, question, rule: of, choices }: Finding) =>
    `${kind} ${question ?? of ?? ''}${choices ? `/${choices.join('+')}` : ''}`.trim(),
  )

describe('what a path check finds', () => {
  it('questions and rules to which no way leads, and conditions that contradict themselves', () => {
    const both: Condition = { all: [is('a', true), { not: is('a', true) }] }
    expect(kinds(sheet([yes('a'), yes('b', { when: both })], [rule('r', is('b', true), close)]))).toEqual([
      'contradiction b',
      'hidden-required b',
      'never-fires r',
    ])
    // Each part can hold by itself, only not on one way: b is asked after a yes, c after a no.
    const c = yes('c', { required: false, when: { all: [is('a', false), is('b', true)] } })
    expect(kinds(sheet([yes('a'), yes('b', { when: is('a', true) }), c]))).toEqual(['never-asked c'])
  })

  it('rules that take off more than a session has, which is held at one step of its length', () => {
    const less: Effect = { do: 'minutes', minutes: -100 }
    const off = sheet([yes('a')], [rule('r', is('a', true), less)])
    const found = checkPaths(off, service)!.findings.find((finding) => finding.kind === 'too-short')
    expect(found).toMatchObject({ grade: 'error', message: expect.stringContaining('come to -50 minutes') })
    expect(readAnswers(service, off, { a: true }, newcomer).quote).toMatchObject({ minutes: 5, price: 5_000 })
    expect(checkPaths(off, service)!.minutes).toEqual({ least: 5, most: 50 })
  })

  it('what lies between two numbers, two days, two minutes, and what no text can be', () => {
    const number = (more: Partial<Question>): Question =>
      ({ id: 'o', kind: 'number', text: 'How much?', required: true, ...more }) as Question
    const fires = (question: Question, when: Condition): boolean =>
      !kinds(sheet([question], [rule('r', when, { do: 'tag', tag: 't' })])).includes('never-fires r')
    const between = (least: string | number, most: string | number): Condition => ({
      all: [
        { question: 'o', is: '>', value: least },
        { question: 'o', is: '<', value: most },
      ],
    })
    expect(fires(number({ least: 0, most: 10 }), between(3, 3.4))).toBe(true)
    expect(fires(number({ least: 0, most: 10, whole: true }), between(3, 3.4))).toBe(false)
    const typed = (kind: 'date' | 'time' | 'long', more = {}): Question =>
      ({ id: 'o', kind, text: 'What?', required: true, ...more }) as Question
    expect(fires(typed('date'), between('2028-02-28', '2028-03-01'))).toBe(true)
    expect(fires(typed('date'), between('2028-02-28', '2028-02-29'))).toBe(false)
    expect(fires(typed('time'), { not: { question: 'o', is: '≤', value: '23:59' } })).toBe(false)
    expect(fires(typed('long', { leastWords: 3 }), is('o', 'hello'))).toBe(false)
    expect(fires(typed('long', { leastWords: 3 }), is('o', 'hello to you'))).toBe(true)
  })

  it('the greatest length where a number may be a fraction, and that there is none where it has no end', () => {
    const hours = (more: object): Question =>
      ({ id: 'o', kind: 'number', text: 'How many?', required: true, ...more }) as Question
    const longer = (minutes: number): Rule => rule('m', { all: [] }, { do: 'minutes', minutes, times: 'o' })
    const two = rule('r', { question: 'o', is: '≥', value: 2 }, close)
    const few = sampleService({ minutes: 20, lengthStep: 1, price: { kind: 'free' } })
    // 1.9 gives 39 minutes, and 1.95 half a minute more, which is rounded up.
    expect(checkPaths(sheet([hours({ least: 0 })], [two, longer(10)]), few)?.minutes).toEqual({
      least: 20,
      most: 40,
    })
    const endless = checkPaths(sheet([hours({ least: 0 })], [longer(5)]), few)!
    expect(endless.minutes).toEqual({ least: 20, most: Number.POSITIVE_INFINITY })
    expect(endless.findings).toEqual([
      expect.objectContaining({
        kind: 'without-end',
        question: 'o',
        message: expect.stringContaining('without end'),
      }),
    ])
  })

  it('that it does not know what a price between two ends comes to', () => {
    const far: Question = { id: 'o', kind: 'number', text: 'How far?', required: true, least: 0, most: 900 }
    const dearer = rule('r', { all: [] }, { do: 'item', name: 'Way', price: 50, times: 'o' })
    const check = checkPaths(sheet([far], [dearer], { lookAbove: 9_000, enquiryAbove: 20_000 }), service)!
    expect(check).toMatchObject({ proven: false, price: { least: 5_000, most: 50_000 } })
    expect(check.findings.map(({ kind }) => kind)).toEqual(['unproven'])
  })

  it('a questionnaire that closes everybody', () => {
    const rules = [rule('yes', is('a', true), close), rule('no', is('a', false), close)]
    expect(kinds(sheet([yes('a')], rules))).toEqual(['closes-everybody'])
  })

  it('choices without effect, where some other has one', () => {
    const question: Question = {
      id: 'a',
      kind: 'one',
      text: 'Which?',
      required: true,
      choices: ['x', 'y', 'z'].map((id) => ({ id, text: id })),
    }
    expect(kinds(sheet([question], [rule('r', is('a', 'x'), close)]))).toEqual(['no-effect a/y+z'])
    expect(kinds(sheet([question]))).toEqual([])
  })

  it('what is asked in any case, or twice', () => {
    const short = (id: string, text: string): Question => ({ id, kind: 'short', text, required: false })
    expect(
      kinds(
        sheet([
          short('a', 'Your mail address'),
          short('b', 'What brings you?'),
          short('c', 'What brings you'),
        ]),
      ),
    ).toEqual(['known-already a', 'known-already c'])
  })

  it('nothing of what only known people are asked', () => {
    expect(
      kinds(sheet([yes('a', { when: { person: 'known' } }), yes('b', { when: { tag: 'choir' } })])),
    ).toEqual([])
  })

  it('says what it could not prove, and stops when it is told to', () => {
    const big = (id: string): Question => ({
      id,
      kind: 'several',
      text: id,
      required: true,
      choices: Array.from({ length: 14 }, (_, i) => ({ id: `c${i}`, text: `C${i}` })),
    })
    const rules = Array.from({ length: 14 }, (_, i) =>
      rule(`r${i}`, { question: 'a', is: 'includes', value: `c${i}` }, { do: 'points', points: 1 }),
    )
    const check = checkPaths(sheet([big('a')], rules), service)!
    expect(check.proven).toBe(false)
    expect(check.findings.map((finding) => finding.kind)).toEqual(['unproven'])
    expect(checkPaths(sheet([yes('a'), yes('b')]), service, () => false)).toBeUndefined()
  })
})

it('proves sixty questions with eight levels of follow-up and twenty-five rules in few states', () => {
  const check = checkPaths(largeQuestionnaire(), service)!
  expect(check.proven).toBe(true)
  expect(check.ways).toBeGreaterThan(1e12)
  expect(check.states).toBeLessThan(200_000)
  console.log(`      ${check.states} states for ${check.ways.toExponential(2)} ways`)
}, 60_000)

it('proves five hundred questions, each asked after the one before', () => {
  const questions = Array.from({ length: 500 }, (_, i) =>
    yes(`q${i}`, i > 0 ? { when: is(`q${i - 1}`, true) } : {}),
  )
  const check = checkPaths(sheet(questions, [rule('r', is('q499', true), close)]), service)!
  expect(check).toMatchObject({ proven: true, ways: 501, shortest: 1, longest: 500 })
  expect(check.shares.closed).toBeCloseTo(1 / 501, 12)
}, 60_000)
