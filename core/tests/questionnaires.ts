import fc from 'fast-check'
import type { Service } from '../practice/index.ts'
import {
  type Answers,
  type AnswerValue,
  asked,
  type Band,
  type Condition,
  type Effect,
  holds,
  newcomer,
  problemWith,
  type Question,
  type Questionnaire,
  readAnswers,
} from '../questions/index.ts'

/** Small random questionnaires, for whose every way there is time. */
const comparison = (question: Question): fc.Arbitrary<Condition> => {
  const answered = fc.constant<Condition>({ question: question.id, is: 'answered' })
  switch (question.kind) {
    case 'one':
      return fc.oneof(
        answered,
        fc.record({
          question: fc.constant(question.id),
          is: fc.constantFrom('=' as const, '≠' as const),
          value: fc.constantFrom(...question.choices.map((choice) => choice.id)),
        }),
      )
    case 'several':
      return fc.record({
        question: fc.constant(question.id),
        is: fc.constant('includes' as const),
        value: fc.constantFrom(...question.choices.map((choice) => choice.id)),
      })
    case 'items':
      return fc.oneof(
        fc.record({
          question: fc.constant(question.id),
          is: fc.constant('includes' as const),
          value: fc.constantFrom(...question.items.map((item) => item.id)),
        }),
        fc.record({
          question: fc.constant(question.id),
          is: fc.constantFrom('<' as const, '≥' as const, '=' as const),
          value: fc.integer({ min: 0, max: 4 }),
        }),
      )
    case 'section':
      return fc.constant<Condition>({ question: question.id, is: 'answered' })
    case 'yesno':
      return fc.record({
        question: fc.constant(question.id),
        is: fc.constantFrom('=' as const, '≠' as const),
        value: fc.boolean(),
      })
    case 'date':
      return ordered(question.id, fc.constantFrom(...DAYS))
    case 'time':
      return ordered(question.id, fc.constantFrom(...TIMES))
    case 'number':
      return ordered(
        question.id,
        question.whole ? fc.integer({ min: -1, max: 4 }) : fc.constantFrom(...FRACTIONS),
      )
    case 'long':
    case 'short':
    case 'email':
      return fc.oneof(
        answered,
        fc.record({
          question: fc.constant(question.id),
          is: fc.constant('=' as const),
          value: fc.constantFrom('hello', 'hello to all of you', 'a@example.org'),
        }),
      )
    default:
      return fc.record({
        question: fc.constant(question.id),
        is: fc.constantFrom('<' as const, '≤' as const, '>' as const, '≥' as const, '=' as const),
        value: fc.integer({ min: 0, max: 4 }),
      })
  }
}

const ordered = <T extends string | number>(
  question: string,
  value: fc.Arbitrary<T>,
): fc.Arbitrary<Condition> =>
  fc.record({
    question: fc.constant(question),
    is: fc.constantFrom('<' as const, '≤' as const, '>' as const, '≥' as const, '=' as const, '≠' as const),
    value,
  })

/** Edges of what can be typed: neighbouring days around a leap day, the ends of a day, fractions. */
const DAYS = ['2028-02-28', '2028-02-29', '2028-03-01', '2028-03-03']
const TIMES = ['00:00', '00:01', '12:00', '23:58', '23:59']
const FRACTIONS = [-0.5, 0, 0.1, 0.3, 1.9, 2, 3.4]

export function conditionOn(questions: readonly Question[], depth = 2): fc.Arbitrary<Condition> {
  const leaf = fc.oneof(
    ...questions.map(comparison),
    fc.constant<Condition>({ person: 'new' }),
    fc.constant<Condition>({ person: 'known' }),
  )
  if (depth === 0) return leaf
  const inner = conditionOn(questions, depth - 1)
  return fc.oneof(
    { weight: 3, arbitrary: leaf },
    fc.array(inner, { maxLength: 3 }).map((all) => ({ all })),
    fc.array(inner, { maxLength: 3 }).map((any) => ({ any })),
    inner.map((not) => ({ not })),
  )
}

const choices = (n: number) => Array.from({ length: n }, (_, i) => ({ id: `c${i}`, text: `C${i}` }))
const scored = (n: number) => choices(n).map((choice, points) => ({ ...choice, points }))
const items = (n: number) =>
  Array.from({ length: n }, (_, i) => ({ id: `i${i}`, text: `I${i}`, most: 2 - (i % 2) }))
const questionArb = (id: string): fc.Arbitrary<Question> =>
  fc.tuple(fc.boolean(), fc.integer({ min: 2, max: 3 })).chain(([required, n]) => {
    const base = { id, text: id, required }
    return fc.constantFrom<Question>(
      { ...base, kind: 'one', choices: choices(n) },
      { ...base, kind: 'several', choices: choices(n), ...(n === 3 ? { least: 1, most: 2 } : {}) },
      { ...base, kind: 'yesno' },
      { ...base, kind: 'scale', least: 1, most: n, leastName: '', mostName: '' },
      { ...base, kind: 'number', whole: true, least: 0, most: n },
      { ...base, kind: 'one', choices: scored(n) },
      { ...base, kind: 'items', items: items(n), ...(n === 3 ? { least: 2, most: 4 } : {}) },
      { ...base, required: false, kind: 'section' },
    )
  })

const effectArb = (numbers: { times: string; of?: string }[]): fc.Arbitrary<Effect> => {
  const times = numbers.length > 0 ? fc.option(fc.constantFrom(...numbers), { nil: {} }) : fc.constant({})
  return fc.oneof(
    fc.constant<Effect>({ do: 'close', message: '', services: [], enquiry: true }),
    fc.constant<Effect>({ do: 'look', note: '' }),
    fc.constant<Effect>({ do: 'enquiry' }),
    fc.constant<Effect>({ do: 'tell', text: 'A word.' }),
    fc.integer({ min: -1, max: 3 }).map((points): Effect => ({ do: 'points', points })),
    fc
      .tuple(fc.constantFrom(-10, 7, 15), times)
      .map(([minutes, of]): Effect => ({ do: 'minutes', minutes, ...of })),
    fc
      .tuple(fc.constantFrom(500, 1_250), times)
      .map(([price, of]): Effect => ({ do: 'item', name: 'I', price, ...of })),
  )
}

const maybe = <T>(arb: fc.Arbitrary<T>) => fc.option(arb, { nil: undefined, freq: 2 })

/** A random questionnaire of at most `most` questions. */
export const questionnaireArb = (most = 5, of = questionArb): fc.Arbitrary<Questionnaire> =>
  fc
    .integer({ min: 1, max: most })
    .chain((count) => fc.tuple(...Array.from({ length: count }, (_, i) => of(`q${i}`))))
    .chain((plain) =>
      fc.record({
        whens: fc.tuple(
          ...plain.map((_, i) => (i === 0 ? fc.constant(undefined) : maybe(conditionOn(plain.slice(0, i))))),
        ),
        rules: fc.array(
          fc.tuple(
            conditionOn(plain),
            effectArb(
              plain.flatMap((question) => {
                if (question.kind === 'items')
                  return [{ times: question.id }, { times: question.id, of: 'i1' }]
                return question.kind === 'number' || question.kind === 'scale' ? [{ times: question.id }] : []
              }),
            ),
          ),
          { maxLength: 4 },
        ),
        bands: maybe(
          fc.record({ from: fc.integer({ min: 1, max: 4 }), outcome: fc.constantFrom('look', 'closed') }),
        ),
        lookAbove: maybe(fc.constantFrom(5_000, 6_000)),
        enquiryAbove: maybe(fc.constantFrom(6_000, 8_000)),
        plain: fc.constant(plain),
      }),
    )
    .map(({ plain, whens, rules, bands, lookAbove, enquiryAbove }) => ({
      id: 'q',
      name: 'Q',
      version: 1,
      questions: plain.map((question, i) => ({ ...question, ...(whens[i] ? { when: whens[i] } : {}) })),
      rules: rules.map(([when, effect], i) => ({ id: `r${i}`, name: `R${i}`, when, effect })),
      bands: bands ? [bands as Band] : [],
      ...(lookAbove === undefined ? {} : { lookAbove }),
      ...(enquiryAbove === undefined ? {} : { enquiryAbove }),
    }))

/** Questions that are answered with what is typed: more answers than can be counted. */
const typedArb = (id: string): fc.Arbitrary<Question> =>
  fc.boolean().chain((required) => {
    const base = { id, text: id, required }
    return fc.constantFrom<Question>(
      { ...base, kind: 'number', least: 0, most: 3 },
      { ...base, kind: 'number', least: 0.25, most: 2.5 },
      { ...base, kind: 'number', least: -1 },
      { ...base, kind: 'number' },
      { ...base, kind: 'number', whole: true, least: 0, most: 1_000 },
      { ...base, kind: 'number', whole: true },
      { ...base, kind: 'date' },
      { ...base, kind: 'time' },
      { ...base, kind: 'short' },
      { ...base, kind: 'email' },
      { ...base, kind: 'long', leastWords: 3 },
      { ...base, kind: 'long', mostWords: 1 },
      { ...base, kind: 'long', leastSentences: 2, mostWords: 4 },
    )
  })

/** A random questionnaire in which things are typed. */
export const typedQuestionnaireArb = (most = 3): fc.Arbitrary<Questionnaire> =>
  questionnaireArb(most, (id) => fc.oneof({ weight: 3, arbitrary: typedArb(id) }, questionArb(id)))

/** Far beyond whatever is compared in tests: it stands for what has no end. */
export const VERY_MUCH = 100_000_000
const LITTLE = 1e-7

/** Answers to a question in which something is typed: around whatever it may be compared with, and some others. */
function typedAnswers(question: Question): AnswerValue[] | undefined {
  switch (question.kind) {
    case 'number': {
      const { least = -VERY_MUCH, most = VERY_MUCH, whole } = question
      const cuts = [...FRACTIONS, -1, 0, 1, 2, 3, 4, least, most]
      const around = cuts.flatMap((cut) =>
        whole ? [cut - 1, cut, cut + 1] : [cut - LITTLE, cut, cut + LITTLE],
      )
      const between = whole ? [] : Array.from({ length: 46 }, (_, i) => i / 10 - 1 + 0.05)
      return [...new Set([...around, ...between])].filter((n) => !whole || Number.isInteger(n))
    }
    case 'date':
      return Array.from({ length: 8 }, (_, i) =>
        new Date(Date.UTC(2028, 1, 26 + i)).toISOString().slice(0, 10),
      )
    case 'time':
      return [
        '00:00',
        '00:01',
        '00:02',
        '11:59',
        '12:00',
        '12:01',
        '23:57',
        '23:58',
        '23:59',
        '24:00',
        '23:59~',
      ]
    case 'short':
    case 'email':
    case 'long':
      return [
        'hello',
        'hello to all of you',
        'a@example.org',
        'bye',
        'b@example.org',
        'One. And two of it.',
        'So. It',
      ]
    default:
      return undefined
  }
}

/** Every answer of a question, one by one; of those that are typed, some of each kind that something may tell apart. */
function everyAnswer(question: Question): AnswerValue[] {
  const typed =
    question.kind === 'number' && question.whole && (question.most ?? 99) < 9
      ? undefined
      : typedAnswers(question)
  if (typed) return typed.filter((value) => problemWith(question, value) === undefined)
  switch (question.kind) {
    case 'one':
      return question.choices.map((choice) => choice.id)
    case 'yesno':
      return [true, false]
    case 'several': {
      const ids = question.choices.map((choice) => choice.id)
      const all = Array.from({ length: 2 ** ids.length }, (_, mask) => ids.filter((_, i) => mask & (1 << i)))
      const least = Math.max(1, question.least ?? 1)
      return all.filter((other) => other.length >= least && other.length <= (question.most ?? ids.length))
    }
    case 'items': {
      const { least = 1, most = 99, items } = question
      const sets = items.reduce<Record<string, number>[]>(
        (all, item) =>
          all.flatMap((set) => Array.from({ length: item.most + 1 }, (_, n) => ({ ...set, [item.id]: n }))),
        [{}],
      )
      const sum = (set: Record<string, number>): number => Object.values(set).reduce((a, b) => a + b, 0)
      return sets.filter((set) => sum(set) >= Math.max(1, least) && sum(set) <= most)
    }
    case 'scale':
    case 'number':
      return Array.from({ length: question.most! - question.least! + 1 }, (_, i) => question.least! + i)
    default:
      return ['words']
  }
}

/** Every way through a questionnaire for a newcomer, one by one: the plain, slow reading of what a way is. */
export function everyWay(questionnaire: Questionnaire): Answers[] {
  let ways: Answers[] = [{}]
  let part: Condition | undefined
  for (const question of questionnaire.questions) {
    if (question.kind === 'section') {
      part = question.when
      continue
    }
    ways = ways.flatMap((answers) => {
      if (part && !holds(part, answers, newcomer)) return [answers]
      if (question.when && !holds(question.when, answers, newcomer)) return [answers]
      const given = everyAnswer(question).map((value) => ({ ...answers, [question.id]: value }))
      return question.required ? given : [...given, answers]
    })
  }
  return ways
}

/** What all ways come to, each read by itself. */
export function bruteForce(questionnaire: Questionnaire, service: Service) {
  const ways = everyWay(questionnaire)
  const shares = { fits: 0, look: 0, closed: 0, enquiry: 0 }
  const reached = new Set<string>()
  const fired = new Set<string>()
  const lengths: number[] = []
  const met = new Map<string, number>()
  const minutes: number[] = []
  const prices: number[] = []
  for (const answers of ways) {
    const on = asked(questionnaire.questions, answers, newcomer).questions
    for (const question of on) reached.add(question.id)
    lengths.push(on.filter((question) => question.kind !== 'section').length)
    for (const question of on) met.set(question.id, (met.get(question.id) ?? 0) + 1 / ways.length)
    for (const rule of questionnaire.rules) if (holds(rule.when, answers, newcomer)) fired.add(rule.id)
    const { outcome, enquiryInstead, quote } = readAnswers(service, questionnaire, answers, newcomer)
    shares[outcome !== 'closed' && enquiryInstead ? 'enquiry' : outcome] += 1 / ways.length
    if (outcome === 'closed') continue
    minutes.push(quote.minutes)
    prices.push(quote.price)
  }
  return { ways, shares, reached, met, fired, lengths, minutes, prices }
}

/** Sixty questions in chains of eight follow-ups, with twenty-five rules: beyond counting, and made without chance. */
export function largeQuestionnaire(): Questionnaire {
  const is = (question: string, value: boolean): Condition => ({ question, is: '=', value })
  const questions = Array.from({ length: 60 }, (_, i): Question => {
    // Each run of eight questions is a chain of follow-ups.
    const when = i % 8 === 0 ? {} : { when: is(`q${i - 1}`, true) }
    const base = { id: `q${i}`, text: `Q${i}`, ...when }
    // At the end of each chain one that nothing looks at, with many answers.
    if (i % 8 === 7) return { ...base, kind: 'several', required: false, choices: choices(7) }
    return { ...base, kind: 'yesno', required: i % 3 !== 0 }
  })
  const rules = Array.from({ length: 25 }, (_, i) => {
    const effects: Effect[] = [
      { do: 'look', note: '' },
      { do: 'points', points: 1 },
      { do: 'minutes', minutes: 5 },
      { do: 'item', name: 'I', price: 100 * (i + 1) },
    ]
    const when: Condition = { all: [is(`q${i * 2}`, true), { not: is(`q${i * 2 + 3}`, false) }] }
    return { id: `r${i}`, name: `R${i}`, when, effect: effects[i % 4]! }
  })
  return { id: 'large', name: 'Large', version: 1, questions, rules, bands: [{ from: 4, outcome: 'look' }] }
}
